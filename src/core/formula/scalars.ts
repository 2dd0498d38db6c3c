import {
  bucketStart,
  civil,
  DATE_BUCKETS,
  DAY_MS,
  type DateBucket,
  dayOf,
  FURTHEST,
  isoDate,
  isoTimestamp,
  isoWeek,
  isoWeekday,
  parseIsoDate,
  parseIsoTimestamp,
} from "../base/calendar";
import { readNumber } from "../base/read-number";
import { compareValues, type Value } from "../base/value";
import {
  DAY_FIELDS,
  type DayField,
  type ScalarName,
  TIME_FIELDS,
  TIME_UNITS,
  type TimeField,
} from "./functions";
import { decimalMark, isMatch, momentBy, replacedByPattern } from "./patterns";
import { firstOf, lastOf, likeMatches, padded, pieceOf, placeOf, replaced, textOf } from "./texts";

/**
 * A scalar function. `evaluate` gets values of the checked types; null handling is in `strict`: null in, null
 * out.
 */
export interface Scalar {
  evaluate: (args: Value[]) => Value;
  /** Any null argument gives null without calling `evaluate`. */
  strict: boolean;
}

const finite = (x: number): Value => (Number.isFinite(x) ? x : null);
const numeric = (f: (...args: number[]) => number): Scalar => ({
  strict: true,
  evaluate: (args) => finite(f(...(args as number[]))),
});
const textual = (f: (...args: string[]) => Value): Scalar => ({
  strict: true,
  evaluate: (args) => f(...(args as string[])),
});
const comparison = (test: (order: number) => boolean): Scalar => ({
  strict: true,
  evaluate: ([a, b]) => test(compareValues(a, b)),
});

/** Rounds half away from zero to `digits` decimals, as SQL does. */
function roundHalfAway(x: number, digits = 0): number {
  const factor = 10 ** Math.trunc(digits);
  if (!Number.isFinite(factor) || factor === 0) return factor === 0 ? 0 : x;
  const scaled = Math.abs(x) * factor;
  if (!Number.isFinite(scaled)) return x;
  // The nearest decimal to the double is meant (1.005 -> 1.01), so an error of a few units in the last place
  // is forgiven.
  const rounded = Math.floor(scaled + 0.5 + scaled * Number.EPSILON);
  return (Math.sign(x) * rounded) / factor;
}

function toNumber(x: Value): Value {
  if (typeof x === "boolean") return x ? 1 : 0;
  if (typeof x !== "string") return x;
  const text = x.trim();
  return text !== "" && /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(text) ? finite(Number(text)) : null;
}

function fieldOfDay(field: DayField, day: number): number {
  const { year, month, day: d } = civil(day);
  switch (field) {
    case "year":
      return year;
    case "quarter":
      return Math.floor((month - 1) / 3) + 1;
    case "month":
      return month;
    case "week":
      return isoWeek(day).week;
    case "isodow":
      return isoWeekday(day);
    case "doy":
      return day - (dayOf(year, 1, 1) as number) + 1;
    default:
      return d;
  }
}
const extremum = (sign: 1 | -1): Scalar => ({
  strict: false,
  evaluate: (args) =>
    args.reduce(
      (best, x) => (x === null ? best : best === null || sign * compareValues(x, best) > 0 ? x : best),
      null,
    ),
});

/** An hour, a minute and a second in milliseconds, and how many there are in the next larger. */
const TIME_PARTS: Record<TimeField, readonly [unit: number, size: number]> = {
  hour: [3_600_000, 24],
  minute: [60_000, 60],
  second: [1000, 60],
};
const remainder = (x: number, size: number) => ((x % size) + size) % size;

/** A part of a timestamp; seconds have their fraction. */
function fieldOfTime(field: TimeField, t: number): number {
  const [unit, size] = TIME_PARTS[field];
  const whole = remainder(Math.floor(t / unit), size);
  return field === "second" ? whole + remainder(t, 1000) / 1000 : whole;
}

const FIELDS = Object.fromEntries([
  ...DAY_FIELDS.map((field) => [`extract_${field}`, numeric((day) => fieldOfDay(field, day))]),
  ...TIME_FIELDS.map((field) => [`extract_${field}`, numeric((t) => fieldOfTime(field, t))]),
]) as Record<`extract_${DayField | TimeField}`, Scalar>;

const STARTS = Object.fromEntries([
  ...DATE_BUCKETS.map((bucket) => [`trunc_to_${bucket}`, numeric((day) => bucketStart(day, bucket))]),
  ...TIME_UNITS.map((unit) => [
    `trunc_to_${unit}`,
    numeric((t) => Math.floor(t / TIME_PARTS[unit][0]) * TIME_PARTS[unit][0]),
  ]),
]) as Record<`trunc_to_${DateBucket | (typeof TIME_UNITS)[number]}`, Scalar>;

/** Days further away than any date, and moments on them, are none. */
const within = (x: number, furthest: number) => (Math.abs(x) <= furthest ? x : Number.NaN);
/** A date is a whole day: the one on which a moment lies. */
const wholeDay = (day: number) => within(Math.floor(day), FURTHEST);
const wholeMoment = (ms: number) => within(Math.round(ms), FURTHEST * DAY_MS);

/** How every function and operator is computed; the checker chooses the name from the types. */
export const SCALARS: Record<ScalarName, Scalar> = {
  "+": numeric((a, b) => a + b),
  "-": numeric((a, b) => a - b),
  "*": numeric((a, b) => a * b),
  "/": numeric((a, b) => a / b),
  "%": numeric((a, b) => a % b),
  mod: numeric((a, b) => a % b),
  negate: numeric((a) => -a),
  date_plus_days: numeric((day, days) => wholeDay(day + days)),
  date_minus_days: numeric((day, days) => wholeDay(day - days)),
  timestamp_plus_days: numeric((t, days) => wholeMoment(t + days * DAY_MS)),
  timestamp_minus_days: numeric((t, days) => wholeMoment(t - days * DAY_MS)),
  days_between: numeric((a, b) => (a - b) / DAY_MS),
  at_midnight: numeric((day) => day * DAY_MS),
  day_of_timestamp: numeric((t) => Math.floor(t / DAY_MS)),
  "=": comparison((o) => o === 0),
  "<>": comparison((o) => o !== 0),
  "<": comparison((o) => o < 0),
  "<=": comparison((o) => o <= 0),
  ">": comparison((o) => o > 0),
  ">=": comparison((o) => o >= 0),
  not: { strict: true, evaluate: ([a]) => !a },
  and: {
    strict: false,
    evaluate: (args) => (args.includes(false) ? false : args.includes(null) ? null : true),
  },
  or: {
    strict: false,
    evaluate: (args) => (args.includes(true) ? true : args.includes(null) ? null : false),
  },
  is_null: { strict: false, evaluate: ([a]) => a === null },
  is_distinct: { strict: false, evaluate: ([a, b]) => compareValues(a, b) !== 0 },
  case: {
    strict: false,
    evaluate: (args) => {
      for (let i = 0; i + 1 < args.length; i += 2) if (args[i] === true) return args[i + 1];
      return args.length % 2 === 1 ? args[args.length - 1] : null;
    },
  },
  like: {
    strict: true,
    evaluate: ([text, pattern, sign]) =>
      likeMatches(text as string, pattern as string, (sign as string | undefined) ?? null),
  },
  coalesce: { strict: false, evaluate: (args) => args.find((x) => x !== null) ?? null },
  nullif: {
    strict: false,
    evaluate: ([a, b]) => (a !== null && b !== null && compareValues(a, b) === 0 ? null : a),
  },
  greatest: extremum(1),
  least: extremum(-1),
  abs: numeric(Math.abs),
  sign: numeric(Math.sign),
  round: numeric(roundHalfAway),
  floor: numeric(Math.floor),
  ceil: numeric(Math.ceil),
  trunc: numeric(Math.trunc),
  power: numeric((a, b) => a ** b),
  sqrt: numeric(Math.sqrt),
  exp: numeric(Math.exp),
  ln: numeric(Math.log),
  log10: numeric(Math.log10),
  upper: textual((t) => t.toUpperCase()),
  lower: textual((t) => t.toLowerCase()),
  trim: textual((t) => t.trim()),
  length: textual((t) => [...t].length),
  replace: textual(replaced),
  starts_with: textual((t, start) => t.startsWith(start)),
  "||": textual((a, b) => textOf(a.length + b.length, () => a + b)),
  concat: {
    strict: false,
    evaluate: (args) =>
      textOf(
        args.reduce((sum: number, x) => sum + ((x as string | null)?.length ?? 0), 0),
        () => args.map((x) => x ?? "").join(""),
      ),
  },
  substring: {
    strict: true,
    evaluate: ([text, from, count]) => {
      const start = Math.trunc(from as number) - 1;
      const end = count === undefined ? Number.POSITIVE_INFINITY : start + Math.trunc(count as number);
      return [...(text as string)].slice(Math.max(0, start), Math.max(0, end)).join("");
    },
  },
  left: { strict: true, evaluate: ([text, n]) => firstOf(text as string, n as number) },
  right: { strict: true, evaluate: ([text, n]) => lastOf(text as string, n as number) },
  position: textual(placeOf),
  split_part: {
    strict: true,
    evaluate: ([text, separator, n]) => pieceOf(text as string, separator as string, n as number),
  },
  lpad: { strict: true, evaluate: (args) => padded("start", ...(args as [string, number, string?])) },
  rpad: { strict: true, evaluate: (args) => padded("end", ...(args as [string, number, string?])) },
  regexp_like: textual(isMatch),
  regexp_replace: textual(replacedByPattern),
  to_number: textual((text, mark = ".") => readNumber(text, decimalMark(mark))),
  to_date: textual((text, pattern) => {
    const moment = momentBy(text, pattern);
    return moment === null ? null : Math.floor(moment / DAY_MS);
  }),
  to_timestamp: textual(momentBy),
  number_from: { strict: true, evaluate: ([x]) => toNumber(x) },
  text_from_number: { strict: true, evaluate: ([x]) => String(x) },
  text_from_boolean: { strict: true, evaluate: ([x]) => (x ? "true" : "false") },
  text_from_date: { strict: true, evaluate: ([x]) => isoDate(x as number) },
  text_from_timestamp: { strict: true, evaluate: ([x]) => isoTimestamp(x as number) },
  boolean_from_number: { strict: true, evaluate: ([x]) => x !== 0 },
  boolean_from_text: textual((t) =>
    /^(true|yes|1)$/i.test(t.trim()) ? true : /^(false|no|0)$/i.test(t.trim()) ? false : null,
  ),
  date_from_text: textual((t) => parseIsoDate(t)),
  timestamp_from_text: textual((t) => parseIsoTimestamp(t)),
  ...FIELDS,
  ...STARTS,
};

/** A scalar function with its null rule applied. */
export function scalarOf(fn: ScalarName): (args: Value[]) => Value {
  const scalar = SCALARS[fn];
  return scalar.strict ? (args) => (args.includes(null) ? null : scalar.evaluate(args)) : scalar.evaluate;
}
