import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "../../testing/made-table";
import type { Value } from "../base/value";
import { type QueryInput, querySchema } from "../plan/query";
import { BLOCK } from "./loops/loops";
import { type Catalog, runQueries } from "./run";

const ROWS = 5 * BLOCK + 123;

/** Columns of so many values, of which the later ones come late: groups grow while rows are met. */
function catalogOf(sizes: number[], chunk: number | undefined): Catalog {
  const column = (make: (row: number) => Value): Value[] =>
    Array.from({ length: ROWS }, (_, row) => make(row));
  const table = madeTable("rows", {
    ...Object.fromEntries(
      sizes.map((size, i) => [
        `by${i}`,
        ["text", column((row) => `${Math.floor((((row * (7 + i)) % 101) / 101) * (row / ROWS) * size)}`)],
      ]),
    ),
    day: ["date", column((row) => (row % 13 === 0 ? null : 20_000 + ((row * 17) % 400)))],
    people: ["number", column((row) => (row % 7 === 0 ? null : ((row * 31) % 120) - 20))],
    debt: ["number", column((row) => -1 - (row % 40))],
    fare: ["number", column((row) => ((row * 37) % 9_001) / 100)],
  });
  return {
    tables: [table],
    inputs: {},
    chunk,
    scope: { tables: [{ name: "rows", columns: scopeColumns(table) }], measures: [], inputs: [] },
  };
}

const MEASURES = [
  "sum(people)",
  "avg(fare)",
  "max(fare)",
  "min(fare)",
  "max(debt)",
  "min(people)",
  "count(people)",
  "count(*) filter (where people > 50)",
  "max(day)",
  "sum(fare) filter (where people < 10)",
];

describe("groupings of one pass that gather the same", () => {
  it("give to the last bit what each gives alone, however many groups they have", () => {
    const grouping = fc.record({
      sizes: fc.array(fc.constantFrom(1, 3, 8, 40, 300, 5_000), { minLength: 2, maxLength: 5 }),
      formulas: fc.uniqueArray(fc.constantFrom(...MEASURES), { minLength: 1, maxLength: 6 }),
      byMonth: fc.boolean(),
      alone: fc.boolean(),
      // Some of the groupings gather something else.
      others: fc.boolean(),
      filtered: fc.boolean(),
      chunk: fc.constantFrom(undefined, BLOCK),
    });
    fc.assert(
      fc.property(grouping, ({ sizes, formulas, byMonth, alone, others, filtered, chunk }) => {
        const catalog = catalogOf(sizes, chunk);
        const splits: NonNullable<QueryInput["splits"]>[] = [
          ...sizes.map((_, i) => [{ column: `by${i}` }]),
          ...(byMonth ? [[{ column: "day", by: "month" as const }]] : []),
          ...(alone ? [[]] : []),
        ];
        const queries = splits.map((of, at) =>
          querySchema.parse({
            table: "rows",
            measures: (others && at % 2 ? MEASURES.slice(at) : formulas).map((formula, i) => ({
              formula,
              as: `m${i}`,
            })),
            splits: of,
            filters: filtered ? [{ column: "people", from: -5, to: 60 }] : [],
          }),
        );
        const one = queries.map((query) => runQueries([query], catalog)[0]);
        expect(runQueries(queries, catalog)).toEqual(one);
        for (const answer of one) expect(answer).toHaveProperty("rows");
      }),
      { numRuns: 60 },
    );
  });
});
