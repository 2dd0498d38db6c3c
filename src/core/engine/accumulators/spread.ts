import type { Value } from "../../base/value";
import type { Vector } from "../vector";
import { type Accumulator, type GroupedRows, grown } from "./accumulator";

/**
 * Mean and spread of each group in one pass (B. P. Welford, Technometrics 4, 1962), put together for coarser
 * groups as in T. F. Chan, G. H. Golub, R. J. LeVeque, Updating Formulae and a Pairwise Algorithm for
 * Computing Sample Variances, 1979.
 */
export class Spread implements Accumulator {
  counts = new Float64Array(0);
  means = new Float64Array(0);
  squares = new Float64Array(0);
  constructor(
    readonly root: boolean,
    readonly sample: boolean,
  ) {}
  private reserve(size: number): void {
    this.counts = grown(this.counts, size);
    this.means = grown(this.means, size);
    this.squares = grown(this.squares, size);
  }
  add({ groups, length, size }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    this.reserve(size);
    const { numbers } = argument as { numbers: Float64Array };
    for (let i = 0; i < length; i++) {
      const x = numbers[i];
      if (x !== x || (filter !== null && filter[i] === 0)) continue;
      const g = groups[i];
      const n = ++this.counts[g];
      const off = x - this.means[g];
      this.means[g] += off / n;
      this.squares[g] += off * (x - this.means[g]);
    }
  }
  merge(into: Int32Array, groups: number): Accumulator {
    const merged = new Spread(this.root, this.sample);
    merged.reserve(groups);
    for (let g = 0; g < Math.min(into.length, this.counts.length); g++) {
      const [to, n, m] = [into[g], this.counts[g], merged.counts[into[g]]];
      if (n === 0) continue;
      const off = this.means[g] - merged.means[to];
      merged.counts[to] = n + m;
      merged.means[to] += (off * n) / (n + m);
      merged.squares[to] += this.squares[g] + (off * off * n * m) / (n + m);
    }
    return merged;
  }
  result(group: number): Value {
    const n = (this.counts[group] ?? 0) - (this.sample ? 1 : 0);
    if (n <= 0) return null;
    const variance = this.squares[group] / n;
    const value = this.root ? Math.sqrt(variance) : variance;
    return Number.isFinite(value) ? value : null;
  }
}
