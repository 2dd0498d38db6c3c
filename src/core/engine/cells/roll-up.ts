import { type CellData, type ColumnType, cellValue } from "../../data/column";
import type { PlacedFilter, PlacedSplit } from "../../plan/plan";
import { merged } from "../accumulators/accumulator";
import { Readers, wholeBlock } from "../block";
import type { Gathered } from "../gathered";
import { grouperOf } from "../grouper";
import { BLOCK } from "../loops/loops";
import type { ScanSource } from "../scan-source";
import type { RangeKey } from "./cells";
import { isSamePlace, keyColumn, tells } from "./keys";
import { linesOf, type Numbered, numbered } from "./numbered";

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

/** What was gathered by some keys, and from there by fewer or coarser ones. */
export class RollUp {
  /** The keys as numbers, and after them those of the range's values where each has a bin of its own. */
  private readonly columns: Numbered[];
  private readonly bins: Numbered | null;

  /** `types` are those of the keys. */
  constructor(
    private readonly found: Gathered,
    private readonly fine: Keyed,
    private readonly types: ColumnType[],
    private readonly source: ScanSource,
  ) {
    const { keys, size } = found;
    this.columns = fine.keys.map((_, i) => numbered(keys[i], size));
    this.bins = fine.range && numbered(keys[fine.keys.length], size);
  }

  /** A key of another grouping, for each group here. */
  private column(key: PlacedSplit): Numbered {
    const { fine, types, source } = this;
    const at = placeIn(fine, key);
    if (at !== "range" && fine.keys[at].by === key.by) return this.columns[at];
    const { values, of } = at === "range" ? (this.bins as Numbered) : this.columns[at];
    const { data } = (fine.range ?? { values: { data: null } }).values;
    const plain = at === "range" && data ? values.map((bin) => cellValue(data, bin as number)) : values;
    const type = at === "range" && data ? data.type : types[at as number];
    // Stretches are those that splits make: each distinct key is asked once.
    const grouper = grouperOf(
      [{ column: keyColumn(plain, type), by: key.by }],
      new Readers(),
      source.calendar,
    );
    const coarse = new Int32Array(plain.length);
    const block = wholeBlock();
    for (let base = 0; base < plain.length; base += BLOCK) {
      const count = Math.min(BLOCK, plain.length - base);
      Object.assign(block, { base, count, length: count });
      grouper.assign(block, coarse.subarray(base, base + count));
    }
    return { values: grouper.keys[0], of: of.map((number) => coarse[number]) };
  }

  /** What the rows give by the keys of a grouping that these hold, for the aggregates with some names. */
  to(coarse: Keyed, wanted: ReadonlySet<string>): Gathered {
    const { found, source } = this;
    source.checkStop();
    const columns = coarse.keys.map((key) => this.column(key));
    if (coarse.range && this.bins) columns.push(this.bins);
    const lines = linesOf(columns, found.size);
    const size = columns.length === 0 ? 1 : lines.first.length;
    const together = [...found.accumulators].filter(([key]) => wanted.has(key));
    return {
      keys: columns.map(({ values, of }) => Array.from(lines.first, (g) => values[of[g]])),
      size,
      accumulators: new Map(
        together.map(([key, a]) => {
          source.checkStop();
          return [key, merged(a, lines.of, size)];
        }),
      ),
      counts: merged(found.counts, lines.of, size),
      scanned: found.scanned,
    };
  }
}
