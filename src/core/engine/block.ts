import type { CellData, ColumnData, TextData } from "../data/column";
import { columnRange } from "../data/column-range";

/** How many rows are computed at once. */
export const BLOCK = 1024;

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

/** A run of rows. */
export type Run = Pick<Block, "base" | "count">;

const everyPlace = Int32Array.from({ length: BLOCK }, (_, i) => i);

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

function markNulls(stored: Float64Array, none: number, count: number, out: Float64Array): void {
  for (let i = 0; i < count; i++) out[i] = stored[i] === none ? Number.NaN : stored[i];
}
function scaled(stored: Float64Array, scale: number, count: number, out: Float64Array): void {
  for (let i = 0; i < count; i++) out[i] = stored[i] / scale;
}

/**
 * The cells of a column over one run at a time. Narrow arrays are unpacked into doubles once a run, however
 * many read them, so that every loop behind is compiled for one type of array.
 */
export class CellReader {
  private readonly stored = new RunBuffer<Float64Array>();
  private readonly marked = new RunBuffer<Float64Array>();
  private readonly real = new RunBuffer<Float64Array>();
  private readonly buffers: (Float64Array | undefined)[] = [];
  private readonly isFull: boolean;

  constructor(readonly data: CellData) {
    this.isFull = columnRange(data).full || Number.isNaN(data.none);
  }

  private buffer(at: number): Float64Array {
    this.buffers[at] ??= new Float64Array(BLOCK);
    return this.buffers[at] as Float64Array;
  }

  /** As they are stored, null as what stands for it. */
  storedOf(run: Run): Float64Array {
    return this.stored.of(run, () => {
      const cells = this.data.values.subarray(run.base, run.base + run.count);
      if (cells instanceof Float64Array) return cells;
      const out = this.buffer(0);
      out.set(cells);
      return out;
    });
  }

  /** As they are stored, null as NaN. */
  markedOf(run: Run): Float64Array {
    if (this.isFull) return this.storedOf(run);
    return this.marked.of(run, () => {
      const out = this.buffer(1);
      markNulls(this.storedOf(run), this.data.none, run.count, out);
      return out;
    });
  }

  /** What they stand for, null as NaN. */
  valuesOf(run: Run): Float64Array {
    if (this.data.scale === 1) return this.markedOf(run);
    return this.real.of(run, () => {
      const out = this.buffer(2);
      scaled(this.markedOf(run), this.data.scale, run.count, out);
      return out;
    });
  }
}

/** The codes of a column of texts over one run at a time. */
export class CodeReader {
  private readonly codes = new RunBuffer<Int32Array>();
  private readonly buffer = new Int32Array(BLOCK);

  constructor(readonly data: TextData) {}

  codesOf(run: Run): Int32Array {
    return this.codes.of(run, () => {
      const codes = this.data.codes.subarray(run.base, run.base + run.count);
      if (codes instanceof Int32Array) return codes;
      this.buffer.set(codes);
      return this.buffer;
    });
  }
}

/** The readers of one scan: one for each column, shared by all that read it. */
export class Readers {
  private readonly made = new Map<ColumnData, CellReader | CodeReader>();

  cells(data: CellData): CellReader {
    return this.once(data, () => new CellReader(data)) as CellReader;
  }
  codes(data: TextData): CodeReader {
    return this.once(data, () => new CodeReader(data)) as CodeReader;
  }
  private once(data: ColumnData, make: () => CellReader | CodeReader): CellReader | CodeReader {
    const reader = this.made.get(data) ?? make();
    this.made.set(data, reader);
    return reader;
  }
}
