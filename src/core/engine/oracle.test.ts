import Database from "better-sqlite3";
import fc from "fast-check";
import { expect, it } from "vitest";
import { ColumnBuilder, type ColumnType, type Table } from "../data/column";
import type { Value } from "../formula/value";
import { compareText } from "../formula/value";
import { QueryError, querySchema, type Result } from "./query";
import { type Catalog, runQueries } from "./run";

/**
 * The engine against SQLite over the same rows. The SQL is written here, for the test alone, beside the formula. SQLite
 * differs by design where docs/formulas.md says so: whole numbers divide to whole numbers there (so numbers are REAL
 * columns and literals carry a point), scalar min/max of a null is null there (so greatest and least are spelt out with
 * coalesce), and booleans are 0 and 1 there.
 */
interface Case {
  formula: string;
  sql: string;
}

const rowNumber: fc.Arbitrary<Case> = fc.letrec<{ number: Case }>((tie) => ({
  number: fc.oneof(
    { maxDepth: 3 },
    fc.constantFrom({ formula: "a", sql: "a" }, { formula: "b", sql: "b" }),
    fc.integer({ min: -5, max: 5 }).map((n) => ({ formula: `(${n})`, sql: `(${n}.0)` })),
    fc
      .tuple(tie("number"), fc.constantFrom("+", "-", "*", "/"), tie("number"))
      .map(([x, op, y]) => ({ formula: `(${x.formula} ${op} ${y.formula})`, sql: `(${x.sql} ${op} ${y.sql})` })),
    tie("number").map((x) => ({ formula: `abs(${x.formula})`, sql: `abs(${x.sql})` })),
    fc.tuple(tie("number"), tie("number")).map(([x, y]) => ({ formula: `coalesce(${x.formula}, ${y.formula})`, sql: `coalesce(${x.sql}, ${y.sql})` })),
    fc.tuple(tie("number"), tie("number")).map(([x, y]) => ({ formula: `nullif(${x.formula}, ${y.formula})`, sql: `nullif(${x.sql}, ${y.sql})` })),
    fc.tuple(tie("number"), tie("number")).map(([x, y]) => ({ formula: `greatest(${x.formula}, ${y.formula})`, sql: `coalesce(max(${x.sql}, ${y.sql}), ${x.sql}, ${y.sql})` })),
    fc.tuple(tie("number"), tie("number")).map(([x, y]) => ({
      formula: `case when ${x.formula} > ${y.formula} then ${x.formula} else ${y.formula} end`,
      sql: `case when ${x.sql} > ${y.sql} then ${x.sql} else ${y.sql} end`,
    })),
  ),
})).number;

const condition: fc.Arbitrary<Case> = fc.letrec<{ condition: Case }>((tie) => ({
  condition: fc.oneof(
    { maxDepth: 2 },
    fc
      .tuple(rowNumber, fc.constantFrom("=", "<>", "<", "<=", ">", ">="), rowNumber)
      .map(([x, op, y]) => ({ formula: `${x.formula} ${op} ${y.formula}`, sql: `${x.sql} ${op} ${y.sql}` })),
    fc
      .constantFrom("flag", "not flag", "t = 'é'", "t <> 'a'", "t is null", "t in ('a', 'Z')", "t not in ('a', 'Z')", "t < 'b'", "a between 0 and 3", "a is distinct from b")
      .map((c) => ({ formula: c, sql: c.replace("is distinct from", "is not") })),
    fc
      .tuple(tie("condition"), fc.constantFrom("and", "or"), tie("condition"))
      .map(([x, op, y]) => ({ formula: `(${x.formula} ${op} ${y.formula})`, sql: `(${x.sql} ${op} ${y.sql})` })),
    tie("condition").map((x) => ({ formula: `(not (${x.formula}))`, sql: `(not (${x.sql}))` })),
  ),
})).condition;

const aggregate: fc.Arbitrary<Case> = fc
  .tuple(
    fc.oneof(
      fc.constant({ formula: "count(*)", sql: "cast(count(*) as real)" }),
      fc
        .tuple(fc.constantFrom("sum", "avg", "min", "max", "count"), rowNumber)
        .map(([f, x]) => ({ formula: `${f}(${x.formula})`, sql: f === "count" ? `count(${x.sql})` : `${f}(${x.sql})` })),
      rowNumber.map((x) => ({ formula: `count(distinct ${x.formula})`, sql: `count(distinct ${x.sql})` })),
      fc.constant({ formula: "count(distinct t)", sql: "count(distinct t)" }),
    ),
    fc.option(condition, { nil: null }),
  )
  .map(([x, where]) => {
    if (!where) return x;
    // `filter` goes inside the cast that makes a count a real number.
    const sql = x.sql.startsWith("cast(count(*)") ? `cast(count(*) filter (where ${where.sql}) as real)` : `${x.sql} filter (where ${where.sql})`;
    return { formula: `${x.formula} filter (where ${where.formula})`, sql };
  });

const measure: fc.Arbitrary<Case> = fc.oneof(
  aggregate,
  fc
    .tuple(aggregate, fc.constantFrom("+", "-", "*", "/"), aggregate)
    .map(([x, op, y]) => ({ formula: `${x.formula} ${op} ${y.formula}`, sql: `cast(${x.sql} as real) ${op} ${y.sql}` })),
);

const row = fc.tuple(
  fc.option(fc.constantFrom("a", "é", "Z", "ß", "", "日本"), { nil: null }),
  fc.option(fc.oneof(fc.integer({ min: -4, max: 4 }), fc.constantFrom(0.1, -0, 1e15, 1e-9, 2.5)), { nil: null }),
  fc.option(fc.integer({ min: -2, max: 2 }), { nil: null }),
  fc.option(fc.boolean(), { nil: null }),
);

function tableOf(rows: [string | null, number | null, number | null, boolean | null][]): Table {
  const types: [string, ColumnType][] = [
    ["t", "text"],
    ["a", "number"],
    ["b", "number"],
    ["flag", "boolean"],
  ];
  const columns = types.map(([name, type], at) => {
    const builder = new ColumnBuilder(type);
    for (const r of rows) builder.add(r[at]);
    return { name, data: builder.finish() };
  });
  return { name: "rows", version: "1", rows: rows.length, columns };
}

const close = (x: Value, y: unknown): boolean => {
  if (x === null || y === null || typeof x !== "number" || typeof y !== "number") return x === y;
  return Math.abs(x - y) <= 1e-9 * Math.max(1, Math.abs(x), Math.abs(y));
};
const FINITE_LIMIT = 1e200;

it("agrees with SQLite on random formulas, tables, splits and filters", () => {
  const db = new Database(":memory:");
  db.exec("create table rows (t text, a real, b real, flag integer)");
  const insert = db.prepare("insert into rows values (?, ?, ?, ?)");
  let compared = 0;
  fc.assert(
    fc.property(fc.array(row, { maxLength: 25 }), measure, fc.boolean(), fc.option(fc.constantFrom("a", "é", "日本"), { nil: null }), (rows, { formula, sql }, split, keep) => {
      db.exec("delete from rows");
      for (const [t, a, b, flag] of rows) insert.run(t, a, b, flag === null ? null : Number(flag));
      const table = tableOf(rows);
      const catalog: Catalog = {
        tables: [table],
        inputs: {},
        scope: { tables: [{ name: "rows", columns: table.columns.map((c) => ({ name: c.name, type: c.data.type })) }], measures: [], inputs: [] },
      };
      const query = querySchema.parse({
        table: "rows",
        measures: [{ formula, as: "m" }],
        splits: split ? [{ column: "t" }] : [],
        filters: keep ? [{ column: "t", in: [keep, null] }] : [],
      });
      const result = runQueries([query], catalog)[0];
      if (result instanceof QueryError) throw result;
      const where = keep ? `where (t = '${keep}' or t is null)` : "";
      const expected = db.prepare(split ? `select t as k, ${sql} as m from rows ${where} group by t` : `select null as k, ${sql} as m from rows ${where}`).all() as {
        k: string | null;
        m: number | null;
      }[];
      expected.sort((x, y) => (x.k === null ? 1 : y.k === null ? -1 : compareText(x.k, y.k)));
      const keys = split ? (result as Result).columns[0].values : [null];
      const values = (result as Result).columns[split ? 1 : 0].values;
      expect(keys).toEqual(expected.map((e) => e.k));
      for (const [i, e] of expected.entries()) {
        if (e.m !== null && !(Math.abs(e.m) < FINITE_LIMIT)) continue;
        if (!close(values[i], e.m)) throw new Error(`${formula}\n${sql}\n${JSON.stringify(rows)}\nengine ${values[i]}, SQLite ${e.m}`);
        compared++;
      }
    }),
    { numRuns: 1500, seed: 20260101 },
  );
  expect(compared).toBeGreaterThan(1500);
});
