import type { ValueType } from "./value";

/** What a person can write as an aggregate: its form, its help, and the types it takes and gives. */
export interface AggregateEntry {
  name: string;
  signature: string;
  help: string;
  takes: string;
  type: (arg: ValueType) => ValueType | null;
}

const numbers = (t: ValueType): ValueType | null => (t === "number" || t === "null" ? "number" : null);
const anything = (): ValueType => "number";
const same = (t: ValueType): ValueType => t;

/** Aggregates that the engine computes; core/engine/accumulators.ts has an accumulator of each name. */
export const AGGREGATES: AggregateEntry[] = [
  { name: "count", signature: "count(x)", help: "how many rows have a value; count(*) counts all", takes: "any value", type: anything },
  { name: "sum", signature: "sum(x)", help: "the total", takes: "a number", type: numbers },
  { name: "avg", signature: "avg(x)", help: "the mean", takes: "a number", type: numbers },
  { name: "min", signature: "min(x)", help: "the smallest", takes: "any value", type: same },
  { name: "max", signature: "max(x)", help: "the largest", takes: "any value", type: same },
];

/** Documented aggregates and functions that do not compute yet: a formula with one says so, at its place. */
export const NOT_YET = new Set("median percentile_cont stddev_pop stddev_samp var_pop var_samp max_by min_by bool_and bool_or date_trunc current_date".split(" "));
