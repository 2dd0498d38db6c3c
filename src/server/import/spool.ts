import { once } from "node:events";
import { createWriteStream, readFileSync } from "node:fs";
import { HttpError } from "../http/errors";
import { settings } from "../settings";

/**
 * Writes a body to disk as it comes, up to the import limit (else a 413 HttpError). Gives the whole text when it has at most
 * `small` bytes, else null.
 */
export async function spool(body: AsyncIterable<Uint8Array>, path: string, small = 0): Promise<string | null> {
  const out = createWriteStream(path);
  let size = 0;
  try {
    for await (const chunk of body) {
      size += chunk.byteLength;
      if (size > settings.importLimit)
        throw new HttpError(
          413,
          "too_large",
          `The file is larger than ${settings.importLimit / 1e6} MB. Leave out columns or rows that no measure needs, or start Cavlo with a higher CAVLO_IMPORT_LIMIT_MB.`,
        );
      if (!out.write(chunk)) await once(out, "drain");
    }
  } finally {
    out.end();
    await once(out, "close");
  }
  return size <= small ? readFileSync(path, "utf8") : null;
}
