import type { Value } from "@/core/base/value";
import type { ResultColumn } from "@/core/plan/query";

/** What is known of a table's columns before its rows. */
export type Head = Pick<ResultColumn, "name" | "type">[];

/** Writes a table piece by piece: the head, rows as columns of values, the end. Dates are ISO 8601 text. */
export interface TableFileWriter {
  head(): Uint8Array;
  rows(columns: Value[][]): Uint8Array;
  end(): Uint8Array;
}
