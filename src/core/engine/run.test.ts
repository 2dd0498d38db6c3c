import { describe, expect, it } from "vitest";
import type { Value } from "../base/value";
import { type Column, ColumnBuilder, type ColumnType, type Table } from "../data/column";
import { type QueryInput, querySchema, type Result } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { type Catalog, runQueries, ScanCache } from "./run";

function column(name: string, type: ColumnType, values: Value[]): Column {
  const builder = new ColumnBuilder(type);
  for (const v of values) builder.add(v);
  return { name, data: builder.finish() };
}

const sailings: Table = {
  name: "sailings",
  version: "1",
  rows: 8,
  columns: [
    column("route", "text", ["Ferrow", "Quay", "Ferrow", "Gannet", null, "Quay", "Ferrow", "Marl"]),
    column("sailed_on", "date", [19723, 19724, 19754, 19783, 19783, 20089, 20090, 20100]),
    column("passengers", "number", [10, 20, 30, 40, 50, null, 5, 1]),
    column("seats", "number", [100, 100, 100, 100, 100, 0, 100, 0]),
    column("cancelled", "boolean", [false, false, true, false, null, true, false, false]),
  ],
};
const catalog: Catalog = {
  tables: [sailings],
  inputs: { goal: 0.5 },
  scope: {
    tables: [
      { name: "sailings", columns: sailings.columns.map((c) => ({ name: c.name, type: c.data.type })) },
    ],
    measures: [
      { name: "passengers_total", formula: "sum(passengers)", table: "sailings" },
      { name: "load_factor", formula: "passengers_total / sum(seats)", table: "sailings" },
      { name: "share", formula: "passengers_total / total(passengers_total)", table: "sailings" },
      { name: "gap_to_goal", formula: "load_factor - :goal", table: "sailings" },
    ],
    inputs: [{ name: "goal", type: "number" }],
  },
};
const answer = (query: QueryInput): Result | QueryError => runQueries([querySchema.parse(query)], catalog)[0];
const rows = (query: QueryInput): Value[][] => {
  const result = answer(query);
  if (result instanceof QueryError) throw result;
  return Array.from({ length: result.rows }, (_, i) => result.columns.map((c) => c.values[i]));
};

describe("queries", () => {
  it("sums by a text column in its own order, with null last", () => {
    expect(rows({ measures: [{ id: "passengers_total" }], splits: [{ column: "route" }] })).toEqual([
      ["Ferrow", 45],
      ["Gannet", 40],
      ["Marl", 1],
      ["Quay", 20],
      [null, 50],
    ]);
  });

  it("computes Other from its rows, not from the ratios", () => {
    const result = answer({
      measures: [
        { id: "load_factor", as: "l" },
        { id: "passengers_total", as: "p" },
      ],
      splits: [{ column: "route" }],
      sort: { by: "p" },
      keep: { first: 2 },
    }) as Result;
    expect(result.columns[0].values).toEqual([null, "Ferrow", null]);
    expect(result.others).toEqual({ row: 2, groups: 3 });
    expect(result.columns[1].values).toEqual([0.5, 45 / 300, 61 / 200]);
    expect(result.totals).toEqual({ l: 156 / 600, p: 156 });
  });

  it("keeps total() at all rows that the filters keep", () => {
    const result = answer({
      measures: [{ id: "share", as: "s" }],
      splits: [{ column: "route" }],
      filters: [{ column: "route", in: ["Ferrow", "Quay"] }],
    }) as Result;
    expect(result.columns[1].values).toEqual([45 / 65, 20 / 65]);
    expect(result.totals.s).toBe(1);
  });

  it("buckets dates and filters by a bucket and by a range", () => {
    const q: QueryInput = {
      measures: [{ formula: "count(*)", as: "n" }],
      table: "sailings",
      splits: [{ column: "sailed_on", by: "month" }],
    };
    expect(rows({ ...q, filters: [{ column: "sailed_on", by: "year", in: [2024] }] })).toEqual([
      ["2024-01-01", 2],
      ["2024-02-01", 1],
      ["2024-03-01", 2],
    ]);
    expect(rows({ ...q, filters: [{ column: "sailed_on", from: "2025-01-01" }] })).toEqual([
      ["2025-01-01", 3],
    ]);
  });

  it("gives null, never zero or infinity, where nothing can be computed", () => {
    expect(
      rows({
        measures: [{ id: "load_factor" }],
        splits: [{ column: "route" }],
        filters: [{ column: "route", in: ["Marl"] }],
      }),
    ).toEqual([["Marl", null]]);
    expect(
      rows({ measures: [{ id: "passengers_total" }], filters: [{ column: "route", in: ["Nowhere"] }] }),
    ).toEqual([[null]]);
    expect(
      rows({
        measures: [{ formula: "count(passengers)", as: "n" }],
        table: "sailings",
        filters: [{ column: "route", in: ["Nowhere"] }],
      }),
    ).toEqual([[0]]);
  });

  it("follows three-valued logic in filters", () => {
    expect(
      rows({
        measures: [
          { formula: "count(*) filter (where not cancelled)", as: "n" },
          { formula: "count(distinct route)", as: "d" },
        ],
        table: "sailings",
      }),
    ).toEqual([[5, 4]]);
  });

  it("takes an input's value from the query before the project's own", () => {
    expect(rows({ measures: [{ id: "gap_to_goal" }] })).toEqual([[156 / 600 - 0.5]]);
    expect(rows({ measures: [{ id: "gap_to_goal" }], inputs: { goal: 0.25 } })).toEqual([[156 / 600 - 0.25]]);
  });

  it("answers the good queries of a batch beside a bad one, and reads no row twice", () => {
    const cache = new ScanCache();
    const queries = [
      { measures: [{ id: "passengers_total" }], splits: [{ column: "route" }] },
      { measures: [{ id: "nothing" }] },
      { measures: [{ id: "passengers_total" }], splits: [{ column: "nowhere" }] },
      { measures: [{ id: "load_factor" }] },
    ].map((q) => querySchema.parse(q));
    const results = runQueries(queries, catalog, cache);
    expect(results.map((r) => r instanceof QueryError && r.code)).toEqual([
      false,
      "unknown_measure",
      "unknown_column",
      false,
    ]);
    const again = runQueries(
      [querySchema.parse({ measures: [{ id: "gap_to_goal" }], inputs: { goal: 0 } })],
      { ...catalog, tables: [{ ...sailings, columns: [] }] },
      cache,
    );
    expect((again[0] as Result).totals.gap_to_goal).toBe(156 / 600);
  });

  it("makes whole days of dates and parts of days, so that no day stands twice", () => {
    const [route, ...others] = catalog.scope.tables[0].columns;
    const due = { name: "due", type: "date" as const, formula: "sailed_on + (seats - passengers) / 100" };
    const scope = {
      ...catalog.scope,
      tables: [{ name: "sailings", columns: [route, ...others, due] }],
    };
    const query = querySchema.parse({
      measures: [{ formula: "count(*)", as: "rows" }],
      table: "sailings",
      splits: [{ column: "due", by: "day" }],
    });
    const [result] = runQueries([query], { ...catalog, scope });
    if (result instanceof QueryError) throw result;
    const days = ["2024-01-01", "2024-01-02", "2024-02-01", "2024-03-01", "2025-01-02", "2025-01-11", null];
    expect(result.columns[0].values).toEqual(days);
    expect(result.columns[1].values).toEqual([1, 1, 1, 2, 1, 1, 1]);
  });
});
