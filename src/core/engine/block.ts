import type { CellData, ColumnData, TextData } from "../data/column";
import { columnRange } from "../data/column-range";
import { type Codes, runOf, type Stored } from "../data/stored";
import { isTwoBits } from "../data/two-bits";
import { BLOCK, type Loops } from "./loops/loops";
import { plainLoops } from "./loops/plain-loops";

/**
 * Rows under evaluation, out of the run of `count` rows of a table from `base` on: those at the places
 * `offsets[0 .. length)` of the run, in its order. `whole` says that these are all of them.
 */
export interface Block {
  base: number;
  count: number;
  offsets: Int32Array;
  length: number;
  whole: boolean;
}

/** The places of a block's rows as loops take them. */
export const placesOf = ({ whole, offsets }: Block): Int32Array | null => (whole ? null : offsets);

/** A run of rows. */
export type Run = Pick<Block, "base" | "count">;

const everyPlace = Int32Array.from({ length: BLOCK }, (_, i) => i);

/** Places for the rows of a block that are kept, with room for what loops write past them. */
export const placesIn = (loops: Loops): Int32Array => loops.ints(BLOCK + 4);

/** A block that holds all rows of its runs; its offsets are read only. */
export const wholeBlock = (): Block => ({
  base: 0,
  count: 0,
  offsets: everyPlace,
  length: 0,
  whole: true,
});

/** A buffer that holds what was last written for a run. */
class RunBuffer<T> {
  private base = -1;
  private held: T | null = null;
  of({ base }: Run, write: () => T): T {
    if (this.base !== base) {
      this.held = write();
      this.base = base;
    }
    return this.held as T;
  }
}

/** The cells of a column over one run at a time, read once a run however many ask. */
export class CellReader {
  private readonly stored = new RunBuffer<Stored>();
  private readonly marked = new RunBuffer<Float64Array>();
  private readonly real = new RunBuffer<Float64Array>();
  private held: Stored | null = null;
  /** Where a run of true and false is unpacked. */
  private readonly unpacked: Int8Array | undefined;
  private readonly buffers: (Float64Array | undefined)[] = [];
  private readonly isFull: boolean;

  constructor(
    readonly data: CellData,
    private readonly loops: Loops,
  ) {
    this.unpacked = isTwoBits(data.values) ? new Int8Array(BLOCK) : undefined;
    this.isFull = columnRange(data).full || Number.isNaN(data.none);
  }

  private buffer(at: number): Float64Array {
    this.buffers[at] ??= this.loops.doubles(BLOCK);
    return this.buffers[at] as Float64Array;
  }

  /** As they are stored, null as what stands for it. */
  storedOf(run: Run): Stored {
    return this.stored.of(run, () => {
      const { values } = this.data;
      this.held = this.loops.holdCells(runOf(values, run.base, run.count, this.unpacked), this.held);
      return this.held;
    });
  }

  /** As they are stored, null as NaN. */
  markedOf(run: Run): Float64Array {
    const stored = this.storedOf(run);
    if (this.isFull && stored instanceof Float64Array) return stored;
    return this.marked.of(run, () => {
      const out = this.buffer(0);
      this.loops.toDoubles({ cells: stored, none: this.data.none, at: null }, run.count, out);
      return out;
    });
  }

  /** What they stand for, null as NaN. */
  valuesOf(run: Run): Float64Array {
    if (this.data.scale === 1) return this.markedOf(run);
    return this.real.of(run, () => {
      const out = this.buffer(1);
      this.loops.scaled(this.markedOf(run), this.data.scale, run.count, out);
      return out;
    });
  }
}

/** The codes of a column of texts over one run at a time. */
export class CodeReader {
  private readonly codes = new RunBuffer<Codes>();
  private held: Codes | null = null;

  constructor(
    readonly data: TextData,
    private readonly loops: Loops,
  ) {}

  codesOf(run: Run): Codes {
    return this.codes.of(run, () => {
      this.held = this.loops.holdCodes(this.data.codes.subarray(run.base, run.base + run.count), this.held);
      return this.held;
    });
  }
}

/** The readers of one scan: one for each column, shared by all that read it; and the loops over what they read. */
export class Readers {
  constructor(readonly loops: Loops = plainLoops) {}

  private readonly made = new Map<ColumnData, CellReader | CodeReader>();

  cells(data: CellData): CellReader {
    return this.once(data, () => new CellReader(data, this.loops)) as CellReader;
  }
  codes(data: TextData): CodeReader {
    return this.once(data, () => new CodeReader(data, this.loops)) as CodeReader;
  }
  private once(data: ColumnData, make: () => CellReader | CodeReader): CellReader | CodeReader {
    const reader = this.made.get(data) ?? make();
    this.made.set(data, reader);
    return reader;
  }
}
