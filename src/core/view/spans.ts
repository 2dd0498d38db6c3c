import { isoDate, parseIsoDate } from "../base/calendar";
import { own } from "../base/own";
import { relativeDays } from "../engine/relative";
import type { Relative, Result } from "../plan/query";
import { calendarOf } from "../project/conventions";
import type { Project } from "../project/schema";
import { filterText } from "../rows/filter-text";
import { bucketLabels, keyLabel, wordingOf } from "../rows/key-labels";

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

/** What is offered counted from the newest row: stretches that end with it, since nothing comes after. */
const SPANS_FROM_NEWEST: readonly Span[] = SPANS.map(({ unit, from, to }) =>
  to === -1 && from < -1 ? { unit, from: from + 1, to: 0 } : { unit, from, to },
);

/** The stretches of time that a reader is offered, by what they are counted from. */
export const spansFrom = (anchor: Relative["anchor"]): readonly Span[] =>
  anchor === "newest" ? SPANS_FROM_NEWEST : SPANS;

/** A stretch of time as a reader calls it: "the last 3 months". */
export function spanText({ anchor, ...span }: Relative): string {
  // The filter's own words, without the column that stands beside the control.
  const words = filterText({ column: "", relative: { ...span, anchor } }).replace(/^: /, "");
  return words
    .replace(" before the last of its dates", " before that of the newest row")
    .replace(" of its dates", ", with the newest row");
}

/** The newest day of a column, out of the answer to its `extentQuery`; null while there is none. */
export function newestIn(answer: Result | { error: string } | null): string | null {
  const most = answer && !("error" in answer) ? own(answer.totals, "most") : null;
  return typeof most === "string" ? most.slice(0, 10) : null;
}

/**
 * What a stretch of time is, counted from a day: "Oct – Dec 2025", "2025", "2025-12-25 – 2025-12-31"; empty
 * where that is no day. Days are ISO 8601 text.
 */
export function spanDates(relative: Relative, anchor: string, project: Pick<Project, "conventions">): string {
  const day = parseIsoDate(anchor);
  if (day === null) return "";
  const { first, last } = relativeDays(day, relative, calendarOf(project));
  const wording = wordingOf(project);
  const by = relative.unit;
  const ends = [isoDate(first), isoDate(last)];
  const short = bucketLabels({ column: "", by }, ends, wording);
  const end = keyLabel(ends[1], by, wording);
  return keyLabel(ends[0], by, wording) === end ? end : `${short(ends[0])} – ${end}`;
}
