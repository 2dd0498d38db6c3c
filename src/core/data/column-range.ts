import type { CellData, ColumnData } from "./column";
import { inArray, isNone } from "./stored";

/** What is known of a column's cells as they are stored (of decimals, in units of their last place). */
export interface ColumnRange {
  /** Every sum of stored cells, or of fewer than all of them, is exact: they are whole and small enough. */
  exact: boolean;
  /** No row is null. Not known, and so false, for texts and for numbers that are not whole. */
  full: boolean;
  /** All stored cells v have low <= v < low + span; null where they are not whole, or there is none. */
  within: { low: number; span: number } | null;
}

const known = new WeakMap<ColumnData, ColumnRange>();

/** The range of a column, found once; nulls are passed over. Texts are taken by their codes. */
export function columnRange(data: ColumnData): ColumnRange {
  let range = known.get(data);
  if (!range) {
    range =
      data.type === "text"
        ? { exact: false, full: false, within: { low: 0, span: data.dictionary.length } }
        : rangeOf(data);
    known.set(data, range);
  }
  return range;
}

/** Says that a column has the same cells as another, in whatever order, so that nobody looks again. */
export function rememberSameRange(data: ColumnData, as: ColumnData): void {
  known.set(data, columnRange(as));
}

/** Says that the cells of a column are whole numbers from 0 on, below `span`, and none is null. */
export function rememberCounting(data: CellData, span: number): void {
  const exact = span - 1 <= Number.MAX_SAFE_INTEGER / data.values.length;
  known.set(data, { exact, full: true, within: { low: 0, span } });
}

function rangeOf({ values: resting, none }: CellData): ColumnRange {
  const values = inArray(resting);
  let [low, high, full] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY, true];
  for (let i = 0; i < values.length; i++) {
    const x = values[i];
    if (isNone(x, none)) {
      full = false;
      continue;
    }
    if (Math.trunc(x) !== x) return { exact: false, full: false, within: null };
    if (x < low) low = x;
    if (x > high) high = x;
  }
  if (low > high) return { exact: true, full, within: null };
  const exact = Math.max(Math.abs(low), Math.abs(high)) <= Number.MAX_SAFE_INTEGER / values.length;
  return { exact, full, within: exact ? { low, span: high - low + 1 } : null };
}
