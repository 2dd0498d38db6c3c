import type { CellData } from "./column";
import { columnRange } from "./column-range";
import { inArray, isNone } from "./stored";

/** Beyond this span stored cells are not counted in a table. */
const MOST_SPAN = 1 << 20;

/** How often each stored cell from `low` on stands in a column. */
export interface CellCounts {
  low: number;
  counts: Int32Array;
}

/** Counts the cells of a column, nulls left out; null where they are not whole or lie too far apart. */
export function cellCounts(data: CellData): CellCounts | null {
  const { within } = columnRange(data);
  if (!within || within.span > MOST_SPAN) return null;
  const { low, span } = within;
  const { none } = data;
  const values = inArray(data.values);
  const counts = new Int32Array(span);
  for (let i = 0; i < values.length; i++) if (!isNone(values[i], none)) counts[values[i] - low]++;
  return { low, counts };
}
