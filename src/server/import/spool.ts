import { createWriteStream, readFileSync } from "node:fs";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { HttpError } from "../http/errors";
import { settings } from "../settings";

/**
 * Writes a body to disk as it comes, up to the import limit (else a 413 HttpError). Gives the whole text when
 * it has at most `small` bytes, else null. Rejects at once where the disk takes no more.
 */
export async function spool(
  body: AsyncIterable<Uint8Array>,
  path: string,
  small = 0,
): Promise<string | null> {
  let size = 0;
  async function* bounded(): AsyncGenerator<Uint8Array> {
    for await (const chunk of body) {
      size += chunk.byteLength;
      if (size > settings.importLimit)
        throw new HttpError(
          413,
          "too_large",
          `The file is larger than ${settings.importLimit / 1e6} MB. Leave out columns or rows that no measure needs, or start Cavlo with a higher CAVLO_IMPORT_LIMIT_MB.`,
        );
      yield chunk;
    }
  }
  await pipeline(Readable.from(bounded(), { objectMode: false }), createWriteStream(path));
  return size <= small ? readFileSync(path, "utf8") : null;
}
