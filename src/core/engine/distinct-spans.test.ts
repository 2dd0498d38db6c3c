import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "@/testing/made-table";
import type { ColumnType } from "../data/column";
import { querySchema } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { runQueries } from "./run";

/** The distinct values of a column, in all and by a second one, as the engine counts them. */
function counted(type: ColumnType, values: (number | null)[], groups: string[]) {
  const table = madeTable("log", { at: [type, values], by: ["text", groups] });
  const catalog = {
    tables: [table],
    inputs: {},
    scope: { tables: [{ name: "log", columns: scopeColumns(table) }], measures: [], inputs: [] },
  };
  const measures = [{ formula: "count(distinct at)", as: "n" }];
  const queries = [
    querySchema.parse({ table: "log", measures }),
    querySchema.parse({ table: "log", measures, splits: [{ column: "by" }] }),
  ];
  return runQueries(queries, catalog).map((result) => {
    if (result instanceof QueryError) throw result;
    return result.columns;
  });
}

const distinct = (values: (number | null)[]) => new Set(values.filter((v) => v !== null)).size;

describe("distinct values, whatever stretch they lie in", () => {
  it("counts timestamps years apart, to the millisecond", () => {
    const values = Array.from({ length: 400 }, (_, i) => Date.UTC(2020, 0, 1) + i * 86_399_999 * 2 + (i % 3));
    const twice = [...values, ...values, null];
    const [[all], [keys, each]] = counted(
      "timestamp",
      twice,
      twice.map((_, i) => `g${i % 7}`),
    );
    expect(all.values).toEqual([400]);
    for (const [k, key] of keys.values.entries())
      expect(each.values[k]).toBe(distinct(twice.filter((_, i) => `g${i % 7}` === key)));
  });

  it("counts whole numbers in any span and any number of groups", () => {
    const span = fc.constantFrom(3, 1000, 2 ** 20, 2 ** 27, 2 ** 31, 2 ** 33, 1e12);
    const made = span.chain((most) =>
      fc.record({
        values: fc.array(fc.option(fc.integer({ min: 0, max: most }), { freq: 5 }), {
          minLength: 1,
          maxLength: 60,
        }),
        low: fc.constantFrom(0, -most, 1_600_000_000_000),
        groups: fc.integer({ min: 1, max: 40 }),
      }),
    );
    fc.assert(
      fc.property(made, ({ values, low, groups }) => {
        const moved = values.map((v) => (v === null ? null : v + low));
        const by = moved.map((_, i) => `g${i % groups}`);
        const [[all], [keys, each]] = counted("timestamp", moved, by);
        expect(all.values).toEqual([distinct(moved)]);
        for (const [k, key] of keys.values.entries())
          expect(each.values[k]).toBe(distinct(moved.filter((_, i) => by[i] === key)));
      }),
      { numRuns: 150, seed: 12 },
    );
  });
});
