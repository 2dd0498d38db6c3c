import fc from "fast-check";
import { expect, it } from "vitest";
import { ColumnBuilder, type ColumnType, type Table } from "../data/column";
import { QueryError, querySchema } from "../plan/query";
import { type Catalog, runQueries } from "./run";

const FORMULAS = [
  "count(*)",
  "count(n)",
  "count(distinct n)",
  "sum(n)",
  "sum(distinct n)",
  "avg(n)",
  "avg(distinct n)",
  "min(n)",
  "max(n)",
  "min(t)",
  "max(t)",
  "median(n)",
  "median(distinct n)",
  "percentile_cont(0.9) within group (order by n)",
  "stddev_pop(n)",
  "stddev_samp(n)",
  "var_pop(n)",
  "var_samp(distinct n)",
  "max_by(n, key)",
  "min_by(t, key)",
  "bool_and(n > 0)",
  "bool_or(n > 0) filter (where n < 3)",
  "sum(n) / count(*)",
];

function catalogOf(rows: [string | null, number | null][]): Catalog {
  const types: [string, ColumnType][] = [
    ["t", "text"],
    ["n", "number"],
    ["key", "number"],
  ];
  const columns = types.map(([name, type], at) => {
    const builder = new ColumnBuilder(type);
    // The key is different in every row, so that no tie has to be settled.
    for (const [i, row] of rows.entries()) builder.add(at === 2 ? (i * 7919) % 1009 : row[at]);
    return { name, data: builder.finish() };
  });
  const table: Table = { name: "rows", version: "1", rows: rows.length, columns };
  return {
    tables: [table],
    inputs: {},
    scope: {
      tables: [{ name: "rows", columns: types.map(([name, type]) => ({ name, type })) }],
      measures: [],
      inputs: [],
    },
  };
}

it("Other and the totals are what a query over just those rows gives, for every aggregate", () => {
  const row = fc.tuple(
    fc.option(fc.constantFrom("a", "b", "c", "d", "é"), { nil: null }),
    fc.option(fc.integer({ min: -5, max: 5 }), { nil: null }),
  );
  let compared = 0;
  fc.assert(
    fc.property(
      fc.array(row, { minLength: 2, maxLength: 40 }),
      fc.constantFrom(...FORMULAS),
      (rows, formula) => {
        const catalog = catalogOf(rows);
        const ask = (query: object) => {
          const [result] = runQueries(
            [querySchema.parse({ table: "rows", measures: [{ formula, as: "x" }], ...query })],
            catalog,
          );
          if (result instanceof QueryError) throw result;
          return result;
        };
        const split = ask({ splits: [{ column: "t" }], keep: { first: 1, others: true } });
        const whole = ask({});
        const near = (a: unknown, b: unknown) =>
          typeof a === "number" && typeof b === "number" ? expect(a).toBeCloseTo(b, 9) : expect(a).toBe(b);
        near(split.totals.x, whole.totals.x);
        if (!split.others) return;
        const rest = [...new Set(rows.map(([t]) => t))].filter((t) => t !== split.columns[0].values[0]);
        near(
          split.columns[1].values[split.others.row],
          ask({ filters: [{ column: "t", in: rest }] }).totals.x,
        );
        compared++;
      },
    ),
    { numRuns: 1200, seed: 42 },
  );
  expect(compared).toBeGreaterThan(800);
});
