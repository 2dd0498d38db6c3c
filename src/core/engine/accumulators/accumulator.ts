import type { Value } from "../../base/value";
import { takeLoops } from "../loops/current-loops";
import type { Loops } from "../loops/loops";
import type { Vector } from "../vector";

/** The rows of a block: `groups[0 .. length)` are their groups, all below `size`; and the loops of the scan. */
export interface GroupedRows {
  groups: Int32Array;
  length: number;
  size: number;
  loops: Loops;
}

/**
 * Gathers one aggregate for many groups. `add` takes a block: its rows by group, the argument's values (null
 * for count(*)), and optionally a filter (a row counts where it is not 0).
 */
export interface Accumulator {
  /** Whether the argument's numbers may be given as they are stored (`at` and `scale` of a vector). */
  readonly takesStored?: boolean;
  add(rows: GroupedRows, argument: Vector | null, filter: Uint8Array | null, by: Vector | null): void;
  /** Takes what it holds out of the memory of loops, which another scan may use. */
  settle?(loops: Loops): void;
  /** One of the same aggregate that holds nothing yet. */
  empty(): Accumulator;
  /** What it holds, as plain data that can go to another thread; the other reads it and leaves it as it is. */
  state(): unknown;
  /**
   * Takes in the state of one of the same aggregate, whose group g belongs to group `into[g]` here, or is left
   * out where that is -1; `groups` is how many there are here, `loops` those of a scan that has not ended. Of
   * equals, what was taken in first comes first.
   */
  absorb(state: unknown, into: Int32Array, groups: number, loops?: Loops): void;
  /**
   * What it holds where that is only ever added up and nothing is rounded: arrays with a number a group. Null
   * where it holds more.
   */
  tallies?(): Tally[] | null;
  /** One of the same aggregate that holds such arrays, sums in units of which `scale` make one. */
  ofTallies?(tallies: Tally[], scale?: number): Accumulator;
  /** The value of a group; groups that no row reached give what the aggregate gives for no rows. */
  result(group: number): Value;
}

/** A number for each group, of which the sum is that of the groups together. */
export type Tally = Float64Array | Int32Array;

/** The same aggregate for coarser groups: group g of `fine` belongs to group `into[g]`. */
export function merged<T extends Accumulator>(fine: T, into: Int32Array, groups: number): T {
  if (groups === into.length && into.every((to, group) => to === group)) return fine;
  const coarse = fine.empty() as T;
  const loops = takeLoops();
  coarse.absorb(fine.state(), into, groups, loops);
  coarse.settle?.(loops);
  loops.end();
  return coarse;
}

/** The numbers at some places of a block, written one after the other; overwritten by the next call. */
export function gathered(numbers: Float64Array, at: Int32Array, length: number, loops: Loops): Float64Array {
  loops.gatherDoubles(numbers, at, length, loops.scratch);
  return loops.scratch;
}

/** Whether a vector has null at a place. */
export const isNull = (v: Vector, i: number) =>
  "codes" in v ? v.codes[i] < 0 : v.numbers[i] !== v.numbers[i];
