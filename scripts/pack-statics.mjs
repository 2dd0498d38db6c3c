// Packs the scripts and styles of the build once, as small as they get; the server sends the packed files.
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { brotliCompressSync, constants } from "node:zlib";

const folder = fileURLToPath(new URL("../.next/static", import.meta.url));
for (const name of readdirSync(folder, { recursive: true })) {
  if (!/\.(js|css)$/.test(name)) continue;
  const text = readFileSync(join(folder, name));
  const params = { [constants.BROTLI_PARAM_QUALITY]: 11, [constants.BROTLI_PARAM_SIZE_HINT]: text.length };
  writeFileSync(join(folder, `${name}.br`), brotliCompressSync(text, { params }));
}
