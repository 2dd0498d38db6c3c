import type { Codes, Stored } from "../../data/stored";

/** Both ends of a range, included. */
export interface Limits {
  low: number;
  high: number;
}

/** Something for each whole value by its distance from the lowest. */
export interface Near<T> {
  low: number;
  table: T;
  /** Every value has its place in the table: none is null, and none lies outside. */
  isWhole?: boolean;
}

/** The values that each group has had: a bit for each from `low` on, `words` words a group. */
export interface Marks {
  low: number;
  words: number;
  marks: Int32Array;
  /** What loops have met and not yet marked. */
  buckets?: Int32Array | null;
  isSettled?: boolean;
}

/** How many values of each group lie in each stretch of two to the power of `shift`, `width` of them a group. */
export interface Bins {
  low: number;
  shift: number;
  width: number;
  counts: Int32Array;
}

/** The sum of each group, what its additions lost, and how many they were. */
export interface Compensated {
  sums: Float64Array;
  lost: Float64Array;
  counts: Int32Array;
}

/**
 * Some cells of a block, or codes: of each place. `none` stands for null, beside NaN among doubles; null says
 * that no cell is.
 */
export interface Cells {
  cells: Stored | Codes;
  none: number | null;
  at: Places;
}

/** How many pairs of lanes are added up, of how many the largest is kept, and the smallest. */
export interface Pairs {
  sums: number;
  largest: number;
  smallest: number;
}

/** A lane of records; what stands in it is only known to the loops that made it. */
export interface Lane {
  readonly at: number;
}

/** Lanes for the rows of a block, two for each pair, in the order of `Pairs`. */
export interface Records extends Pairs {
  lanes: Lane[];
}

/** How many rows are computed at once. */
export const BLOCK = 2048;

export const TESTS = ["=", "<>", "<", "<=", ">", ">="] as const;
export type TestName = (typeof TESTS)[number];
export const OPERATORS = ["+", "-", "*", "/"] as const;
export type Operator = (typeof OPERATORS)[number];

/** Places of a run, in its order; null stands for all of them. */
export type Places = Int32Array | null;

/**
 * The loops that a scan spends its time in, over the rows of one block, and the memory of the arrays that
 * they read and write. Numbers are doubles with NaN for null, codes are whole numbers with -1 for null; a
 * filter counts a row where it is not 0. Arrays made here have room for a few entries more, which loops may
 * write over.
 */
export interface Loops {
  /** Room for a block of numbers, for whoever needs them written one after the other, until the next does. */
  readonly scratch: Float64Array;
  /** Arrays of zeros. */
  doubles(length: number): Float64Array;
  ints(length: number): Int32Array;
  bytes(length: number): Uint8Array;
  /** What was gathered in an array, for who keeps it: the array's own memory may be used again. */
  kept<T extends Float64Array | Int32Array>(array: T): T;
  /** Says that nothing made here is read any more. */
  end(): void;

  /** A run of cells as the other loops take them; `held` is what this gave for the column's run before. */
  holdCells(cells: Stored, held: Stored | null): Stored;
  holdCodes(codes: Codes, held: Codes | null): Codes;
  /** Held cells as doubles, null as NaN. */
  toDoubles(cells: Cells, length: number, out: Float64Array): void;
  scaled(stored: Float64Array, scale: number, length: number, out: Float64Array): void;
  gatherDoubles(values: Float64Array, at: Int32Array, length: number, out: Float64Array): void;
  gatherInts(codes: Codes, at: Places, length: number, out: Int32Array): void;

  /** Writes the places of what lies within both limits to `out`, which may be `from`; gives how many. */
  pickRange(cells: Stored, limits: Limits, from: Places, length: number, out: Int32Array): number;
  /** The same by the mark (0 or 1) of each code, that of null first. */
  pickCodes(codes: Codes, marks: Uint8Array, from: Places, length: number, out: Int32Array): number;
  /** The same by the mark of each whole value, after that of null, which is none or lies below. */
  pickNear(cells: Stored, marks: Near<Uint8Array>, from: Places, length: number, out: Int32Array): number;

  /** The group of each code, -1 where it has none yet; says whether there is such a row. Null comes first. */
  groupCodes(codes: Codes, groupOfCode: Int32Array, at: Places, length: number, groups: Int32Array): boolean;
  /** The same for whole values; a null lies outside the table. */
  groupNear(values: Stored, near: Near<Int32Array>, at: Places, length: number, groups: Int32Array): boolean;
  /**
   * Puts the group of each pair in the place of its first key, or, where it has none yet, that key's
   * complement; says whether there is such a pair. `pairs` has `width` entries for each first key.
   */
  groupPairs(
    pairs: Int32Array,
    width: number,
    second: Int32Array,
    length: number,
    groups: Int32Array,
  ): boolean;

  /** The number of each pair where every first has `width` of them; written in the place of the firsts. */
  numberPairs(firsts: Int32Array, width: number, second: Int32Array, length: number): void;

  /** For each row 1 where the comparison is true; it never is for a null. */
  test(name: TestName, a: Float64Array, b: Float64Array, out: Uint8Array, length: number): void;
  /** What is not finite becomes null. */
  reckon(operator: Operator, a: Float64Array, b: Float64Array, out: Float64Array, length: number): void;

  /** Records for the rows of a block; all lanes are zero. */
  records(pairs: Pairs): Records;
  /** Cells as a lane, `empty` where they are null or filtered out; they are read until the next block. */
  fillValues(into: Lane, empty: number, cells: Cells, length: number, filter: Uint8Array | null): void;
  /** 1 where a cell is neither null nor filtered out, else 0. */
  fillCounts(into: Lane, cells: Cells, length: number, filter: Uint8Array | null): void;
  /** The rows of a filter as 1 and 0. */
  fillFilter(into: Lane, filter: Uint8Array, length: number): void;
  /** 1 for every row of every block. */
  fillOnes(into: Lane): void;
  /**
   * Takes the records of rows into those of their groups, in which lanes stand side by side; NaN is neither
   * larger nor smaller than anything.
   */
  foldLanes(totals: Float64Array, groups: Int32Array, rows: Records, length: number): void;
  /** Sums, and what each addition lost. */
  sumCompensated(
    into: Compensated,
    numbers: Float64Array,
    groups: Int32Array,
    length: number,
    filter: Uint8Array | null,
  ): void;
  /**
   * Marks values of a known range. Marks, and how many each group has, are only right when they
   * have been settled.
   */
  mark(
    into: Marks,
    counts: Float64Array,
    values: Float64Array | Int32Array,
    groups: Int32Array,
    length: number,
    filter: Uint8Array | null,
  ): void;
  settleMarks(into: Marks, counts: Float64Array): void;
  /** Adds the marks of another group, which are settled like those that they are added to. */
  unite(into: Marks, counts: Float64Array, group: number, words: Int32Array): void;

  /**
   * Counts values of a known range by their bins, and writes the place of each behind those that are written
   * already: of a group's places, which follow those of the group before, the one at its distance from the
   * lowest value. Gives how many were counted.
   */
  countBins(
    into: Bins,
    numbers: Float64Array,
    groups: Int32Array,
    length: number,
    filter: Uint8Array | null,
    written: { places: Int32Array; count: number } | null,
  ): number;
  /** Adds the bins of group `from` of others of the same kind to those of a group. */
  addBins(into: Bins, group: number, counts: Int32Array, from: number): void;
  /** Writes the places whose bin is marked; gives how many they are. */
  pickPlaces(places: Int32Array, marks: Uint8Array, shift: number, length: number, out: Int32Array): number;
}

/** The array with room for `size` entries. */
export function grown<T extends Float64Array | Int32Array>(array: T, size: number, loops?: Loops): T {
  if (size <= array.length) return array;
  const room = Math.max(size, array.length * 2, 64);
  const isInts = array instanceof Int32Array;
  const next = isInts
    ? (loops?.ints(room) ?? new Int32Array(room))
    : (loops?.doubles(room) ?? new Float64Array(room));
  next.set(array);
  return next as T;
}
