import type { QueryInput } from "@/core/plan/query";
import type { Project } from "@/core/project/schema";
import type { PackedBytes } from "@/core/snapshot/snapshot";
import type { Answer } from "@/present/answers";
import type { EmbedCode } from "./embed-error";

/** The cells of one column as a page gives them: values, or numbers in a typed array. */
export type GivenCells = ArrayLike<unknown>;

/** The rows of a table as a page gives them, column by column. */
export interface GivenTable {
  name: string;
  rows: number;
  columns: { name: string; cells: GivenCells }[];
}

/** From what questions are answered: sums, rows that travelled, or rows of the page. */
export interface Held {
  project: Project;
  /** The day that is "today", as ISO 8601 text. */
  today: string;
  index: PackedBytes | null;
  rows: PackedBytes | null;
  given: GivenTable[];
  /** Where the library of regular expressions is fetched from. */
  patterns: string;
}

/** What the engine in a page is asked. What it holds has a number. */
export type EngineRequest =
  | { type: "hold"; id: number; held: Held }
  | { type: "answer"; id: number; queries: QueryInput[] }
  | { type: "drop"; id: number };

/** Something that was noticed of the page's rows, or that keeps them from being used. */
export interface RowsNote {
  code: EmbedCode;
  message: string;
  table: string;
  column: string;
}

/** What the engine answers. */
export type EngineAnswer =
  | { notes: RowsNote[] }
  | { answers: Answer[] }
  | { error: { code: EmbedCode; message: string; table?: string; column?: string } };
