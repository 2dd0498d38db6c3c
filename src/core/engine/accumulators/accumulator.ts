import type { Value } from "../../base/value";
import type { Vector } from "../vector";

/** The rows of a block: `groups[0 .. length)` are their groups, all below `size`. */
export interface GroupedRows {
  groups: Int32Array;
  length: number;
  size: number;
}

/**
 * Gathers one aggregate for many groups. `add` takes a block: its rows by group, the argument's values (null
 * for count(*)), and optionally a filter (a row counts where it is not 0).
 */
export interface Accumulator {
  /** Whether the argument's values may be given where they lie (`at` of a vector). */
  readonly takesPlaces?: boolean;
  add(rows: GroupedRows, argument: Vector | null, filter: Uint8Array | null, by: Vector | null): void;
  /** The same aggregate for coarser groups: group g here belongs to group `into[g]` there. */
  merge(into: Int32Array, groups: number): Accumulator;
  /** The value of a group; groups that no row reached give what the aggregate gives for no rows. */
  result(group: number): Value;
}

/** The array with room for `size` entries. */
export function grown<T extends Float64Array | Int32Array>(array: T, size: number): T {
  if (size <= array.length) return array;
  const next = new (array.constructor as { new (n: number): T })(Math.max(size, array.length * 2, 64));
  next.set(array);
  return next;
}

/** Whether merging into these groups would change nothing. */
export const isIdentity = (into: Int32Array): boolean => into.every((to, group) => to === group);

/** Whether a vector has null at a place. */
export const isNull = (v: Vector, i: number) =>
  "codes" in v ? v.codes[i] < 0 : v.numbers[i] !== v.numbers[i];
