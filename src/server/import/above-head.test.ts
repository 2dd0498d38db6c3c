import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readingFolder } from "../../testing/reading-folder";
import { rowsAboveHead } from "./above-head";

const { read, problem } = readingFolder();
const names = (table: { columns: { name: string }[] }) => table.columns.map((c) => c.name);

const REPORT = [
  "Takings of the quays;;;",
  "As of;3 March 2026;;",
  "",
  "month;quay;takings;share",
  "January;North;1200;40",
  "January;South;900;30",
  "February;North;1300;45",
].join("\n");

describe("what stands above the head of a table", () => {
  it("is left out and said, whether its lines end early or not", async () => {
    for (const text of [REPORT, REPORT.replaceAll(/;+\n/g, "\n")]) {
      const table = await read(text);
      expect(names(table)).toEqual(["month", "quay", "takings", "share"]);
      expect(table.rows).toBe(3);
      expect(table.cells[0]).toEqual(["January", "North", "1200", "40"]);
      expect(table.columns.map((c) => c.reading.type)).toEqual(["text", "text", "number", "number"]);
      expect(table.notes).toEqual([
        "2 rows above the head were left out: “Takings of the quays”, “As of 3 March 2026”.",
      ]);
      expect(table.source).toMatchObject({ header: true, above: 2 });
    }
  });

  it("is told by where its lines end where a table has texts only, and in a table of one row", async () => {
    expect(names(await read("Crew\nname,ship\nAnna,Kestrel\nBob,Plover\n"))).toEqual(["name", "ship"]);
    const small = await read("Crew\nSpring\nname,ship,shift\nAnna,Kestrel,2\n");
    expect(names(small)).toEqual(["name", "ship", "shift"]);
    expect(small.source.above).toBe(2);
    const many = await read(`${"A line of the report;;\n".repeat(12)}quay;month;n\nNorth;May;12\n`);
    expect(names(many)).toEqual(["quay", "month", "n"]);
    expect(many.notes[0]).toContain("and 9 more");
  });

  it("is as many rows as somebody says", async () => {
    for (const text of [REPORT, REPORT.replaceAll(/;+\n/g, "\n")]) {
      const all = await read(text, "t.csv", { above: 0 });
      expect(all.cells[0]).toEqual(["Takings of the quays", null, null, null]);
      expect(all.rows).toBe(6);
    }
    const all = await read(REPORT, "t.csv", { above: 0 });
    expect(all.notes).not.toContainEqual(expect.stringContaining("left out"));
    const one = await read(REPORT, "t.csv", { above: 1, header: false });
    expect(one.rows).toBe(5);
    expect(one.source).toMatchObject({ header: false, above: 1 });
    expect(one.notes.join()).not.toContain("left out");
    const many = `${"a note,,\n".repeat(80)}route,n,m\nFerrow,1,2\n`;
    expect(names(await read(many, "t.csv", { above: 80 }))).toEqual(["route", "n", "m"]);
    await expect(read(REPORT, "t.csv", { above: 6 })).rejects.toThrow(
      "All 6 rows of the file would be left out. Leave out fewer",
    );
  });

  it("is the line that says the separator, too", async () => {
    const table = await read("sep=;\nroute;n\nFerrow;1\nQuay;2\n");
    expect(names(table)).toEqual(["route", "n"]);
    expect(table.notes).toEqual(["A row above the head was left out: “sep=”."]);
  });

  it("is nothing where the first rows may be the table's own", async () => {
    for (const text of [
      // A table without names whose first row is hardly filled.
      "17,,\n18,a,1\n19,b,2\n",
      // All texts: a row of a table may be empty but for its first cell.
      "Anna,,\nBob,x,y\nCarl,z,w\n",
      // Names for some columns only.
      "name,,\nAnna,2,3\nBob,4,5\n",
      // One column.
      "a title\nname\nAnna\n",
    ]) {
      const table = await read(text);
      expect(table.source.above).toBe(0);
      expect(table.notes.join()).not.toContain("left out");
    }
    expect((await read(REPORT, "t.csv", { header: false, above: undefined })).source.above).toBe(0);
  });

  it("is nothing for any table that begins with its names", () => {
    const cell = fc.oneof(
      fc.stringMatching(/^[a-z]{1,6}$/),
      fc.integer({ min: 0, max: 9_999 }).map(String),
      fc.constant(null),
    );
    const table = fc.integer({ min: 1, max: 7 }).chain((width) =>
      fc.record({
        head: fc.uniqueArray(fc.stringMatching(/^[a-z]{3,8}$/), { minLength: width, maxLength: width }),
        rows: fc.array(fc.array(cell, { minLength: width, maxLength: width }), { maxLength: 20 }),
      }),
    );
    fc.assert(
      fc.property(table, ({ head, rows }) => rowsAboveHead([head, ...rows]) === 0),
      { numRuns: 2000 },
    );
  });

  it("does not make a wide row a mistake", async () => {
    expect(await problem("route,n\nFerrow,1\nQuay,2,3\n")).toContain("Row 3 has 3 cells");
    // A list of which one entry says more is no table with titles.
    expect(await problem("name\nAnna\nBob,on leave\nCarl\nDora\n")).toContain("Row 3 has 2 cells");
    expect(await problem("name\nAnna,on leave\n1\n2\n3\n")).toContain("Row 2 has 2 cells");
    // Counted as they stand in the file.
    expect(await problem(`Takings,,\nroute,n,m\n${"Ferrow,1,2\n".repeat(3)}Quay,2,3,4\n`)).toContain(
      "Row 6 has 4 cells, but the head has 3",
    );
  });
});
