import Database from "better-sqlite3";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "../../testing/made-table";
import { parseIsoDate } from "../base/calendar";
import type { Value } from "../base/value";
import type { Scope } from "../formula/expr";
import { type QueryInput, querySchema, type Result } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { type Catalog, runQueries } from "./run";

const day = (text: string) => parseIsoDate(text) as number;
const sailings = madeTable("sailings", {
  route: ["text", ["Ferrow", "Quay", "Ferrow", "Gone", null, "Quay"]],
  sailed_on: [
    "date",
    ["2026-01-05", "2026-01-06", "2026-01-13", "2026-01-14", "2026-01-14", "2026-02-02"].map(day),
  ],
  passengers: ["number", [10, 20, 30, 40, 50, 60]],
});
const routes = madeTable("routes", {
  route: ["text", ["Quay", "Ferrow", "Empty"]],
  harbour: ["text", ["North", "South", "North"]],
  distance: ["number", [3, 6, null]],
});
const harbours = madeTable("harbours", {
  name: ["text", ["North", "South"]],
  open: ["boolean", [true, false]],
});
const plan = madeTable("plan", {
  week: ["date", ["2026-01-05", "2026-01-05", "2026-01-12", "2026-01-12"].map(day)],
  route: ["text", ["Ferrow", "Quay", "Ferrow", "Marl"]],
  target: ["number", [20, 25, 40, 5]],
});

const tables = [sailings, routes, harbours, plan];
const scope: Scope = {
  tables: tables.map((t) => ({ name: t.name, columns: scopeColumns(t) })),
  measures: [
    { name: "carried", formula: "sum(passengers)", table: "sailings" },
    { name: "planned", formula: "sum(target)", table: "plan" },
    { name: "attainment", formula: "carried / planned", table: "sailings" },
    { name: "passenger_km", formula: "sum(passengers * distance)", table: "sailings" },
  ],
  inputs: [],
  links: [
    { table: "sailings", column: "route", to: "routes", key: "route" },
    { table: "routes", column: "harbour", to: "harbours", key: "name" },
    { table: "plan", column: "route", to: "routes", key: "route" },
  ],
};
const catalog: Catalog = { tables, inputs: {}, scope, today: "2026-02-03" };
const answer = (query: QueryInput, over: Catalog = catalog) =>
  runQueries([querySchema.parse(query)], over)[0];
const result = (query: QueryInput, over: Catalog = catalog): Result => {
  const found = answer(query, over);
  if (found instanceof QueryError) throw found;
  return found;
};
const rows = (query: QueryInput, over: Catalog = catalog): Value[][] => {
  const { columns, rows } = result(query, over);
  return Array.from({ length: rows }, (_, i) => columns.map((c) => c.values[i]));
};
const problem = (query: QueryInput, over: Catalog = catalog) => (answer(query, over) as QueryError).message;
const changed = (change: Partial<Scope>): Catalog => ({ ...catalog, scope: { ...scope, ...change } });

describe("columns through links", () => {
  it("split a measure, with rows that match nothing counted under a row of their own", () => {
    const { columns, noMatch } = result({
      measures: [{ id: "carried" }],
      splits: [{ column: "routes.harbour" }],
    });
    expect(columns.map((c) => c.values)).toEqual([
      ["North", "South", null],
      [80, 40, 90],
    ]);
    expect(noMatch).toEqual({ row: 2, rows: 2 });
  });

  it("are reached over two links, by a bare name where only one table has it", () => {
    expect(rows({ measures: [{ id: "carried" }], splits: [{ column: "open" }] })).toEqual([
      [false, 40],
      [true, 80],
      [null, 90],
    ]);
  });

  it("stand in formulas and filters, null where nothing matches", () => {
    expect(rows({ measures: [{ id: "passenger_km" }] })).toEqual([[40 * 6 + 80 * 3]]);
    expect(
      rows({ measures: [{ id: "carried" }], filters: [{ column: "harbours.open", in: [true] }] }),
    ).toEqual([[80]]);
    expect(
      rows({ measures: [{ id: "carried" }], filters: [{ column: "routes.harbour", in: [null] }] }),
    ).toEqual([[90]]);
    expect(
      rows({
        measures: [{ formula: "count(*) filter (where routes.harbour is null)", as: "n" }],
        table: "sailings",
      }),
    ).toEqual([[2]]);
  });

  it("refuse a key that stands twice, with its rows, and types that never match", () => {
    const twice = madeTable("routes", {
      route: ["text", ["Quay", "Quay", "X"]],
      harbour: ["text", ["a", "b", "c"]],
      distance: ["number", [1, 2, 3]],
    });
    expect(
      problem(
        { measures: [{ id: "passenger_km" }] },
        { ...catalog, tables: [sailings, { ...twice, version: "2" }, harbours, plan] },
      ),
    ).toContain('"Quay" stands in its rows 1 and 2');
    const links = [{ table: "sailings", column: "passengers", to: "routes", key: "route" }];
    expect(problem({ measures: [{ id: "passenger_km" }] }, changed({ links }))).toContain("never match");
  });

  it("say what is missing, unclear or circular", () => {
    expect(problem({ measures: [{ id: "passenger_km" }] }, changed({ links: [] }))).toContain(
      "no column of sailings and no measure called “distance”",
    );
    expect(
      problem(
        { measures: [{ formula: "sum(routes.distance)", as: "x" }], table: "sailings" },
        changed({ links: [] }),
      ),
    ).toContain("No link leads from sailings to routes");
    const circle = [
      ...(scope.links ?? []),
      { table: "harbours", column: "name", to: "sailings", key: "route" },
    ];
    expect(problem({ measures: [{ id: "passenger_km" }] }, changed({ links: circle }))).toContain(
      "sailings → routes → harbours → sailings",
    );
    const both = changed({
      links: [...(scope.links ?? []), { table: "sailings", column: "route", to: "plan", key: "route" }],
    });
    expect(
      problem({ measures: [{ formula: "max(harbours.name)", as: "x" }], table: "sailings" }, both),
    ).toContain("more than one way");
    expect(problem({ measures: [{ id: "carried" }], splits: [{ column: "nowhere" }] })).toContain(
      "no column “nowhere” to split by",
    );
  });
});

describe("measures of several tables", () => {
  it("meet in a split by a column that both are linked through", () => {
    expect(
      rows({
        measures: [{ id: "carried" }, { id: "planned" }, { id: "attainment" }],
        splits: [{ column: "route" }],
      }),
    ).toEqual([
      ["Ferrow", 40, 60, 40 / 60],
      ["Gone", 40, null, null],
      ["Marl", null, 5, null],
      ["Quay", 80, 25, 80 / 25],
      [null, 50, null, null],
    ]);
  });

  it("meet in a week by each one's date, and under a filter", () => {
    const query: QueryInput = {
      measures: [{ id: "carried" }, { id: "planned" }],
      splits: [{ column: "sailed_on", by: "week" }],
    };
    expect(rows(query)).toEqual([
      ["2026-01-05", 30, 45],
      ["2026-01-12", 120, 45],
      ["2026-02-02", 60, null],
    ]);
    expect(rows({ ...query, filters: [{ column: "route", in: ["Ferrow"] }] })).toEqual([
      ["2026-01-05", 10, 20],
      ["2026-01-12", 30, 40],
    ]);
  });

  it("compute totals and Other over all of them", () => {
    const found = result({
      measures: [{ id: "attainment" }],
      splits: [{ column: "route" }],
      sort: { by: "attainment" },
      keep: { first: 1 },
    });
    expect(found.totals).toEqual({ attainment: 210 / 90 });
    expect(found.others).toEqual({ row: 1, groups: 4 });
    expect(found.columns[1].values).toEqual([80 / 25, (40 + 40 + 50) / (60 + 5)]);
  });

  it("say which filter leaves a table whole, and which split cannot be", () => {
    const found = result({
      measures: [{ id: "carried" }, { id: "planned" }],
      filters: [{ column: "passengers", from: 30 }],
    });
    expect(found.totals).toEqual({ carried: 180, planned: 90 });
    expect(found.unfiltered).toEqual([{ table: "plan", column: "passengers" }]);
    expect(
      problem({ measures: [{ id: "carried" }, { id: "planned" }], splits: [{ column: "passengers" }] }),
    ).toContain("plan cannot be split by sailings.passengers");
  });
});

describe("derived columns", () => {
  const columns = (name: string, formula: string) =>
    changed({
      tables: scope.tables.map((t) =>
        t.name === "sailings"
          ? { ...t, columns: [...t.columns, { name, type: "null" as const, formula }] }
          : t,
      ),
    });

  it("split, filter and stand in formulas like any column", () => {
    const sized = columns("size", "case when passengers >= 40 then 'large' else 'small' end");
    expect(rows({ measures: [{ id: "carried" }], splits: [{ column: "size" }] }, sized)).toEqual([
      ["large", 150],
      ["small", 60],
    ]);
    expect(
      rows({ measures: [{ id: "carried" }], filters: [{ column: "size", in: ["small"] }] }, sized),
    ).toEqual([[60]]);
    expect(
      rows(
        { measures: [{ formula: "count(*) filter (where size = 'large')", as: "n" }], table: "sailings" },
        sized,
      ),
    ).toEqual([[3]]);
    const monday = columns("monday", "date_trunc('week', sailed_on)");
    expect(rows({ measures: [{ id: "carried" }], splits: [{ column: "monday" }] }, monday)[0]).toEqual([
      "2026-01-05",
      30,
    ]);
  });

  it("use linked columns, other derived columns and the day", () => {
    const far = columns("far", "routes.distance > 4");
    expect(rows({ measures: [{ id: "carried" }], splits: [{ column: "far" }] }, far)).toEqual([
      [false, 80],
      [true, 40],
      [null, 90],
    ]);
    const age = columns("age", "current_date - sailed_on");
    expect(rows({ measures: [{ formula: "min(age)", as: "a" }], table: "sailings" }, age)).toEqual([[1]]);
    expect(
      rows(
        { measures: [{ formula: "min(age)", as: "a" }], table: "sailings" },
        { ...age, today: "2026-02-05" },
      ),
    ).toEqual([[3]]);
  });

  it("refuse inputs, measures, aggregates and circles", () => {
    const use = { measures: [{ formula: "max(d)", as: "x" }], table: "sailings" };
    expect(problem(use, columns("d", "d + 1"))).toContain("sailings.d → sailings.d");
    expect(problem(use, columns("d", "passengers + carried"))).toContain("has a problem of its own");
    expect(problem(use, columns("d", "sum(passengers)"))).toContain("has a problem of its own");
  });
});

it("linked columns agree with a left join in SQLite, rows without a match kept and counted", () => {
  const db = new Database(":memory:");
  db.exec("create table f (k text, x real); create table d (k text, g text, w real)");
  const key = fc.option(fc.constantFrom("p", "q", "r", "é", "none"), { nil: null });
  const keys = fc.uniqueArray(fc.constantFrom("p", "q", "r", "é"), { minLength: 1 });
  const attribute = fc.tuple(
    fc.option(fc.constantFrom("A", "B"), { nil: null }),
    fc.option(fc.integer({ min: 0, max: 3 }), { nil: null }),
  );
  fc.assert(
    fc.property(
      fc.array(fc.tuple(key, fc.integer({ min: -5, max: 5 })), { minLength: 1, maxLength: 30 }),
      keys,
      fc.array(attribute, { minLength: 4, maxLength: 4 }),
      (facts, dimension, attributes) => {
        db.exec("delete from f; delete from d");
        for (const f of facts) db.prepare("insert into f values (?, ?)").run(...f);
        for (const [i, k] of dimension.entries())
          db.prepare("insert into d values (?, ?, ?)").run(k, ...attributes[i]);
        const f = madeTable("f", {
          k: ["text", facts.map((r) => r[0])],
          x: ["number", facts.map((r) => r[1])],
        });
        const d = madeTable("d", {
          k: ["text", dimension],
          g: ["text", dimension.map((_, i) => attributes[i][0])],
          w: ["number", dimension.map((_, i) => attributes[i][1])],
        });
        const joined: Catalog = {
          tables: [f, d],
          inputs: {},
          scope: {
            tables: [f, d].map((t) => ({ name: t.name, columns: scopeColumns(t) })),
            measures: [],
            inputs: [],
            links: [{ table: "f", column: "k", to: "d", key: "k" }],
          },
        };
        const query: QueryInput = {
          table: "f",
          measures: [
            { formula: "sum(x * d.w)", as: "s" },
            { formula: "count(*)", as: "n" },
          ],
          splits: [{ column: "d.g" }],
        };
        const { columns, noMatch } = result(query, joined);
        const sql =
          "select g, d.k is null as lost, sum(x * w) as s, count(*) as n from f left join d on f.k = d.k group by 1, 2 order by lost, g is null, g";
        const wanted = db
          .prepare<[], { lost: number; g: string | null; s: number | null; n: number }>(sql)
          .all();
        expect(columns[0].values).toEqual(wanted.map((w) => w.g));
        expect(columns[1].values.map((v) => (v === 0 ? 0 : v))).toEqual(
          wanted.map((w) => (w.s === 0 ? 0 : w.s)),
        );
        expect(columns[2].values).toEqual(wanted.map((w) => w.n));
        expect(noMatch?.rows ?? 0).toBe(wanted.find((w) => w.lost)?.n ?? 0);
        const filtered = db
          .prepare("select coalesce(sum(x), 0) from f left join d on f.k = d.k where w >= 1 and w <= 2")
          .pluck()
          .get();
        expect(
          result(
            {
              table: "f",
              measures: [{ formula: "coalesce(sum(x), 0)", as: "s" }],
              filters: [{ column: "w", from: 1, to: 2 }],
            },
            joined,
          ).totals.s,
        ).toBeCloseTo(filtered as number);
      },
    ),
    { numRuns: 150, seed: 5 },
  );
});

describe("tables of very many groups that meet", () => {
  const GROUPS = 50_000;
  // The second table's keys begin where half of the first's end, so that together they are more than 16 bits
  // can number.
  const keys = (from: number) => Array.from({ length: GROUPS * 2 }, (_, i) => from + (i % GROUPS));
  const values = (seed: number) =>
    Array.from({ length: GROUPS * 2 }, (_, i) => ((i * 7919 + seed * 104_729) % 10_007) / 8);
  const one = madeTable("one", { k: ["number", keys(0)], x: ["number", values(1)] });
  const two = madeTable("two", { k: ["number", keys(GROUPS / 2)], x: ["number", values(2)] });
  const formulas = {
    median: (a: number[]) => (a[0] + a[1]) / 2,
    "percentile_cont(0.25) within group (order by": (a: number[]) =>
      Math.min(...a) + (Math.max(...a) - Math.min(...a)) * 0.25,
    max: (a: number[]) => Math.max(...a),
    sum: (a: number[]) => a[0] + a[1],
    "count(distinct": (a: number[]) => new Set(a).size,
    stddev_pop: (a: number[]) => Math.abs(a[0] - a[1]) / 2,
    var_samp: (a: number[]) => (a[0] - a[1]) ** 2 / 2,
  };

  it("compute every aggregate of each as it is", () => {
    const names = Object.keys(formulas) as (keyof typeof formulas)[];
    const measures = names.flatMap((fn, i) => {
      const call = fn.includes("(") ? `${fn} x)` : `${fn}(x)`;
      return [
        { name: `a${i}`, formula: call, table: "one" },
        { name: `b${i}`, formula: call, table: "two" },
      ];
    });
    const scope: Scope = {
      tables: [one, two].map((t) => ({ name: t.name, columns: scopeColumns(t) })),
      measures,
      inputs: [],
    };
    const query = querySchema.parse({
      measures: measures.map((m) => ({ id: m.name })),
      splits: [{ column: "k" }],
    });
    const [result] = runQueries([query], { scope, inputs: {}, tables: [one, two] });
    if (result instanceof QueryError) throw result;
    expect(result.rows).toBe(GROUPS * 1.5);
    const all = [values(1), values(2)];
    const [found, ...computed] = result.columns.map((c) => c.values);
    for (let row = 0; row < found.length; row += 997) {
      for (const [i, fn] of names.entries()) {
        for (const table of [0, 1]) {
          const at = (found[row] as number) - (table * GROUPS) / 2;
          const value = computed[2 * i + table][row];
          if (at < 0 || at >= GROUPS) expect(value).toBe(fn.startsWith("count") ? 0 : null);
          else
            expect(value as number, `${fn} ${found[row]}`).toBeCloseTo(
              formulas[fn]([all[table][at], all[table][at + GROUPS]]),
              9,
            );
        }
      }
    }
  });
});
