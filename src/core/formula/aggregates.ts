import type { ValueType } from "../base/value";

/**
 * What a person can write as an aggregate: its form, its help, an example over the rows of docs/formulas.md,
 * and the types it takes and gives. The engine has an accumulator for each, which the compiler holds.
 */
export interface AggregateEntry {
  signature: string;
  help: string;
  example: readonly [formula: string, gives: string];
  takes: string;
  type: (arg: ValueType) => ValueType | null;
  /** A second value that is compared row by row: max_by(x, key). */
  keyed?: true;
  /** Its value stands in "within group (order by x)", and a share from 0 to 1 in the brackets. */
  ordered?: true;
  /** Whether it can stand with distinct; "same" where that changes nothing. */
  distinct: "yes" | "no" | "same";
  /** Whether its value over several groups is the sum of theirs. */
  addsUp?: true;
}

const numbers = (t: ValueType): ValueType | null => (t === "number" || t === "null" ? "number" : null);
const booleans = (t: ValueType): ValueType | null => (t === "boolean" || t === "null" ? "boolean" : null);
const anything = (): ValueType => "number";
const same = (t: ValueType): ValueType => t;

const ofNumbers = { takes: "a number", type: numbers, distinct: "yes" } as const;
const ofAny = { takes: "any value", type: same } as const;
const ofBooleans = { takes: "true or false", type: booleans, distinct: "same" } as const;

/** Aggregates: what makes one value of a group of rows. */
export const AGGREGATES = {
  count: {
    signature: "count(x)",
    help: "how many rows have a value; count(*) counts all",
    example: ["count(n)", "3"],
    takes: "any value",
    type: anything,
    distinct: "yes",
    addsUp: true,
  },
  sum: { ...ofNumbers, signature: "sum(x)", help: "the total", example: ["sum(n)", "15"], addsUp: true },
  avg: { ...ofNumbers, signature: "avg(x)", help: "the mean", example: ["avg(n)", "5"] },
  min: { ...ofAny, signature: "min(x)", help: "the smallest", example: ["min(n)", "2"], distinct: "same" },
  max: { ...ofAny, signature: "max(x)", help: "the largest", example: ["max(t)", "Äpfel"], distinct: "same" },
  median: {
    ...ofNumbers,
    signature: "median(x)",
    help: "the value in the middle, halfway between the two middle ones",
    example: ["median(n)", "4"],
  },
  percentile_cont: {
    ...ofNumbers,
    signature: "percentile_cont(0.9) within group (order by x)",
    help: "the value below which a share of the rows lies, interpolated",
    example: ["percentile_cont(0.25) within group (order by n)", "3"],
    ordered: true,
    distinct: "no",
  },
  mode: {
    ...ofAny,
    signature: "mode(x)",
    help: "the value that stands most often; of several, the smallest",
    example: ["mode(t)", "apple"],
    distinct: "no",
  },
  geometric_mean: {
    ...ofNumbers,
    signature: "geometric_mean(x)",
    help: "the mean of factors: the n-th root of their product; null where one is not above zero",
    example: ["geometric_mean(n)", "4.160167646103808"],
  },
  stddev_pop: {
    ...ofNumbers,
    signature: "stddev_pop(x)",
    help: "the standard deviation of all values",
    example: ["stddev_pop(n)", "2.943920288775949"],
  },
  stddev_samp: {
    ...ofNumbers,
    signature: "stddev_samp(x)",
    help: "the standard deviation estimated from a sample",
    example: ["stddev_samp(n)", "3.605551275463989"],
  },
  var_pop: {
    ...ofNumbers,
    signature: "var_pop(x)",
    help: "the variance of all values",
    example: ["var_pop(n)", "8.666666666666666"],
  },
  var_samp: {
    ...ofNumbers,
    signature: "var_samp(x)",
    help: "the variance estimated from a sample",
    example: ["var_samp(n)", "13"],
  },
  max_by: {
    ...ofAny,
    signature: "max_by(x, key)",
    help: "x of the row with the largest key; of several, the first",
    example: ["max_by(t, n)", "Äpfel"],
    keyed: true,
    distinct: "no",
  },
  min_by: {
    ...ofAny,
    signature: "min_by(x, key)",
    help: "x of the row with the smallest key; of several, the first",
    example: ["min_by(t, d)", "apple"],
    keyed: true,
    distinct: "no",
  },
  bool_and: {
    ...ofBooleans,
    signature: "bool_and(x)",
    help: "true where x is true in all rows that have it",
    example: ["bool_and(ok)", "false"],
  },
  bool_or: {
    ...ofBooleans,
    signature: "bool_or(x)",
    help: "true where x is true in some row",
    example: ["bool_or(ok)", "true"],
  },
} as const satisfies Record<string, AggregateEntry>;

/** The name of an aggregate. */
export type AggregateName = keyof typeof AGGREGATES;

/** Whether an aggregate is called so. */
export const isAggregate = (name: string): name is AggregateName => Object.hasOwn(AGGREGATES, name);

/** What is declared of an aggregate. */
export const aggregateEntry = (name: AggregateName): AggregateEntry => AGGREGATES[name];
