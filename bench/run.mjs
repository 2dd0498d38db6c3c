// Runs one benchmark: node bench/run.mjs scenes | engine | import | board | large | health |
// measures | cells | clicks | picks | present | arrange | elements. Build the
// application first (npm run build).
import { mkdirSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";

const root = fileURLToPath(new URL("..", import.meta.url));
const name = process.argv[2] ?? "scenes";
mkdirSync(`${root}.check`, { recursive: true });
process.chdir(root);
await build({
  entryPoints: [`bench/${name}.ts`],
  outfile: `.check/bench-${name}.mjs`,
  bundle: true,
  platform: "node",
  format: "esm",
  packages: "external",
  alias: { "@": `${root}src` },
  logLevel: "warning",
});
await import(`${root}.check/bench-${name}.mjs`);
