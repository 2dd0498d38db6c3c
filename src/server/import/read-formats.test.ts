import { strToU8, unzipSync, zipSync } from "fflate";
import { parquetWriteBuffer } from "hyparquet-writer";
import { describe, expect, it } from "vitest";
import writeXlsxFile from "write-excel-file/node";
import { readingFolder } from "../../testing/reading-folder";

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
    expect((await read(rows.map((r) => JSON.stringify(r)).join("\n"), "t.ndjson")).cells).toEqual(
      rows.map((r) => [r.t]),
    );
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

  it("takes the longest array of a file that is one object, names the others, and reads the one that is asked for", async () => {
    const one = {
      meta: { at: "2026-05-01", tags: ["x"] },
      data: {
        "sail.ings": [
          { route: "Ferrow", at: { n: 1 } },
          { route: "Quay", at: { n: 2 } },
        ],
        routes: [{ name: "[{" }],
      },
      empty: [],
    };
    const table = await read(JSON.stringify(one), "t.json");
    expect(table.source).toMatchObject({
      sheet: 'data."sail.ings"',
      sheets: ['data."sail.ings"', "data.routes"],
    });
    expect(table.columns.map((c) => c.name)).toEqual(["route", "at.n"]);
    expect(table.cells).toEqual([
      ["Ferrow", "1"],
      ["Quay", "2"],
    ]);
    expect(table.notes[0]).toContain("data.routes (1 rows)");
    expect((await read(JSON.stringify(one, null, 2), "t.json", { sheet: "data.routes" })).cells).toEqual([
      ["[{"],
    ]);
    expect((await read(JSON.stringify({ é: [{ ü: 1 }, { ü: 2 }] }), "t.json")).cells).toEqual([["1"], ["2"]]);
    await expect(read(JSON.stringify(one), "t.json", { sheet: "nope" })).rejects.toThrow("It has data");
    const long = { rows: Array.from({ length: 60_000 }, (_, i) => ({ n: i, t: `${"é".repeat(50)}${i}` })) };
    expect((await read(JSON.stringify(long), "t.json")).rows).toBe(60_000);
    expect((await read('{"a": 1, "b": {"c": [1, 2]}}', "t.json")).cells).toEqual([["1", "[1,2]"]]);
  });

  it("takes typed numbers as they are, texts as texts, and no digit is lost", async () => {
    const table = await read(
      '[{"n": 1.234, "t": "12", "id": 12345678901234567890, "s": "a\\"1234567890123456789", "d": "2026-05-01", "w": "\\ud800x"}, {"n": 2.345, "t": "13", "id": 1, "s": "b", "d": "soon", "w": "y"}]',
      "t.json",
    );
    expect(Object.fromEntries(table.columns.map((c) => [c.name, c.reading.type]))).toEqual({
      n: "number",
      t: "text",
      id: "text",
      s: "text",
      d: "text",
      w: "text",
    });
    expect(table.cells[0]).toEqual([
      "1.234",
      "12",
      "12345678901234567890",
      'a"1234567890123456789',
      "2026-05-01",
      "\ufffdx",
    ]);
    expect(table.doubts.map((d) => [d.column, d.why])).toEqual([["t", "texts like numbers"]]);
  });

  it("takes numbers with as many digits behind the point as a division leaves", async () => {
    const numbers = [1 / 7, -2 / 3, 12_345_678.123_456_789, 5e-324, 1.234_567_890_123_456e21];
    const { cells } = await read(
      JSON.stringify(numbers.map((n) => ({ n, t: "0.1428571428571428571" }))),
      "t.json",
    );
    expect(cells.map((c) => Number(c[0]))).toEqual(numbers);
    expect(cells[0][1]).toBe("0.1428571428571428571");
  });

  it("refuses what is broken, cut short, too deep or too wide, and says where", async () => {
    expect(await problem('[{"a": 1}, {"a": 2', "t.json")).toContain("cut short");
    expect(await problem('[{"a": 1}, 7]', "t.json")).toContain("after row 1: every row has to be an object");
    expect(await problem('{"a": 1}{"a": }', "t.json")).toContain("Row 2 is not valid JSON");
    expect(await problem(`[{"a": ${"[".repeat(100)}${"]".repeat(100)}}]`, "t.json")).toContain(
      "more than 64 levels",
    );
    expect(await problem('[{"a": 1}] []', "t.json")).toContain("something stands after its end");
    expect(
      await problem(`{${Array.from({ length: 2500 }, (_, i) => `"k${i}": 1`).join(",")}}`, "t.json"),
    ).toContain("at most 2000 columns");
    expect(await problem("[]", "t.json")).toContain("no rows");
    expect(
      await problem(
        Buffer.concat([Buffer.from('[{"a": "'), Buffer.from([0xff, 0xfe]), Buffer.from('"}]')]),
        "t.json",
      ),
    ).toContain("not UTF-8");
  });
});

type SheetCell = {
  value: string | number | boolean | Date;
  columnSpan?: number;
  rowSpan?: number;
  format?: string;
} | null;
const workbook = async (sheets: { sheet: string; data: SheetCell[][] }[]): Promise<Uint8Array> =>
  new Uint8Array(await (await writeXlsxFile(sheets as never)).toBuffer());
const v = (value: string | number | boolean | Date, more: object = {}): SheetCell => ({
  value,
  ...(value instanceof Date ? { format: "yyyy-mm-dd" } : {}),
  ...more,
});

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
    expect(table.source).toMatchObject({
      format: "xlsx",
      sheet: "Sailings",
      sheets: ["Sailings", "Notes"],
      header: true,
    });
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
    expect(table.notes).toEqual([
      "A row above the head was left out: “Season plan”.",
      "The head has 2 rows; they were made into one.",
    ]);
  });

  it("takes a title for one, and no list for titles", async () => {
    const sheet = (data: ReturnType<typeof v>[][]) => workbook([{ sheet: "S", data }]);
    const titled = await read(
      await sheet([
        [v("Crew")],
        [v("As of"), v("May")],
        [v("name"), v("ship"), v("n"), v("m")],
        [v("Anna"), v("Kestrel"), v(1), v(2)],
      ]),
      "a.xlsx",
    );
    expect(titled.columns.map((c) => c.name)).toEqual(["name", "ship", "n", "m"]);
    expect(titled.source.above).toBe(2);
    const kept = await read(await sheet([[v("Crew")], [v("name"), v("n")], [v("Anna"), v(1)]]), "b.xlsx", {
      above: 0,
      header: false,
    });
    expect(kept.cells[0]).toEqual(["Crew", null]);
    const list = [[v("name")], [v("Anna")], [v("Bob"), v("on leave")], [v("Carl")], [v("Dora")]];
    expect(await problem(await sheet(list), "c.xlsx")).toBe(
      "Row 3 has a cell in column 2, beside the table, which has 1. Give that column a name in the head, or empty the cell.",
    );
  });

  it("refuses archives that are no workbook, are cut short, or unpack without end", async () => {
    expect(await problem(zipSync({ "a.txt": strToU8("hello") }), "a.xlsx")).toContain("no XLSX workbook");
    const bytes = await workbook([{ sheet: "S", data: [[v("a")], [v(1)]] }]);
    expect(await problem(bytes.slice(0, bytes.length / 2), "cut.xlsx")).toContain("cut short");
    const packed = zipSync({ ...unzipSync(bytes), "xl/bomb.xml": new Uint8Array(100_000_000) }, { level: 1 });
    /** The archive with another size of each file in its directory. */
    const claiming = (size: number) => {
      const claims = Buffer.from(packed);
      for (
        let at = claims.indexOf("PK\u0001\u0002", 0, "latin1");
        at >= 0;
        at = claims.indexOf("PK\u0001\u0002", at + 4, "latin1")
      )
        claims.writeUInt32LE(size, at + 24);
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
      const xml = new TextDecoder()
        .decode(files[sheet])
        .replace(
          "</sheetData>",
          `<row r="${/\d+/.exec(at)?.[0]}"><c r="${at}"><v>1</v></c></row></sheetData>`,
        );
      return zipSync({ ...files, [sheet]: strToU8(xml) });
    };
    expect(await problem(withCell("XFD5"), "wide.xlsx")).toContain("cells in 16384 columns");
    // A cell far below costs no grid: only rows that have cells are rows.
    expect((await read(withCell("B1048576"), "far.xlsx")).rows).toBeLessThan(3);
    expect(await problem(Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0, 0]), "old.xls")).toContain("old workbook");
  }, 30_000);
});

describe("hostile workbooks", () => {
  const withSheet = async (xml: string, more: Record<string, string> = {}) => {
    const files = unzipSync(await workbook([{ sheet: "S", data: [[v("a")], [v(1)]] }]));
    const sheet = Object.keys(files).find((f) => f.startsWith("xl/worksheets/sheet")) as string;
    const added = Object.fromEntries(Object.entries(more).map(([name, text]) => [name, strToU8(text)]));
    return zipSync({ ...files, ...added, [sheet]: strToU8(xml) }, { level: 9 });
  };
  const sheetOf = (rows: string, after = "") =>
    `<?xml version="1.0"?><worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>${rows}</sheetData>${after}</worksheet>`;
  const within = async (bytes: Uint8Array, file: string) => {
    const used = process.memoryUsage().rss;
    const result = await read(bytes, file).then(
      (t) => t.rows,
      (error: Error) => error.message,
    );
    expect(process.memoryUsage().rss - used, file).toBeLessThan(700_000_000);
    return result;
  };

  it("cost neither memory nor time: far cells, many merges, long tags, entities in entities", async () => {
    const far = Array.from(
      { length: 200 },
      (_, i) =>
        `<row r="${i * 5000 + 1}"><c r="A${i * 5000 + 1}"><v>1</v></c><c r="BXW${i * 5000 + 1}"><v>2</v></c></row>`,
    ).join("");
    expect(await within(await withSheet(sheetOf(far)), "far.xlsx")).toBe(200);
    const merges = `<mergeCells>${Array.from({ length: 100_000 }, (_, i) => `<mergeCell ref="A1:XFD${i + 2}"/>`).join("")}</mergeCells>`;
    await within(
      await withSheet(
        sheetOf(
          '<row r="1"><c r="A1" t="str"><v>a</v></c></row><row r="2"><c r="A2"><v>1</v></c></row>',
          merges,
        ),
      ),
      "merges.xlsx",
    );
    expect(await within(await withSheet(`<worksheet ${"a".repeat(2_000_000)}`), "tag.xlsx")).toContain("XML");
    expect(
      await within(await withSheet(sheetOf(`<row r="1">${'<c r="A1"'.repeat(20_000)}</row>`)), "open.xlsx"),
    ).toContain("XML");
    const laughs = `<!DOCTYPE x [<!ENTITY a "ha">${Array.from({ length: 12 }, (_, i) => `<!ENTITY ${"abcdefghijklm"[i + 1]} "${`&${"abcdefghijklm"[i]};`.repeat(10)}">`).join("")}]>`;
    expect(
      await within(
        await withSheet(
          `${laughs}<worksheet><sheetData><row r="1"><c t="str"><v>&m;</v></c></row></sheetData></worksheet>`,
        ),
        "laughs.xlsx",
      ),
    ).toContain("XML");
    const shared = `<sst>${"<si><t>x</t></si>".repeat(1_000_000)}</sst>`;
    await within(
      await withSheet(sheetOf('<row r="1"><c r="A1" t="s"><v>999999</v></c></row>'), {
        "xl/sharedStrings.xml": shared,
      }),
      "shared.xlsx",
    );
  }, 60_000);

  it("are read as the sheet shows them: dates by format, days from 1904, formulas, errors, escapes, rich texts", async () => {
    const styles = `<styleSheet><numFmts><numFmt numFmtId="170" formatCode="[h]:mm"/><numFmt numFmtId="171" formatCode="dd/mm/yyyy hh:mm"/><numFmt numFmtId="172" formatCode="[Red]0.0&quot;day&quot;"/></numFmts><cellXfs>${[0, 14, 170, 171, 172, 20].map((n) => `<xf numFmtId="${n}"/>`).join("")}</cellXfs></styleSheet>`;
    const rows = `<row r="1">${["plain", "day", "elapsed", "moment", "days", "time", "rich", "made", "wrong"].map((h) => `<c t="inlineStr"><is><t>${h}</t></is></c>`).join("")}</row>
      <row r="3"><c s="0"><v>1.50</v></c><c s="1"><v>46143</v></c><c s="2"><v>1.25</v></c><c s="3"><v>46143.5</v></c><c s="4"><v>3.5</v></c><c s="5"><v>0.25</v></c><c t="inlineStr"><is><r><t>a</t></r><r><t xml:space="preserve"> b_x000A_c</t></r><rPh><t>no</t></rPh></is></c><c t="str"><f>1&amp;2</f><v>12</v></c><c t="e"><v>#N/A</v></c></row>`;
    const table = await read(await withSheet(sheetOf(rows), { "xl/styles.xml": styles }), "t.xlsx");
    expect(table.cells).toEqual([
      ["1.5", "2026-05-01", "1.25", "2026-05-01T12:00:00", "3.5", "06:00:00", "a b\nc", "12", null],
    ]);
    expect(table.columns.map((c) => c.reading.type)).toEqual([
      "number",
      "date",
      "number",
      "timestamp",
      "number",
      "text",
      "text",
      "text",
      "text",
    ]);
  });
});

describe("reading Parquet", () => {
  const columns = [
    { name: "route", data: ["Ferrow", null, "Quay"], type: "STRING" as const },
    { name: "seats", data: [96, 40, null], type: "DOUBLE" as const },
    { name: "count", data: [1n, 2n, 3n], type: "INT64" as const },
    { name: "late", data: [true, false, null], type: "BOOLEAN" as const },
    {
      name: "at",
      data: [new Date("2026-05-01T08:30:00Z"), null, new Date("2026-05-02T00:00:00Z")],
      type: "TIMESTAMP" as const,
    },
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
