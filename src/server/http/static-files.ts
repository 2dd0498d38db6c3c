import { createReadStream, existsSync, readdirSync, statSync } from "node:fs";
import type { IncomingMessage, ServerResponse } from "node:http";
import { extname, join } from "node:path";

const TYPES: Record<string, string> = {
  ".js": "text/javascript; charset=utf-8",
  ".css": "text/css; charset=utf-8",
};
const PREFIX = "/_next/static/";

/** The files of a build that stand packed beside themselves, by their address. */
function packedFiles(folder: string): Map<string, { path: string; type: string; size: number }> {
  if (!existsSync(folder)) return new Map();
  const names = readdirSync(folder, { recursive: true, encoding: "utf8" });
  return new Map(
    names.flatMap((name) => {
      const type = TYPES[extname(name.replace(/\.br$/, ""))];
      if (!name.endsWith(".br") || !type) return [];
      const path = join(folder, name);
      const address = PREFIX + name.slice(0, -3).split("\\").join("/");
      return [[address, { path, type, size: statSync(path).size }] as const];
    }),
  );
}

/**
 * Answers requests for scripts and styles of the build with the packed files that the build made (Brotli at
 * its best, which is too slow to do for each request). Gives whether it answered; others are the page
 * server's. Only addresses that were found at the start mean a file.
 */
export function packedStatics(
  buildFolder: string,
): (request: IncomingMessage, response: ServerResponse) => boolean {
  const files = packedFiles(join(buildFolder, "static"));
  return (request, response) => {
    if (request.method !== "GET" && request.method !== "HEAD") return false;
    const file = files.get((request.url ?? "").split("?")[0]);
    const accepts = String(request.headers["accept-encoding"] ?? "").split(/\s*,\s*/);
    if (!file || !accepts.some((a) => a === "br" || /^br;\s*q=(?!0(\.0*)?$)/.test(a))) return false;
    response.writeHead(200, {
      "content-type": file.type,
      "content-length": file.size,
      "content-encoding": "br",
      // Their names change with what is in them.
      "cache-control": "public, max-age=31536000, immutable",
      vary: "accept-encoding",
    });
    if (request.method === "HEAD") response.end();
    else
      createReadStream(file.path)
        .on("error", () => response.destroy())
        .pipe(response);
    return true;
  };
}
