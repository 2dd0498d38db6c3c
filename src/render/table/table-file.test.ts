import { parse } from "csv-parse/sync";
import ExcelJS from "exceljs";
import { unzipSync } from "fflate";
import readExcelFile from "read-excel-file/node";
import { SaxesParser } from "saxes";
import { describe, expect, it } from "vitest";
import type { Result } from "@/core/plan/query";
import { readingFolder } from "@/testing/reading-folder";
import { resultFile, TABLE_FORMATS, type TableFormat } from "./table-file";

const { read } = readingFolder();
const result: Result = {
  columns: [
    {
      name: "route",
      type: "text",
      values: ["=1+1", "@sum", '+x, "y"', "two\nlines & <b>\u0007", "plain", null, null],
    },
    { name: "n", type: "number", values: [-1, 2.5, null, 3, 4e-9, 5, 6] },
    { name: "on", type: "date", values: ["2026-05-01", "1899-12-31", null, null, null, null, null] },
    { name: "at", type: "timestamp", values: ["2026-05-01T08:30:15", null, null, null, null, null, null] },
    { name: "ok", type: "boolean", values: [true, false, null, null, null, null, null] },
  ],
  rows: 7,
  totals: {},
  others: { row: 6, groups: 3 },
  noMatch: { row: 5, rows: 2 },
  places: [],
  crossed: null,
  unfiltered: [],
  leftWhole: [],
  atRest: null,
  unanswered: [],
  coarse: [],
  scanned: 0,
  ms: 0,
};
const text = (format: TableFormat) => new TextDecoder().decode(resultFile(format, result));

describe("a result as a file", () => {
  it("is CSV with quotes where they are needed, and a guard where a spreadsheet would run a text", () => {
    const lines = text("csv").replaceAll("\u0007", "").split("\r\n");
    expect(lines[0]).toBe("route,n,on,at,ok");
    expect(lines[1]).toBe("'=1+1,-1,2026-05-01,2026-05-01T08:30:15,true");
    expect(lines[2]).toBe("'@sum,2.5,1899-12-31,,false");
    expect(lines[3]).toBe(`"'+x, ""y""",,,,`);
    expect(lines[4]).toBe('"two\nlines & <b>",3,,,');
    expect(lines.slice(6)).toEqual(["(no match),5,,,", "Other,6,,,", ""]);
  });

  it("is JSON and NDJSON that any reader takes back", () => {
    const rows = JSON.parse(text("json")) as Record<string, unknown>[];
    expect(rows[0]).toEqual({ route: "=1+1", n: -1, on: "2026-05-01", at: "2026-05-01T08:30:15", ok: true });
    expect(rows[6].route).toBe("Other");
    expect(
      text("ndjson")
        .trim()
        .split("\n")
        .map((l) => JSON.parse(l)),
    ).toEqual(rows);
  });

  it("is a workbook with numbers, dates, times and texts as themselves", async () => {
    const table = await read(resultFile("xlsx", result), "out.xlsx");
    expect(table.columns.map((c) => [c.name, c.reading.type])).toEqual([
      ["route", "text"],
      ["n", "number"],
      ["on", "date"],
      ["at", "timestamp"],
      ["ok", "boolean"],
    ]);
    expect(table.cells[0]).toEqual(["=1+1", "-1", "2026-05-01", "2026-05-01T08:30:15", "true"]);
    expect(table.cells[3].slice(0, 2)).toEqual(["two\nlines & <b>\u0007", "3"]);
    expect(table.cells[4][1]).toBe("4e-9");
  });

  it("comes back the same through every format", async () => {
    const plain: Result = {
      ...result,
      others: null,
      noMatch: null,
      places: [],
      columns: result.columns.map((c) => ({ ...c, values: c.values.slice(0, 3) })),
      rows: 3,
    };
    const asText = (v: unknown) => (v === null ? null : String(v));
    for (const format of Object.keys(TABLE_FORMATS) as TableFormat[]) {
      if (format === "csv") continue;
      const table = await read(resultFile(format, plain), `out.${format}`);
      expect(table.cells, format).toEqual(
        [0, 1, 2].map((i) => plain.columns.map((c) => asText(c.values[i]))),
      );
    }
  });

  it("names Other and what has no match in the column of its own split, where there are two", () => {
    const side = (
      column: string,
      keys: (string | null)[],
      others: number | null,
      noMatch: number | null,
    ) => ({
      column,
      type: "text" as const,
      keys,
      others: others === null ? null : { at: others, groups: 2 },
      noMatch: noMatch === null ? null : { at: noMatch, rows: 1 },
      totals: {},
    });
    const crossed: Result = {
      ...result,
      columns: [
        { name: "a", type: "text", values: ["x", null, null] },
        { name: "b", type: "text", values: [null, "p", null] },
        { name: "n", type: "number", values: [1, 2, 3] },
      ],
      rows: 3,
      others: null,
      noMatch: null,
      places: [],
      crossed: {
        splits: [side("a", ["x", null], 1, null), side("b", ["p", null, null], 2, 1)],
        at: [
          [0, 2],
          [1, 0],
          [1, 1],
        ],
      },
    };
    expect(new TextDecoder().decode(resultFile("csv", crossed))).toBe(
      "a,b,n\r\nx,Other,1\r\nOther,p,2\r\nOther,(no match),3\r\n",
    );
    expect(JSON.parse(new TextDecoder().decode(resultFile("json", crossed)))[2]).toEqual({
      a: "Other",
      b: "(no match)",
      n: 3,
    });
  });

  it("guards a text against being run wherever a spreadsheet could take a cell to begin", () => {
    const guarded = (t: string) =>
      new TextDecoder()
        .decode(
          resultFile("csv", {
            ...result,
            others: null,
            noMatch: null,
            places: [],
            rows: 1,
            columns: [{ name: "t", type: "text", values: [t] }],
          }),
        )
        .split("\r\n")[1];
    expect(guarded("＝1+1")).toBe("'＝1+1");
    expect(guarded("  @x")).toBe("'  @x");
    expect(guarded("a;=1+1")).toBe('"a;\'=1+1"');
    expect(guarded("a\n=1+1")).toBe(`"a\n'=1+1"`);
    expect(guarded('x",=cmd')).toBe('"x"",\'=cmd"');
    expect(guarded("a-b; c-d")).toBe('"a-b; c-d"');
  });
});

describe("what leaves opens elsewhere", () => {
  const ROWS = 100_000;
  const made: Result = {
    ...result,
    others: null,
    noMatch: null,
    places: [],
    rows: ROWS,
    columns: [
      {
        name: "text",
        type: "text",
        values: Array.from({ length: ROWS }, (_, i) =>
          i % 7 === 0 ? null : i % 5 === 0 ? `00${i}` : `r${i} & <é> _x0041_ "q"`,
        ),
      },
      {
        name: "number",
        type: "number",
        values: Array.from({ length: ROWS }, (_, i) => (i % 11 === 0 ? null : (i - 50_000) / 8)),
      },
      {
        name: "day",
        type: "date",
        values: Array.from({ length: ROWS }, (_, i) =>
          i % 13 === 0 ? null : new Date(Date.UTC(1950, 0, 1 + (i % 40_000))).toISOString().slice(0, 10),
        ),
      },
      {
        name: "at",
        type: "timestamp",
        values: Array.from({ length: ROWS }, (_, i) => `2026-05-01T${String(i % 24).padStart(2, "0")}:30:15`),
      },
      {
        name: "ok",
        type: "boolean",
        values: Array.from({ length: ROWS }, (_, i) => (i % 3 === 0 ? null : i % 2 === 0)),
      },
    ],
  };
  const CHECKED = Array.from({ length: 500 }, (_, i) => (i * 199) % ROWS);
  /**
   * A cell as every reader has to see it: numbers, texts and booleans as themselves, moments by
   * their ISO text.
   */
  const seen = (value: unknown) =>
    value instanceof Date
      ? value.toISOString().slice(0, 19)
      : value === undefined || value === ""
        ? null
        : value;
  const wanted = (row: number) =>
    made.columns.map((c) =>
      c.type === "date" && c.values[row] !== null ? `${c.values[row]}T00:00:00` : c.values[row],
    );
  const plain = {
    ...made,
    columns: made.columns.map((c) => (c.name === "text" ? { ...c, values: c.values } : c)),
  };

  it("a workbook, to two readers that are not ours", async () => {
    const bytes = resultFile("xlsx", made);
    const sheet = await readExcelFile(Buffer.from(bytes));
    const rows = (
      Array.isArray(sheet[0]) ? sheet : (sheet[0] as unknown as { data: unknown[][] }).data
    ) as unknown[][];
    expect(rows).toHaveLength(ROWS + 1);
    // This reader leaves escapes as they are written.
    const unescaped = (v: unknown) => (typeof v === "string" ? v.replaceAll("_x005F_", "_") : seen(v));
    for (const i of CHECKED) expect(rows[i + 1].map(unescaped), `row ${i}`).toEqual(wanted(i));
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(Buffer.from(bytes) as never);
    const other = book.worksheets[0];
    expect(other.rowCount).toBe(ROWS + 1);
    for (const i of CHECKED) {
      const values = [1, 2, 3, 4, 5].map((c) => unescaped(other.getRow(i + 2).getCell(c).value));
      expect(values, `row ${i}`).toEqual(wanted(i));
    }
  }, 120_000);

  it("a workbook, to the standard: every style names what it must, and every part is XML", () => {
    const files = unzipSync(resultFile("xlsx", result));
    for (const [name, bytes] of Object.entries(files)) {
      const parser = new SaxesParser();
      parser.on("error", (error) => {
        throw new Error(`${name}: ${error.message}`);
      });
      parser.write(new TextDecoder().decode(bytes)).close();
    }
    const styles = new TextDecoder().decode(files["xl/styles.xml"]);
    expect(styles).not.toContain("<fill/>");
    for (const xf of styles.match(/<xf [^>]*>/g) ?? [])
      for (const part of ["numFmtId", "fontId", "fillId", "borderId"]) expect(xf).toContain(`${part}="`);
    expect(styles).toContain('<cellStyle name="Normal" xfId="0" builtinId="0"/>');
  });

  it("CSV, to a reader of RFC 4180, and NDJSON, line by line", () => {
    const csv = parse(Buffer.from(resultFile("csv", plain))) as string[][];
    expect(csv).toHaveLength(ROWS + 1);
    const lines = new TextDecoder().decode(resultFile("ndjson", plain)).trimEnd().split("\n");
    expect(lines).toHaveLength(ROWS);
    for (const i of CHECKED) {
      expect(csv[i + 1]).toEqual(plain.columns.map((c) => (c.values[i] === null ? "" : String(c.values[i]))));
      expect(Object.values(JSON.parse(lines[i]))).toEqual(plain.columns.map((c) => c.values[i]));
    }
  });
});
