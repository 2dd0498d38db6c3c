import { bucketStart, type Calendar, type DATE_BUCKETS, parseIsoDate } from "../base/calendar";
import { bucketAfter } from "../engine/relative";
import type { Split } from "../plan/query";
import type { OfferedColumn } from "../project/offered";
import type { ColumnFacts, TableFacts } from "./column-facts";

/** A picture of parts tells so many groups apart. */
export const MOST_GROUPS = 8;
/** A course over time has so many steps at most. */
const MOST_STEPS = 40;
/** A column with more values than this holds names, which no picture is split by unasked. */
const MOST_NAMES = 60;

/** How many steps of a bucket lie between two days, both in it; no more than are asked about are counted. */
function stepsBetween(
  from: number,
  to: number,
  by: (typeof DATE_BUCKETS)[number],
  most: number,
  calendar: Calendar,
): number {
  let steps = 1;
  for (let at = bucketStart(from, by, calendar); steps <= most; steps++) {
    at = bucketAfter(at, by, 1, calendar);
    if (at > to) break;
  }
  return steps;
}

/** The finest step in which the days of a column are at most so many groups, and at least two; null for none. */
function fittingStep({ from, to }: ColumnFacts, most: number, calendar: Calendar) {
  const [first, last] = [from, to].map((day) => (day === null ? null : parseIsoDate(day)));
  if (first === null || first === undefined || last === null || last === undefined) return null;
  const fine = ["day", "week", "month", "quarter", "year"] as const;
  const fits = fine.find((by) => stepsBetween(first, last, by, most, calendar) <= most);
  return fits && stepsBetween(first, last, fits, most, calendar) > 1 ? fits : null;
}

/** The first column over time of some, with its fitting step; null where none has two. */
export function fittingCourse(
  columns: readonly OfferedColumn[],
  facts: TableFacts,
  calendar: Calendar,
  most = MOST_STEPS,
): Split | null {
  for (const { name, type } of columns) {
    const known = type === "date" || type === "timestamp" ? facts.get(name) : undefined;
    const by = known && fittingStep(known, most, calendar);
    if (by) return { column: name, by };
  }
  return null;
}

/**
 * The columns that parts are told by, the fittest first: those with two to eight values in their order, then
 * those with more, the fewest first. A column with one value, or with a name in nearly every row, is none.
 */
export function fittingParts(
  columns: readonly OfferedColumn[],
  facts: TableFacts,
): { split: Split; groups: number }[] {
  const told = columns.flatMap(({ name }) => {
    const known = facts.get(name);
    if (!known || known.from !== null || known.distinct < 2 || known.distinct > MOST_NAMES) return [];
    return [{ split: { column: name }, groups: known.distinct }];
  });
  const [few, many] = [
    told.filter((t) => t.groups <= MOST_GROUPS),
    told.filter((t) => t.groups > MOST_GROUPS),
  ];
  return [...few, ...many.sort((a, b) => a.groups - b.groups)];
}
