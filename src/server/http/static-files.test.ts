import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { brotliCompressSync } from "node:zlib";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { packedStatics } from "./static-files";

const folder = mkdtempSync(join(tmpdir(), "cavlo-static-"));
let server: Server;
let base = "";

beforeAll(async () => {
  mkdirSync(join(folder, "static", "chunks"), { recursive: true });
  writeFileSync(join(folder, "static", "chunks", "a.js"), "let a = 1;");
  writeFileSync(join(folder, "static", "chunks", "a.js.br"), brotliCompressSync("let a = 1;"));
  writeFileSync(join(folder, "static", "chunks", "b.js"), "let b = 1;");
  writeFileSync(join(folder, "secret.js.br"), "no");
  const send = packedStatics(folder);
  server = createServer((request, response) => {
    if (!send(request, response)) response.writeHead(404).end("the page server's");
  }).listen(0, "127.0.0.1");
  await new Promise((resolve) => server.once("listening", resolve));
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => {
  server.close();
  rmSync(folder, { recursive: true });
});

const get = (path: string, encoding = "gzip, br", method = "GET") =>
  fetch(base + path, { method, headers: { "accept-encoding": encoding } });

describe("packed files of the build", () => {
  it("are sent to who can unpack them, to be kept for ever", async () => {
    const answer = await get("/_next/static/chunks/a.js?v=1");
    expect(answer.headers.get("content-encoding")).toBe("br");
    expect(answer.headers.get("cache-control")).toContain("immutable");
    expect(answer.headers.get("content-type")).toContain("text/javascript");
    expect(await answer.text()).toBe("let a = 1;");
    expect((await get("/_next/static/chunks/a.js", "br", "HEAD")).status).toBe(200);
  });

  it.each([
    ["who cannot unpack them", "/_next/static/chunks/a.js", "gzip", "GET"],
    ["who refuses them", "/_next/static/chunks/a.js", "br;q=0, gzip", "GET"],
    ["what was not packed", "/_next/static/chunks/b.js", "br", "GET"],
    ["what lies outside", "/_next/static/../secret.js", "br", "GET"],
    ["what lies outside, written otherwise", "/_next/static/%2e%2e/secret.js", "br", "GET"],
    ["a packed file by its own name", "/_next/static/chunks/a.js.br", "br", "GET"],
    ["other methods", "/_next/static/chunks/a.js", "br", "POST"],
  ])("are left to the page server for %s", async (_, path, encoding, method) => {
    expect((await get(path, encoding, method)).status).toBe(404);
  });

  it("are none where there is no build", () => {
    expect(
      packedStatics(join(folder, "nowhere"))({ method: "GET", url: "/x", headers: {} } as never, {} as never),
    ).toBe(false);
  });
});
