import { columnRange } from "../data/column-range";
import type { Expr } from "../formula/expr";
import { type Aggregate, aggregateKey } from "../plan/aggregates";
import type { Accumulator } from "./accumulators/accumulator";
import { accumulatorOf } from "./accumulators/accumulator-of";
import { Count } from "./accumulators/count";
import type { NumberExtreme } from "./accumulators/extreme";
import { type Block, placesOf, type Readers } from "./block";
import type { Cells, Lane, Loops, Records } from "./loops/loops";
import type { ScanSource } from "./scan-source";
import type { SharedKernels } from "./shared-kernels";

/** What becomes of the numbers of a lane that belong to one group. */
type Fold = "sums" | "largest" | "smallest";
/** What a group has that no row reached, and what a row gives that does not count. */
const NOTHING = { sums: 0, largest: Number.NEGATIVE_INFINITY, smallest: Number.POSITIVE_INFINITY };
const EMPTY = { sums: 0, largest: Number.NaN, smallest: Number.NaN };
const FOLDS: Fold[] = ["sums", "largest", "smallest"];

/** A number of each row, and what is gathered of it for each group. */
interface LaneKind {
  key: string;
  fold: Fold;
  /** Writes the numbers of a block's rows; null where they are all 1. */
  fill: ((block: Block, into: Lane) => void) | null;
}

/** An aggregate that lanes tell: by these, and how it comes out of what they gathered for each group. */
interface Told {
  key: string;
  lanes: LaneKind[];
  made: (gathered: Float64Array[]) => Accumulator;
}

/** The cells of a block that an expression reads, as they are stored where it is a column. */
interface Source {
  key: string;
  cells: (block: Block) => Cells;
  /** Cells are so many times what they stand for. */
  scale: number;
  /** No row is null. */
  isFull: boolean;
  /** Every sum of cells is exact. */
  isExact: boolean;
}

/** Records of at most so many pairs of lanes: wider ones would not stay near the processor. */
const MOST_PAIRS = 4;

const ROWS: LaneKind = { key: "rows", fold: "sums", fill: null };

/** Finds the lanes of aggregates over one selection of rows. */
class LaneFinder {
  constructor(
    private readonly source: ScanSource,
    private readonly readers: Readers,
    private readonly shared: SharedKernels,
  ) {}

  private sourceOf(expr: Expr): Source {
    const key = JSON.stringify(expr);
    if (expr.op === "column") {
      const { data } = this.source.column(expr.table, expr.column);
      if (data.type === "text") {
        const reader = this.readers.codes(data);
        return {
          key,
          cells: (block) => ({ cells: reader.codesOf(block), none: -1, at: placesOf(block) }),
          scale: 1,
          isFull: false,
          isExact: false,
        };
      }
      const reader = this.readers.cells(data);
      const { full, exact } = columnRange(data);
      const none = full ? null : data.none;
      return {
        key,
        cells: (block) => ({ cells: reader.storedOf(block), none, at: placesOf(block) }),
        scale: data.scale,
        isFull: full,
        isExact: exact && data.type === "number",
      };
    }
    const kernel = this.shared.kernel(expr);
    return {
      key,
      cells: (block) => {
        const vector = kernel(block);
        return "codes" in vector
          ? { cells: vector.codes, none: -1, at: null }
          : { cells: vector.numbers, none: Number.NaN, at: null };
      },
      scale: 1,
      isFull: false,
      isExact: false,
    };
  }

  private get loops(): Loops {
    return this.readers.loops;
  }

  private values(source: Source, filter: Expr | null, fold: Fold): LaneKind {
    const { loops } = this;
    const mask = filter && this.shared.mask(filter);
    return {
      key: JSON.stringify([fold, source.key, filter]),
      fold,
      fill: (block, into) =>
        loops.fillValues(into, EMPTY[fold], source.cells(block), block.length, mask?.(block) ?? null),
    };
  }

  /** The rows that pass a filter and in which the source, where there is one, is not null. */
  private counts(source: Source | null, filter: Expr | null): LaneKind {
    const { loops } = this;
    const mask = filter && this.shared.mask(filter);
    const key = JSON.stringify(["count", source?.key, filter]);
    if (source && !source.isFull)
      return {
        key,
        fold: "sums",
        fill: (block, into) =>
          loops.fillCounts(into, source.cells(block), block.length, mask?.(block) ?? null),
      };
    if (!mask) return ROWS;
    return {
      key: JSON.stringify(["count", null, filter]),
      fold: "sums",
      fill: (block, into) => loops.fillFilter(into, mask(block), block.length),
    };
  }

  /** The lanes that tell an aggregate; null where none do. */
  told(a: Aggregate): Told | null {
    const { fn, arg, filter, distinct } = a;
    if (distinct) return null;
    const key = aggregateKey(a);
    if (fn === "count")
      return {
        key,
        lanes: [this.counts(arg && this.sourceOf(arg), filter)],
        made: (gathered) => new Count().ofTallies(gathered),
      };
    if (!arg || arg.type === "text") return null;
    if (fn === "sum" || fn === "avg") {
      // Only a column is known to have exact sums.
      if (arg.op !== "column") return null;
      const source = this.sourceOf(arg);
      if (!source.isExact) return null;
      return {
        key,
        lanes: [this.values(source, filter, "sums"), this.counts(source, filter)],
        made: (gathered) => accumulatorOf(a).ofTallies?.(gathered, source.scale) as Accumulator,
      };
    }
    if (fn !== "min" && fn !== "max") return null;
    const source = this.sourceOf(arg);
    return {
      key,
      lanes: [this.values(source, filter, fn === "max" ? "largest" : "smallest")],
      made: ([best]) => (accumulatorOf(a) as NumberExtreme).ofBest(best, source.scale),
    };
  }
}

/** Some lanes side by side, filled once a block for all groupings that gather just these. */
export interface Shelf {
  lanes: LaneKind[];
  /** Where each lane stands in a record. */
  at: number[];
  /** How many lanes a record has, with those that only fill a pair. */
  width: number;
  filled: (block: Block) => Records;
}

/** The lanes in the order of their folds, so many that they fill records. */
function shelved(lanes: LaneKind[]): LaneKind[][] {
  const pairs = FOLDS.flatMap((fold) => {
    const own = lanes.filter((lane) => lane.fold === fold);
    return Array.from({ length: Math.ceil(own.length / 2) }, (_, i) => own.slice(2 * i, 2 * i + 2));
  });
  return Array.from({ length: Math.ceil(pairs.length / MOST_PAIRS) }, (_, i) =>
    pairs.slice(MOST_PAIRS * i, MOST_PAIRS * (i + 1)).flat(),
  );
}

function makeShelf(lanes: LaneKind[], loops: Loops, shared: SharedKernels): Shelf {
  const pairs = (fold: Fold) => Math.ceil(lanes.filter((lane) => lane.fold === fold).length / 2);
  const [sums, largest, smallest] = FOLDS.map(pairs);
  const records = loops.records({ sums, largest, smallest });
  const next = { sums: 0, largest: 2 * sums, smallest: 2 * (sums + largest) };
  const at = lanes.map((lane) => next[lane.fold]++);
  for (const [i, { fill }] of lanes.entries()) if (!fill) loops.fillOnes(records.lanes[at[i]]);
  return {
    lanes,
    at,
    width: records.lanes.length,
    filled: shared.once((block) => {
      for (const [i, { fill }] of lanes.entries()) fill?.(block, records.lanes[at[i]]);
      return records;
    }),
  };
}

/** Says that no row has reached the groups from `first` on. */
export function clearTotals(totals: Float64Array, { lanes, at, width }: Shelf, first = 0): void {
  totals.fill(0, first * width);
  for (const [i, { fold }] of lanes.entries())
    if (fold !== "sums")
      for (let to = first * width + at[i]; to < totals.length; to += width) totals[to] = NOTHING[fold];
}

/** What a grouping gathers by lanes: the count of its rows, and the aggregates that lanes tell. */
export class Lanes {
  private readonly told: Told[];
  private readonly shelves: { shelf: Shelf; totals: Float64Array }[];

  constructor(
    aggregates: Iterable<Aggregate>,
    source: ScanSource,
    private readonly readers: Readers,
    shared: SharedKernels,
    /** Those that groupings of the same rows have made, by their lanes. */
    shelves: Map<string, Shelf>,
  ) {
    const finder = new LaneFinder(source, readers, shared);
    this.told = [...aggregates].flatMap((a) => finder.told(a) ?? []);
    const lanes = new Map([ROWS, ...this.told.flatMap((t) => t.lanes)].map((lane) => [lane.key, lane]));
    const inOrder = [...lanes.values()].sort((a, b) => (a.key < b.key ? -1 : 1));
    this.shelves = shelved(inOrder).map((own) => {
      const key = own.map((lane) => lane.key).join("\n");
      const shelf = shelves.get(key) ?? makeShelf(own, readers.loops, shared);
      shelves.set(key, shelf);
      return { shelf, totals: new Float64Array(0) };
    });
  }

  /** Its one shelf; null where its lanes need several. */
  get onlyShelf(): Shelf | null {
    return this.shelves.length === 1 ? this.shelves[0].shelf : null;
  }

  /**
   * Takes what was folded of its only shelf for finer groups, whose own groups, all below `size`, are
   * `groupOf`.
   */
  addFolded(fine: Float64Array, groupOf: Int32Array, size: number): void {
    const [of] = this.shelves;
    const { lanes, at, width } = of.shelf;
    if (of.totals.length < size * width) of.totals = this.reserved(of.totals, of.shelf, size);
    const { totals } = of;
    for (const [i, { fold }] of lanes.entries()) {
      const own = at[i];
      if (fold === "sums")
        for (let g = 0; g < groupOf.length; g++) totals[groupOf[g] * width + own] += fine[g * width + own];
      else
        for (let g = 0; g < groupOf.length; g++) {
          const x = fine[g * width + own];
          const to = groupOf[g] * width + own;
          if (fold === "largest" ? x > totals[to] : x < totals[to]) totals[to] = x;
        }
    }
  }

  /** The keys of the aggregates that lanes tell. */
  get keys(): string[] {
    return this.told.map((t) => t.key);
  }

  /** Takes the rows of a block, whose groups are all below `size`. */
  add(block: Block, groups: Int32Array, size: number): void {
    const { loops } = this.readers;
    for (const of of this.shelves) {
      const { shelf } = of;
      const { width } = shelf;
      if (of.totals.length < size * width) of.totals = this.reserved(of.totals, shelf, size);
      loops.foldLanes(of.totals, groups, shelf.filled(block), block.length);
    }
  }

  private reserved(totals: Float64Array, shelf: Shelf, size: number): Float64Array {
    const before = totals.length / shelf.width;
    const next = this.readers.loops.doubles(Math.max(size, 2 * before, 16) * shelf.width);
    next.set(totals);
    clearTotals(next, shelf, before);
    return next;
  }

  /** What a lane gathered for each of `size` groups. */
  private column(lane: LaneKind, size: number): Float64Array {
    for (const { shelf, totals } of this.shelves) {
      const found = shelf.lanes.findIndex((l) => l.key === lane.key);
      if (found < 0) continue;
      const { width } = shelf;
      const column = new Float64Array(size).fill(NOTHING[lane.fold]);
      const reached = Math.min(size, totals.length / width);
      for (let g = 0, from = shelf.at[found]; g < reached; g++, from += width) column[g] = totals[from];
      return column;
    }
    throw new Error("The lane is on no shelf.");
  }

  /** How many rows each group has. */
  counts(size: number): Count {
    return new Count().ofTallies([this.column(ROWS, size)]);
  }

  /** The aggregates that lanes tell, by their keys. */
  accumulators(size: number): [string, Accumulator][] {
    return this.told.map(({ key, lanes, made }) => [key, made(lanes.map((lane) => this.column(lane, size)))]);
  }
}
