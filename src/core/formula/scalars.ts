import {
  bucketStart,
  civil,
  DATE_BUCKETS,
  DAY_MS,
  dayOf,
  isoDate,
  isoTimestamp,
  isoWeek,
  isoWeekday,
  parseIsoDate,
  parseIsoTimestamp,
} from "../base/calendar";
import { LimitError } from "../base/limit-error";
import { compareValues, type Value, type ValueType } from "../base/value";

/**
 * A scalar function. `evaluate` gets values of the checked types; null handling is in `strict`: null in, null
 * out.
 */
export interface Scalar {
  evaluate: (args: Value[]) => Value;
  /** Any null argument gives null without calling `evaluate`. */
  strict: boolean;
}

/** What a person can call by name: its form, its help, and how its type follows from its arguments' types. */
export interface ScalarEntry {
  name: string;
  signature: string;
  help: string;
  arity: [number, number];
  /** The result type, or null when these argument types do not fit. */
  type: (args: ValueType[]) => ValueType | null;
  takes: string;
}

/**
 * The longest text that a formula makes, in UTF-16 units: texts that are joined to themselves would fill any
 * memory.
 */
const LONGEST_TEXT = 100_000;

/** Makes a text of so many units, unless that is too long. Throws a LimitError then. */
function textOf(length: number, make: () => string): string {
  if (length > LONGEST_TEXT)
    throw new LimitError(
      `A formula makes a text of more than ${LONGEST_TEXT.toLocaleString("en")} characters. Shorten it, for example with substring(text from 1 for 100).`,
    );
  return make();
}

function replaced(text: string, from: string, to: string): string {
  if (from === "") return text;
  const parts = text.split(from);
  return textOf(text.length + (parts.length - 1) * (to.length - from.length), () => parts.join(to));
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
export function roundHalfAway(x: number, digits = 0): number {
  const factor = 10 ** Math.trunc(digits);
  if (!Number.isFinite(factor) || factor === 0) return factor === 0 ? 0 : x;
  const scaled = Math.abs(x) * factor;
  if (!Number.isFinite(scaled)) return x;
  // The nearest decimal to the double is meant (1.005 -> 1.01), so an error of a few units in the last place
  // is forgiven.
  const rounded = Math.floor(scaled + 0.5 + scaled * Number.EPSILON);
  return (Math.sign(x) * rounded) / factor;
}

/**
 * Matches SQL's like: % any run, _ one character (code point). A trailing or misplaced escape matches itself.
 */
export function likeMatches(text: string, pattern: string, escapeSign: string | null): boolean {
  const input = [...text];
  const parts: { any: boolean; one: boolean; char: string }[] = [];
  const chars = [...pattern];
  for (let i = 0; i < chars.length; i++) {
    const escaped = escapeSign !== null && chars[i] === escapeSign && i + 1 < chars.length;
    if (escaped) i++;
    parts.push({ any: !escaped && chars[i] === "%", one: !escaped && chars[i] === "_", char: chars[i] });
  }
  let [at, part, starPart, starAt] = [0, 0, -1, 0];
  while (at < input.length) {
    const p = parts[part];
    if (p?.any) {
      starPart = part++;
      starAt = at;
    } else if (p && (p.one || p.char === input[at])) {
      at++;
      part++;
    } else if (starPart >= 0) {
      part = starPart + 1;
      at = ++starAt;
    } else return false;
  }
  while (parts[part]?.any) part++;
  return part === parts.length;
}

function toNumber(x: Value): Value {
  if (typeof x === "boolean") return x ? 1 : 0;
  if (typeof x !== "string") return x;
  const text = x.trim();
  return text !== "" && /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(text) ? finite(Number(text)) : null;
}

function fieldOfDay(field: string, day: number): number {
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
export const DAY_FIELDS = ["year", "quarter", "month", "week", "isodow", "doy", "day"] as const;
export const TIME_FIELDS = { hour: [3_600_000, 24], minute: [60_000, 60], second: [1000, 60] } as const;

const extremum = (sign: 1 | -1): Scalar => ({
  strict: false,
  evaluate: (args) =>
    args.reduce(
      (best, x) => (x === null ? best : best === null || sign * compareValues(x, best) > 0 ? x : best),
      null,
    ),
});

/** Every function and operator by its internal name; the checker chooses the name from the types. */
export const SCALARS: Record<string, Scalar> = {
  "+": numeric((a, b) => a + b),
  "-": numeric((a, b) => a - b),
  "*": numeric((a, b) => a * b),
  "/": numeric((a, b) => a / b),
  "%": numeric((a, b) => a % b),
  negate: numeric((a) => -a),
  timestamp_plus_days: numeric((t, days) => t + days * DAY_MS),
  timestamp_minus_days: numeric((t, days) => t - days * DAY_MS),
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
};
for (const field of DAY_FIELDS) SCALARS[`extract_${field}`] = numeric((day) => fieldOfDay(field, day));
for (const [field, [unit, size]] of Object.entries(TIME_FIELDS)) {
  SCALARS[`extract_${field}`] = numeric(
    (t) =>
      (((Math.floor(t / unit) % size) + size) % size) +
      (field === "second" ? (((t % 1000) + 1000) % 1000) / 1000 : 0),
  );
}
for (const [unit, size] of [
  ["hour", 3_600_000],
  ["minute", 60_000],
] as const)
  SCALARS[`trunc_to_${unit}`] = numeric((t) => Math.floor(t / size) * size);
for (const bucket of DATE_BUCKETS) SCALARS[`trunc_to_${bucket}`] = numeric((day) => bucketStart(day, bucket));

const all = (wanted: ValueType) => (args: ValueType[]) => args.every((t) => t === wanted || t === "null");
const maps = (from: ValueType, to: ValueType) => (args: ValueType[]) => (all(from)(args) ? to : null);

/** The one type that all of these share (null fits any), or null where they differ. */
export function sharedType(types: ValueType[]): ValueType | null {
  const kinds = [...new Set(types.filter((t) => t !== "null"))];
  return kinds.length === 0 ? "null" : kinds.length === 1 ? kinds[0] : null;
}

function entry(
  signature: string,
  help: string,
  arity: [number, number],
  takes: string,
  type: ScalarEntry["type"],
): ScalarEntry {
  return { name: signature.slice(0, signature.indexOf("(")), signature, help, arity, takes, type };
}

/** Functions that a formula can call by name. Adding one here and in SCALARS is all it takes. */
export const SCALAR_ENTRIES: ScalarEntry[] = [
  entry("abs(x)", "the size of x without its sign", [1, 1], "a number", maps("number", "number")),
  entry("sign(x)", "-1, 0 or 1", [1, 1], "a number", maps("number", "number")),
  entry(
    "round(x, digits)",
    "x to so many decimals, half away from zero",
    [1, 2],
    "numbers",
    maps("number", "number"),
  ),
  entry("floor(x)", "the whole number at or below x", [1, 1], "a number", maps("number", "number")),
  entry("ceil(x)", "the whole number at or above x", [1, 1], "a number", maps("number", "number")),
  entry("trunc(x)", "x without its decimals", [1, 1], "a number", maps("number", "number")),
  entry("mod(x, y)", "what is left of x divided by y", [2, 2], "numbers", maps("number", "number")),
  entry("power(x, y)", "x to the power of y", [2, 2], "numbers", maps("number", "number")),
  entry("sqrt(x)", "the square root; null below zero", [1, 1], "a number", maps("number", "number")),
  entry("exp(x)", "e to the power of x", [1, 1], "a number", maps("number", "number")),
  entry(
    "ln(x)",
    "the natural logarithm; null at or below zero",
    [1, 1],
    "a number",
    maps("number", "number"),
  ),
  entry(
    "log10(x)",
    "the logarithm to base 10; null at or below zero",
    [1, 1],
    "a number",
    maps("number", "number"),
  ),
  entry("greatest(x, y)", "the largest, passing over nulls", [1, 99], "values of one type", sharedType),
  entry("least(x, y)", "the smallest, passing over nulls", [1, 99], "values of one type", sharedType),
  entry("coalesce(x, y)", "the first that is not null", [1, 99], "values of one type", sharedType),
  entry("nullif(x, y)", "null where x equals y, else x", [2, 2], "values of one type", sharedType),
  entry("upper(text)", "in capitals", [1, 1], "a text", maps("text", "text")),
  entry("lower(text)", "in small letters", [1, 1], "a text", maps("text", "text")),
  entry("trim(text)", "without blanks at both ends", [1, 1], "a text", maps("text", "text")),
  entry("length(text)", "how many characters", [1, 1], "a text", maps("text", "number")),
  entry("replace(text, from, to)", "with every from replaced", [3, 3], "texts", maps("text", "text")),
  entry(
    "starts_with(text, start)",
    "true where text begins with start",
    [2, 2],
    "texts",
    maps("text", "boolean"),
  ),
  entry("concat(x, y)", "texts joined, nulls left out", [1, 99], "texts", maps("text", "text")),
  entry(
    "substring(text from a for b)",
    "b characters of text from place a (the first is 1)",
    [2, 3],
    "a text and numbers",
    (t) => (all("text")(t.slice(0, 1)) && all("number")(t.slice(1)) ? "text" : null),
  ),
];
export const SCALAR_ALIASES: Record<string, string> = { ceiling: "ceil", char_length: "length" };
export const OPERATOR_OF_FUNCTION: Record<string, string> = { mod: "%" };

/** A scalar function with its null rule applied. */
export function scalarOf(fn: string): (args: Value[]) => Value {
  const scalar = Object.hasOwn(SCALARS, fn) ? SCALARS[fn] : undefined;
  if (!scalar) throw new Error(`no scalar function ${fn}`);
  return scalar.strict ? (args) => (args.includes(null) ? null : scalar.evaluate(args)) : scalar.evaluate;
}
