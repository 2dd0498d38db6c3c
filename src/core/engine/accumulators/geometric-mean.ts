import type { Value } from "../../base/value";
import { grown, type Loops } from "../loops/loops";
import type { Vector } from "../vector";
import type { Accumulator, GroupedRows } from "./accumulator";
import { Sum } from "./sum";

/** The geometric mean of each group, by the mean of the logarithms; null where a value is not above zero. */
export class GeometricMean implements Accumulator {
  private readonly logs = new Sum(true);
  /** For each group how many values have no logarithm. */
  private outside = new Int32Array(0);

  add(rows: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    const { groups, length, size, loops } = rows;
    const { numbers } = argument as { numbers: Float64Array };
    this.outside = grown(this.outside, size);
    const logs = length <= loops.scratch.length ? loops.scratch : new Float64Array(length);
    for (let i = 0; i < length; i++) {
      const x = numbers[i];
      logs[i] = x > 0 ? Math.log(x) : Number.NaN;
      if (x <= 0 && (filter === null || filter[i] !== 0)) this.outside[groups[i]]++;
    }
    this.logs.add(rows, { numbers: logs }, filter);
  }

  settle(loops: Loops): void {
    this.logs.settle(loops);
  }

  empty(): GeometricMean {
    return new GeometricMean();
  }

  state(): { logs: unknown; outside: Int32Array } {
    return { logs: this.logs.state(), outside: this.outside };
  }

  absorb(state: unknown, into: Int32Array, groups: number): void {
    const { logs, outside } = state as ReturnType<GeometricMean["state"]>;
    this.logs.absorb(logs, into, groups);
    this.outside = grown(this.outside, groups);
    for (let g = 0; g < Math.min(into.length, outside.length); g++)
      if (into[g] >= 0) this.outside[into[g]] += outside[g];
  }

  result(group: number): Value {
    const mean = this.logs.result(group);
    return mean === null || this.outside[group] > 0 ? null : Math.exp(mean as number);
  }
}
