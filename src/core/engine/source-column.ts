import type { Calendar } from "../base/calendar";
import type { ColumnData } from "../data/column";

/**
 * A column as a table's rows see it: its own, or through links; then `rows` says which row of the other table
 * each row belongs to (-1: no match).
 */
export interface SourceColumn {
  data: ColumnData;
  rows: Int32Array | null;
}

/**
 * What columns are asked of: a table with what links lead to. Throws a QueryError where there is
 * no such column.
 */
export interface ColumnSource {
  column(table: string, name: string): SourceColumn;
}

/** What filters are asked of: columns, and how weeks and years are counted. */
export interface FilterSource extends ColumnSource {
  readonly calendar: Calendar | undefined;
}
