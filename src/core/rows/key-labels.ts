import { civil, isoWeek, parseIsoDate } from "../base/calendar";
import type { Value } from "../base/value";
import type { Split } from "../plan/query";

/** The label of the row of those that a link finds no match for. */
export const NO_MATCH_LABEL = "(no match)";
const MONTHS = "Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec".split(" ");

/** How a key of the split is written: dates by their bucket, null as "(none)". */
export function keyLabel(key: Value, bucket: string | undefined): string {
  if (key === null) return "(none)";
  if (typeof key === "boolean") return key ? "yes" : "no";
  const day = bucket && typeof key === "string" ? parseIsoDate(key) : null;
  if (day === null) return String(key);
  const { year, month } = civil(day);
  if (bucket === "year") return String(year);
  if (bucket === "quarter") return `Q${Math.ceil(month / 3)} ${year}`;
  if (bucket === "month") return `${MONTHS[month - 1]} ${year}`;
  if (bucket === "week") return `Week ${isoWeek(day).week}, ${isoWeek(day).year}`;
  return String(key);
}

/** Writes the keys of a split; months and quarters of one year go without the year that they all have. */
export function bucketLabels(split: Split | null, keys: Value[]): (key: Value) => string {
  const by = split?.by;
  const years = new Set(keys.map((k) => (typeof k === "string" ? k.slice(0, 4) : "")));
  const short = (by === "month" || by === "quarter") && years.size === 1 && keys.length > 1;
  return (key) => {
    const label = keyLabel(key, by);
    return short ? label.replace(/ \d{4}$/, "") : label;
  };
}

/** What a filter on a bucket of dates asks for: a year by its number, all else by the key itself. */
export function filterKey(key: Value, bucket: string | undefined): Value {
  const day = bucket === "year" && typeof key === "string" ? parseIsoDate(key) : null;
  return day === null ? key : civil(day).year;
}
