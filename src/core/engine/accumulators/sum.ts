import type { Value } from "../../base/value";
import { type Compensated, grown, type Loops } from "../loops/loops";
import type { Vector } from "../vector";
import { type Accumulator, type GroupedRows, gathered, type Tally } from "./accumulator";

/** Sums are so many times what they stand for. */
interface SumState extends Compensated {
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
  counts = new Int32Array(0);
  constructor(readonly mean: boolean) {}
  private reserve(size: number, loops?: Loops): void {
    this.sums = grown(this.sums, size, loops);
    this.lost = grown(this.lost, size, loops);
    this.counts = grown(this.counts, size, loops);
  }
  settle(loops: Loops): void {
    this.sums = loops.kept(this.sums);
    this.lost = loops.kept(this.lost);
    this.counts = loops.kept(this.counts);
  }
  add(
    { groups, length, size, loops }: GroupedRows,
    argument: Vector | null,
    filter: Uint8Array | null,
  ): void {
    this.reserve(size, loops);
    const stored = argument as { numbers: Float64Array; at?: Int32Array; scale?: number };
    const numbers = stored.at ? gathered(stored.numbers, stored.at, length, loops) : stored.numbers;
    this.scale = stored.scale ?? 1;
    loops.sumCompensated(this, numbers, groups, length, filter);
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
      this.counts[to] += counts[g];
    }
  }
  tallies(): Tally[] | null {
    return this.lost.some((lost) => lost !== 0) ? null : [this.sums, this.counts];
  }
  ofTallies([sums, counts]: Tally[], scale = this.scale): Sum {
    const made = new Sum(this.mean);
    made.scale = scale;
    made.sums = Float64Array.from(sums);
    made.lost = new Float64Array(sums.length);
    made.counts = Int32Array.from(counts);
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
