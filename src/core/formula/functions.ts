import { DATE_BUCKETS, type DateBucket } from "../base/calendar";
import type { ValueType } from "../base/value";

/**
 * What a person can call by name: its form, its help, an example over the rows of docs/formulas.md with what
 * it gives, and how its type follows from its arguments' types. Completion, the docs' table, the tests of
 * merging and of examples follow from these entries; `scalars.ts` computes what is declared here, which the
 * compiler holds.
 */
export interface FunctionEntry {
  signature: string;
  help: string;
  example: readonly [formula: string, gives: string];
  arity: readonly [number, number];
  /** The result type, or null when these argument types do not fit. */
  type: (args: ValueType[]) => ValueType | null;
  takes: string;
  /** Other names that mean the same. */
  also?: readonly string[];
}

const all = (wanted: ValueType) => (args: ValueType[]) => args.every((t) => t === wanted || t === "null");
const maps = (from: ValueType, to: ValueType) => (args: ValueType[]) => (all(from)(args) ? to : null);
/** A text first, then numbers. */
const textThenNumbers = (args: ValueType[]): ValueType | null =>
  all("text")(args.slice(0, 1)) && all("number")(args.slice(1)) ? "text" : null;
/** A text, a number, and perhaps a text. */
const padded = ([text, length, fill = "text"]: ValueType[]): ValueType | null =>
  all("text")([text, fill]) && all("number")([length]) ? "text" : null;

/** The one type that all of these share (null fits any), or null where they differ. */
export function sharedType(types: ValueType[]): ValueType | null {
  const kinds = [...new Set(types.filter((t) => t !== "null"))];
  return kinds.length === 0 ? "null" : kinds.length === 1 ? kinds[0] : null;
}

const ofNumber = { arity: [1, 1], takes: "a number", type: maps("number", "number") } as const;
const ofNumbers = { arity: [2, 2], takes: "numbers", type: maps("number", "number") } as const;
const ofText = { arity: [1, 1], takes: "a text", type: maps("text", "text") } as const;
const ofValues = { arity: [1, 99], takes: "values of one type", type: sharedType } as const;

/** Functions that a formula can call by name, row by row or on aggregates. */
export const FUNCTIONS = {
  abs: {
    ...ofNumber,
    signature: "abs(x)",
    help: "the size of x without its sign",
    example: ["abs(-3)", "3"],
  },
  sign: { ...ofNumber, signature: "sign(x)", help: "-1, 0 or 1", example: ["sign(-3)", "-1"] },
  round: {
    ...ofNumber,
    signature: "round(x, digits)",
    help: "x to so many decimals, half away from zero",
    example: ["round(-1.005, 2)", "-1.01"],
    arity: [1, 2],
    takes: "numbers",
  },
  floor: {
    ...ofNumber,
    signature: "floor(x)",
    help: "the whole number at or below x",
    example: ["floor(-1.5)", "-2"],
  },
  ceil: {
    ...ofNumber,
    signature: "ceil(x)",
    help: "the whole number at or above x",
    example: ["ceil(1.2)", "2"],
    also: ["ceiling"],
  },
  trunc: {
    ...ofNumber,
    signature: "trunc(x)",
    help: "x without its decimals",
    example: ["trunc(-1.9)", "-1"],
  },
  mod: {
    ...ofNumbers,
    signature: "mod(x, y)",
    help: "what is left of x divided by y",
    example: ["mod(7, 3)", "1"],
  },
  power: {
    ...ofNumbers,
    signature: "power(x, y)",
    help: "x to the power of y",
    example: ["power(2, 10)", "1024"],
  },
  sqrt: {
    ...ofNumber,
    signature: "sqrt(x)",
    help: "the square root; null below zero",
    example: ["sqrt(9)", "3"],
  },
  exp: { ...ofNumber, signature: "exp(x)", help: "e to the power of x", example: ["exp(0)", "1"] },
  ln: {
    ...ofNumber,
    signature: "ln(x)",
    help: "the natural logarithm; null at or below zero",
    example: ["ln(1)", "0"],
  },
  log10: {
    ...ofNumber,
    signature: "log10(x)",
    help: "the logarithm to base 10; null at or below zero",
    example: ["log10(1000)", "3"],
  },
  greatest: {
    ...ofValues,
    signature: "greatest(x, y)",
    help: "the largest, passing over nulls",
    example: ["greatest(1, null, 3)", "3"],
  },
  least: {
    ...ofValues,
    signature: "least(x, y)",
    help: "the smallest, passing over nulls",
    example: ["least(1, null, 3)", "1"],
  },
  coalesce: {
    ...ofValues,
    signature: "coalesce(x, y)",
    help: "the first that is not null",
    example: ["coalesce(null, 5)", "5"],
  },
  nullif: {
    ...ofValues,
    signature: "nullif(x, y)",
    help: "null where x equals y, else x",
    example: ["nullif(5, 5)", "null"],
    arity: [2, 2],
  },
  upper: { ...ofText, signature: "upper(text)", help: "in capitals", example: ["upper('äb')", "ÄB"] },
  lower: { ...ofText, signature: "lower(text)", help: "in small letters", example: ["lower('ÄB')", "äb"] },
  trim: {
    ...ofText,
    signature: "trim(text)",
    help: "without blanks at both ends",
    example: ["trim('  a ')", "a"],
  },
  length: {
    ...ofText,
    signature: "length(text)",
    help: "how many characters",
    example: ["length('日本')", "2"],
    type: maps("text", "number"),
    also: ["char_length"],
  },
  left: {
    signature: "left(text, n)",
    help: "the first n characters",
    example: ["left('banana', 3)", "ban"],
    arity: [2, 2],
    takes: "a text and a number",
    type: textThenNumbers,
  },
  right: {
    signature: "right(text, n)",
    help: "the last n characters",
    example: ["right('banana', 2)", "na"],
    arity: [2, 2],
    takes: "a text and a number",
    type: textThenNumbers,
  },
  substring: {
    signature: "substring(text from a for b)",
    help: "b characters of text from place a (the first is 1)",
    example: ["substring('banana' from 2 for 3)", "ana"],
    arity: [2, 3],
    takes: "a text and numbers",
    type: textThenNumbers,
  },
  position: {
    signature: "position(part in text)",
    help: "where part stands in text (the first place is 1), 0 where it does not",
    example: ["position('na' in 'banana')", "3"],
    arity: [2, 2],
    takes: "texts",
    type: maps("text", "number"),
  },
  split_part: {
    signature: "split_part(text, separator, n)",
    help: "the n-th piece of text between separators; empty where there are fewer",
    example: ["split_part('NQ-0412-B', '-', 2)", "0412"],
    arity: [3, 3],
    takes: "two texts and a number",
    type: ([text, separator, n]) => (all("text")([text, separator]) && all("number")([n]) ? "text" : null),
  },
  lpad: {
    signature: "lpad(text, n, fill)",
    help: "text brought to n characters: filled at its start, or cut at its end",
    example: ["lpad('7', 3, '0')", "007"],
    arity: [2, 3],
    takes: "a text, a number and a text",
    type: padded,
  },
  rpad: {
    signature: "rpad(text, n, fill)",
    help: "text brought to n characters: filled or cut at its end",
    example: ["rpad('ab', 4, '.')", "ab.."],
    arity: [2, 3],
    takes: "a text, a number and a text",
    type: padded,
  },
  replace: {
    signature: "replace(text, from, to)",
    help: "with every from replaced",
    example: ["replace('banana', 'a', 'o')", "bonono"],
    arity: [3, 3],
    takes: "texts",
    type: maps("text", "text"),
  },
  starts_with: {
    signature: "starts_with(text, start)",
    help: "true where text begins with start",
    example: ["starts_with('banana', 'ba')", "true"],
    arity: [2, 2],
    takes: "texts",
    type: maps("text", "boolean"),
  },
  regexp_like: {
    signature: "regexp_like(text, pattern)",
    help: "true where the regular expression is found in text",
    example: ["regexp_like('NQ-0412', '^[A-Z]+-[0-9]+$')", "true"],
    arity: [2, 2],
    takes: "texts",
    type: maps("text", "boolean"),
  },
  regexp_replace: {
    signature: "regexp_replace(text, pattern, to)",
    help: "with every match of the regular expression replaced; $1 is its first group",
    example: ["regexp_replace('12 May', '([0-9]+) (.*)', '$2 $1')", "May 12"],
    arity: [3, 3],
    takes: "texts",
    type: maps("text", "text"),
  },
  concat: {
    signature: "concat(x, y)",
    help: "texts joined, nulls left out",
    example: ["concat('a', null, 'b')", "ab"],
    arity: [1, 99],
    takes: "texts",
    type: maps("text", "text"),
  },
  to_number: {
    signature: "to_number(text, mark)",
    help: "the number that text says, with the decimal mark '.' or ','; null where it says none",
    example: ["to_number('1.234,5', ',')", "1234.5"],
    arity: [1, 2],
    takes: "texts",
    type: maps("text", "number"),
  },
  to_date: {
    signature: "to_date(text, pattern)",
    help: "the date that text says by a pattern in the date letters of Unicode; null where it does not fit",
    example: ["to_date('12.06.1998', 'dd.MM.yyyy')", "1998-06-12"],
    arity: [2, 2],
    takes: "texts",
    type: maps("text", "date"),
  },
  to_timestamp: {
    signature: "to_timestamp(text, pattern)",
    help: "the timestamp that text says by a pattern in the date letters of Unicode; null where it does not fit",
    example: ["to_timestamp('12.06.1998 07:30', 'dd.MM.yyyy HH:mm')", "1998-06-12T07:30:00"],
    arity: [2, 2],
    takes: "texts",
    type: maps("text", "timestamp"),
  },
} as const satisfies Record<string, FunctionEntry>;

/** The name of a function of rows. */
export type FunctionName = keyof typeof FUNCTIONS;

/** The parts that a date has. */
export const DAY_FIELDS = ["year", "quarter", "month", "week", "isodow", "doy", "day"] as const;
/** The parts that a moment has besides. */
export const TIME_FIELDS = ["hour", "minute", "second"] as const;
/** What moments can be cut to besides dates' buckets. */
export const TIME_UNITS = ["hour", "minute"] as const;
/** One of DAY_FIELDS. */
export type DayField = (typeof DAY_FIELDS)[number];
/** One of TIME_FIELDS. */
export type TimeField = (typeof TIME_FIELDS)[number];

/** What formulas compute without a name that could be called: operators, forms and conversions. */
export type OperatorName =
  | ("+" | "-" | "*" | "/" | "%" | "negate" | "||")
  | ("=" | "<>" | "<" | "<=" | ">" | ">=")
  | ("not" | "and" | "or" | "is_null" | "is_distinct" | "case" | "like")
  | (
      | "date_plus_days"
      | "date_minus_days"
      | "timestamp_plus_days"
      | "timestamp_minus_days"
      | "days_between"
      | "at_midnight"
      | "day_of_timestamp"
    )
  | ("number_from" | "text_from_number" | "text_from_boolean" | "text_from_date" | "text_from_timestamp")
  | ("boolean_from_number" | "boolean_from_text" | "date_from_text" | "timestamp_from_text")
  | `extract_${DayField | TimeField}`
  | `trunc_to_${DateBucket | (typeof TIME_UNITS)[number]}`;

/** Everything that is computed value by value. */
export type ScalarName = FunctionName | OperatorName;

const byName = new Map<string, FunctionName>(
  (Object.keys(FUNCTIONS) as FunctionName[]).flatMap((name) => {
    const { also = [] }: FunctionEntry = FUNCTIONS[name];
    return [name, ...also].map((n) => [n, name] as const);
  }),
);

/** A function by its name or another that means it. */
export const functionNamed = (name: string): FunctionName | undefined => byName.get(name);

/** Whether a word names a part of a date. */
export const isDayField = (field: string): field is DayField =>
  (DAY_FIELDS as readonly string[]).includes(field);
/** Whether a word names a part of a moment that a date lacks. */
export const isTimeField = (field: string): field is TimeField =>
  (TIME_FIELDS as readonly string[]).includes(field);
/** Whether a word names what dates can be grouped by. */
export const isDateBucket = (unit: string): unit is DateBucket =>
  (DATE_BUCKETS as readonly string[]).includes(unit);
/** Whether a word names a unit shorter than a day. */
export const isTimeUnit = (unit: string): unit is (typeof TIME_UNITS)[number] =>
  (TIME_UNITS as readonly string[]).includes(unit);
