import { type CellData, type ColumnType, cellValue } from "../../data/column";
import type { PlacedFilter, PlacedSplit } from "../../plan/plan";
import { merged } from "../accumulators/accumulator";
import { BLOCK, Readers, wholeBlock } from "../block";
import type { Gathered } from "../gathered";
import { grouperOf } from "../grouper";
import type { ScanSource } from "../scan-source";
import type { RangeKey } from "./cells";
import { isSamePlace, keyColumn, tells } from "./keys";

/** Rows that pass filters, by keys and by bins of a range key. */
export interface Keyed {
  filters: PlacedFilter[];
  keys: PlacedSplit[];
  range: Pick<RangeKey, "key" | "values" | "bins"> | null;
}

const isSingle = ({ bins, values }: NonNullable<Keyed["range"]>) =>
  bins.length - 1 === (values.data as CellData).values.length;

/** Where the keys of a grouping tell what another asks: the place of one, or "range"; -1 where none does. */
function placeIn({ keys, range }: Keyed, { place, by }: PlacedSplit): number | "range" {
  const at = keys.findIndex((k) => isSamePlace(k.place, place) && tells(k.by, by));
  if (at >= 0 || !range || !isSamePlace(range.key.place, place)) return at;
  return isSingle(range) ? "range" : -1;
}

/** Whether what was gathered by the keys of one grouping can be put together to that of another. */
export function holds(fine: Keyed, coarse: Keyed): boolean {
  if (JSON.stringify(fine.filters) !== JSON.stringify(coarse.filters)) return false;
  if (!coarse.keys.every((key) => placeIn(fine, key) !== -1)) return false;
  return !coarse.range || coarse.range.bins === fine.range?.bins;
}

/**
 * What rows give by fewer or coarser keys, out of what they gave by finer ones (see `holds`), for the
 * aggregates with the names `wanted`. `types` are those of the fine keys.
 */
export function rolledUp(
  { keys: found, size, accumulators, counts, scanned }: Gathered,
  fine: Keyed,
  types: ColumnType[],
  coarse: Keyed,
  wanted: ReadonlySet<string>,
  source: ScanSource,
): Gathered {
  const bins = found[fine.keys.length] as number[];
  const splits = coarse.keys.map((key) => {
    const at = placeIn(fine, key);
    if (at !== "range") return { column: keyColumn(found[at], types[at]), by: key.by };
    const { data } = (fine.range as NonNullable<Keyed["range"]>).values;
    return {
      column: keyColumn(
        bins.map((b) => cellValue(data, b)),
        data.type,
      ),
      by: key.by,
    };
  });
  if (coarse.range) splits.push({ column: keyColumn(bins, "number"), by: undefined });
  const grouper = grouperOf(splits, new Readers(), source.calendar);
  const into = new Int32Array(size);
  const block = wholeBlock();
  for (let base = 0; base < size; base += BLOCK) {
    source.checkStop();
    const count = Math.min(BLOCK, size - base);
    Object.assign(block, { base, count, length: count });
    grouper.assign(block, into.subarray(base, base + count));
  }
  const together = [...accumulators].filter(([key]) => wanted.has(key));
  return {
    keys: grouper.keys,
    size: grouper.size,
    accumulators: new Map(
      together.map(([key, a]) => {
        source.checkStop();
        return [key, merged(a, into, grouper.size)];
      }),
    ),
    counts: merged(counts, into, grouper.size),
    scanned,
  };
}
