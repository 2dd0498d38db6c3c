import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { ColumnBuilder, type ColumnType, type Table } from "../data/column";
import { readCell } from "../data/reading";
import { AGGREGATES } from "../formula/aggregates";
import { SCALAR_ENTRIES } from "../formula/scalars";
import { QueryError, querySchema } from "../plan/query";
import { type Catalog, runQueries } from "./run";

const doc = readFileSync("docs/formulas.md", "utf8");
const rows = [...doc.matchAll(/^\| (\S+) \| (\S+) \| (\S+) \| (\S+) \| (\S+) \|$/gm)]
  .map((m) => m.slice(1))
  .slice(1);
const types: [string, ColumnType][] = [
  ["n", "number"],
  ["t", "text"],
  ["d", "date"],
  ["at", "timestamp"],
  ["ok", "boolean"],
];
const columns = types.map(([name, type], i) => {
  const builder = new ColumnBuilder(type);
  for (const row of rows) builder.add(readCell(row[i] === "-" ? null : row[i], { type }));
  return { name, data: builder.finish() };
});
const table: Table = { name: "rows", version: "1", rows: rows.length, columns };
const catalog: Catalog = {
  tables: [table],
  inputs: {},
  today: "2026-11-24",
  scope: {
    tables: [{ name: "rows", columns: types.map(([name, type]) => ({ name, type })) }],
    measures: [],
    inputs: [],
  },
};

const examples = [...doc.matchAll(/^ {4}(\S.*?) +-> (.+)$/gm)].map((m) => [m[1], m[2]]);

describe("the examples in docs/formulas.md", () => {
  it.each(examples)("%s gives %s", (formula, expected) => {
    const [result] = runQueries(
      [querySchema.parse({ table: "rows", measures: [{ formula, as: "x" }] })],
      catalog,
    );
    if (result instanceof QueryError) throw result;
    expect(String(result.totals.x)).toBe(expected);
  });

  it("are there for every function and every aggregate", () => {
    expect(rows).toHaveLength(4);
    for (const { name } of [...AGGREGATES, ...SCALAR_ENTRIES])
      expect(
        examples.some(([formula]) => formula.includes(`${name}(`)),
        name,
      ).toBe(true);
  });
});
