// A chain of 300 measures that each use the one before twice, and a circle of 1,000: how long checking and
// answering take beside one measure.

import { runQueries, ScanCache } from "@/core/engine/run";
import { checkFormula } from "@/core/formula/check";
import type { Scope } from "@/core/formula/expr";
import { querySchema } from "@/core/plan/query";
import { madeTable, scopeColumns } from "@/testing/made-table";
import { median, ms } from "./median";

const ROWS = 1_000_000;
const table = madeTable("t", {
  k: ["text", Array.from({ length: ROWS }, (_, i) => `k${i % 24}`)],
  n: ["number", Array.from({ length: ROWS }, (_, i) => i % 997)],
});
const scopeOf = (formulas: string[]): Scope => ({
  tables: [{ name: "t", columns: scopeColumns(table) }],
  measures: formulas.map((formula, i) => ({ name: `m${i}`, formula, table: "t" })),
  inputs: [],
});
const chain = () =>
  scopeOf(Array.from({ length: 300 }, (_, i) => (i === 0 ? "sum(n)" : `(m${i - 1} + m${i - 1}) / 2`)));
const circle = () =>
  scopeOf(Array.from({ length: 1000 }, (_, i) => `m${(i + 1) % 1000} + m${(i + 1) % 1000}`));

/** The median time of some work over fresh scopes, so that nothing is remembered from the time before. */
function timed(times: number, make: () => Scope, work: (scope: Scope) => unknown): number {
  const taken: number[] = [];
  for (let i = 0; i < times; i++) {
    const scope = make();
    const began = performance.now();
    work(scope);
    taken.push(performance.now() - began);
  }
  return median(taken);
}

const check = timed(15, chain, (scope) => checkFormula("(m298 + m298) / 2", scope, "t", "group", "m299"));
console.log(`checking a chain of 300: ${ms(check)} (floor 20 ms)`);
console.log(
  `finding a circle of 1,000: ${ms(timed(15, circle, (scope) => checkFormula("m1 + m1", scope, "t", "group", "m0")))}`,
);
const ask = (id: string) => (scope: Scope) =>
  runQueries(
    [querySchema.parse({ measures: [{ id }], splits: [{ column: "k" }] })],
    { scope, inputs: {}, tables: [table] },
    new ScanCache(),
  );
const [one, all] = [timed(15, chain, ask("m0")), timed(15, chain, ask("m299"))];
console.log(
  `answering one measure over ${ROWS.toLocaleString("en")} rows: ${ms(one)}; the chain: ${ms(all)} (${(all / one).toFixed(2)} times)`,
);
