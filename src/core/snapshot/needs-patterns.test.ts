import { expect, it } from "vitest";
import type { Project } from "../project/schema";
import { needsPatterns } from "./needs-patterns";

/** The parts of a project that are looked at. */
const having = (parts: { formula?: string; reading?: object; derived?: string }) =>
  ({
    measures: parts.formula === undefined ? [] : [{ formula: parts.formula }],
    tables: [
      {
        columns: [{ name: "day", reading: { type: "date", ...parts.reading } }],
        derived: parts.derived === undefined ? [] : [{ formula: parts.derived }],
      },
    ],
  }) as unknown as Project;

it("finds formulas that match expressions or read dates by patterns, and columns that are read so", () => {
  expect(needsPatterns(having({ formula: "sum(carried)" }))).toBe(false);
  for (const formula of [
    "count(*) filter (where REGEXP_LIKE(route, 'a+'))",
    "max(to_date(text, 'dd.MM.yyyy'))",
    "max(To_Timestamp(text, 'yyyyMMdd HHmm'))",
  ])
    expect([formula, needsPatterns(having({ formula }))]).toEqual([formula, true]);
  expect(needsPatterns(having({ reading: { pattern: "dd|MM|yyyy" } }))).toBe(true);
  expect(needsPatterns(having({ derived: "regexp_replace(a, 'b', 'c')" }))).toBe(true);
});
