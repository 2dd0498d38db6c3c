import { columnRange } from "../data/column-range";
import type { Aggregate } from "../plan/aggregates";
import type { ScanSource } from "./scan-source";

/** Aggregates that come out the same in whatever order their rows are met. */
const ORDER_FREE = ["count", "min", "max", "median", "percentile_cont", "mode", "bool_and", "bool_or"];

/** Whether an aggregate is the same to the last bit in whatever order rows are met, as exact sums are. */
export function isOrderFree({ fn, arg, distinct }: Aggregate, source: ScanSource): boolean {
  if (distinct) return fn === "count";
  if (ORDER_FREE.includes(fn)) return true;
  if ((fn !== "sum" && fn !== "avg") || arg?.op !== "column" || arg.type !== "number") return false;
  return columnRange(source.column(arg.table, arg.column).data).exact;
}

/** Whether texts are told apart by codes that only one thread gives out. */
export const needsOneDictionary = ({ distinct, arg }: Aggregate): boolean =>
  distinct && arg?.type === "text" && arg.op !== "column";

/**
 * Whether what is gathered of some rows apart from others, by whomever, can be put together to the last bit
 * whatever comes first.
 */
export const isPutTogetherExactly = (a: Aggregate, source: ScanSource): boolean =>
  isOrderFree(a, source) && !needsOneDictionary(a);
