import type { ValueType } from "../base/value";

/** What a person can write as an aggregate: its form, its help, and the types it takes and gives. */
export interface AggregateEntry {
  name: string;
  signature: string;
  help: string;
  takes: string;
  type: (arg: ValueType) => ValueType | null;
  /** A second value that is compared row by row: max_by(x, key). */
  keyed?: true;
  /** Its value stands in "within group (order by x)", and a share from 0 to 1 in the brackets. */
  ordered?: true;
}

const numbers = (t: ValueType): ValueType | null => (t === "number" || t === "null" ? "number" : null);
const booleans = (t: ValueType): ValueType | null => (t === "boolean" || t === "null" ? "boolean" : null);
const anything = (): ValueType => "number";
const same = (t: ValueType): ValueType => t;

/** Aggregates that the engine computes; core/engine/accumulators.ts has an accumulator of each name. */
export const AGGREGATES: AggregateEntry[] = [
  {
    name: "count",
    signature: "count(x)",
    help: "how many rows have a value; count(*) counts all",
    takes: "any value",
    type: anything,
  },
  { name: "sum", signature: "sum(x)", help: "the total", takes: "a number", type: numbers },
  { name: "avg", signature: "avg(x)", help: "the mean", takes: "a number", type: numbers },
  { name: "min", signature: "min(x)", help: "the smallest", takes: "any value", type: same },
  { name: "max", signature: "max(x)", help: "the largest", takes: "any value", type: same },
  {
    name: "median",
    signature: "median(x)",
    help: "the value in the middle, halfway between the two middle ones",
    takes: "a number",
    type: numbers,
  },
  {
    name: "percentile_cont",
    signature: "percentile_cont(0.9) within group (order by x)",
    help: "the value below which a share of the rows lies, interpolated",
    takes: "a number",
    type: numbers,
    ordered: true,
  },
  {
    name: "stddev_pop",
    signature: "stddev_pop(x)",
    help: "the standard deviation of all values",
    takes: "a number",
    type: numbers,
  },
  {
    name: "stddev_samp",
    signature: "stddev_samp(x)",
    help: "the standard deviation estimated from a sample",
    takes: "a number",
    type: numbers,
  },
  {
    name: "var_pop",
    signature: "var_pop(x)",
    help: "the variance of all values",
    takes: "a number",
    type: numbers,
  },
  {
    name: "var_samp",
    signature: "var_samp(x)",
    help: "the variance estimated from a sample",
    takes: "a number",
    type: numbers,
  },
  {
    name: "max_by",
    signature: "max_by(x, key)",
    help: "x of the row with the largest key; of several, the first",
    takes: "any value",
    type: same,
    keyed: true,
  },
  {
    name: "min_by",
    signature: "min_by(x, key)",
    help: "x of the row with the smallest key; of several, the first",
    takes: "any value",
    type: same,
    keyed: true,
  },
  {
    name: "bool_and",
    signature: "bool_and(x)",
    help: "true where x is true in all rows that have it",
    takes: "true or false",
    type: booleans,
  },
  {
    name: "bool_or",
    signature: "bool_or(x)",
    help: "true where x is true in some row",
    takes: "true or false",
    type: booleans,
  },
];
