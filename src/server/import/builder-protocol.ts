import type { RowBatch } from "./row-batches";
import type { ReadColumns } from "./table-builder";

/** What a thread that builds a table is started with, besides its end of a message port. */
export interface BuilderData {
  /** The table's id and its number of columns. */
  id: string;
  columns: number;
  /** The words of `WORDS`. */
  words: SharedArrayBuffer;
}

/** Words of memory that both threads see: how many orders were carried out, and whether one failed. */
export const WORDS = { done: 0, failed: 1 } as const;

/** What the thread is told to do. The last two end it. */
export type BuilderOrder = RowBatch | { finish: { names: string[]; separator?: string } } | { abandon: true };

/** What it says: how the columns are read once it has finished, or what it could not do. */
export type BuilderSays = { finished: ReadColumns } | { fault: { code: string; message: string } };
