import { DAY_MS, dayOf, isoWeekday, parseIsoTimestamp } from "../base/calendar";

/** In which order a date of digits has its year, month and day. */
export type DateOrder = "ymd" | "dmy" | "mdy";

const MONTHS = "january february march april may june july august september october november december".split(
  " ",
);
/** A year of two digits: 70 to 99 are 1970 to 1999, 00 to 69 are 2000 to 2069. */
const CENTURY_TURNS_AT = 70;

const NUMERIC = /^(\d{1,4})([-/. ])(\d{1,2})\2(\d{1,4})$/;
const COMPACT = /^([12]\d{3})(\d{2})(\d{2})$/;
const YEAR_MONTH = /^(\d{4})[-/.](\d{1,2})$/;
const MONTH_YEAR = /^(\d{1,2})[-/.](\d{4})$/;
const WEEK = /^(\d{4})[- ]?W(\d{1,2})(?:-?([1-7]))?$/i;
const QUARTER_YEAR = /^Q([1-4])[-/ ]?(\d{4})$/i;
const YEAR_QUARTER = /^(\d{4})[-/ ]?Q([1-4])$/i;
const DAY_NAMED = /^(\d{1,2})(?:st|nd|rd|th)?[ .,/-]*([a-z]{3,9})[ .,/-]*'?(\d{4}|\d{2})$/i;
const NAMED_DAY = /^([a-z]{3,9})[ .,/-]*(\d{1,2})(?:st|nd|rd|th)?(?:,|[ .,/-]+)\s*'?(\d{4}|\d{2})$/i;
const NAMED_YEAR = /^([a-z]{3,9})[ .,/-]*(\d{4})$/i;
const YEAR_NAMED = /^(\d{4})[ .,/-]*([a-z]{3,9})(?:[ .,/-]*(\d{1,2}))?$/i;
const WEEKDAY = /^(?:mon|tue|wed|thu|fri|sat|sun)[a-z]{0,6}[.,]?\s+/i;

/** The number of a month's name or of its first letters (three at least; Sept too), 0 where it is none. */
function monthOf(word: string): number {
  const text = word.toLowerCase() === "sept" ? "sep" : word.toLowerCase();
  return MONTHS.findIndex((m) => m === text || (text.length === 3 && m.startsWith(text))) + 1;
}

function fullYear(year: string): number {
  return year.length > 2 ? Number(year) : Number(year) + (Number(year) < CENTURY_TURNS_AT ? 2000 : 1900);
}

/** Whether a cell gives a date's year with two digits only, so that the century is Cavlo's reading. */
export function hasShortYear(cell: string): boolean {
  return (
    /^\d{1,2}[-/. ]\d{1,2}[-/. ]\d{2}(?!\d)/.test(cell.trim()) ||
    /[a-z]{3,9}[ .,/-]*'?\d{2}$/i.test(cell.trim())
  );
}

function namedDate(text: string): number | null {
  const day = (year: string, month: string, date: string) =>
    monthOf(month) ? dayOf(fullYear(year), monthOf(month), Number(date)) : null;
  let m = DAY_NAMED.exec(text);
  if (m) return day(m[3], m[2], m[1]);
  m = NAMED_DAY.exec(text);
  if (m) return day(m[3], m[1], m[2]);
  m = NAMED_YEAR.exec(text);
  if (m) return day(m[2], m[1], "1");
  m = YEAR_NAMED.exec(text);
  return m ? day(m[1], m[2], m[3] ?? "1") : null;
}

/** Monday of an ISO 8601 week, or another of its days (1 to 7); null where the year has no such week. */
function weekDay(year: number, week: number, weekday: number): number | null {
  const fourth = dayOf(year, 1, 4) as number;
  const monday = fourth - isoWeekday(fourth) + 1 + 7 * (week - 1);
  const thursday = monday + 3;
  const within =
    week >= 1 && thursday >= (dayOf(year, 1, 1) as number) && thursday <= (dayOf(year, 12, 31) as number);
  return within ? monday + weekday - 1 : null;
}

/** Months, quarters and weeks stand for their first day. */
function stretchStart(text: string): number | null {
  let m = YEAR_MONTH.exec(text);
  if (m) return dayOf(Number(m[1]), Number(m[2]), 1);
  m = MONTH_YEAR.exec(text);
  if (m) return dayOf(Number(m[2]), Number(m[1]), 1);
  m = WEEK.exec(text);
  if (m) return weekDay(Number(m[1]), Number(m[2]), Number(m[3] ?? 1));
  m = QUARTER_YEAR.exec(text);
  if (m) return dayOf(Number(m[2]), Number(m[1]) * 3 - 2, 1);
  m = YEAR_QUARTER.exec(text);
  return m ? dayOf(Number(m[1]), Number(m[2]) * 3 - 2, 1) : null;
}

/**
 * Reads a date into a day, or null: numbers in the given order of their parts (1/5/2026, 1.5.26, 2026-05-01),
 * 20260501, months by name (1 May 2026, 12-Jun-98, Jun 12 1998), and months, quarters and weeks, which stand
 * for their first day (2019-06, June 2019, Q1 2020, 2020-W05).
 */
export function readDate(cell: string, order: DateOrder): number | null {
  const text = cell.trim();
  if (text.length < 5 || text.length > 40) return null;
  const m = NUMERIC.exec(text);
  if (m) {
    const parts = [m[1], m[3], m[4]];
    const year = parts[order === "ymd" ? 0 : 2];
    if (year.length !== 4 && !(year.length === 2 && order !== "ymd")) return null;
    const [month, day] =
      order === "ymd" ? [parts[1], parts[2]] : order === "dmy" ? [parts[1], parts[0]] : [parts[0], parts[1]];
    return month.length > 2 || day.length > 2 ? null : dayOf(fullYear(year), Number(month), Number(day));
  }
  const compact = COMPACT.exec(text);
  if (compact) return dayOf(Number(compact[1]), Number(compact[2]), Number(compact[3]));
  const plain = text.replace(WEEKDAY, "");
  if (plain !== text)
    return /^\d/.test(plain) && NUMERIC.test(plain) ? readDate(plain, order) : namedDate(plain);
  return stretchStart(text) ?? (/[a-z]/i.test(text) ? namedDate(text) : null);
}

const TIME =
  /(?:[T,]\s*|\s+)(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d{1,9}))?)?\s*([ap]\.?m\.?)?\s*(?:(Z|UTC|GMT)?\s*([+-]\d{2}):?(\d{2})?|(Z|UTC|GMT))?$/i;
const COMPACT_TIME = /^(\d{8})T(\d{2})(\d{2})(\d{2})?(Z)?$/;

/**
 * The milliseconds of a time of day, or null where there is none such (25:00, 13 pm). 24:00 is the midnight
 * that ends the day.
 */
function timeOf(
  hourText: string,
  minuteText: string,
  secondText: string | undefined,
  fraction: string | undefined,
  half: string | undefined,
): number | null {
  let hour = Number(hourText);
  const [minute, second] = [Number(minuteText), Number(secondText ?? 0)];
  if (half) {
    if (hour < 1 || hour > 12) return null;
    hour = (hour % 12) + (/^p/i.test(half) ? 12 : 0);
  }
  if (minute > 59 || second > 59 || hour > 24 || (hour === 24 && minute + second > 0)) return null;
  return (
    ((hour * 60 + minute) * 60 + second) * 1000 + (fraction ? Math.floor(Number(`0.${fraction}`) * 1000) : 0)
  );
}

/**
 * Reads a date with a time of day, or a date alone (its midnight), into milliseconds, or null. A time with an
 * offset becomes universal time; without one it is taken as it stands.
 */
export function readTimestamp(cell: string, order: DateOrder): number | null {
  const iso = parseIsoTimestamp(cell);
  if (iso !== null) return iso;
  const text = cell.trim().replace(/\s*\([^()]*\)$/, "");
  const compact = COMPACT_TIME.exec(text);
  if (compact) {
    const day = readDate(compact[1], order);
    const time = timeOf(compact[2], compact[3], compact[4], undefined, undefined);
    return day === null || time === null ? null : day * DAY_MS + time;
  }
  const m = TIME.exec(text);
  const day = readDate(m ? text.slice(0, m.index) : text, order);
  if (day === null || !m) return day === null ? null : day * DAY_MS;
  const time = timeOf(m[1], m[2], m[3], m[4], m[5]);
  if (time === null) return null;
  const hours = Number(m[7] ?? 0);
  const minutes = Number(m[8] ?? 0) * (m[7]?.startsWith("-") ? -1 : 1);
  if (Math.abs(hours) > 14 || Math.abs(minutes) > 59) return null;
  return day * DAY_MS + time - (hours * 60 + minutes) * 60_000;
}

/** Days and moments between which numbers that count from 1970 are offered as timestamps: 1990 to 2100. */
const EPOCH_FROM = 631_152_000;
const EPOCH_TO = 4_102_444_800;

/** In which unit a whole number could count from 1970 on, or null where it lies too far from our days. */
export function epochUnit(value: number): "s" | "ms" | null {
  if (!Number.isInteger(value)) return null;
  if (value >= EPOCH_FROM && value <= EPOCH_TO) return "s";
  return value >= EPOCH_FROM * 1000 && value <= EPOCH_TO * 1000 ? "ms" : null;
}
