import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "../../testing/made-table";
import type { Value } from "../base/value";
import { querySchema, type Result } from "../plan/query";
import { QueryError } from "../plan/query-error";
import type { Crew, ScanTask, Share } from "./crew";
import { BLOCK } from "./loops/loops";
import { type Catalog, runQueries, ScanCache, sourcesOf } from "./run";
import { helpScan } from "./scan";

const ROWS = 7 * BLOCK + 300;

/** Values that tell whether rows were added in another order: of very different size, with many digits. */
const random = (seed: number) => {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
};
const next = random(7);
const column = (make: () => Value): Value[] => Array.from({ length: ROWS }, make);
const maybe = (value: Value): Value => (next() < 0.1 ? null : value);
const table = madeTable("rows", {
  route: ["text", column(() => maybe(`Route ${Math.floor(next() ** 3 * 40)}`))],
  vessel: ["text", column(() => `Vessel ${Math.floor(next() * 90)}`)],
  day: ["date", column(() => maybe(20_000 + Math.floor(next() * 500)))],
  full: ["boolean", column(() => maybe(next() < 0.5))],
  passengers: ["number", column(() => Math.floor(next() * 120))],
  fare: ["number", column(() => maybe(Math.round(next() * 9000) / 100))],
  drift: ["number", column(() => maybe((next() - 0.5) * 10 ** Math.floor(next() * 25)))],
  far: ["number", column(() => Math.floor(next() * 2 ** 40))],
  serial: ["number", Array.from({ length: ROWS }, (_, i) => i)],
});
const catalog: Catalog = {
  tables: [table],
  inputs: {},
  chunk: BLOCK,
  scope: {
    tables: [
      {
        name: "rows",
        columns: [...scopeColumns(table), { name: "twice", type: "number", formula: "drift * 2" }],
      },
    ],
    measures: [],
    inputs: [],
  },
};

/** A crew whose helpers take chunks by chance, each over the table as another thread would see it. */
function crewOf(helpers: number, chance: () => number, wrong?: (shares: Share[]) => Share[] | null): Crew {
  return {
    begin: (name: string, task: ScanTask, chunks: number) => {
      let at = 0;
      // Drawn before: the chunks of the caller, and those of each helper.
      const owner = Array.from({ length: chunks }, () => Math.floor(chance() * (helpers + 1)));
      const taken = (who: number) => () => {
        const chunk = owner.indexOf(who);
        if (chunk >= 0) owner[chunk] = -1;
        return chunk;
      };
      return {
        next: () => {
          at++;
          return taken(0)();
        },
        finish: () => {
          expect(at).toBeGreaterThan(0);
          const shares = Array.from({ length: helpers }, (_, i) =>
            helpScan(sourcesOf(catalog).of(name), structuredClone(task), taken(i + 1)),
          );
          const sent = structuredClone(shares.filter((share) => share !== null));
          return wrong ? wrong(sent) : sent;
        },
      };
    },
  };
}

const AGGREGATES = [
  "count(*)",
  "count(fare)",
  "sum(passengers)",
  "sum(fare)",
  "avg(fare)",
  "sum(drift)",
  "avg(twice)",
  "sum(far)",
  "sum(fare * 2) filter (where passengers > 20)",
  "sum(fare) filter (where full)",
  "min(drift)",
  "max(day)",
  "max(route)",
  "median(drift)",
  "percentile_cont(0.9) within group (order by fare)",
  "stddev_samp(drift)",
  "var_pop(fare)",
  "geometric_mean(fare)",
  "mode(route)",
  "bool_and(full)",
  "max_by(vessel, fare)",
  "min_by(drift, passengers)",
  "count(distinct vessel)",
  "count(distinct upper(route))",
  "count(distinct fare)",
  "sum(distinct drift)",
];
const asked = fc.record({
  formulas: fc.uniqueArray(fc.constantFrom(...AGGREGATES), { minLength: 1, maxLength: 5 }),
  splits: fc.constantFrom<object[]>(
    [],
    [{ column: "route" }],
    [{ column: "fare" }],
    [{ column: "day", by: "month" }],
    [{ column: "route" }, { column: "full" }],
  ),
  filters: fc.constantFrom<object[]>(
    [],
    [{ column: "fare", from: 10.01, to: 70.07 }],
    [{ column: "day", by: "month", in: ["2025-01-01", null] }],
    [
      { column: "route", in: ["Route 1", "Route 2", null] },
      { column: "passengers", from: 3 },
    ],
    [{ column: "passengers", from: 1000 }],
    // Rows that all stand in one chunk: others have nothing to tell.
    [{ column: "serial", from: 100, to: 700 }],
  ),
});
const queryOf = ({
  formulas,
  splits,
  filters,
}: {
  formulas: string[];
  splits: object[];
  filters: object[];
}) =>
  querySchema.parse({
    table: "rows",
    measures: formulas.map((formula, i) => ({ formula, as: `m${i}` })),
    splits,
    filters,
    keep: splits.length === 1 ? { first: 3, others: true } : undefined,
  });
const answer = (query: ReturnType<typeof queryOf>, crew?: Crew, cache = new ScanCache()): Result => {
  const [result] = runQueries([query], { ...catalog, crew }, cache);
  if (result instanceof QueryError) throw result;
  return result;
};

describe("a crew", () => {
  it("gives the same to the last bit, however many help and whoever scans which rows", () => {
    fc.assert(
      fc.property(asked, fc.integer({ min: 1, max: 4 }), fc.nat(), (wish, helpers, seed) => {
        const query = queryOf(wish);
        expect(answer(query, crewOf(helpers, random(seed)))).toEqual(answer(query));
      }),
      { numRuns: 250, seed: 3 },
    );
  });

  it("answers a batch of queries with filters of all kinds as each of them alone", () => {
    fc.assert(
      fc.property(fc.array(asked, { minLength: 2, maxLength: 6 }), fc.nat(), (wishes, seed) => {
        const queries = wishes.map(queryOf);
        const alone = queries.map((query) => answer(query));
        for (const crew of [undefined, crewOf(2, random(seed))])
          expect(runQueries(queries, { ...catalog, crew })).toEqual(alone);
      }),
      { numRuns: 80, seed: 5 },
    );
  });

  it("adds to what another scan remembered, though its groups have other numbers", () => {
    fc.assert(
      fc.property(asked, asked, fc.nat(), (first, second, seed) => {
        const cache = new ScanCache();
        const crew = crewOf(2, random(seed));
        const both = [first.formulas, second.formulas].map((formulas) => queryOf({ ...first, formulas }));
        answer(both[0], crew, cache);
        answer(both[1], crew, cache);
        expect(answer(both[0], undefined, cache)).toEqual(answer(both[0]));
      }),
      { numRuns: 60, seed: 4 },
    );
  });

  it("is done without where a helper fails", () => {
    const query = queryOf({ formulas: ["sum(drift)"], splits: [{ column: "route" }], filters: [] });
    expect(
      answer(
        query,
        crewOf(2, random(1), () => null),
      ),
    ).toEqual(answer(query));
    // A share that is lost shows: the check above does not pass by itself.
    expect(
      answer(
        query,
        crewOf(2, random(1), (shares) => shares.slice(1)),
      ),
    ).not.toEqual(answer(query));
  });
});
