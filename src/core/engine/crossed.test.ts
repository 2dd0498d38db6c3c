import Database from "better-sqlite3";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "../../testing/made-table";
import { compareText } from "../base/value";
import { type QueryInput, querySchema, type Result } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { runQueries } from "./run";

type Row = [string | null, number | null, number | null];
function answer(rows: Row[], query: QueryInput): Result {
  const table = madeTable("t", {
    a: ["text", rows.map((r) => r[0])],
    b: ["number", rows.map((r) => r[1])],
    x: ["number", rows.map((r) => r[2])],
  });
  const found = runQueries([querySchema.parse(query)], {
    tables: [table],
    inputs: {},
    scope: { tables: [{ name: "t", columns: scopeColumns(table) }], measures: [], inputs: [] },
  })[0];
  if (found instanceof QueryError) throw found;
  return found;
}
const SUM: QueryInput = {
  table: "t",
  measures: [{ formula: "sum(x)", as: "s" }],
  splits: [{ column: "a" }, { column: "b" }],
};
const ROWS: Row[] = [
  ["p", 1, 10],
  ["q", 1, 20],
  ["p", 2, 5],
  ["r", 3, 1],
  ["p", 3, 2],
  [null, 3, 4],
];

describe("two splits", () => {
  it("give a row for each pair that exists, with the totals of each split", () => {
    const { columns, crossed, totals } = answer(ROWS, SUM);
    expect(columns.map((c) => c.values)).toEqual([
      ["p", "p", "p", "q", "r", null],
      [1, 2, 3, 1, 3, 3],
      [10, 5, 2, 20, 1, 4],
    ]);
    expect(crossed?.splits[0]).toMatchObject({ keys: ["p", "q", "r", null], totals: { s: [17, 20, 1, 4] } });
    expect(crossed?.splits[1]).toMatchObject({ keys: [1, 2, 3], totals: { s: [30, 5, 7] } });
    expect(totals).toEqual({ s: 42 });
  });

  it("sort and keep each split for itself, with Other computed from its rows", () => {
    const { columns, crossed } = answer(ROWS, {
      ...SUM,
      sort: { by: "s" },
      keep: { first: 1 },
      series: { sort: { by: "b", order: "desc" }, keep: { first: 1 } },
    });
    expect(crossed?.splits[0]).toMatchObject({
      keys: ["q", null],
      others: { at: 1, groups: 3 },
      totals: { s: [20, 22] },
    });
    expect(crossed?.splits[1]).toMatchObject({
      keys: [3, null],
      others: { at: 1, groups: 2 },
      totals: { s: [7, 35] },
    });
    expect(columns[2].values).toEqual([20, 7, 15]);
    expect(crossed?.at).toEqual([
      [0, 1],
      [1, 0],
      [1, 1],
    ]);
  });

  it("show the group that Other would stand for alone", () => {
    const series = { sort: { by: "b", order: "desc" as const }, keep: { first: 2 } };
    expect(answer(ROWS, { ...SUM, series }).crossed?.splits[1]).toMatchObject({
      keys: [3, 2, 1],
      others: null,
    });
  });

  it("leave out what is past the first n where that is wished", () => {
    const { columns } = answer(ROWS, {
      ...SUM,
      sort: { by: "s" },
      keep: { first: 2, others: false },
      series: { keep: { first: 1, others: false } },
    });
    expect(columns.map((c) => c.values)).toEqual([
      ["q", "p"],
      [1, 1],
      [20, 10],
    ]);
  });

  it("refuse more than 50,000 groups, with their number", () => {
    const many = Array.from({ length: 60_000 }, (_, i): Row => [`k${i % 300}`, i, 1]);
    expect(() => answer(many, SUM)).toThrow("This split makes 60,000 groups; at most 50,000");
  });

  it("agree with SQLite for every pair, every marginal and every Other", () => {
    const db = new Database(":memory:");
    db.exec("create table t (a text, b real, x real)");
    const insert = db.prepare("insert into t values (?, ?, ?)");
    const row = fc.tuple(
      fc.option(fc.constantFrom("p", "q", "é", "日"), { nil: null }),
      fc.option(fc.integer({ min: 0, max: 4 }), { nil: null }),
      fc.option(fc.integer({ min: -9, max: 9 }), { nil: null }),
    );
    fc.assert(
      fc.property(
        fc.array(row, { minLength: 1, maxLength: 40 }),
        fc.integer({ min: 1, max: 5 }),
        (rows, first) => {
          db.exec("delete from t");
          for (const r of rows) insert.run(...r);
          const measures = [
            { formula: "avg(x)", as: "m" },
            { formula: "count(*)", as: "n" },
          ];
          const { columns, crossed } = answer(rows, { ...SUM, measures, sort: { by: "n" }, keep: { first } });
          const pick = db.prepare(
            "select avg(x) as m, count(*) as n from t where (a is ? or (? and (a is null or a not in (select value from json_each(?))) and a is not ?)) and b is ?",
          );
          const kept = db
            .prepare<[], { a: string | null; n: number }>("select a, count(*) as n from t group by a")
            .all();
          kept.sort((p, q) => q.n - p.n || (p.a === null ? 1 : q.a === null ? -1 : compareText(p.a, q.a)));
          const keys = kept.slice(0, first).map((k) => k.a);
          expect(crossed?.splits[0].keys.slice(0, keys.length)).toEqual(keys);
          for (const [i, [at]] of (crossed?.at ?? []).entries()) {
            const other = at >= keys.length;
            const expected = (
              other
                ? db
                    .prepare(
                      "select avg(x) as m, count(*) as n from t where (a is null or a not in (select value from json_each(?) where value is not null)) and (not ? or a is not null) and b is ?",
                    )
                    .get(JSON.stringify(keys), keys.includes(null) ? 1 : 0, columns[1].values[i])
                : pick.get(keys[at], 0, "[]", null, columns[1].values[i])
            ) as { m: number | null; n: number };
            expect(columns[3].values[i]).toBe(expected.n);
            if (expected.m === null) expect(columns[2].values[i]).toBeNull();
            else expect(columns[2].values[i]).toBeCloseTo(expected.m, 9);
          }
        },
      ),
      { numRuns: 200, seed: 11 },
    );
  });
});
