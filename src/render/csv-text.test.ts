import { expect, it } from "vitest";
import type { Result } from "@/core/engine/query";
import { csvText } from "./csv-text";

it("writes a result as CSV, quoting what needs it and guarding what a spreadsheet would run", () => {
  const result: Result = {
    columns: [
      { name: "route", type: "text", values: ["=1+1", "@sum", '+x, "y"', "two\nlines", "plain", null, null] },
      { name: "n", type: "number", values: [-1, 2.5, null, 3, 4, 5, 6] },
    ],
    rows: 7,
    totals: {},
    others: { row: 6, groups: 3 },
    noMatch: null,
    crossed: null,
    unfiltered: [],
    scanned: 0,
    ms: 0,
  };
  expect(csvText(result)).toBe(`route,n\r\n'=1+1,-1\r\n'@sum,2.5\r\n"'+x, ""y""",\r\n"two\nlines",3\r\nplain,4\r\n,5\r\nOther,6\r\n`);
});
