import { bucketStart, civil, ISO_CALENDAR, parseIsoDate, quarterOf, weekOf } from "../base/calendar";
import type { Value } from "../base/value";
import type { Split } from "../plan/query";
import { calendarOf, wordsOf } from "../project/conventions";
import { WORDS } from "../project/fixed-words";
import type { Project } from "../project/schema";

/** How categories are written: the calendar and the words of a project, and the language of its months. */
export type Wording = ReturnType<typeof wordingOf>;

/** How the categories of a project are written. */
export const wordingOf = (project: Pick<Project, "conventions">) => ({
  calendar: calendarOf(project),
  locale: project.conventions.locale,
  words: wordsOf(project),
});

const PLAIN: Wording = { calendar: ISO_CALENDAR, locale: "plain", words: WORDS };
const MONTHS = "Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec".split(" ");

const months = new Map<string, string[]>();

/** The short name of a month, 1 to 12, in a language. */
function monthName(month: number, locale: string): string {
  let names = months.get(locale);
  if (!names) {
    try {
      const format = new Intl.DateTimeFormat(locale, { month: "short", timeZone: "UTC" });
      names = MONTHS.map((_, i) => format.format(Date.UTC(2026, i, 1)));
    } catch {
      // "plain" is no language, nor is every tag that a project can hold.
      names = MONTHS;
    }
    months.set(locale, names);
  }
  return names[month - 1];
}

/** A year by its number; one that begins within a year by both: 2025/26. */
const yearName = (year: number, yearStart: number) =>
  yearStart === 1 ? String(year) : `${year}/${String((year + 1) % 100).padStart(2, "0")}`;

/** How a key of the split is written: dates by their bucket, null as "(none)". */
export function keyLabel(
  key: Value,
  bucket: string | undefined,
  { calendar, locale, words } = PLAIN,
): string {
  if (key === null) return words.none;
  if (typeof key === "boolean") return key ? words.yes : words.no;
  const day = bucket && typeof key === "string" ? parseIsoDate(key) : null;
  if (day === null) return String(key);
  const { year } = civil(bucketStart(day, "year", calendar));
  if (bucket === "year") return yearName(year, calendar.yearStart);
  if (bucket === "quarter")
    return `${words.quarter}${quarterOf(day, calendar)} ${yearName(year, calendar.yearStart)}`;
  if (bucket === "month") return `${monthName(civil(day).month, locale)} ${civil(day).year}`;
  if (bucket === "week") {
    const { week, year: of } = weekOf(day, calendar);
    return `${words.week} ${week}, ${of}`;
  }
  return String(key);
}

/** How a group is written: what a link finds no match for, or its key. */
export const groupLabel = (key: Value, isNoMatch: boolean, bucket: string | undefined, wording: Wording) =>
  isNoMatch ? wording.words.noMatch : keyLabel(key, bucket, wording);

/** Writes the keys of a split; months and quarters of one year go without the year that they all have. */
export function bucketLabels(split: Split | null, keys: Value[], wording = PLAIN): (key: Value) => string {
  const by = split?.by;
  const yearOf = (key: Value) => {
    const day = typeof key === "string" ? parseIsoDate(key) : null;
    return day === null ? "" : civil(by === "month" ? day : bucketStart(day, "year", wording.calendar)).year;
  };
  const short =
    (by === "month" || by === "quarter") && keys.length > 1 && new Set(keys.map(yearOf)).size === 1;
  return (key) => {
    const label = keyLabel(key, by, wording);
    return short ? label.replace(/ \d{4}(\/\d{2})?$/, "") : label;
  };
}

/** What a filter on a bucket of dates asks for: a year by its number, all else by the key itself. */
export function filterKey(key: Value, bucket: string | undefined): Value {
  const day = bucket === "year" && typeof key === "string" ? parseIsoDate(key) : null;
  return day === null ? key : civil(day).year;
}
