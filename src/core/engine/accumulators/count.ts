import type { Value } from "../../base/value";
import type { Vector } from "../vector";
import { type Accumulator, type GroupedRows, grown, isNull } from "./accumulator";

/** Counts rows, or those with a value. */
export class Count implements Accumulator {
  counts = new Int32Array(0);
  add({ groups, length, size }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    this.counts = grown(this.counts, size);
    const { counts } = this;
    // A loop for each case, so that none tests what does not change from row to row.
    if (argument === null && filter === null) for (let i = 0; i < length; i++) counts[groups[i]]++;
    else if (argument === null && filter !== null)
      for (let i = 0; i < length; i++) counts[groups[i]] += filter[i];
    else if (argument !== null)
      for (let i = 0; i < length; i++)
        if ((filter === null || filter[i] !== 0) && !isNull(argument, i)) counts[groups[i]]++;
  }
  merge(into: Int32Array, groups: number): Accumulator {
    const merged = new Count();
    merged.counts = new Int32Array(groups);
    for (let g = 0; g < into.length; g++) merged.counts[into[g]] += this.counts[g] ?? 0;
    return merged;
  }
  result(group: number): Value {
    return this.counts[group] ?? 0;
  }
}
