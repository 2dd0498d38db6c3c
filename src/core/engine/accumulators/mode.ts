import { compareValues, type Value, type ValueType } from "../../base/value";
import type { Vector } from "../vector";
import type { Accumulator, GroupedRows } from "./accumulator";

/** The value that stands most often in each group; of several that do, the smallest. */
export class Mode implements Accumulator {
  /** How often each value stands, by group; texts stand for themselves. */
  private counts: Map<number | string, number>[] = [];

  constructor(private readonly type: ValueType) {}

  private countsOf(group: number): Map<number | string, number> {
    this.counts[group] ??= new Map();
    return this.counts[group];
  }

  add({ groups, length }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    const v = argument as Vector;
    for (let i = 0; i < length; i++) {
      if (filter !== null && filter[i] === 0) continue;
      // Adding zero turns -0 into 0: they are the same value.
      const value = "codes" in v ? v.dictionary[v.codes[i]] : v.numbers[i] + 0;
      if (value === undefined || value !== value) continue;
      const counts = this.countsOf(groups[i]);
      counts.set(value, (counts.get(value) ?? 0) + 1);
    }
  }

  empty(): Mode {
    return new Mode(this.type);
  }

  state(): Map<number | string, number>[] {
    return this.counts;
  }

  absorb(state: unknown, into: Int32Array): void {
    for (const [group, counts] of (state as Mode["counts"]).entries())
      for (const [value, count] of (into[group] >= 0 && counts) || []) {
        const to = this.countsOf(into[group]);
        to.set(value, (to.get(value) ?? 0) + count);
      }
  }

  result(group: number): Value {
    let best: number | string | null = null;
    let most = 0;
    for (const [value, count] of this.counts[group] ?? []) {
      if (count < most || (count === most && best !== null && compareValues(value, best) >= 0)) continue;
      best = value;
      most = count;
    }
    return this.type === "boolean" && best !== null ? best === 1 : best;
  }
}
