import fc from "fast-check";
import { expect, it } from "vitest";
import { ColumnBuilder, type ColumnType, type Table } from "../data/column";
import { AGGREGATES, type AggregateName, aggregateEntry } from "../formula/aggregates";
import { querySchema } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { type Catalog, runQueries } from "./run";

/** Each aggregate in the forms that its entry allows, over a text, a number and a key. */
function formsOf(name: AggregateName): string[] {
  const { type, keyed, ordered, distinct } = aggregateEntry(name);
  if (ordered) return [`${name}(0.9) within group (order by n)`];
  const values = [
    ...(type("number") ? ["n", "n + 6"] : []),
    ...(type("text") ? ["t"] : []),
    ...(type("boolean") ? ["n > 0"] : []),
  ];
  return values.flatMap((x) => [
    keyed ? `${name}(${x}, key)` : `${name}(${x})`,
    `${name}(${keyed ? `${x}, key` : x}) filter (where n < 3)`,
    ...(distinct === "no" ? [] : [`${name}(distinct ${x})`]),
  ]);
}
const FORMULAS = [
  "count(*)",
  "sum(n) / count(*)",
  ...(Object.keys(AGGREGATES) as AggregateName[]).flatMap(formsOf),
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
