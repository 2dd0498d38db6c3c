import type { Value } from "../../base/value";
import type { Vector } from "../vector";
import { type Accumulator, type GroupedRows, gathered, grown, type Tally } from "./accumulator";
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
  at: Int32Array | null,
  groups: Int32Array,
  length: number,
): void {
  if (at === null)
    for (let i = 0; i < length; i++) {
      const g = groups[i];
      counts[g]++;
      first[g] += firstNumbers[i];
      second[g] += secondNumbers[i];
    }
  else
    for (let i = 0; i < length; i++) {
      const g = groups[i];
      counts[g]++;
      first[g] += firstNumbers[at[i]];
      second[g] += secondNumbers[at[i]];
    }
}

/** A sum and the count of its values for each group. */
interface Counted {
  sums: Float64Array;
  counts: Int32Array;
}

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

interface SumState extends Counted {
  lost: Float64Array;
  scale: number;
}

/**
 * Sum with Neumaier's compensation (A. Neumaier, Rundungsfehleranalyse einiger Verfahren zur Summation
 * endlicher Summen, ZAMM 54, 1974), so that the order of the rows does not show; the mean is the same sum
 * over the count.
 */
export class Sum implements Accumulator {
  readonly takesStored = true;
  /** The sums are so many times what they stand for: those of decimals are kept in units of their last place. */
  private scale = 1;
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
    const [a, b] = [own, others] as { numbers: Float64Array; at?: Int32Array; scale?: number }[];
    this.reserve(rows.size);
    other.reserve(rows.size);
    [this.scale, other.scale] = [a.scale ?? 1, b.scale ?? 1];
    count.counts = grown(count.counts, rows.size);
    const first = { sums: this.sums, numbers: a.numbers };
    const second = { sums: other.sums, numbers: b.numbers };
    addFullPair(count.counts, first, second, a.at ?? null, rows.groups, rows.length);
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
    const stored = argument as { numbers: Float64Array; at?: Int32Array; scale?: number; whole?: boolean };
    const { at, whole } = stored;
    this.scale = stored.scale ?? 1;
    // Sums of whole numbers lose nothing, so there is nothing to compensate.
    if (whole && this.rows) {
      addFull(sums, stored.numbers, at ?? null, groups, length);
      return;
    }
    const numbers = at ? gathered(stored.numbers, at, length) : stored.numbers;
    if (whole) {
      addWhole({ sums, counts }, numbers, groups, length, filter);
      return;
    }
    for (let i = 0; i < length; i++) {
      const x = numbers[i];
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
  empty(): Sum {
    return new Sum(this.mean);
  }
  state(): SumState {
    const { sums, lost, counts, scale } = this;
    return { sums, lost, counts, scale };
  }
  absorb(state: unknown, into: Int32Array, groups: number): void {
    const { sums, lost, counts, scale } = state as SumState;
    this.reserve(groups);
    // One that has met no row does not know in which unit its values are stored.
    if (sums.length > 0) this.scale = Math.max(this.scale, scale);
    for (let g = 0; g < Math.min(into.length, sums.length); g++) {
      const to = into[g];
      if (to < 0) continue;
      const s = this.sums[to];
      const x = sums[g];
      const t = s + x;
      this.lost[to] += (Math.abs(s) >= Math.abs(x) ? s - t + x : x - t + s) + lost[g];
      this.sums[to] = t;
      this.own[to] += counts[g];
    }
  }
  tallies(): Tally[] | null {
    return this.lost.some((lost) => lost !== 0) ? null : [this.sums, this.counts];
  }
  ofTallies([sums, counts]: Tally[]): Sum {
    const made = new Sum(this.mean);
    made.scale = this.scale;
    made.sums = Float64Array.from(sums);
    made.lost = new Float64Array(sums.length);
    made.own = Int32Array.from(counts);
    return made;
  }
  result(group: number): Value {
    const count = this.counts[group] ?? 0;
    if (count === 0) return null;
    const sum = (this.sums[group] + this.lost[group]) / this.scale;
    const value = this.mean ? sum / count : sum;
    return Number.isFinite(value) ? value : null;
  }
}
