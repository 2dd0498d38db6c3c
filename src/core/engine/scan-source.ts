import type { Crew } from "./crew";
import type { FilterSource } from "./source-column";

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
