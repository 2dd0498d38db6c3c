import type { Relative } from "../plan/query";
import { filterText } from "../rows/filter-text";

/** A stretch of time in words, without what it is counted from. */
export type Span = Pick<Relative, "unit" | "from" | "to">;

/** The stretches of time that a reader is offered. */
export const SPANS: readonly Span[] = [
  { unit: "day", from: -6, to: 0 },
  { unit: "day", from: -29, to: 0 },
  { unit: "month", from: 0, to: 0 },
  { unit: "month", from: -1, to: -1 },
  { unit: "month", from: -3, to: -1 },
  { unit: "month", from: -12, to: -1 },
  { unit: "quarter", from: 0, to: 0 },
  { unit: "quarter", from: -1, to: -1 },
  { unit: "year", from: 0, to: 0 },
  { unit: "year", from: -1, to: -1 },
];

/** A stretch of time as a reader calls it: "the last 3 months". */
export function spanText({ anchor, ...span }: Relative): string {
  // The filter's own words, without the column that stands beside the control.
  const words = filterText({ column: "", relative: { ...span, anchor: "today" } }).replace(/^: /, "");
  return anchor === "newest" ? `${words}, from the newest row` : words;
}
