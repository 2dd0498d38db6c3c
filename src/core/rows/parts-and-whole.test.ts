import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { sampleData, seriesData } from "@/testing/craft/sample-data";
import { madeTable, scopeColumns } from "@/testing/made-table";
import { runQueries, ScanCache } from "../engine/run";
import { checkFormula } from "../formula/check";
import type { AddsUp, Scope } from "../formula/expr";
import { type Query, querySchema } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { addsUpExpr } from "../project/adds-up";
import { areParts, restOf } from "./parts-and-whole";

/** Rows that are split among four groups by chance; `gap` is null here and there, `code` one of a few. */
function madeRows(seed: number) {
  let state = seed;
  const random = () => {
    state = (state * 1664525 + 1013904223) % 2 ** 32;
    return state / 2 ** 32;
  };
  const rows = Array.from({ length: 60 }, () => ({
    place: `p${Math.floor(random() * 4)}`,
    riders: Math.round(random() * 900) + 3,
    fare: random() * 40 + 0.5,
    gain: random() * 60 - 25,
    gap: random() < 0.3 ? null : random() * 9 + 1,
    code: Math.floor(random() * 9),
  }));
  const numbers = (name: "riders" | "fare" | "gain" | "gap" | "code") => rows.map((r) => r[name]);
  return madeTable("trips", {
    place: ["text", rows.map((r) => r.place)],
    riders: ["number", numbers("riders")],
    fare: ["number", numbers("fare")],
    gain: ["number", numbers("gain")],
    gap: ["number", numbers("gap")],
    code: ["number", numbers("code")],
  });
}
const TABLES = [3, 29, 71, 104].map(madeRows);
const SCOPE: Scope = {
  tables: [{ name: "trips", columns: scopeColumns(TABLES[0]) }],
  measures: [
    { name: "carried", formula: "sum(riders)", table: "trips" },
    { name: "mean_fare", formula: "avg(fare)", table: "trips" },
    { name: "part", formula: "carried / total(carried)", table: "trips" },
  ],
  inputs: [],
};

const told = (formula: string): AddsUp => {
  const { expr, problems } = checkFormula(formula, SCOPE, "trips");
  if (!expr) throw new Error(`${formula}: ${problems[0].message}`);
  return addsUpExpr(expr);
};

const CACHES = TABLES.map(() => new ScanCache());
/** The values of a formula over the groups of each table, and over all of its rows. */
const answered = (formula: string) =>
  TABLES.map((table, i) => {
    const query: Query = querySchema.parse({
      table: "trips",
      measures: [{ formula, as: "v" }],
      splits: [{ column: "place" }],
    });
    const [result] = runQueries([query], { tables: [table], inputs: {}, scope: SCOPE }, CACHES[i]);
    if (result instanceof QueryError) throw result;
    return { parts: result.columns[1].values as (number | null)[], total: result.totals.v as number | null };
  });
const madeBy = ({ parts, total }: { parts: (number | null)[]; total: number | null }) => {
  const sum = parts.reduce<number>((s, v) => s + (v ?? 0), 0);
  const size = parts.reduce<number>((s, v) => s + Math.abs(v ?? 0), Math.abs(total ?? 0));
  return Math.abs(sum - (total ?? 0)) <= 1e-9 * size;
};
const drawn = ({ parts, total }: ReturnType<typeof answered>[number]) => ({ ...sampleData(parts), total });

const { formula } = fc.letrec<{ formula: string }>((tie) => {
  const two = (write: (a: string, b: string) => string) =>
    fc.tuple(tie("formula"), tie("formula")).map(([a, b]) => write(a, b));
  const one = (write: (a: string) => string) => tie("formula").map(write);
  const number = fc.constantFrom("2", "0.5", "100", "total(carried)", "total(mean_fare)");
  return {
    formula: fc.oneof(
      { maxDepth: 3, depthSize: "small" },
      fc.constantFrom(
        "sum(riders)",
        "sum(gain)",
        "sum(gap)",
        "count(*)",
        "count(gap)",
        "sum(fare) filter (where code < 4)",
        "carried",
        "part",
      ),
      fc.constantFrom(
        "avg(fare)",
        "max(fare)",
        "median(gain)",
        "count(distinct code)",
        "sum(distinct code)",
        "mean_fare",
      ),
      ...["+", "-", "*", "/"].map((op) => two((a, b) => `(${a} ${op} ${b})`)),
      fc.tuple(tie("formula"), number).map(([a, n]) => `(${a} / ${n})`),
      fc.tuple(tie("formula"), number).map(([a, n]) => `(${n} * ${a})`),
      one((a) => `-(${a})`),
      one((a) => `coalesce(${a}, 0)`),
      one((a) => `nullif(${a}, 0)`),
      one((a) => `abs(${a})`),
      one((a) => `greatest(${a}, 0)`),
      fc
        .tuple(tie("formula"), tie("formula"))
        .map(([a, b]) => `case when total(carried) > 1 then ${a} else ${b} end`),
    ),
  };
});

describe("whether parts make their whole", () => {
  it.each<[string, AddsUp]>([
    ["sum(riders)", "yes"],
    ["sum(riders) / total(sum(riders))", "yes"],
    ["part", "yes"],
    ["100 * part", "yes"],
    ["coalesce(part, 0) - part / 2", "yes"],
    ["-count(*)", "yes"],
    ["case when total(carried) > 5 then carried else 0 end", "yes"],
    ["round(sum(fare), 1)", "rounded"],
    ["2 * round(part, 3) + part", "rounded"],
    ["avg(fare)", "no"],
    ["mean_fare / 2", "no"],
    ["sum(fare) / count(*)", "no"],
    ["carried / nullif(count(gap), 0)", "no"],
    ["count(distinct code)", "no"],
    ["total(carried) / carried", "no"],
    ["carried + 10", "no"],
    ["greatest(sum(gain), 0)", "by values"],
    ["avg(fare) * count(fare)", "by values"],
    ["case when carried > 9 then carried else 0 end", "by values"],
    ["abs(sum(gain))", "by values"],
  ])("%s: %s", (text, wanted) => expect(told(text)).toBe(wanted));

  it("never accuses parts that make it, and misses no formula of which they cannot", () => {
    const seen = { yes: 0, rounded: 0, no: 0, "by values": 0 };
    fc.assert(
      fc.property(formula, (text) => {
        const says = told(text);
        seen[says]++;
        const all = answered(text);
        if (says === "no") {
          const isNothing = all.every(({ parts }) => parts.every((v) => (v ?? 0) === 0));
          expect(isNothing || !all.every(madeBy)).toBe(true);
          for (const one of all) expect(areParts(says, drawn(one), false)).toBe(false);
          return;
        }
        // Where all terms have a value, a formula that tells so is right by the numbers too.
        if (says === "yes" && !text.includes("gap")) for (const one of all) expect(madeBy(one)).toBe(true);
        for (const one of all)
          if (one.total !== null) expect(areParts(says, drawn(one), false)).toBe(madeBy(one));
      }),
      { numRuns: 5000, seed: 30 },
    );
    expect(Math.min(seen.yes, seen.no, seen["by values"])).toBeGreaterThan(200);
  });

  it("holds the series of each row to it", () => {
    const data = seriesData([
      [1, 2],
      [3, 4],
    ]);
    expect(areParts("by values", data, false)).toBe(true);
    const off = { ...data, rows: data.rows.map((r, i) => (i === 1 ? { ...r, value: 8 } : r)), total: 11 };
    expect(areParts("by values", off, false)).toBe(false);
    expect(areParts("no", data, false)).toBe(false);
  });
});

describe("what is left beside the first rows", () => {
  it("is the whole without them, and nothing where they are all of it or one lies below zero", () => {
    expect(restOf([0.4, 0.2, null], 1)).toBeCloseTo(0.4, 12);
    expect(restOf([0.1, 0.2], 0.3)).toBe(0);
    expect(restOf([4, -1], 8)).toBe(0);
    expect(restOf([4, 1], null)).toBe(0);
    expect(restOf([4, 3], 5)).toBe(0);
  });
});
