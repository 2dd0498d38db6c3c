import { describe, expect, it } from "vitest";
import type { Result } from "@/core/engine/query";
import { readingFolder } from "@/server/import/reading-folder";
import { resultFile, TABLE_FORMATS, type TableFormat } from "./table-file";

const { read } = readingFolder();
const result: Result = {
  columns: [
    { name: "route", type: "text", values: ["=1+1", "@sum", '+x, "y"', "two\nlines & <b>\u0007", "plain", null, null] },
    { name: "n", type: "number", values: [-1, 2.5, null, 3, 4e-9, 5, 6] },
    { name: "on", type: "date", values: ["2026-05-01", "1899-12-31", null, null, null, null, null] },
    { name: "at", type: "timestamp", values: ["2026-05-01T08:30:15", null, null, null, null, null, null] },
    { name: "ok", type: "boolean", values: [true, false, null, null, null, null, null] },
  ],
  rows: 7,
  totals: {},
  others: { row: 6, groups: 3 },
  noMatch: { row: 5, rows: 2 },
  crossed: null,
  unfiltered: [],
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
    expect(table.cells[3].slice(0, 2)).toEqual(["two\nlines & <b>", "3"]);
    expect(table.cells[4][1]).toBe("4e-9");
  });

  it("comes back the same through every format", async () => {
    const plain: Result = { ...result, others: null, noMatch: null, columns: result.columns.map((c) => ({ ...c, values: c.values.slice(0, 3) })), rows: 3 };
    const asText = (v: unknown) => (v === null ? null : String(v));
    for (const format of Object.keys(TABLE_FORMATS) as TableFormat[]) {
      if (format === "csv") continue;
      const table = await read(resultFile(format, plain), `out.${format}`);
      expect(table.cells, format).toEqual([0, 1, 2].map((i) => plain.columns.map((c) => asText(c.values[i]))));
    }
  });
});
