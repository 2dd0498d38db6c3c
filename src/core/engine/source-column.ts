import type { Calendar } from "../base/calendar";
import type { ColumnData } from "../data/column";
import type { Crew } from "./crew";

/**
 * A column as a table's rows see it: its own, or through links; then `rows` says which row of the other table
 * each row belongs to (-1: no match).
 */
export interface SourceColumn {
  data: ColumnData;
  rows: Int32Array | null;
}

/**
 * What columns are asked of: a table with what links lead to. Throws a QueryError where there is no such
 * column.
 */
export interface ColumnSource {
  column(table: string, name: string): SourceColumn;
}

/** What filters are asked of: columns, and how weeks and years are counted. */
export interface FilterSource extends ColumnSource {
  readonly calendar: Calendar | undefined;
}

/** What is scanned: the rows of a table, by its columns. */
export interface ScanSource extends FilterSource {
  readonly table: { readonly name: string; readonly rows: number };
  /** Who helps with scans. */
  readonly crew: Crew | undefined;
  /** So many rows are scanned at a time where several share the work. */
  readonly chunk: number;
  /** Throws a QueryError where the work is to end. */
  checkStop(): void;
  /** The same source, scanned by nobody else. */
  alone(): ScanSource;
}
