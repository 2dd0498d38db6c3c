import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "../../../testing/made-table";
import type { Value } from "../../base/value";
import { fromBytes, toBytes } from "../../data/plain-bytes";
import { type Filter, querySchema } from "../../plan/query";
import { QueryError } from "../../plan/query-error";
import { BLOCK } from "../loops/loops";
import { type Catalog, runQueries } from "../run";
import { buildCells } from "./build-cells";
import { answerFromCells } from "./cell-answer";
import { indexOf, type PlainIndex, plainIndex } from "./plain-index";
import type { Touched } from "./plan-cells";

const ROWS = 3 * BLOCK + 77;
const random = (seed: number) => {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
};
const next = random(11);
const column = (make: () => Value): Value[] => Array.from({ length: ROWS }, make);
const maybe = (value: Value): Value => (next() < 0.1 ? null : value);
const ports = ["Amber Cove", "Brightwater", "constructor", "__proto__", "", "Öland"];
const trips = madeTable("trips", {
  route: ["text", column(() => maybe(`Route ${Math.floor(next() ** 3 * 12)}`))],
  port: ["text", column(() => maybe([...ports, "nowhere"][Math.floor(next() * 7)]))],
  day: ["date", column(() => maybe(20_000 + Math.floor(next() * 90)))],
  left: [
    "timestamp",
    column(() =>
      maybe((20_000 + Math.floor(next() * 90)) * 86_400_000 + 3_600_000 * Math.floor(next() * 24)),
    ),
  ],
  full: ["boolean", column(() => maybe(next() < 0.5))],
  passengers: ["number", column(() => Math.floor(next() * 40))],
  fare: ["number", column(() => maybe(Math.round(next() * 900) / 100))],
  debt: ["number", column(() => maybe(-Math.floor(next() * 30)))],
  drift: ["number", column(() => maybe((next() - 0.5) * 10 ** Math.floor(next() * 25)))],
});
const places = madeTable("ports", {
  name: ["text", ports],
  region: ["text", ["north", "north", null, "south", "south", "true"]],
});
/** Of enough values for a range; some passengers have no load, and some loads no weight. */
const loads = madeTable("loads", {
  n: ["number", Array.from({ length: 36 }, (_, i) => i)],
  weight: ["number", Array.from({ length: 36 }, (_, i) => (i % 9 === 0 ? null : i * 3))],
});
const catalog: Catalog = {
  tables: [trips, places, loads],
  inputs: {},
  today: "2024-12-20",
  scope: {
    tables: [
      {
        name: "trips",
        columns: [...scopeColumns(trips), { name: "load", type: "number", formula: "passengers * 2" }],
      },
      { name: "ports", columns: scopeColumns(places) },
      { name: "loads", columns: scopeColumns(loads) },
    ],
    measures: [],
    inputs: [],
    links: [
      { table: "trips", column: "port", to: "ports", key: "name" },
      { table: "trips", column: "passengers", to: "loads", key: "n" },
    ],
  },
};

/** Those that come out the same in whatever order rows are met. */
const EXACT = [
  "count(*)",
  "count(fare)",
  "sum(passengers)",
  "sum(fare)",
  "avg(fare)",
  "avg(load)",
  "sum(fare) filter (where full)",
  "sum(passengers) / nullif(count(*), 0)",
  "sum(passengers) / total(sum(passengers))",
  "min(debt)",
  "max(day)",
  "max(route)",
  "min(drift)",
  "median(fare)",
  "percentile_cont(0.9) within group (order by passengers)",
  "mode(route)",
  "bool_and(full)",
  "count(distinct route)",
  "count(distinct fare)",
  "count(distinct drift)",
];
const INEXACT = ["sum(drift)", "stddev_samp(fare)", "max_by(route, fare)", "count(distinct upper(route))"];

const SPLITS: object[][] = [
  [],
  [{ column: "route" }],
  [{ column: "region" }],
  [{ column: "day", by: "month" }],
  [{ column: "left", by: "week" }],
  [{ column: "day" }],
  [{ column: "passengers" }],
  [{ column: "route" }, { column: "full" }],
  [{ column: "day", by: "quarter" }, { column: "region" }],
];
/** What may be filtered, with filters that somebody may set there. */
const FILTERS: { touched: Touched; filters: object[] }[] = [
  {
    touched: { column: "trips.route" },
    filters: [
      { in: ["Route 1", null] },
      { contains: "1" },
      { in: ["gone"] },
      { isNull: false },
      { not: ["Route 0", "Route 1"] },
    ],
  },
  {
    touched: { column: "ports.region" },
    filters: [
      { in: ["north"] },
      { in: [null, "true"] },
      { isNull: true },
      { in: [null], noMatch: false },
      { in: ["south"], noMatch: true },
      { not: ["north", null], noMatch: false },
    ],
  },
  { touched: { column: "full" }, filters: [{ in: [true] }, { in: [null, false] }] },
  {
    touched: { column: "day" },
    filters: [
      { from: "2024-10-10", to: "2024-11-19" },
      { to: "2024-10-31" },
      { by: "month", in: ["2024-10-01", "2024-12-01", null] },
      { relative: { unit: "month", from: -1, to: 0, anchor: "today" } },
      { relative: { unit: "week", from: -3, to: 0, anchor: "newest" } },
      { by: "month", not: ["2024-10-01", null] },
    ],
  },
  {
    touched: { column: "day", by: "year" },
    filters: [
      { by: "year", in: ["2024-01-01"] },
      { by: "year", in: ["2025-01-01"] },
    ],
  },
  {
    touched: { column: "day", by: "week" },
    filters: [
      { by: "month", in: ["2024-11-01"] },
      { by: "week", in: ["2024-10-28", "2024-12-02"] },
    ],
  },
  { touched: { column: "left" }, filters: [{ from: "2024-10-10", to: "2024-10-20T12:00:00" }] },
  {
    touched: { column: "fare" },
    filters: [{ from: 2.01, to: 7.77 }, { from: 8.999 }, { in: [null, 1.5] }, { not: [null, 1.5] }],
  },
  { touched: { column: "passengers" }, filters: [{ from: 5, to: 20 }, { from: 1000 }] },
  {
    touched: { column: "loads.weight" },
    filters: [
      { from: 10, to: 60 },
      { in: [null], noMatch: false },
      { in: [], noMatch: true },
      { not: [null, 6], noMatch: false },
      { not: [12], noMatch: true },
    ],
  },
  { touched: { column: "load" }, filters: [{ from: 11, to: 41 }] },
];
const OWN: object[][] = [
  [],
  [{ column: "passengers", from: 3 }],
  [{ column: "route", in: ["Route 1", "Route 2", null] }],
  [{ column: "day", to: "2024-10-30" }],
];

const asked = fc.record({
  formulas: fc.uniqueArray(fc.constantFrom(...EXACT), { minLength: 1, maxLength: 4 }),
  total: fc.option(fc.constantFrom(...EXACT)),
  splits: fc.constantFrom(...SPLITS),
  own: fc.constantFrom(...OWN),
  keep: fc.option(fc.record({ first: fc.integer({ min: 1, max: 4 }), others: fc.boolean() })),
  touched: fc.uniqueArray(fc.integer({ min: 0, max: FILTERS.length - 1 }), { maxLength: 3 }),
  /** For each touched column: not filtered, or by which of its filters. */
  /** With few cells a range key has bins of many values, and edges. */
  cells: fc.constantFrom(700, 3000, 1_000_000),
  chosen: fc.array(fc.integer({ min: -1, max: 5 }), { minLength: 3, maxLength: 3 }),
});
type Asked = typeof asked extends fc.Arbitrary<infer T> ? T : never;

function queryOf({ formulas, total, splits, own, keep }: Asked, filters: object[]) {
  return querySchema.parse({
    table: "trips",
    measures: formulas.map((formula, i) => ({ formula, as: `m${i}` })),
    totals: total ? [{ formula: total, as: "all" }] : [],
    splits,
    filters: [...own, ...filters],
    ...(keep && splits.length > 0 ? { keep, sort: { by: "m0", order: "desc" } } : {}),
  });
}
const filtersOf = ({ touched, chosen }: Asked): Filter[] =>
  touched.flatMap((at, i) => {
    const { touched: of, filters } = FILTERS[at];
    const filter = filters[chosen[i]];
    return filter ? [{ column: of.column, ...filter } as Filter] : [];
  });
const plain = (result: unknown) => ({ ...(result as object), ms: 0 });

describe("cells", () => {
  it("answer whatever is filtered the same as a scan, to the last bit", () => {
    let [answered, atEdges] = [0, 0];
    fc.assert(
      fc.property(asked, (a) => {
        const filters = filtersOf(a);
        const touched = a.touched.map((at) => FILTERS[at].touched);
        const limits = { cells: a.cells, bytes: 1e9 };
        const index = buildCells({ queries: [queryOf(a, [])], touched, now: [] }, catalog, limits);
        const query = queryOf(a, filters);
        const [scanned] = runQueries([query], catalog);
        // As it goes to another thread, or as bytes into a page (where there are no rows at edges).
        const sent =
          a.cells < 1000 ? structuredClone(plainIndex(index)) : fromBytes(toBytes(plainIndex(index)));
        const [found] = answerFromCells([query], indexOf(sent as PlainIndex), catalog);
        if (scanned instanceof QueryError) return expect(found).toBeNull();
        if (found === null) return;
        answered++;
        if (index.cells.some((c) => c.range?.edges)) atEdges++;
        expect(plain(found)).toEqual(plain(scanned));
      }),
      { numRuns: 300 },
    );
    // What needs too many cells is scanned; that must stay rare here, or nothing was compared.
    expect(answered).toBeGreaterThan(150);
    expect(atEdges).toBeGreaterThan(10);
  }, 120_000);

  it("are gathered for each filter alone where all at once would be too many", () => {
    const query = { formulas: ["sum(passengers)", "median(fare)"], splits: [{ column: "route" }] };
    const of = (filters: object[]) =>
      querySchema.parse({
        table: "trips",
        measures: query.formulas.map((formula, i) => ({ formula, as: `m${i}` })),
        splits: query.splits,
        filters,
      });
    const day = { column: "trips.day", from: "2024-10-10", to: "2024-11-19" };
    const region = { column: "ports.region", in: ["north"] };
    const index = buildCells(
      {
        queries: [of([])],
        touched: [{ column: "trips.day" }, { column: "ports.region" }],
        now: [region] as Filter[],
      },
      catalog,
      { cells: 400, bytes: 1e8 },
    );
    expect(index.isSettled).toBe(false);
    const answered = (filters: object[]) => answerFromCells([of(filters)], index, catalog)[0];
    // A range of days while the region is as it was; another region while no day is chosen.
    for (const filters of [[region], [region, day], [], [{ ...region, in: [null] }]]) {
      const found = answered(filters);
      expect(found).not.toBeNull();
      expect(plain(found)).toEqual(plain(runQueries([of(filters)], catalog)[0]));
    }
    expect(answered([day])).toBeNull();
    expect(answered([{ ...region, in: [null] }, day])).toBeNull();
  });

  it("are not made of what depends on the order of rows, nor where they would be too many", () => {
    const of = (formula: string) =>
      querySchema.parse({ table: "trips", measures: [{ formula, as: "m" }], splits: [{ column: "route" }] });
    const cellsOf = (formula: string, cells: number) =>
      buildCells({ queries: [of(formula)], touched: [{ column: "full" }], now: [] }, catalog, {
        cells,
        bytes: 1e8,
      }).cells.length;
    for (const formula of INEXACT) expect(cellsOf(formula, 2000)).toBe(0);
    // Nothing of it would be another for another filter: it is not to be gathered anew at each.
    const inexact = { queries: INEXACT.map(of), touched: [{ column: "full" }, { column: "route" }], now: [] };
    expect(buildCells(inexact, catalog).isSettled).toBe(true);
    expect(cellsOf("count(*)", 2000)).toBe(1);
    expect(cellsOf("count(*)", 10)).toBe(0);
  });

  it("say nothing of columns that nobody was to filter by", () => {
    const of = (filters: object[]) =>
      querySchema.parse({ table: "trips", measures: [{ formula: "count(*)", as: "m" }], filters });
    const index = buildCells({ queries: [of([])], touched: [{ column: "full" }], now: [] }, catalog);
    const answered = (filters: object[]) => answerFromCells([of(filters)], index, catalog)[0] !== null;
    expect(answered([{ column: "full", in: [true] }])).toBe(true);
    expect(answered([{ column: "route", in: ["Route 1"] }])).toBe(false);
    // What cannot be answered at all is left to a scan, which says why.
    expect(answered([{ column: "full", contains: "a" }])).toBe(false);
  });

  it("leave it to a scan which date is the newest of all where they hold but some rows", () => {
    const of = (filters: object[]) =>
      querySchema.parse({ table: "trips", measures: [{ formula: "count(*)", as: "m" }], filters });
    const own = { column: "day", to: "2024-10-30" };
    const newest = { column: "day", relative: { unit: "week", from: -3, to: 0, anchor: "newest" } };
    for (const [filters, isTold] of [
      [[], true],
      [[own], false],
    ] as const) {
      const index = buildCells(
        { queries: [of([...filters])], touched: [{ column: "day" }], now: [] },
        catalog,
      );
      const query = of([...filters, newest]);
      const [found] = answerFromCells([query], index, catalog);
      expect(found !== null).toBe(isTold);
      if (isTold) expect(plain(found)).toEqual(plain(runQueries([query], catalog)[0]));
    }
  });
});
