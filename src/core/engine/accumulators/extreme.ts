import { compareText, type Value, type ValueType } from "../../base/value";
import { grown } from "../loops/loops";
import type { Vector } from "../vector";
import type { Accumulator, GroupedRows } from "./accumulator";

/** The largest (sign 1) or smallest (-1) number, date, timestamp or boolean of each group. */
export class NumberExtreme implements Accumulator {
  /** The best of each group; what no value can be stands for a group without one. */
  best = new Float64Array(0);
  private readonly none: number;
  constructor(
    readonly sign: 1 | -1,
    readonly type: ValueType,
  ) {
    this.none = sign === 1 ? Number.NEGATIVE_INFINITY : Number.POSITIVE_INFINITY;
  }
  private reserve(size: number): void {
    const before = this.best.length;
    this.best = grown(this.best, size);
    this.best.fill(this.none, before);
  }
  /** A null (NaN) is neither larger nor smaller than anything. */
  private take(group: number, x: number): void {
    if (this.sign * x > this.sign * this.best[group]) this.best[group] = x;
  }
  add({ groups, length, size }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    this.reserve(size);
    const { numbers } = argument as { numbers: Float64Array };
    for (let i = 0; i < length; i++) if (filter === null || filter[i] !== 0) this.take(groups[i], numbers[i]);
  }
  empty(): NumberExtreme {
    return new NumberExtreme(this.sign, this.type);
  }
  state(): Float64Array {
    return this.best;
  }
  absorb(state: unknown, into: Int32Array, groups: number): void {
    const best = state as Float64Array;
    this.reserve(groups);
    for (let g = 0; g < Math.min(into.length, best.length); g++)
      if (into[g] >= 0) this.take(into[g], best[g]);
  }
  /** One of the same aggregate with the best of each group, in units of which `scale` make one. */
  ofBest(best: Float64Array, scale: number): NumberExtreme {
    const made = this.empty();
    made.best = best.map((x) => x / scale);
    return made;
  }
  result(group: number): Value {
    const x = this.best[group];
    if (x === undefined || x === this.none) return null;
    // Adding zero turns -0 into 0: which of them was met first does not show.
    return this.type === "boolean" ? x === 1 : x + 0;
  }
}

/** The last (sign 1) or first (-1) text of each group in the order of `compareText`. */
export class TextExtreme implements Accumulator {
  best: (string | null)[] = [];
  constructor(readonly sign: 1 | -1) {}
  private take(group: number, text: string): void {
    const b = this.best[group] ?? null;
    if (b === null || this.sign * compareText(text, b) > 0) this.best[group] = text;
  }
  add({ groups, length }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    const { codes, dictionary } = argument as { codes: Int32Array; dictionary: string[] };
    for (let i = 0; i < length; i++)
      if (codes[i] >= 0 && (filter === null || filter[i] !== 0)) this.take(groups[i], dictionary[codes[i]]);
  }
  empty(): TextExtreme {
    return new TextExtreme(this.sign);
  }
  state(): (string | null)[] {
    return this.best;
  }
  absorb(state: unknown, into: Int32Array): void {
    const best = state as (string | null)[];
    for (let g = 0; g < into.length; g++) {
      const text = best[g] ?? null;
      if (text !== null && into[g] >= 0) this.take(into[g], text);
    }
  }
  result(group: number): Value {
    return this.best[group] ?? null;
  }
}
