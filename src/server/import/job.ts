import type { Reading } from "@/core/data/reading-schema";
import type { FileSums } from "../store/checksums";
import type { ImportOptions } from "./reader";

/** What an import worker is asked to do; one worker does one job and ends. */
export type ImportJob =
  | { type: "table"; id: string; path: string; file: string; options: ImportOptions }
  | { type: "append"; id: string; from: string; added: string; map: number[] }
  | { type: "sums"; id: string }
  | { type: "demo" }
  | { type: "project"; path: string };

/** What it says: progress from 0 to 1, then a result or a problem that the person can mend. */
export type ImportMessage =
  | { progress: number; rows?: number }
  | { done: unknown }
  | { problem: string }
  | { fault: { code: string; message: string } };

/** The checksums of a new table's rows, and of the file they came from where that is kept. */
export interface TableSums {
  rows: FileSums;
  source: FileSums | null;
}

/** A table whose rows an import thread has stored. */
export interface StoredTable {
  id: string;
  name: string;
  rows: number;
  columns: { name: string; reading: Reading }[];
  sums: TableSums;
}
