import { bucketStart, type Calendar, civil, type DateBucket, dayOf } from "../base/calendar";

/**
 * The first day of the bucket that lies `steps` buckets after the one that holds `day`. Days are counted from
 * 1970-01-01.
 */
export function bucketAfter(day: number, unit: DateBucket, steps: number, calendar?: Calendar): number {
  const start = bucketStart(day, unit, calendar);
  if (unit === "day") return start + steps;
  if (unit === "week") return start + 7 * steps;
  const { year, month } = civil(start);
  const months = (unit === "year" ? 12 : unit === "quarter" ? 3 : 1) * steps + (year * 12 + month - 1);
  return dayOf(Math.floor(months / 12), (((months % 12) + 12) % 12) + 1, 1) as number;
}

/**
 * The first and the last day of whole buckets from `from` to `to`, counted from the one that holds `anchor`
 * (0): -3 to -1 are the three before it.
 */
export function relativeDays(
  anchor: number,
  { unit, from, to }: { unit: DateBucket; from: number; to: number },
  calendar?: Calendar,
): { first: number; last: number } {
  return {
    first: bucketAfter(anchor, unit, Math.min(from, to), calendar),
    last: bucketAfter(anchor, unit, Math.max(from, to) + 1, calendar) - 1,
  };
}
