import type { Value } from "../../base/value";
import { grown } from "../loops/loops";
import type { Vector } from "../vector";
import { type Accumulator, type GroupedRows, isNull, type Tally } from "./accumulator";

/** Counts rows, or those with a value. */
export class Count implements Accumulator {
  counts = new Int32Array(0);
  add({ groups, length, size }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    this.counts = grown(this.counts, size);
    for (let i = 0; i < length; i++)
      if ((filter === null || filter[i] !== 0) && !(argument && isNull(argument, i)))
        this.counts[groups[i]]++;
  }
  empty(): Count {
    return new Count();
  }
  state(): Int32Array {
    return this.counts;
  }
  absorb(state: unknown, into: Int32Array, groups: number): void {
    const counts = state as Int32Array;
    this.counts = grown(this.counts, groups);
    for (let g = 0; g < Math.min(into.length, counts.length); g++)
      if (into[g] >= 0) this.counts[into[g]] += counts[g];
  }
  tallies(): Tally[] {
    return [this.counts];
  }
  ofTallies([counts]: Tally[]): Count {
    const made = new Count();
    made.counts = Int32Array.from(counts);
    return made;
  }
  result(group: number): Value {
    return this.counts[group] ?? 0;
  }
}
