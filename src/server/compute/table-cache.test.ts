import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { parseIsoDate } from "@/core/base/calendar";
import { restingBytes } from "@/core/data/column";
import type { Reading } from "@/core/data/reading-schema";
import { sourcesOf } from "@/core/engine/run";
import { scopeOf } from "@/core/project/names";
import { emptyProject, type TableInfo, tableSchema } from "@/core/project/schema";
import { settings } from "../settings";
import { writeAbout } from "../store/about-table";
import { sumsOf } from "../store/checksums";
import { type Cell, TableWriter, tableFiles } from "../store/table-files";
import { pageOfRows, profileTable } from "./rows";
import { TableCache } from "./table-cache";

beforeAll(() => {
  settings.data = mkdtempSync(join(tmpdir(), "cavlo-cache-"));
  mkdirSync(join(settings.data, "tables"));
});
afterAll(() => rmSync(settings.data, { recursive: true }));

function stored(id: string, columns: [string, Reading][], rows: Cell[][]): TableInfo {
  const writer = new TableWriter(id, columns.length);
  for (const row of rows) writer.add(row);
  writer.finish();
  return tableSchema.parse({
    id,
    name: id,
    rows: rows.length,
    columns: columns.map(([name, reading]) => ({ name, reading })),
    source: { file: "" },
  });
}

describe("tables in the compute worker", () => {
  it("are profiled, with the cells that do not read counted and shown", () => {
    const info = stored(
      "stops",
      [
        ["name", { type: "text" }],
        ["riders", { type: "number" }],
      ],
      [
        ["North", "1,200"],
        ["East", "lots"],
        [null, "n/a"],
        ["East", "40"],
      ],
    );
    const table = new TableCache(1e9).table(info);
    const source = sourcesOf({
      tables: [table],
      inputs: {},
      scope: scopeOf({
        tables: [info],
        links: [],
        measures: [],
        inputs: [],
        conventions: emptyProject("p").conventions,
      }),
    }).of(info.name);
    const { columns } = profileTable(source, info);
    expect(columns[0]).toMatchObject({
      nulls: 1,
      distinct: 2,
      unread: 0,
      bars: [
        { label: "East", count: 2 },
        { label: "North", count: 1 },
      ],
    });
    expect(columns[1]).toMatchObject({
      nulls: 2,
      distinct: 2,
      min: 40,
      max: 1200,
      unread: 1,
      unreadCells: [{ row: 2, text: "lots" }],
    });
    const wish = { offset: 0, limit: 10, sort: null, find: "", filters: [], visible: false };
    const ground = { scope: { tables: [], measures: [], inputs: [] }, today: null };
    const page = pageOfRows(source, info, { ...wish, sort: { column: "riders", order: "desc" } }, ground);
    expect(page.rows.map((r) => [r.number, r.cells[1], r.unread])).toEqual([
      [1, "1200", []],
      [4, "40", []],
      [2, "lots", [1]],
      [3, null, []],
    ]);
    expect(pageOfRows(source, info, { ...wish, find: "EAST" }, ground).total).toBe(2);
  });

  it("are shown by stretches of time that are counted from today", () => {
    const rows = ["2026-01-15", "2026-02-03", "2026-03-20", null].map((day): Cell[] => [day]);
    const info = stored("d", [["day", { type: "date" }]], rows);
    const table = new TableCache(1e9).table(info);
    const { conventions } = emptyProject("p");
    const scope = scopeOf({ tables: [info], links: [], measures: [], inputs: [], conventions });
    const source = sourcesOf({ tables: [table], inputs: {}, scope }).of(info.name);
    const relative = { unit: "month", from: -1, to: -1, anchor: "today" } as const;
    const filters = [{ column: "day", relative }];
    const wish = { offset: 0, limit: 10, sort: null, find: "", filters, visible: false };
    const page = pageOfRows(source, info, wish, { scope, today: parseIsoDate("2026-03-02") });
    expect(page.rows.map((r) => r.number)).toEqual([2]);
  });

  it("stay the same table until a reading changes, and let go of what is their own when memory is short, the least recently used first", () => {
    const cache = new TableCache(60_000);
    const rows = Array.from({ length: 1000 }, (_, i): Cell[] => [String(i)]);
    const [a, b, c] = ["a", "b", "c"].map((id) => stored(id, [["n", { type: "text" }]], rows));
    const first = cache.table(a);
    expect(first.columns[0].data).toMatchObject({ type: "text" });
    expect(cache.table(a)).toBe(first);
    expect(
      cache.table({ ...a, columns: [{ name: "n", reading: { type: "number" }, hidden: false }] }).columns[0]
        .data.type,
    ).toBe("number");
    void cache.table(b).columns[0].data;
    const kept = cache.table(c);
    void kept.columns[0].data;
    cache.trim();
    expect(cache.table(c)).toBe(kept);
    expect(cache.table(a)).not.toBe(first);
  });

  it("are loaded once for all threads, and let go of when that is said", () => {
    const info = stored("shared", [["n", { type: "number" }]], [["1"], [null], ["3"]]);
    const [one, two] = [new TableCache(1e9), new TableCache(1e9)];
    expect(one.table(info).columns[0].data).toMatchObject({
      values: new Int8Array([1, -128, 3]),
      none: -128,
    });
    const loaded = one.takeLoaded();
    expect(loaded).toHaveLength(1);
    expect(one.takeLoaded()).toEqual([]);
    two.give(loaded);
    const data = two.table(info).columns[0].data;
    expect(restingBytes(data).buffer).toBe(loaded[0].column.values);
    expect(two.takeLoaded()).toEqual([]);
    two.forget(["shared"]);
    void two.table(info).columns[0].data;
    expect(two.takeLoaded()).toHaveLength(1);
  });

  it("are refused where their rows are not what was written, and read again where they are", () => {
    const info = stored(
      "damaged",
      [["n", { type: "number" }]],
      Array.from({ length: 2000 }, (_, i): Cell[] => [`${i}`]),
    );
    const { rows } = tableFiles("damaged");
    writeAbout({
      id: "damaged",
      name: "Damaged",
      project: { id: "p", name: "P" },
      rows: 2000,
      columns: [],
      createdAt: "",
      sums: { rows: sumsOf(rows), source: null },
    });
    const sound = readFileSync(rows);
    const bad = Buffer.from(sound);
    bad[bad.indexOf("1234")] ^= 1;
    writeFileSync(rows, bad);
    const read = () => new TableCache(1e9).table(info).columns[0].data;
    expect(read).toThrow("The rows of the table damaged are damaged on the disk: stretch 1 of 1");
    writeFileSync(rows, sound.subarray(0, 4000));
    expect(read).toThrow("has 4000 bytes");
    rmSync(rows);
    expect(read).toThrow("the file is gone");
    writeFileSync(rows, sound);
    expect(read()).toMatchObject({ type: "number" });
  });
});
