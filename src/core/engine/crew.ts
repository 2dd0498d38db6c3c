import type { Value } from "../base/value";
import type { PlacedFilter } from "../plan/plan";
import type { GatheredState, Grouping } from "./gathered";

/** What one pass over a table is to gather, as plain data that can go to another thread. */
export interface ScanTask {
  /** What all selections have in common. */
  filters: PlacedFilter[];
  selections: Selection[];
  today: Value;
}

/** Some rows of a table, those that the filters keep, and what is gathered of them. */
export interface Selection {
  filters: PlacedFilter[];
  groupings: Grouping[];
}

/** What somebody gathered of the chunks that were theirs, for each grouping of each selection. */
export type Share = GatheredState[];

/** A scan that others help with. */
export interface SharedWork {
  /** The number of a chunk that nobody has begun, from then on the caller's; -1 when none is left. */
  next(): number;
  /**
   * Leaves nothing to begin, waits until nobody works on it any more, and gives the shares of the others;
   * null where one of them failed.
   */
  finish(): Share[] | null;
}

/** Others who scan beside the caller. */
export interface Crew {
  /** `chunks` stretches of `chunk` rows each. */
  begin(table: string, task: ScanTask, chunks: number, chunk: number): SharedWork;
}
