import type { AggregateName } from "../../formula/aggregates";
import type { Gathering } from "../accumulators/accumulator-of";
import type { PlainIndex } from "./plain-index";

/** Aggregates of which the state of a cell is some figures and not the values of its rows. */
const FIGURES: readonly AggregateName[] = ["count", "sum", "avg", "min", "max", "bool_and", "bool_or"];

const isOfFigures = ({ fn, distinct, arg }: Gathering): boolean =>
  !distinct && FIGURES.includes(fn) && (fn === "count" || arg?.type !== "text");

/**
 * The index without anything that is of single rows: the rows at the edges of bins, and aggregates that hold
 * the values of rows (percentiles, distinct values, the text that comes first). What needs those is not
 * answered from it.
 */
export function withoutRows({ cells, ...rest }: PlainIndex): PlainIndex {
  return {
    ...rest,
    cells: cells.map((one) => ({
      ...one,
      range: one.range && { ...one.range, edges: null },
      others: one.others.filter(([, gathering]) => isOfFigures(gathering)),
    })),
  };
}

/** How many cells there are, and how many of them stand for a single row. */
export function countCells({ cells }: PlainIndex): { cells: number; ofOneRow: number } {
  let [count, ofOneRow] = [0, 0];
  for (const { rowsUpTo } of cells) {
    count += rowsUpTo.length - 1;
    for (let i = 1; i < rowsUpTo.length; i++) if (rowsUpTo[i] - rowsUpTo[i - 1] === 1) ofOneRow++;
  }
  return { cells: count, ofOneRow };
}
