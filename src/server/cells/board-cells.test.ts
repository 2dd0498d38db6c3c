import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { querySchema } from "@/core/plan/query";
import { scopeOf } from "@/core/project/names";
import { emptyProject, tableSchema } from "@/core/project/schema";
import { cellsInPage } from "@/present/cells-in-page";
import { compute, whileUnderWay } from "../compute/client";
import { settings } from "../settings";
import { TableWriter } from "../store/table-files";
import { boardCells } from "./board-cells";

beforeAll(() => {
  settings.data = mkdtempSync(join(tmpdir(), "cavlo-cells-"));
  mkdirSync(join(settings.data, "tables"));
});
afterAll(() => rmSync(settings.data, { recursive: true }));

const ROWS = 120_000;
function table(id: string, step: number) {
  const writer = new TableWriter(id, 4);
  for (let i = 0; i < ROWS; i++)
    writer.add([
      `Route ${(i * step) % 31}`,
      i % 11 === 0 ? null : `Harbour ${(i * 31) % 7}`,
      String(((i * 104_729) % 10_000) / 100),
      String((i * 17) % 97),
    ]);
  writer.finish();
  return tableSchema.parse({
    id,
    name: "rows",
    rows: ROWS,
    columns: [
      { name: "route", reading: { type: "text" } },
      { name: "harbour", reading: { type: "text" } },
      { name: "fare", reading: { type: "number" } },
      { name: "wait", reading: { type: "number" } },
    ],
    source: { file: "" },
  });
}
const queries = (filters: object[]) =>
  ["sum(fare)", "avg(wait)", "count(distinct harbour)", "median(wait)", "sum(fare * wait)"].map((formula) =>
    querySchema.parse({
      table: "rows",
      measures: [{ formula, as: "m" }],
      splits: [{ column: "route" }],
      keep: { first: 5 },
      sort: { by: "m" },
      filters,
    }),
  );
const asked = { queries: queries([]), touched: [{ column: "harbour" }, { column: "fare" }], now: [] };
const FILTERS = [
  [],
  [{ column: "harbour", in: ["Harbour 3", null] }],
  [{ column: "fare", from: 10.01, to: 77.77 }],
  [
    { column: "fare", from: 50.5 },
    { column: "harbour", in: ["Harbour 1", "Harbour 2"] },
  ],
];
const plain = (result: unknown) => ({ ...(result as object), ms: 0 });

describe("the cells of a board", () => {
  it("answer what scans answer, and no longer where the rows or how they are read are others", async () => {
    const info = table("first", 7919);
    const scope = scopeOf({ ...emptyProject("p"), tables: [info] });
    const data = { tables: [info], scope };
    const cells = boardCells();
    expect(await cells.answer("p", data, {}, queries([]))).toEqual([null, null, null, null, null]);
    await cells.prepare({ projectId: "p", board: "b", data, inputs: {}, asked });
    expect(cells.state()).toMatchObject({ boards: 1, building: 0 });
    for (const filters of FILTERS) {
      const found = await cells.answer("p", data, {}, queries(filters));
      const scanned = await compute({ type: "results", ...data, inputs: {}, queries: queries(filters) });
      const results = "results" in scanned ? scanned.results : [];
      // A product's sum depends on the order of rows: it is scanned.
      expect(found.map((r) => r !== null)).toEqual([true, true, true, true, false]);
      expect(found.slice(0, 4).map(plain)).toEqual(results.slice(0, 4).map(plain));
    }
    const { answered, scanned } = cells.state();
    expect([answered, scanned]).toEqual([16, 4]);

    const none = [null, null, null, null, null];
    const others = { ...data, tables: [table("second", 104_729)] };
    expect(await cells.answer("p", others, {}, queries([]))).toEqual(none);
    const asText = structuredClone(info);
    asText.columns[3].reading = { type: "text" } as never;
    expect(await cells.answer("p", { ...data, tables: [asText] }, {}, queries([]))).toEqual(none);
    const derived = scopeOf({
      ...emptyProject("p"),
      tables: [{ ...info, derived: [{ name: "late", formula: "wait > 5" }] }] as never,
    });
    expect(await cells.answer("p", { ...data, scope: derived }, {}, queries([]))).toEqual(none);
    expect(await cells.answer("q", data, {}, queries([]))).toEqual(none);
  }, 60_000);

  it("are gathered once for the same questions, anew for others, and only while nothing is asked", async () => {
    const info = table("third", 31);
    const data = { tables: [info], scope: scopeOf({ ...emptyProject("r"), tables: [info] }) };
    const cells = boardCells();
    const of = { projectId: "r", data, inputs: {} };
    // The thread that gathers is there, and has the columns.
    await cells.prepare({ ...of, board: "other", asked: { ...asked, touched: [{ column: "wait" }] } });
    let letGo = () => {};
    const held = whileUnderWay(() => new Promise<void>((resolve) => (letGo = resolve)));
    let isThere = false;
    const first = cells.prepare({ ...of, board: "b", asked }).then(() => {
      isThere = true;
    });
    // As many scans as take longer than to gather.
    for (let i = 0; i < 60; i++)
      await compute({
        type: "results",
        ...data,
        inputs: {},
        queries: queries([{ column: "wait", from: i }]),
      });
    expect(isThere).toBe(false);
    letGo();
    await Promise.all([held, first]);
    const { boards } = cells.state();
    await cells.prepare({ ...of, board: "b", asked });
    // How it is filtered does not matter where all that may be asked fits.
    await cells.prepare({
      ...of,
      board: "b",
      asked: { ...asked, now: [{ column: "harbour", in: ["Harbour 1"] }] },
    });
    expect(cells.state().boards).toBe(boards);
    await cells.prepare({ ...of, board: "b", asked: { ...asked, touched: [{ column: "route" }] } });
    expect(cells.state().boards).toBe(boards);
    const filtered = queries([{ column: "route", in: ["Route 3"] }]);
    expect((await cells.answer("r", data, {}, filtered))[0]).not.toBeNull();
  }, 60_000);

  it("go to a page as bytes that answer there, without what is of single rows", async () => {
    const info = table("fourth", 7919);
    const project = { ...emptyProject("s"), tables: [info] };
    const data = { tables: [info], scope: scopeOf(project) };
    const cells = boardCells();
    const of = { projectId: "s", board: "b", data, inputs: {} };
    const byHarbour = { ...asked, touched: [{ column: "harbour" }] };
    const bytes = await cells.bytes({ ...of, asked: byHarbour });
    const { answer, isSettled } = cellsInPage(bytes as Uint8Array, project);
    expect(isSettled).toBe(true);
    for (const filters of FILTERS.slice(0, 2)) {
      const wanted = queries(filters);
      const found = answer(wanted);
      // Distinct values and medians would be of rows.
      expect(found.map((r) => r !== null)).toEqual([true, true, false, false, false]);
      const own = await cells.answer("s", data, {}, wanted.slice(0, 2));
      expect(found.slice(0, 2).map(plain)).toEqual(own.map(plain));
    }
    // The bins of fares have edges that only rows tell.
    expect(answer(queries(FILTERS[2]))).toEqual([null, null, null, null, null]);
    const text = new TextDecoder().decode(bytes as Uint8Array);
    expect(text).toContain("Harbour 3");
    const again = await cells.bytes({ ...of, asked: byHarbour });
    expect(again).toEqual(bytes);
  }, 60_000);

  it("go on being gathered where a board is filtered otherwise meanwhile, and others after them where need is", async () => {
    const info = table("fifth", 31);
    const data = { tables: [info], scope: scopeOf({ ...emptyProject("t"), tables: [info] }) };
    const cells = boardCells();
    const of = { projectId: "t", board: "b", data, inputs: {} };
    await cells.prepare({ ...of, board: "other", asked: { ...asked, touched: [{ column: "wait" }] } });
    let letGo = () => {};
    const held = whileUnderWay(() => new Promise<void>((resolve) => (letGo = resolve)));
    const first = cells.prepare({ ...of, asked });
    const now = [{ column: "harbour", in: ["Harbour 1"] }];
    const second = cells.prepare({ ...of, asked: { ...asked, now } });
    const third = cells.bytes({ ...of, asked: { ...asked, now } });
    expect(cells.state().building).toBe(1);
    letGo();
    // None of them is told that it was given up.
    await Promise.all([held, first, second, third]);
    expect((await cells.answer("t", data, {}, queries(now)))[0]).not.toBeNull();
    // Other questions do give up what is being gathered.
    const given = cells.prepare({ ...of, asked: { ...asked, touched: [{ column: "fare" }] } });
    const taken = cells.prepare({
      ...of,
      asked: { ...asked, touched: [{ column: "harbour" }, { column: "route" }] },
    });
    // What is asked again at once is not taken for what was just given up.
    const again = cells.bytes({ ...of, asked: { ...asked, touched: [{ column: "fare" }] } });
    await expect(given).rejects.toMatchObject({ code: "cancelled" });
    await expect(taken).rejects.toMatchObject({ code: "cancelled" });
    expect(await again).not.toBeNull();
  }, 60_000);

  it("rest for whoever asks, also where another copy of the module started the threads", async () => {
    const { cavloCompute } = globalThis as unknown as { cavloCompute: { underWay: SharedArrayBuffer } };
    vi.resetModules();
    const copy = await import("../compute/client");
    expect(copy.whileUnderWay).not.toBe(whileUnderWay);
    const count = () => new Int32Array(cavloCompute.underWay)[0];
    await copy.whileUnderWay(async () => expect(count()).toBe(1));
    expect(count()).toBe(0);
  });
});
