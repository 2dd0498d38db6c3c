import { utc } from "@date-fns/utc";
import { format } from "date-fns/format";
import { parse } from "date-fns/parse";

/**
 * Parts that a pattern leaves out come from here. With this year, two digits mean 1970 to 2069, as everywhere
 * in Cavlo.
 */
const REFERENCE = Date.UTC(2020, 0, 1);

/**
 * Reads a cell by a pattern of the date letters of Unicode (dd.MM.yyyy, MMM yy, yyyyMMdd'T'HHmm) into
 * milliseconds, or null.
 */
export function readByPattern(cell: string, pattern: string): number | null {
  let moment: number;
  try {
    moment = parse(cell.trim(), pattern, REFERENCE, { in: utc }).getTime();
  } catch {
    return null;
  }
  return Number.isFinite(moment) ? moment : null;
}

/**
 * Writes a day (ISO 8601) by the date letters of Unicode: YYYY-'W'ww, dd MMM yyyy. Weeks are those of ISO
 * 8601. Null where the text is no day, or the pattern none of dates.
 */
export function writeByPattern(day: string, pattern: string): string | null {
  const moment = Date.parse(day.length > 10 ? `${day}Z` : `${day}T00:00:00Z`);
  if (!Number.isFinite(moment) || !/[a-zA-Z]/.test(pattern.replace(/'[^']*'/g, ""))) return null;
  try {
    return format(moment, pattern, {
      in: utc,
      weekStartsOn: 1,
      firstWeekContainsDate: 4,
      useAdditionalWeekYearTokens: true,
      useAdditionalDayOfYearTokens: true,
    });
  } catch {
    return null;
  }
}

/** A date of any year by which patterns are tried. */
const SOME_DAY = "2020-02-03";

/** Whether a pattern writes days. */
export const writesDays = (pattern: string): boolean => writeByPattern(SOME_DAY, pattern) !== null;

/**
 * Why a pattern cannot be used, in a sentence that says what to do, or null. A usable one has a
 * year at least.
 */
export function patternProblem(pattern: string): string | null {
  const letters = pattern.replace(/'[^']*'/g, "");
  if (/Y|D/.test(letters)) return "Write the year as yyyy and the day of the month as dd, in small letters.";
  if (!/[yu]/.test(letters))
    return "A pattern needs a year, written as yyyy or yy. For example dd.MM.yyyy or MMM yyyy.";
  try {
    if (readByPattern(format(REFERENCE, pattern, { in: utc }), pattern) !== null) return null;
  } catch {
    // A letter that means nothing makes the library throw.
  }
  return "This is no pattern of a date. Use yyyy, MM, dd, HH, mm, ss, MMM for a month's name, and put other letters between ' and '.";
}

const DAY = /^\d{4}-\d{2}-\d{2}(T\d{2}:\d{2}(:\d{2}(\.\d+)?)?)?$/;

/** Whether a text is a day, or a moment of one (ISO 8601). */
export const isDay = (text: string): boolean => DAY.test(text) && writeByPattern(text, "yyyy") !== null;

/** A day (ISO 8601) as a format writes days, or as it is. */
export const writeDay = (day: string, { dates }: { dates?: string }): string =>
  (dates === undefined ? null : writeByPattern(day, dates)) ?? day;
