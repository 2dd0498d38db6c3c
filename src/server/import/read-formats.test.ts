import { strToU8, unzipSync, zipSync } from "fflate";
import { parquetWriteBuffer } from "hyparquet-writer";
import { describe, expect, it } from "vitest";
import writeXlsxFile from "write-excel-file/node";
import { readingFolder } from "./reading-folder";

const { read, problem } = readingFolder();

describe("reading JSON", () => {
  it("takes an array of objects, nested names by their path, and rows that lack one", async () => {
    const table = await read(
      JSON.stringify([
        { route: "Ferrow", at: { day: "2026-05-01", n: 3 }, late: true },
        { route: null, tags: ["a", 1], at: { n: 1.5 } },
      ]),
      "t.json",
    );
    expect(table.columns.map((c) => [c.name, c.reading.type])).toEqual([
      ["route", "text"],
      ["at.day", "date"],
      ["at.n", "number"],
      ["late", "boolean"],
      ["tags", "text"],
    ]);
    expect(table.cells).toEqual([
      ["Ferrow", "2026-05-01", "3", "true", null],
      [null, null, "1.5", null, '["a",1]'],
    ]);
  });

  it("takes one object a line, with brackets, quotes and line ends inside texts", async () => {
    const rows = [{ t: 'a "b" ]}{[ \\ c' }, { t: "two\nlines, ü 日本" }];
    expect((await read(rows.map((r) => JSON.stringify(r)).join("\n"), "t.ndjson")).cells).toEqual(rows.map((r) => [r.t]));
    const many = Array.from({ length: 30_000 }, (_, i) => JSON.stringify({ n: i, t: `é${i}` })).join("\r\n");
    const table = await read(`\ufeff${many}\n`, "t.jsonl");
    expect(table.rows).toBe(30_000);
    expect(table.cells[29_999]).toEqual(["29999", "é29999"]);
  });

  it("keeps what stands before the mark: no prototype, no number out of a text", async () => {
    const table = await read('[{"__proto__": {"x": 1}, "constructor": "c", "n": "007"}]', "t.json");
    expect(table.columns.map((c) => c.name)).toEqual(["__proto__.x", "constructor", "n"]);
    expect(table.cells).toEqual([["1", "c", "007"]]);
  });

  it("refuses what is broken, cut short, too deep or too wide, and says where", async () => {
    expect(await problem('[{"a": 1}, {"a": 2', "t.json")).toContain("cut short");
    expect(await problem('[{"a": 1}, 7]', "t.json")).toContain("after row 1: every row has to be an object");
    expect(await problem('{"a": 1}{"a": }', "t.json")).toContain("Row 2 is not valid JSON");
    expect(await problem(`[{"a": ${"[".repeat(100)}${"]".repeat(100)}}]`, "t.json")).toContain("more than 64 levels");
    expect(await problem('[{"a": 1}] []', "t.json")).toContain("something stands after its end");
    expect(await problem(`{${Array.from({ length: 2500 }, (_, i) => `"k${i}": 1`).join(",")}}`, "t.json")).toContain("at most 2000 columns");
    expect(await problem("[]", "t.json")).toContain("no rows");
    expect(await problem(Buffer.concat([Buffer.from('[{"a": "'), Buffer.from([0xff, 0xfe]), Buffer.from('"}]')]), "t.json")).toContain("not UTF-8");
  });
});

type SheetCell = { value: string | number | boolean | Date; columnSpan?: number; rowSpan?: number; format?: string } | null;
const workbook = async (sheets: { sheet: string; data: SheetCell[][] }[]): Promise<Uint8Array> => new Uint8Array(await (await writeXlsxFile(sheets as never)).toBuffer());
const v = (value: string | number | boolean | Date, more: object = {}): SheetCell => ({ value, ...(value instanceof Date ? { format: "yyyy-mm-dd" } : {}), ...more });

describe("reading XLSX", () => {
  it("takes texts, numbers, dates and booleans of the first sheet, and names the others", async () => {
    const bytes = await workbook([
      {
        sheet: "Sailings",
        data: [
          [v("route"), v("on"), v("seats"), v("late")],
          [v("Ferrow & Co"), v(new Date(Date.UTC(2026, 4, 1))), v(96.5), v(true)],
          [null, null, v(-3), v(false)],
        ],
      },
      { sheet: "Notes", data: [[v("x")], [v(1)]] },
    ]);
    const table = await read(bytes, "book.xlsx");
    expect(table.source).toMatchObject({ format: "xlsx", sheet: "Sailings", sheets: ["Sailings", "Notes"], header: true });
    expect(table.columns.map((c) => c.reading.type)).toEqual(["text", "date", "number", "boolean"]);
    expect(table.cells).toEqual([
      ["Ferrow & Co", "2026-05-01", "96.5", "true"],
      [null, null, "-3", "false"],
    ]);
    expect((await read(bytes, "book.xlsx", { sheet: "Notes" })).cells).toEqual([["1"]]);
    await expect(read(bytes, "book.xlsx", { sheet: "Nope" })).rejects.toThrow("It has Sailings, Notes");
  });

  it("leaves titles out and makes a merged head into one", async () => {
    const bytes = await workbook([
      {
        sheet: "Plan",
        data: [
          [v("Season plan", { columnSpan: 3 }), null, null],
          [v("route", { rowSpan: 2 }), v("2026", { columnSpan: 2 }), null],
          [null, v("target"), v("actual")],
          [v("Ferrow"), v(10), v(12)],
          [v("Quay"), v(20), v(18)],
        ],
      },
    ]);
    const table = await read(bytes, "plan.xlsx");
    expect(table.columns.map((c) => c.name)).toEqual(["route", "2026 target", "2026 actual"]);
    expect(table.cells).toEqual([
      ["Ferrow", "10", "12"],
      ["Quay", "20", "18"],
    ]);
    expect(table.notes).toEqual(["A title above the head was left out.", "The head has 2 rows; they were made into one."]);
  });

  it("refuses archives that are no workbook, are cut short, or unpack without end", async () => {
    expect(await problem(zipSync({ "a.txt": strToU8("hello") }), "a.xlsx")).toContain("no XLSX workbook");
    const bytes = await workbook([{ sheet: "S", data: [[v("a")], [v(1)]] }]);
    expect(await problem(bytes.slice(0, bytes.length / 2), "cut.xlsx")).toContain("cut short");
    const packed = zipSync({ ...unzipSync(bytes), "xl/bomb.xml": new Uint8Array(100_000_000) }, { level: 1 });
    /** The archive with another size of each file in its directory. */
    const claiming = (size: number) => {
      const claims = Buffer.from(packed);
      for (let at = claims.indexOf("PK\u0001\u0002", 0, "latin1"); at >= 0; at = claims.indexOf("PK\u0001\u0002", at + 4, "latin1")) claims.writeUInt32LE(size, at + 24);
      return claims;
    };
    expect(packed.length).toBeLessThan(2_000_000);
    expect(await problem(claiming(600_000_000), "bomb.xlsx")).toContain("unpacks to more than 500 MB");
    // One that says less than it holds is cut off there.
    const used = process.memoryUsage().rss;
    await problem(claiming(50), "lying.xlsx");
    expect(process.memoryUsage().rss - used).toBeLessThan(90_000_000);
    const withCell = (at: string) => {
      const files = unzipSync(bytes);
      const sheet = Object.keys(files).find((f) => f.startsWith("xl/worksheets/sheet")) as string;
      const xml = new TextDecoder().decode(files[sheet]).replace("</sheetData>", `<row r="${/\d+/.exec(at)?.[0]}"><c r="${at}"><v>1</v></c></row></sheetData>`);
      return zipSync({ ...files, [sheet]: strToU8(xml) });
    };
    expect(await problem(withCell("XFD5"), "wide.xlsx")).toContain("cells in 16384 columns");
    expect(await problem(withCell("ZZ1048576"), "large.xlsx")).toContain("spans 1048576 rows and 702 columns");
    expect(await problem(Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0, 0]), "old.xls")).toContain("old workbook");
  }, 30_000);
});

describe("reading Parquet", () => {
  const columns = [
    { name: "route", data: ["Ferrow", null, "Quay"], type: "STRING" as const },
    { name: "seats", data: [96, 40, null], type: "DOUBLE" as const },
    { name: "count", data: [1n, 2n, 3n], type: "INT64" as const },
    { name: "late", data: [true, false, null], type: "BOOLEAN" as const },
    { name: "at", data: [new Date("2026-05-01T08:30:00Z"), null, new Date("2026-05-02T00:00:00Z")], type: "TIMESTAMP" as const },
  ];
  const bytes = new Uint8Array(parquetWriteBuffer({ columnData: columns }));

  it("takes every usual type", async () => {
    const table = await read(bytes, "t.parquet");
    expect(table.columns.map((c) => c.name)).toEqual(["route", "seats", "count", "late", "at"]);
    expect(table.cells).toEqual([
      ["Ferrow", "96", "1", "true", "2026-05-01T08:30:00"],
      [null, "40", "2", "false", null],
      ["Quay", null, "3", null, "2026-05-02"],
    ]);
  });

  it("refuses a file that was cut short", async () => {
    expect(await problem(bytes.slice(0, bytes.length - 20), "t.parquet")).toContain("cannot be read");
  });
});
