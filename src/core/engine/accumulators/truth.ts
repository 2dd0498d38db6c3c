import type { Value } from "../../base/value";
import type { Vector } from "../vector";
import type { Accumulator, GroupedRows } from "./accumulator";
import { Count } from "./count";

/** The true and false values of each group: whether all, or any, are true. */
export class Truth implements Accumulator {
  private readonly counts = [new Count(), new Count()];
  constructor(readonly all: boolean) {}
  add({ length, ...rows }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    const { numbers } = argument as { numbers: Float64Array };
    for (const truth of [0, 1]) {
      const where = Uint8Array.from({ length }, (_, i) =>
        numbers[i] === truth && (filter === null || filter[i] !== 0) ? 1 : 0,
      );
      this.counts[truth].add({ ...rows, length }, null, where);
    }
  }
  empty(): Truth {
    return new Truth(this.all);
  }
  state(): Int32Array[] {
    return this.counts.map((c) => c.state());
  }
  absorb(state: unknown, into: Int32Array, groups: number): void {
    for (const [truth, counts] of (state as Int32Array[]).entries())
      this.counts[truth].absorb(counts, into, groups);
  }
  result(group: number): Value {
    const [no, yes] = this.counts.map((c) => c.result(group) as number);
    if (no + yes === 0) return null;
    return this.all ? no === 0 : yes > 0;
  }
}
