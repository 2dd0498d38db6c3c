import type { CellKind } from "@/core/data/reading-guess";
import type { Cell } from "../store/table-files";

/** Rows on their way to another thread: all their cells in one text, and how long each is. */
export interface RowBatch {
  text: string;
  /** A cell's length in characters, row by row; -1 where it is empty. */
  lengths: Int32Array<ArrayBuffer>;
  /** Places in `KINDS`, row by row; null where no cell has a kind. */
  kinds: Uint8Array<ArrayBuffer> | null;
}

const KINDS: (CellKind | undefined)[] = [undefined, "number", "text", "boolean", "date"];

/** Cells in a batch: enough that handing one over costs little beside what is done with it. */
const CELLS = 1 << 16;
/** Characters in a batch: with long texts it is full sooner, since one text holds them all. */
const CHARACTERS = 1 << 21;

/**
 * Gathers rows into batches. One text is handed to another thread in a fraction of the time of its cells one
 * by one.
 */
export class BatchMaker {
  private cells: string[] = [];
  private lengths: number[] = [];
  private kinds: number[] = [];
  private characters = 0;

  constructor(private readonly columns: number) {}

  /** Takes a row; gives a batch as soon as one is full. */
  add(row: Cell[], kinds?: (CellKind | undefined)[]): RowBatch | null {
    if (kinds) while (this.kinds.length < this.lengths.length) this.kinds.push(0);
    for (let i = 0; i < this.columns; i++) {
      const cell = row[i];
      if (cell === null) this.lengths.push(-1);
      else {
        this.lengths.push(cell.length);
        this.cells.push(cell);
        this.characters += cell.length;
      }
      if (kinds) this.kinds.push(KINDS.indexOf(kinds[i]));
    }
    return this.lengths.length < CELLS && this.characters < CHARACTERS ? null : this.rest();
  }

  /** What was taken since the last batch. */
  rest(): RowBatch {
    const kinds = this.kinds.length > 0 ? new Uint8Array(this.lengths.length) : null;
    kinds?.set(this.kinds);
    const batch = { text: this.cells.join(""), lengths: Int32Array.from(this.lengths), kinds };
    this.cells = [];
    this.lengths = [];
    this.kinds = [];
    this.characters = 0;
    return batch;
  }
}

/** Calls `take` with each row of a batch, of `columns` cells, in their order. */
export function eachRow(
  { text, lengths, kinds }: RowBatch,
  columns: number,
  take: (row: Cell[], kinds?: (CellKind | undefined)[]) => void,
): void {
  let at = 0;
  for (let first = 0; first < lengths.length; first += columns) {
    const row = new Array<Cell>(columns);
    for (let i = 0; i < columns; i++) {
      const length = lengths[first + i];
      row[i] = length < 0 ? null : text.slice(at, at + length);
      if (length > 0) at += length;
    }
    take(row, kinds ? Array.from(kinds.subarray(first, first + columns), (k) => KINDS[k]) : undefined);
  }
}
