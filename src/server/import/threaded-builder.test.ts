import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { CellKind } from "@/core/data/reading-guess";
import { settings } from "../settings";
import { faultOf } from "../store/disk-fault";
import { type Cell, openRows, tableFiles, tablesFolder } from "../store/table-files";
import { BatchMaker, eachRow, type RowBatch } from "./row-batches";
import { TableBuilder } from "./table-builder";
import { ThreadedBuilder } from "./threaded-builder";

const before = settings.data;
beforeAll(() => {
  settings.data = mkdtempSync(join(tmpdir(), "cavlo-builder-"));
  mkdirSync(tablesFolder());
});
afterAll(() => {
  rmSync(settings.data, { recursive: true });
  settings.data = before;
});

const KINDS: (CellKind | undefined)[] = [undefined, "number", "text", "boolean", "date"];
const LONE = { high: "\ud83d", low: "\ude00" };

describe("rows in batches", () => {
  it("come out as they went in, with their kinds, whatever they hold", () => {
    const cell = fc.option(
      fc.oneof(
        fc.string(),
        fc.string({ unit: "binary" }),
        fc.constantFrom("", LONE.high, LONE.low, "constructor", "\0", "null"),
      ),
    );
    const row = fc.tuple(fc.array(cell, { minLength: 3, maxLength: 3 }), fc.option(fc.nat(4)));
    fc.assert(
      fc.property(fc.array(row, { maxLength: 40 }), (rows) => {
        const maker = new BatchMaker(3);
        const given = rows.map(([cells, kind]) => ({
          cells,
          kinds: kind === null ? undefined : [KINDS[kind], undefined, KINDS[kind]],
        }));
        for (const { cells, kinds } of given) expect(maker.add(cells, kinds)).toBeNull();
        const found: { cells: Cell[]; kinds: (CellKind | undefined)[] }[] = [];
        const none = [undefined, undefined, undefined];
        eachRow(maker.rest(), 3, (cells, kinds) => found.push({ cells, kinds: kinds ?? none }));
        expect(found).toEqual(given.map(({ cells, kinds }) => ({ cells, kinds: kinds ?? none })));
      }),
    );
  });

  it("are given as soon as there are enough cells, and then anew", () => {
    const maker = new BatchMaker(2);
    const batches: RowBatch[] = [];
    for (let i = 0; i < 70_000; i++) {
      const batch = maker.add([String(i), null], i === 40_000 ? ["number", undefined] : undefined);
      if (batch) batches.push(batch);
    }
    batches.push(maker.rest());
    expect(batches.map((b) => [b.lengths.length / 2, b.kinds?.length ?? null])).toEqual([
      [32_768, null],
      [32_768, 65_536],
      [4464, null],
    ]);
    const seen: Cell[] = [];
    for (const batch of batches) eachRow(batch, 2, ([first]) => seen.push(first));
    expect(seen).toEqual(Array.from({ length: 70_000 }, (_, i) => String(i)));
  });
});

it("batches of long texts are full sooner, so that no text becomes too long to be one", () => {
  const maker = new BatchMaker(2);
  const long = "x".repeat(500_000);
  const rows = Array.from({ length: 10 }, () => maker.add([long, "y"])?.lengths.length ?? 0);
  expect(rows).toEqual([0, 0, 0, 0, 10, 0, 0, 0, 0, 10]);
  expect(maker.rest().lengths).toHaveLength(0);
});

/** Rows of four columns, among them what is hard to carry; enough that they are built in a thread. */
function longRow(i: number): Cell[] {
  const odd: Cell[] = [null, "", LONE.high, LONE.low, "constructor", "🙂", "x".repeat(300)];
  return [String(i % 97), `Harbour ${i % 417}`, i % 50 === 0 ? odd[(i / 50) % odd.length] : "plain", `${i}`];
}
const LONG = 100_000;
const NAMES = ["n", "harbour", "odd", "count"];
/** All that is stored of a table: its rows and the bytes of its columns. */
function stored(id: string) {
  const db = openRows(id);
  const rows = db.prepare("select * from rows order by rowid").raw().all();
  db.close();
  const columns = readdirSync(tableFiles(id).columns).sort();
  return { rows, columns, bytes: columns.map((c) => readFileSync(join(tableFiles(id).columns, c))) };
}
const filesOf = (id: string) => readdirSync(tablesFolder()).filter((name) => name.startsWith(id));

describe("a table built in a thread of its own", () => {
  it.each([3, LONG])("holds what one built here does, with %i rows", (count) => {
    const [here, there] = [new TableBuilder(`here-${count}`, 4), new ThreadedBuilder(`there-${count}`, 4)];
    const kinds = (i: number) => (i % 3 === 0 ? [KINDS[1], KINDS[2], undefined, undefined] : undefined);
    for (let i = 0; i < count; i++) {
      here.add(longRow(i), kinds(i));
      there.add(longRow(i), kinds(i));
    }
    expect(there.rows).toBe(count);
    expect(there.finish(NAMES, ";")).toEqual(here.finish(NAMES, ";"));
    const [one, other] = [stored(`here-${count}`), stored(`there-${count}`)];
    expect(other.columns).toEqual(one.columns);
    expect(other.columns.length).toBeGreaterThan(0);
    expect(Buffer.concat(other.bytes).equals(Buffer.concat(one.bytes))).toBe(true);
    // A lone half of a character is stored as SQLite stores it: the two are held to each other.
    expect(other.rows).toEqual(one.rows);
    expect(other.rows).toHaveLength(count);
  });

  // So many rows that some of them must have been stored meanwhile.
  it.each([10, 400_000])("leaves nothing behind when it is abandoned after %i rows", (count) => {
    const builder = new ThreadedBuilder(`left-${count}`, 4);
    for (let i = 0; i < count; i++) builder.add(longRow(i));
    expect(filesOf(`left-${count}`)).toEqual(count > 10 ? [`left-${count}.part.sqlite`] : []);
    builder.abandon();
    expect(filesOf(`left-${count}`)).toEqual([]);
  });

  it.each([10, LONG])("says what the disk did not do, by its code, after %i rows", (count) => {
    const id = `lost-${count}`;
    // A folder stands where the rows would be written.
    mkdirSync(tableFiles(id).part);
    const builder = new ThreadedBuilder(id, 4);
    const build = () => {
      for (let i = 0; i < count; i++) builder.add(longRow(i));
      builder.finish(NAMES);
    };
    expect(build).toThrow(expect.objectContaining({ code: "ERR_FS_EISDIR" }));
    builder.abandon();
    expect(filesOf(id)).toEqual([`${id}.part.sqlite`]);
  });

  it.each([10, LONG])(
    "leaves nothing behind where its rows cannot be put in their place, after %i rows",
    (count) => {
      const id = `kept-out-${count}`;
      mkdirSync(tableFiles(id).rows);
      const builder = new ThreadedBuilder(id, 4);
      for (let i = 0; i < count; i++) builder.add(longRow(i));
      expect(() => builder.finish(NAMES)).toThrow(expect.objectContaining({ code: "EISDIR" }));
      builder.abandon();
      expect(filesOf(id)).toEqual([]);
    },
  );

  it.each([10, LONG])("tells that the data folder is gone, after %i rows", (count) => {
    const there = settings.data;
    settings.data = join(there, "gone");
    try {
      const builder = new ThreadedBuilder("lost", 4);
      const build = () => {
        for (let i = 0; i < count; i++) builder.add(longRow(i));
        builder.finish(NAMES);
      };
      let said: unknown;
      try {
        build();
      } catch (error) {
        said = faultOf(error);
      }
      expect(said).toBe("folder_gone");
    } finally {
      settings.data = there;
    }
  });
});
