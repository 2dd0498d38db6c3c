import type { Value } from "../../base/value";
import type { Vector } from "../vector";
import { type Accumulator, type GroupedRows, grown } from "./accumulator";
import type { Count } from "./count";

/** Sums of whole numbers without a null: nothing is asked of a row. */
function addFull(
  sums: Float64Array,
  numbers: Float64Array,
  at: Int32Array | null,
  groups: Int32Array,
  length: number,
): void {
  if (at === null) for (let i = 0; i < length; i++) sums[groups[i]] += numbers[i];
  else for (let i = 0; i < length; i++) sums[groups[i]] += numbers[at[i]];
}

/** A sum for each group, and the values of a block that are added to it. */
interface Summed {
  sums: Float64Array;
  numbers: Float64Array;
}

/** Two such sums and the count of the same rows in one loop: none waits for another's group. */
function addFullPair(
  counts: Int32Array,
  { sums: first, numbers: firstNumbers }: Summed,
  { sums: second, numbers: secondNumbers }: Summed,
  groups: Int32Array,
  length: number,
): void {
  for (let i = 0; i < length; i++) {
    const g = groups[i];
    counts[g]++;
    first[g] += firstNumbers[i];
    second[g] += secondNumbers[i];
  }
}

/** A sum and the count of its values for each group. */
interface Counted {
  sums: Float64Array;
  counts: Int32Array;
}

function addPlaced(
  { sums, counts }: Counted,
  numbers: Float64Array,
  at: Int32Array,
  groups: Int32Array,
  length: number,
): void {
  for (let i = 0; i < length; i++) {
    const x = numbers[at[i]];
    if (x !== x) continue;
    const g = groups[i];
    sums[g] += x;
    counts[g]++;
  }
}

/** The values at some places, written out. */
const placed = (numbers: Float64Array, at: Int32Array, length: number) =>
  Float64Array.from({ length }, (_, i) => numbers[at[i]]);

function addWhole(
  { sums, counts }: Counted,
  numbers: Float64Array,
  groups: Int32Array,
  length: number,
  filter: Uint8Array | null,
): void {
  if (filter === null) {
    for (let i = 0; i < length; i++) {
      const x = numbers[i];
      if (x !== x) continue;
      const g = groups[i];
      sums[g] += x;
      counts[g]++;
    }
    return;
  }
  for (let i = 0; i < length; i++) {
    const x = numbers[i];
    if (x !== x || filter[i] === 0) continue;
    const g = groups[i];
    sums[g] += x;
    counts[g]++;
  }
}

/**
 * Sum with Neumaier's compensation (A. Neumaier, Rundungsfehleranalyse einiger Verfahren zur Summation
 * endlicher Summen, ZAMM 54, 1974), so that the order of the rows does not show; the mean is the same sum
 * over the count.
 */
export class Sum implements Accumulator {
  readonly takesPlaces = true;
  sums = new Float64Array(0);
  lost = new Float64Array(0);
  private own = new Int32Array(0);
  /**
   * Who counts the rows of each group, where every row has a value and so this need not count for itself;
   * else null.
   */
  private rows: Count | null = null;
  constructor(readonly mean: boolean) {}
  /** Leaves the counting to `rows`: for an argument that is whole and never null, without a filter. */
  countBy(rows: Count): void {
    this.rows = rows;
  }
  /** Whether the rows are counted elsewhere, so that two such sums can share a loop. */
  get isFull(): boolean {
    return this.rows !== null;
  }
  /** Adds a block to this sum, to another that is full as well, and to the count of the rows. */
  addWith(other: Sum, count: Count, rows: GroupedRows, own: Vector, others: Vector): void {
    const [a, b] = [own, others] as { numbers: Float64Array; at?: Int32Array }[];
    if (a.at || b.at) {
      count.add(rows, null, null);
      this.add(rows, own, null);
      other.add(rows, others, null);
      return;
    }
    this.reserve(rows.size);
    other.reserve(rows.size);
    count.counts = grown(count.counts, rows.size);
    const first = { sums: this.sums, numbers: a.numbers };
    const second = { sums: other.sums, numbers: b.numbers };
    addFullPair(count.counts, first, second, rows.groups, rows.length);
  }
  private get counts(): Int32Array {
    return this.rows ? this.rows.counts : this.own;
  }
  private reserve(size: number): void {
    this.sums = grown(this.sums, size);
    this.lost = grown(this.lost, size);
    if (this.rows === null) this.own = grown(this.own, size);
  }
  add({ groups, length, size }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    this.reserve(size);
    const { sums, lost, own: counts } = this;
    const { numbers, at, whole } = argument as { numbers: Float64Array; at?: Int32Array; whole?: boolean };
    if (whole) {
      // Sums of whole numbers lose nothing, so there is nothing to compensate.
      if (this.rows) addFull(sums, numbers, at ?? null, groups, length);
      else if (at && filter === null) addPlaced({ sums, counts }, numbers, at, groups, length);
      else addWhole({ sums, counts }, at ? placed(numbers, at, length) : numbers, groups, length, filter);
      return;
    }
    for (let i = 0; i < length; i++) {
      const x = at ? numbers[at[i]] : numbers[i];
      if (x !== x || (filter !== null && filter[i] === 0)) continue;
      const g = groups[i];
      const s = sums[g];
      const t = s + x;
      // The exact error of one addition without a branch (D. E. Knuth, The Art of Computer Programming 2,
      // 4.2.2).
      const part = t - s;
      lost[g] += s - (t - part) + (x - part);
      sums[g] = t;
      counts[g]++;
    }
  }
  merge(into: Int32Array, groups: number): Accumulator {
    const merged = new Sum(this.mean);
    merged.reserve(groups);
    const { counts } = this;
    for (let g = 0; g < Math.min(into.length, this.sums.length); g++) {
      const to = into[g];
      const s = merged.sums[to];
      const x = this.sums[g];
      const t = s + x;
      merged.lost[to] += (Math.abs(s) >= Math.abs(x) ? s - t + x : x - t + s) + this.lost[g];
      merged.sums[to] = t;
      merged.own[to] += counts[g];
    }
    return merged;
  }
  result(group: number): Value {
    const count = this.counts[group] ?? 0;
    if (count === 0) return null;
    const sum = this.sums[group] + this.lost[group];
    const value = this.mean ? sum / count : sum;
    return Number.isFinite(value) ? value : null;
  }
}
