import { readFileSync, writeFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { ColumnBuilder, type ColumnType, type Table } from "../data/column";
import { readCell } from "../data/reading";
import { AGGREGATES, type AggregateEntry } from "../formula/aggregates";
import { FUNCTIONS, type FunctionEntry } from "../formula/functions";
import { querySchema } from "../plan/query";
import { QueryError } from "../plan/query-error";
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

const entries = Object.values({ ...AGGREGATES, ...FUNCTIONS });
const forms = [...doc.matchAll(/^ {4}(\S.*?) +-> (.+)$/gm)].map((m) => [m[1], m[2]] as const);

/** The docs' table of some functions, as it follows from their entries. */
function tableOf(functions: Record<string, FunctionEntry | AggregateEntry>): string {
  const cell = (text: string) => text.replaceAll("|", "\\|");
  const lines = Object.values(functions).map(({ signature, help, example: [formula, gives] }) =>
    ["", `\`${cell(signature)}\``, cell(help), `\`${cell(formula)}\``, gives, ""].join(" | ").trim(),
  );
  return ["| function | gives | example | is |", "|---|---|---|---|", ...lines].join("\n");
}
const tables = { aggregates: tableOf(AGGREGATES), functions: tableOf(FUNCTIONS) };

/** The text between the marks of a table in the docs. */
const place = (name: string) => new RegExp(`(<!-- ${name} -->\\n)[^]*?(\\n<!-- end -->)`);

describe("docs/formulas.md", () => {
  it.each(Object.entries(tables))("has the table of %s that follows from their entries", (name, text) => {
    // UPDATE_DOCS=1 writes it anew.
    if (process.env.UPDATE_DOCS) {
      const now = readFileSync("docs/formulas.md", "utf8");
      writeFileSync(
        "docs/formulas.md",
        now.replace(place(name), (_, a, b) => a + text + b),
      );
    }
    expect(readFileSync("docs/formulas.md", "utf8")).toContain(text);
  });
});

describe("the examples", () => {
  it.each([...entries.map((e) => e.example), ...forms])("%s gives %s", (formula, expected) => {
    const [result] = runQueries(
      [querySchema.parse({ table: "rows", measures: [{ formula, as: "x" }] })],
      catalog,
    );
    if (result instanceof QueryError) throw result;
    expect(String(result.totals.x)).toBe(expected);
  });

  it("are examples of what they stand beside, over the rows of the docs", () => {
    expect(rows).toHaveLength(4);
    expect(forms.length).toBeGreaterThan(50);
    for (const [name, { example }] of Object.entries({ ...AGGREGATES, ...FUNCTIONS }))
      expect(example[0], name).toContain(`${name}(`);
  });
});
