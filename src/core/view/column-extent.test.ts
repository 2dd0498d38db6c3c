import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "../../testing/made-table";
import { runQueries } from "../engine/run";
import { type QueryInput, querySchema, type Result } from "../plan/query";
import { BINS, binsIn, binsQuery, extentIn, extentQuery, niceStep } from "./column-extent";

const answered = (
  values: (number | null)[],
  query: (of: { table: string; column: string }) => QueryInput,
) => {
  const table = madeTable("t", { 'odd "name"': ["number", values] });
  const scope = { tables: [{ name: "t", columns: scopeColumns(table) }], measures: [], inputs: [] };
  const [found] = runQueries([querySchema.parse(query({ table: "t", column: 'odd "name"' }))], {
    tables: [table],
    inputs: {},
    scope,
  });
  if (!("rows" in found)) throw found;
  return found as Result;
};

describe("the extent of a column of numbers", () => {
  it("is its least and its greatest value, and none where it has no number", () => {
    expect(extentIn(answered([3, null, -2, 7.5], extentQuery))).toEqual({ least: -2, most: 7.5 });
    expect(extentIn(answered([null, null], extentQuery))).toBeNull();
    expect(extentIn({ error: "away" })).toBeNull();
    expect(extentIn(null)).toBeNull();
  });

  it("is divided into bins that count every row once", () => {
    const numbers = fc.array(fc.option(fc.integer({ min: -1000, max: 1000 }).map((n) => n / 4)), {
      minLength: 1,
    });
    fc.assert(
      fc.property(numbers, (values) => {
        const extent = extentIn(answered(values, extentQuery));
        if (!extent || extent.least === extent.most) return;
        const bins = binsIn(answered(values, (of) => binsQuery(of, extent)));
        expect(bins).toHaveLength(BINS);
        expect(bins.reduce((sum, n) => sum + n, 0)).toBe(values.filter((v) => v !== null).length);
        expect(bins[0]).toBeGreaterThan(0);
        expect(bins[BINS - 1]).toBeGreaterThan(0);
      }),
      { numRuns: 100, seed: 6 },
    );
    expect(binsIn(null)).toEqual([]);
  });

  it("has a step of 1, 2 or 5 of a power of ten, whole between whole ends", () => {
    expect(niceStep({ least: 0, most: 100 })).toBe(1);
    expect(niceStep({ least: 0, most: 1 })).toBe(1);
    expect(niceStep({ least: 0, most: 5000 })).toBe(50);
    expect(niceStep({ least: 0, most: 0.35 })).toBeCloseTo(0.002, 12);
    expect(niceStep({ least: 4, most: 4 })).toBe(1);
  });
});
