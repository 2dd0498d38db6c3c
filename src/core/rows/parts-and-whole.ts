import type { AddsUp } from "../formula/expr";
import type { VisualData } from "./visual-data";

type Values = readonly (number | null)[];

const sumOf = (values: Values) => values.reduce<number>((sum, v) => sum + (v ?? 0), 0);

/** Sums of doubles differ by their last digits: by so much of all that was added. */
const NEAR = 1e-9;

/** Whether values make a whole; what is nothing adds nothing. */
function make(values: Values, whole: number): boolean {
  const added = values.reduce<number>((sum, v) => sum + Math.abs(v ?? 0), Math.abs(whole));
  return Math.abs(sumOf(values) - whole) <= NEAR * added;
}

type Parts = Pick<VisualData, "rows" | "series" | "total">;

/** Whether the values that are there make their wholes: the rows the total, and the series each row. */
function makesWhole({ rows, series, total }: Parts, isCut: boolean): boolean {
  const isDivided = series.length > 0 && !series.some((s) => s.format);
  if (isDivided && !rows.every((r) => r.value === null || make(r.cells, r.value))) return false;
  return (
    isCut ||
    makeAll(
      rows.map((r) => r.value),
      total,
    )
  );
}

/** Whether all values make their total, where there is something to hold against it. */
const makeAll = (values: Values, total: number | null): boolean =>
  values.length < 2 || total === null || make(values, total);

/**
 * Whether the rows of a visual are parts of its total, by what its formula tells and, where that leaves it
 * open, by their values. `isCut` says that only the first of them are there.
 */
export function areParts(told: AddsUp, parts: Parts, isCut: boolean): boolean {
  if (told === "no") return false;
  return told === "rounded" || makesWhole(parts, isCut);
}

/** Whether the values of a measure make its total, as `areParts` tells it of a visual's own. */
export const makeTotal = (
  told: AddsUp,
  { values, total }: { values: Values; total: number | null },
  isCut: boolean,
): boolean => told === "rounded" || (told !== "no" && (isCut || makeAll(values, total)));

/**
 * What is left of a whole beside its parts where only the first of them are kept; zero where nothing is, or
 * where a part lies below zero, so that the others are more than the whole.
 */
export function restOf(values: Values, whole: number | null): number {
  if (whole === null || values.some((v) => (v ?? 0) < 0) || make(values, whole)) return 0;
  return Math.max(0, whole - sumOf(values));
}
