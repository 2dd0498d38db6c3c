import { civil, DAY_MS, type DateBucket, isoWeekday } from "../base/calendar";
import { cellCounts } from "../data/cell-counts";
import { type ColumnData, cellValue } from "../data/column";

/** The stretches of time that the dates of a column can stand for, the coarsest first. */
const GRAINS = ["year", "quarter", "month", "week"] as const;
type Grain = (typeof GRAINS)[number] | "day";

const begins: Record<(typeof GRAINS)[number], (day: number) => boolean> = {
  year: (day) => civil(day).month === 1 && civil(day).day === 1,
  quarter: (day) => civil(day).month % 3 === 1 && civil(day).day === 1,
  month: (day) => civil(day).day === 1,
  week: (day) => isoWeekday(day) === 1,
};

/** The distinct days of a column's dates. */
function daysIn(data: ColumnData): Set<number> {
  const days = new Set<number>();
  const near = data.type === "date" ? cellCounts(data) : null;
  if (near) {
    for (const [i, count] of near.counts.entries()) if (count > 0) days.add(near.low + i);
  } else if (data.type === "date" || data.type === "timestamp")
    for (let row = 0; row < data.values.length; row++) {
      const value = cellValue(data, row);
      if (typeof value === "number") days.add(data.type === "date" ? value : Math.floor(value / DAY_MS));
    }
  return days;
}

const known = new WeakMap<ColumnData, Grain>();

/**
 * The stretch of time that every date of a column begins: a plan by month has the first day of each. "day"
 * where they begin none, or where there are too few to tell.
 */
function grainOf(data: ColumnData): Grain {
  const found = known.get(data);
  if (found) return found;
  const days = daysIn(data);
  // Two dates can be the first of a month by chance.
  const grain = days.size < 3 ? "day" : (GRAINS.find((g) => [...days].every(begins[g])) ?? "day");
  known.set(data, grain);
  return grain;
}

const ORDER: readonly DateBucket[] = ["year", "quarter", "month", "week", "day"];

/**
 * The grain of a date column that is split by finer stretches than its dates stand for, so that all of a
 * month stands in one of its weeks; null where it is not.
 */
export function coarserThan(data: ColumnData, by: DateBucket | undefined): Grain | null {
  if (!by) return null;
  const grain = grainOf(data);
  return ORDER.indexOf(grain) < ORDER.indexOf(by) ? grain : null;
}
