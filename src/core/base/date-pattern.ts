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

/**
 * Why a pattern cannot be used, in a sentence that says what to do, or null. A usable one has a year at
 * least.
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
