import { own } from "../base/own";
import { quoteName } from "../formula/quote-name";
import type { QueryInput, Result } from "../plan/query";

type Answer = Result | { error: string } | null;
type ColumnName = { table: string; column: string };

const query = ({ table }: ColumnName, formulas: [string, string][]): QueryInput => ({
  table,
  measures: formulas.map(([as, formula]) => ({ as, formula })),
});

/** The query for the least and the greatest value of a column. */
export const extentQuery = (of: ColumnName): QueryInput =>
  query(of, [
    ["least", `min(${quoteName(of.column)})`],
    ["most", `max(${quoteName(of.column)})`],
  ]);

/** The least and the greatest value of a column of numbers, out of the answer; null where it has none. */
export function extentIn(answer: Answer): { least: number; most: number } | null {
  if (!answer || "error" in answer) return null;
  const [least, most] = [own(answer.totals, "least"), own(answer.totals, "most")];
  return typeof least === "number" && typeof most === "number" ? { least, most } : null;
}

/** How many bars a small histogram has. */
export const BINS = 24;

/** The query for how many rows lie in each of so many equal stretches of a column of numbers. */
export function binsQuery(of: ColumnName, { least, most }: { least: number; most: number }): QueryInput {
  const column = quoteName(of.column);
  const edge = (i: number) => least + ((most - least) * i) / BINS;
  return query(
    of,
    Array.from({ length: BINS }, (_, i) => {
      const end = i === BINS - 1 ? `<= ${most}` : `< ${edge(i + 1)}`;
      return [`bin${i}`, `count(*) filter (where ${column} >= ${edge(i)} and ${column} ${end})`];
    }),
  );
}

/** How many rows lie in each stretch, out of the answer; empty while there is none. */
export function binsIn(answer: Answer): number[] {
  if (!answer || "error" in answer) return [];
  return Array.from({ length: BINS }, (_, i) => Number(own(answer.totals, `bin${i}`) ?? 0));
}

/** The step of a slider over a stretch of numbers: 1, 2 or 5 of a power of ten, some two hundred in all. */
export function niceStep({ least, most }: { least: number; most: number }): number {
  const rough = (most - least) / 200;
  if (!(rough > 0)) return 1;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((k) => k * power).find((s) => s >= rough) ?? 10 * power;
  const isWhole = Number.isInteger(least) && Number.isInteger(most);
  return isWhole ? Math.max(1, Math.round(step)) : step;
}
