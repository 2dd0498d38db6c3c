import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTable } from "../../testing/made-table";
import { bucketStart, DAY_MS, isoDate, parseIsoDate } from "../base/calendar";
import type { Value } from "../base/value";
import type { ColumnType } from "../data/column";
import { categoriesOf, FEW_CATEGORIES, placesAmong } from "./category-places";

const column = (type: ColumnType, values: Value[]) => madeTable("t", { c: [type, values] }).columns[0].data;
const valuesOf = (type: ColumnType, values: Value[]) => {
  const found = categoriesOf(column(type, values));
  return "values" in found ? found.values : null;
};

describe("the categories of a column", () => {
  it("are its values, few of them in their own order and many by how often they stand there", () => {
    const whole = fc.integer({ min: -300, max: 300 });
    const decimal = fc.integer({ min: -50_000, max: 50_000 }).map((n) => n / 100);
    const far = fc.oneof(fc.constantFrom(-1e15, 1e15, 0.1, 1e-9, -0), whole);
    const cells = fc.oneof(
      ...[whole, decimal, far].map((of) => fc.array(fc.option(of, { freq: 9 }), { maxLength: 300 })),
    );
    fc.assert(
      fc.property(cells, (values) => {
        const counts = new Map<number, number>();
        for (const v of values) if (v !== null) counts.set(v + 0, (counts.get(v + 0) ?? 0) + 1);
        const expected = [...counts.keys()].sort((a, b) => a - b);
        if (expected.length > FEW_CATEGORIES)
          expected.sort((a, b) => (counts.get(b) as number) - (counts.get(a) as number));
        expect(valuesOf("number", values)).toEqual(expected);
      }),
      { numRuns: 300 },
    );
  });

  it("are true and false, days and moments as they leave the engine", () => {
    expect(valuesOf("boolean", [null, true, true, false])).toEqual([false, true]);
    expect(valuesOf("boolean", [null, null])).toEqual([]);
    expect(valuesOf("date", [20_001, null, 20_000, 20_001])).toEqual(["2024-10-04", "2024-10-05"]);
    expect(valuesOf("timestamp", [86_400_000_000, 0])).toEqual([
      "1970-01-01T00:00:00",
      "1972-09-27T00:00:00",
    ]);
    expect(valuesOf("text", ["b", null, "constructor", "b"])).toEqual(["b", "constructor"]);
  });

  it("are none where there are more than anybody tells apart", () => {
    expect(
      valuesOf(
        "number",
        Array.from({ length: 20_001 }, (_, i) => i),
      ),
    ).toEqual([]);
    expect(
      valuesOf(
        "number",
        Array.from({ length: 20_001 }, (_, i) => i * 1e9),
      ),
    ).toEqual([]);
    expect(
      valuesOf(
        "number",
        Array.from({ length: 20_000 }, (_, i) => i),
      ),
    ).toHaveLength(20_000);
  });
});

describe("the stretches of a column of dates", () => {
  it("stand one after the other from the first to the last, with a place for each between", () => {
    const day = fc.option(fc.integer({ min: 0, max: 40_000 }), { freq: 9 });
    const shape = fc.record({
      days: fc.array(day, { minLength: 1, maxLength: 60 }),
      by: fc.constantFrom("year", "quarter", "month", "week", "day" as const),
      asMoments: fc.boolean(),
    });
    fc.assert(
      fc.property(shape, ({ days, by, asMoments }) => {
        const met = days.filter((d) => d !== null);
        const moments = days.map((d) => d && d * DAY_MS + 3_600_000 * 23);
        const data = asMoments ? column("timestamp", moments) : column("date", days);
        const categories = categoriesOf(data, by as "year");
        const stretches: number[] = [];
        for (let d = Math.min(...met); d <= Math.max(...met); d++) {
          const start = bucketStart(d, by as "year");
          if (start !== stretches.at(-1)) stretches.push(start);
        }
        const { of, at } = placesAmong(categories, [...stretches.map(isoDate), null, "no date"]);
        expect(of).toBe(met.length === 0 ? 0 : stretches.length);
        if (met.length > 0) expect(at).toEqual([...stretches.keys(), null, null]);
      }),
      { numRuns: 100 },
    );
  });

  it("are found among so many moments that their sum would not be exact", () => {
    const first = (parseIsoDate("2026-01-15") as number) * DAY_MS;
    const data = column(
      "timestamp",
      Array.from({ length: 9_000 }, (_, i) => first + i * 3_600_000),
    );
    expect(placesAmong(categoriesOf(data, "month"), ["2026-01-01", "2027-01-01"])).toEqual({
      of: 13,
      at: [0, 12],
    });
  });
});
