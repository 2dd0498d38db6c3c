/**
 * Calendar arithmetic on the proleptic Gregorian calendar. A day is a whole number of days since 1970-01-01.
 */

/** The milliseconds of a day. */
export const DAY_MS = 86_400_000;

/** No date lies further from 1970-01-01 than so many days: what the language's own dates can say. */
export const FURTHEST = 100_000_000;
const DAYS_IN_MONTH = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];
const isLeap = (year: number) => year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);

/** Years and days are counted from March on, so that a leap day is the last of its year. */
const DAYS_OF_400_YEARS = 146_097;
/** From 1 March of the year 0 to 1970-01-01. */
const DAYS_BEFORE_1970 = 719_468;

/**
 * The day of a civil date, or null where that date does not exist (31 April). `month` is 1 to 12. By `days_from_civil`
 * of H. Hinnant, chrono-Compatible Low-Level Date Algorithms, 2014: the language's own dates took most of the
 * time of a split by months.
 */
export function dayOf(year: number, month: number, day: number): number | null {
  const length = month === 2 && isLeap(year) ? 29 : DAYS_IN_MONTH[month - 1];
  if (!(day >= 1 && day <= length) || !Number.isInteger(year)) return null;
  const from = month <= 2 ? year - 1 : year;
  const era = Math.floor(from / 400);
  const yearOfEra = from - era * 400;
  const dayOfYear = Math.floor((153 * ((month + 9) % 12) + 2) / 5) + day - 1;
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear;
  const found = era * DAYS_OF_400_YEARS + dayOfEra - DAYS_BEFORE_1970;
  return Math.abs(found) <= FURTHEST ? found : null;
}

/**
 * Year, month (1 to 12) and day of the month of a day, or of a moment of it. By `civil_from_days` of the same source.
 */
export function civil(day: number): { year: number; month: number; day: number } {
  const since = Math.floor(day) + DAYS_BEFORE_1970;
  const era = Math.floor(since / DAYS_OF_400_YEARS);
  const dayOfEra = since - era * DAYS_OF_400_YEARS;
  const leapDays =
    Math.floor(dayOfEra / 1_460) - Math.floor(dayOfEra / 36_524) + Math.floor(dayOfEra / 146_096);
  const yearOfEra = Math.floor((dayOfEra - leapDays) / 365);
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const fromMarch = Math.floor((5 * dayOfYear + 2) / 153);
  const month = fromMarch < 10 ? fromMarch + 3 : fromMarch - 9;
  const year = yearOfEra + era * 400 + (month <= 2 ? 1 : 0);
  return { year, month, day: dayOfYear - Math.floor((153 * fromMarch + 2) / 5) + 1 };
}

/** ISO day of the week: Monday is 1, Sunday is 7. */
export function isoWeekday(day: number): number {
  return ((((day + 3) % 7) + 7) % 7) + 1;
}

/** ISO 8601 week: the week belongs to the year of its Thursday. */
export function isoWeek(day: number): { year: number; week: number } {
  const thursday = day - isoWeekday(day) + 4;
  const year = civil(thursday).year;
  const first = dayOf(year, 1, 1) as number;
  return { year, week: Math.floor((thursday - first) / 7) + 1 };
}

/** What dates can be grouped by. */
export const DATE_BUCKETS = ["year", "quarter", "month", "week", "day"] as const;
/** One of DATE_BUCKETS. */
export type DateBucket = (typeof DATE_BUCKETS)[number];

/** How weeks and years are counted. */
export interface Calendar {
  /** ISO day of the week on which weeks begin: Monday is 1, Sunday is 7. */
  weekStart: number;
  /** The first week of a year: the one with its first Thursday (ISO 8601), or the one with its first day. */
  weekOne: "iso" | "first day";
  /** The month, 1 to 12, in which years begin; quarters are counted from there. */
  yearStart: number;
}
/** Weeks of ISO 8601 and years from January. */
export const ISO_CALENDAR: Calendar = { weekStart: 1, weekOne: "iso", yearStart: 1 };

/** The first day of the bucket that holds a day. */
export function bucketStart(day: number, bucket: DateBucket, calendar = ISO_CALENDAR): number {
  if (bucket === "day") return day;
  if (bucket === "week") return day - ((isoWeekday(day) - calendar.weekStart + 7) % 7);
  const { year, month } = civil(day);
  if (bucket === "month") return dayOf(year, month, 1) as number;
  const since = (month - calendar.yearStart + 12) % 12;
  const begin = month - (bucket === "year" ? since : since % 3);
  return begin < 1 ? (dayOf(year - 1, begin + 12, 1) as number) : (dayOf(year, begin, 1) as number);
}

/** The quarter, 1 to 4, of the year that a day lies in. */
export const quarterOf = (day: number, { yearStart }: Calendar): number =>
  Math.floor(((civil(day).month - yearStart + 12) % 12) / 3) + 1;

/** The number of the week that a day lies in, and the year that the week belongs to. */
export function weekOf(day: number, calendar: Calendar): { year: number; week: number } {
  const start = bucketStart(day, "week", calendar);
  const isIso = calendar.weekOne === "iso";
  // A week belongs to the year of its fourth day, or of its last.
  const { year } = civil(start + (isIso ? 3 : 6));
  const first = bucketStart(dayOf(year, 1, isIso ? 4 : 1) as number, "week", calendar);
  return { year, week: Math.round((start - first) / 7) + 1 };
}

const two = (n: number) => String(n).padStart(2, "0");

/** ISO 8601 text of a day: 2026-05-01. */
export function isoDate(day: number): string {
  const { year, month, day: d } = civil(day);
  const sign = year < 0 ? "-" : "";
  return `${sign}${String(Math.abs(year)).padStart(4, "0")}-${two(month)}-${two(d)}`;
}

/**
 * ISO 8601 text of a timestamp in milliseconds: 2026-05-01T08:30:00, with milliseconds only where they count.
 */
export function isoTimestamp(ms: number): string {
  const day = Math.floor(ms / DAY_MS);
  const rest = ms - day * DAY_MS;
  const time = `${two(Math.floor(rest / 3_600_000))}:${two(Math.floor(rest / 60_000) % 60)}:${two(Math.floor(rest / 1000) % 60)}`;
  const fraction = Math.floor(rest % 1000);
  return `${isoDate(day)}T${time}${fraction ? `.${String(fraction).padStart(3, "0")}` : ""}`;
}

/** Reads ISO 8601 date text into a day, or null. */
export function parseIsoDate(text: string): number | null {
  const m = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(text.trim());
  return m ? dayOf(Number(m[1]), Number(m[2]), Number(m[3])) : null;
}

/**
 * Reads ISO 8601 timestamp text (T or a space between, optional seconds and offset) into
 * milliseconds, or null.
 */
export function parseIsoTimestamp(text: string): number | null {
  const m =
    /^(\d{4}-\d{1,2}-\d{1,2})(?:[T ](\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d{1,9}))?)?\s*(Z|[+-]\d{2}:?\d{2})?)?$/.exec(
      text.trim(),
    );
  if (!m) return null;
  const day = parseIsoDate(m[1]);
  const [hour, minute, second] = [Number(m[2] ?? 0), Number(m[3] ?? 0), Number(m[4] ?? 0)];
  if (day === null || hour > 23 || minute > 59 || second > 59) return null;
  const fraction = m[5] ? Math.floor(Number(`0.${m[5]}`) * 1000) : 0;
  let offset = 0;
  if (m[6] && m[6] !== "Z") {
    const digits = m[6].replace(":", "");
    offset = (digits[0] === "-" ? -1 : 1) * (Number(digits.slice(1, 3)) * 60 + Number(digits.slice(3, 5)));
  }
  return day * DAY_MS + ((hour * 60 + minute - offset) * 60 + second) * 1000 + fraction;
}

/** Whether a text names a time zone; an empty one is that of the machine. */
export function isTimeZone(text: string): boolean {
  try {
    if (text) new Intl.DateTimeFormat("en", { timeZone: text });
    return true;
  } catch {
    return false;
  }
}
