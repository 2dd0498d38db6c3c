import { compareValues, type Value, type ValueType } from "../../base/value";
import type { Vector } from "../vector";
import { type Accumulator, type GroupedRows, isNull } from "./accumulator";

/**
 * The value of the row with the largest (or smallest) key of each group; of several such rows the first. Rows
 * without a key or a value are passed over.
 */
export class ByKey implements Accumulator {
  keys: (number | string | undefined)[] = [];
  values: (number | string)[] = [];
  constructor(
    readonly sign: 1 | -1,
    readonly type: ValueType,
  ) {}
  private take(group: number, key: number | string, value: number | string): void {
    const best = this.keys[group];
    if (best !== undefined && this.sign * compareValues(key, best) <= 0) return;
    this.keys[group] = key;
    this.values[group] = value;
  }
  add(
    { groups, length }: GroupedRows,
    argument: Vector | null,
    filter: Uint8Array | null,
    by: Vector | null,
  ): void {
    const at = (v: Vector, i: number) => ("codes" in v ? v.dictionary[v.codes[i]] : v.numbers[i]);
    const [values, keys] = [argument as Vector, by as Vector];
    for (let i = 0; i < length; i++) {
      if (isNull(keys, i) || isNull(values, i) || (filter !== null && filter[i] === 0)) continue;
      this.take(groups[i], at(keys, i), at(values, i));
    }
  }
  empty(): ByKey {
    return new ByKey(this.sign, this.type);
  }
  state(): Pick<ByKey, "keys" | "values"> {
    return { keys: this.keys, values: this.values };
  }
  absorb(state: unknown, into: Int32Array): void {
    const { keys, values } = state as ReturnType<ByKey["state"]>;
    for (let g = 0; g < into.length; g++) {
      const key = keys[g];
      if (key !== undefined && into[g] >= 0) this.take(into[g], key, values[g]);
    }
  }
  result(group: number): Value {
    if (this.keys[group] === undefined) return null;
    const value = this.values[group];
    return this.type === "boolean" ? value === 1 : value;
  }
}
