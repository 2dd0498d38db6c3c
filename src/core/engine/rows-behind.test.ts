import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "../../testing/made-table";
import type { Value } from "../base/value";
import { cellValue, outward, type Table } from "../data/column";
import { placesOf } from "../formula/meeting";
import { withParts, workedParts } from "../formula/worked";
import { querySchema, type Result } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { rowsBehind } from "./rows-behind";
import { type Catalog, runQueries, sourcesOf } from "./run";
import { selectRows } from "./selection";

const trips = madeTable("trips", {
  route: ["text", ["A", "A", "B", "B", "B", "C", null, "constructor"]],
  port: ["text", ["x", "y", "x", "z", "?", "y", null, "x"]],
  riders: ["number", [5, 7, 11, 2, 3, null, 9, 4]],
  fare: ["number", [1.5, 2.25, null, 4, 0.75, 3, 8, 0.5]],
  late: ["boolean", [true, false, null, true, false, false, true, false]],
});
const plans = madeTable("plans", {
  route: ["text", ["A", "B", "C", "A"]],
  riders: ["number", [10, 20, 5, 1]],
});
const ports = madeTable("ports", { name: ["text", ["x", "y", "z"]], region: ["text", ["n", null, "s"]] });
const measures = [
  { name: "carried", formula: "sum(riders)", table: "trips" },
  { name: "planned", formula: "sum(riders)", table: "plans" },
  { name: "share", formula: "carried / nullif(planned, 0) * :factor", table: "trips" },
];
const catalog: Catalog = {
  tables: [trips, plans, ports],
  inputs: { factor: 2 },
  today: "2026-03-01",
  scope: {
    tables: [trips, plans, ports].map((t) => ({ name: t.name, columns: scopeColumns(t) })),
    measures,
    inputs: [{ name: "factor", type: "number" }],
    links: [{ table: "trips", column: "port", to: "ports", key: "name" }],
  },
};
const behind = (query: object) => rowsBehind(querySchema.parse(query), catalog);

/** The cells of the rows that filters of a table keep, as somebody who looks at them reads them. */
function shownRows(table: Table, filters: ReturnType<typeof behind>["tables"][number]["filters"]) {
  const source = sourcesOf(catalog).of(table.name);
  const placed = filters.map((filter) => ({
    filter,
    place: placesOf(catalog.scope, table.name, filter.column)[0],
  }));
  const kept = selectRows(source, placed, null) ?? Int32Array.from({ length: table.rows }, (_, i) => i);
  return [...kept].map((row) =>
    Object.fromEntries(table.columns.map((c) => [c.name, outward(cellValue(c.data, row), c.data.type)])),
  );
}
type Row = Record<string, Value>;
const add = (rows: Row[], of: (row: Row) => Value) =>
  rows.reduce((sum, row) => sum + (typeof of(row) === "number" ? (of(row) as number) : 0), 0);

/** Aggregates that add up, and what the rows that are shown say of them. */
const ADDITIVE: [string, (rows: Row[]) => number][] = [
  ["count(*)", (rows) => rows.length],
  ["count(fare)", (rows) => rows.filter((r) => r.fare !== null).length],
  ["coalesce(sum(riders), 0)", (rows) => add(rows, (r) => r.riders)],
  ["coalesce(sum(fare), 0)", (rows) => add(rows, (r) => r.fare)],
  ["coalesce(sum(riders * 2), 0)", (rows) => 2 * add(rows, (r) => r.riders)],
  ["count(*) filter (where late)", (rows) => rows.filter((r) => r.late === true).length],
  [
    "coalesce(sum(riders) filter (where fare > 1), 0)",
    (rows) =>
      add(
        rows.filter((r) => typeof r.fare === "number" && r.fare > 1),
        (r) => r.riders,
      ),
  ],
];
const FILTERS: object[] = [
  { column: "route", in: ["A", "constructor"] },
  { column: "route", in: [null] },
  { column: "route", not: ["B"] },
  { column: "ports.region", in: [null], noMatch: false },
  { column: "ports.region", in: [], noMatch: true },
  { column: "ports.region", not: ["n"], noMatch: true },
  { column: "fare", from: 1 },
  { column: "late", in: [false, null] },
];

describe("the rows behind a figure", () => {
  it("add up to it, for every aggregate that adds up, whatever is filtered", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...ADDITIVE),
        fc.subarray(FILTERS, { maxLength: 3 }),
        ([formula, ofRows], filters) => {
          const query = { table: "trips", measures: [{ formula, as: "m" }], filters };
          const [figure] = runQueries([querySchema.parse(query)], catalog) as Result[];
          const { tables, measures: found } = behind(query);
          expect(tables.map((t) => t.table)).toEqual(["trips"]);
          const rows = shownRows(trips, tables[0].filters);
          expect(rows).toHaveLength(tables[0].count);
          expect(ofRows(rows)).toBeCloseTo(figure.totals.m as number, 9);
          expect(found[0].value).toBe(figure.totals.m);
          const { riders } = Object.fromEntries(tables[0].sums);
          expect(riders ?? 0).toBe(add(rows, (r) => r.riders));
        },
      ),
      { numRuns: 300, seed: 1 },
    );
  });

  it("are those of every table that a measure reads, each under the filters that mean something there", () => {
    const { tables, measures: found } = behind({
      measures: [{ id: "share" }],
      filters: [
        { column: "route", in: ["A", "B"] },
        { column: "ports.region", in: ["n"] },
      ],
    });
    expect(tables.map(({ table, count, unfiltered }) => [table, count, unfiltered])).toEqual([
      ["trips", 2, []],
      ["plans", 3, ["ports.region"]],
    ]);
    expect(tables[0].filters).toContainEqual({ column: "ports.region", in: ["n"] });
    expect(Object.fromEntries(tables[1].sums)).toEqual({ riders: 31 });
    // One filter leaves the plans whole, so that nothing is divided by them.
    expect(found).toEqual([{ name: "share", value: null, parts: [16, 31, 2] }]);
  });

  it("are those of the whole, whatever splits the query has and keeps of them", () => {
    const whole = { table: "trips", measures: [{ formula: "sum(riders)", as: "m" }] };
    const split = {
      ...whole,
      splits: [{ column: "route" }],
      keep: { first: 1 },
      totals: [{ id: "carried" }],
    };
    expect(behind(split)).toEqual(behind(whole));
    expect(behind({ ...whole, splits: [{ column: "nowhere" }] })).toEqual(behind(whole));
  });

  it("refuses what a query would be refused for", () => {
    expect(() => behind({ measures: [{ id: "gone" }] })).toThrow(QueryError);
    expect(() => behind({ measures: [{ id: "carried" }], filters: [{ column: "nowhere", in: [] }] })).toThrow(
      "no column “nowhere”",
    );
  });
});

describe("a formula with numbers put in", () => {
  const worked = (formula: string, texts: string[], table = "trips") =>
    withParts(formula, workedParts(formula, catalog.scope, table), texts);

  it("has them in the place of aggregates, totals, measures and inputs, and nowhere else", () => {
    expect(worked("carried / nullif(planned, 0) * :factor", ["16", "31", "2"])).toBe(
      "16 / nullif(31, 0) * 2",
    );
    expect(worked("count(*) filter (where late) / count(*)", ["3", "8"])).toBe("3 / 8");
    expect(worked("sum(riders) / total(sum(riders))", ["5", "41"])).toBe("5 / 41");
    expect(
      worked("percentile_cont(0.9) within group (order by fare) + case when carried > 1 then 1 else 0 end", [
        "7",
        "41",
      ]),
    ).toBe("7 + case when 41 > 1 then 1 else 0 end");
  });

  it("is none where the formula has a problem", () => {
    expect(workedParts("sum(gone)", catalog.scope, "trips")).toEqual([]);
    expect(workedParts("sum(", catalog.scope, "trips")).toEqual([]);
  });
});
