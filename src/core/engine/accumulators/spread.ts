import type { Value } from "../../base/value";
import { grown } from "../loops/loops";
import type { Vector } from "../vector";
import type { Accumulator, GroupedRows } from "./accumulator";

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
  empty(): Spread {
    return new Spread(this.root, this.sample);
  }
  state(): Pick<Spread, "counts" | "means" | "squares"> {
    const { counts, means, squares } = this;
    return { counts, means, squares };
  }
  absorb(state: unknown, into: Int32Array, groups: number): void {
    const { counts, means, squares } = state as ReturnType<Spread["state"]>;
    this.reserve(groups);
    for (let g = 0; g < Math.min(into.length, counts.length); g++) {
      const [to, n, m] = [into[g], counts[g], this.counts[into[g]]];
      if (n === 0 || to < 0) continue;
      const off = means[g] - this.means[to];
      this.counts[to] = n + m;
      // The first is taken over as it is: times n and through n again would lose a digit.
      this.means[to] = m === 0 ? means[g] : this.means[to] + (off * n) / (n + m);
      this.squares[to] += squares[g] + (off * off * n * m) / (n + m);
    }
  }
  result(group: number): Value {
    const n = (this.counts[group] ?? 0) - (this.sample ? 1 : 0);
    if (n <= 0) return null;
    const variance = this.squares[group] / n;
    const value = this.root ? Math.sqrt(variance) : variance;
    return Number.isFinite(value) ? value : null;
  }
}
