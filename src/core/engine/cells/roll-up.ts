import type { Calendar } from "../../base/calendar";
import type { ColumnType } from "../../data/column";
import type { PlacedFilter, PlacedSplit } from "../../plan/plan";
import { merged } from "../accumulators/accumulator";
import { BLOCK, Readers, wholeBlock } from "../block";
import type { Gathered } from "../gathered";
import { grouperOf } from "../grouper";
import { isSamePlace, keyColumn, tells } from "./keys";

/** Rows that pass filters, by keys. */
interface Keyed {
  filters: PlacedFilter[];
  keys: PlacedSplit[];
}

/** Whether what was gathered by the keys of one grouping can be put together to that of another. */
export const holds = (fine: Keyed, coarse: Keyed): boolean =>
  JSON.stringify(fine.filters) === JSON.stringify(coarse.filters) &&
  coarse.keys.every((key) => fine.keys.some((k) => isSamePlace(k.place, key.place) && tells(k.by, key.by)));

/**
 * What rows give by fewer or coarser keys, out of what they gave by finer ones (see `holds`), for the
 * aggregates with the names `wanted`. `types` are those of the fine keys.
 */
export function rolledUp(
  { keys: found, size, accumulators, counts, scanned }: Gathered,
  { keys, types }: { keys: PlacedSplit[]; types: ColumnType[] },
  coarse: PlacedSplit[],
  wanted: ReadonlySet<string>,
  calendar: Calendar | undefined,
): Gathered {
  const splits = coarse.map((key) => {
    const at = keys.findIndex((k) => isSamePlace(k.place, key.place) && tells(k.by, key.by));
    return { column: keyColumn(found[at], types[at]), by: key.by };
  });
  const grouper = grouperOf(splits, new Readers(), calendar);
  const into = new Int32Array(size);
  const block = wholeBlock();
  for (let base = 0; base < size; base += BLOCK) {
    const count = Math.min(BLOCK, size - base);
    Object.assign(block, { base, count, length: count });
    grouper.assign(block, into.subarray(base, base + count));
  }
  const together = [...accumulators].filter(([key]) => wanted.has(key));
  return {
    keys: grouper.keys,
    size: grouper.size,
    accumulators: new Map(together.map(([key, a]) => [key, merged(a, into, grouper.size)])),
    counts: merged(counts, into, grouper.size),
    scanned,
  };
}
