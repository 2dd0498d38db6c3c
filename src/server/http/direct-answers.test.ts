import { mkdtempSync, rmSync } from "node:fs";
import { createServer, type Server } from "node:http";
import { type AddressInfo, connect } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { emptyProject } from "@/core/project/schema";
import { settings } from "../settings";
import { closeDatabase } from "../store/database";
import { createProject } from "../store/projects";
import { answeredDirectly } from "./direct-answers";

let server: Server;
let base = "";
let results = "";
const before = settings.data;

beforeAll(async () => {
  settings.data = mkdtempSync(join(tmpdir(), "cavlo-direct-"));
  server = createServer((request, response) => {
    if (!answeredDirectly(request, response)) response.writeHead(404).end("the page server's");
  }).listen(0, "127.0.0.1");
  await new Promise((resolve) => server.once("listening", resolve));
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  results = `/api/projects/${createProject(emptyProject("Direct")).id}/results`;
});
afterAll(() => {
  server.close();
  closeDatabase();
  rmSync(settings.data, { recursive: true });
  settings.data = before;
});

const ask = (path: string, body: string, encoding = "identity") =>
  fetch(base + path, { method: "POST", body, headers: { "accept-encoding": encoding } });
const one = { measures: [{ formula: "40 + 2", as: "answer" }] };
const asked = (many: number) => JSON.stringify({ queries: Array.from({ length: many }, () => one) });

describe("queries without the page server between", () => {
  it("are answered as they are by it, with what is wrong in them", async () => {
    const good = await ask(results, asked(1));
    expect(good.status).toBe(200);
    expect(good.headers.get("content-type")).toContain("application/json");
    expect((await good.json()).results[0].totals).toEqual({ answer: 42 });
    const broken = await ask(results, "{");
    expect([broken.status, (await broken.json()).error.code]).toEqual([400, "bad_json"]);
    const wrong = await ask(results, JSON.stringify({ queries: "all" }));
    expect([wrong.status, (await wrong.json()).error.field]).toEqual([400, "queries"]);
    for (const id of ["nobody", "..%2f..", "%00", "constructor"])
      expect((await ask(`/api/projects/${id}/results`, asked(1))).status).toBe(404);
  });

  it("come packed where they are long and may be", async () => {
    for (const [encoding, many, packed] of [
      ["gzip, br", 60, "gzip"],
      ["gzip, br", 1, null],
      ["identity", 60, null],
      ["gzip;q=0, br", 60, null],
    ] as const) {
      const answer = await ask(results, asked(many), encoding);
      expect([encoding, many, answer.headers.get("content-encoding")]).toEqual([encoding, many, packed]);
      expect((await answer.json()).results).toHaveLength(many);
    }
  });

  it("are all that is answered so", async () => {
    const others = [
      () => fetch(base + results),
      () => ask(`${results}?draft=1`, asked(1)),
      () => ask(`${results}/more`, asked(1)),
      () => ask("/api/projects/%/results", asked(1)),
      () => ask(results.replace("results", "cells"), asked(1)),
      () => ask(results.replace("results", "cells/bytes/more"), asked(1)),
    ];
    for (const other of others) expect(await (await other()).text()).toBe("the page server's");
  });

  it("go with what a page takes to answer from itself", async () => {
    const bytes = results.replace("results", "cells/bytes");
    const board = { board: "b", queries: [one], touched: [], now: [] };
    const none = await ask(bytes, JSON.stringify({ ...board, queries: [] }));
    expect([none.status, none.headers.get("content-type")]).toEqual([200, "application/octet-stream"]);
    const wrong = await ask(bytes, JSON.stringify({ ...board, touched: "all" }));
    expect([wrong.status, (await wrong.json()).error.field]).toEqual([400, "touched"]);
    const lost = await ask("/api/projects/nobody/cells/bytes", JSON.stringify(board));
    expect(lost.status).toBe(404);
  });

  it("leave the server standing where who asked has gone in the middle", async () => {
    const { port } = server.address() as AddressInfo;
    await new Promise<void>((resolve) => {
      const socket = connect(port, "127.0.0.1", () => {
        socket.write(`POST ${results} HTTP/1.1\r\nHost: x\r\nContent-Length: 5000\r\n\r\n{"queries"`);
        socket.once("close", () => resolve());
        setTimeout(() => socket.destroy(), 50);
      });
    });
    expect((await ask(results, asked(1))).status).toBe(200);
  });
});
