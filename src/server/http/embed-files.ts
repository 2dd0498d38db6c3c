import { existsSync, readdirSync, readFileSync } from "node:fs";
import type { IncomingMessage, ServerResponse } from "node:http";
import { extname, join } from "node:path";
import { promisify } from "node:util";
import { brotliCompress, constants } from "node:zlib";

const TYPES: Record<string, string> = {
  ".js": "text/javascript; charset=utf-8",
  ".json": "application/json; charset=utf-8",
  ".ts": "text/plain; charset=utf-8",
  ".woff2": "font/woff2",
};
/** Under this address stand the modules that other pages load. */
export const EMBED_PREFIX = "/embed/";

const compress = promisify(brotliCompress);

/**
 * Answers requests for the modules of the elements, with all that stands beside them; gives whether it
 * answered. Only names that were found at the start mean a file.
 */
export function embedFiles(folder: string): (request: IncomingMessage, response: ServerResponse) => boolean {
  const names = existsSync(folder) ? readdirSync(folder, { recursive: true, encoding: "utf8" }) : [];
  const files = new Map(
    names.flatMap((name) => {
      const type = TYPES[extname(name)];
      return type ? [[EMBED_PREFIX + name.split("\\").join("/"), { path: join(folder, name), type }]] : [];
    }),
  );
  const packed = new Map<string, Promise<Buffer>>();
  return (request, response) => {
    if (request.method !== "GET" && request.method !== "HEAD") return false;
    const address = (request.url ?? "").split("?")[0];
    const file = files.get(address);
    if (!file) return false;
    const isText = extname(address) !== ".woff2";
    const isPacked = isText && /\bbr\b/.test(String(request.headers["accept-encoding"] ?? ""));
    const plain = readFileSync(file.path);
    const send = (body: Buffer) => {
      response.writeHead(200, {
        "content-type": file.type,
        "content-length": body.length,
        "cache-control": "no-cache",
        vary: "accept-encoding",
        ...(isPacked ? { "content-encoding": "br" } : {}),
      });
      response.end(request.method === "HEAD" ? undefined : body);
    };
    if (!isPacked) {
      send(plain);
      return true;
    }
    const params = { [constants.BROTLI_PARAM_SIZE_HINT]: plain.length };
    const packing = packed.get(address) ?? compress(plain, { params });
    packed.set(address, packing);
    packing.then(send, () => response.destroy());
    return true;
  };
}
