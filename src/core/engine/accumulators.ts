import type { Value, ValueType } from "../formula/value";
import { compareText } from "../formula/value";
import type { Vector } from "./vector";

/**
 * Gathers one aggregate for many groups. `add` takes a block: the group of each row, the argument's values (null
 * for count(*)), and optionally a filter (a row counts where it is 1).
 */
export interface Accumulator {
  add(groups: Int32Array, length: number, argument: Vector | null, filter: Float64Array | null): void;
  /** The same aggregate for coarser groups: group g here belongs to group `into[g]` there. */
  merge(into: Int32Array, groups: number): Accumulator;
  /** The value of a group; groups that no row reached give what the aggregate gives for no rows. */
  result(group: number): Value;
}

function grown<T extends Float64Array | Int32Array>(array: T, size: number): T {
  if (size <= array.length) return array;
  const next = new (array.constructor as { new (n: number): T })(Math.max(size, array.length * 2, 64));
  next.set(array);
  return next;
}

function highest(groups: Int32Array, length: number): number {
  let most = -1;
  for (let i = 0; i < length; i++) if (groups[i] > most) most = groups[i];
  return most;
}

const isNull = (v: Vector, i: number) => ("codes" in v ? v.codes[i] < 0 : v.numbers[i] !== v.numbers[i]);

class Count implements Accumulator {
  counts = new Float64Array(0);
  add(groups: Int32Array, length: number, argument: Vector | null, filter: Float64Array | null): void {
    this.counts = grown(this.counts, highest(groups, length) + 1);
    const { counts } = this;
    for (let i = 0; i < length; i++) if ((filter === null || filter[i] === 1) && (argument === null || !isNull(argument, i))) counts[groups[i]]++;
  }
  merge(into: Int32Array, groups: number): Accumulator {
    const merged = new Count();
    merged.counts = new Float64Array(groups);
    for (let g = 0; g < into.length; g++) merged.counts[into[g]] += this.counts[g] ?? 0;
    return merged;
  }
  result(group: number): Value {
    return this.counts[group] ?? 0;
  }
}

/**
 * Sum with Neumaier's compensation (A. Neumaier, Rundungsfehleranalyse einiger Verfahren zur Summation endlicher
 * Summen, ZAMM 54, 1974), so that the order of the rows does not show; the mean is the same sum over the count.
 */
class Sum implements Accumulator {
  sums = new Float64Array(0);
  lost = new Float64Array(0);
  counts = new Float64Array(0);
  constructor(readonly mean: boolean) {}
  private reserve(size: number): void {
    this.sums = grown(this.sums, size);
    this.lost = grown(this.lost, size);
    this.counts = grown(this.counts, size);
  }
  add(groups: Int32Array, length: number, argument: Vector | null, filter: Float64Array | null): void {
    this.reserve(highest(groups, length) + 1);
    const { sums, lost, counts } = this;
    const { numbers } = argument as { numbers: Float64Array };
    for (let i = 0; i < length; i++) {
      const x = numbers[i];
      if (x !== x || (filter !== null && filter[i] !== 1)) continue;
      const g = groups[i];
      const s = sums[g];
      const t = s + x;
      lost[g] += Math.abs(s) >= Math.abs(x) ? s - t + x : x - t + s;
      sums[g] = t;
      counts[g]++;
    }
  }
  merge(into: Int32Array, groups: number): Accumulator {
    const merged = new Sum(this.mean);
    merged.reserve(groups);
    for (let g = 0; g < Math.min(into.length, this.sums.length); g++) {
      const to = into[g];
      const s = merged.sums[to];
      const x = this.sums[g];
      const t = s + x;
      merged.lost[to] += (Math.abs(s) >= Math.abs(x) ? s - t + x : x - t + s) + this.lost[g];
      merged.sums[to] = t;
      merged.counts[to] += this.counts[g];
    }
    return merged;
  }
  result(group: number): Value {
    const count = this.counts[group] ?? 0;
    if (count === 0) return null;
    const sum = this.sums[group] + this.lost[group];
    const value = this.mean ? sum / count : sum;
    return Number.isFinite(value) ? value : null;
  }
}

class NumberExtreme implements Accumulator {
  best = new Float64Array(0);
  constructor(
    readonly sign: 1 | -1,
    readonly type: ValueType,
  ) {}
  private reserve(size: number): void {
    const before = this.best.length;
    this.best = grown(this.best, size);
    this.best.fill(Number.NaN, before);
  }
  private take(group: number, x: number): void {
    const b = this.best[group];
    if (x === x && (b !== b || this.sign * (x - b) > 0)) this.best[group] = x;
  }
  add(groups: Int32Array, length: number, argument: Vector | null, filter: Float64Array | null): void {
    this.reserve(highest(groups, length) + 1);
    const { numbers } = argument as { numbers: Float64Array };
    for (let i = 0; i < length; i++) if (filter === null || filter[i] === 1) this.take(groups[i], numbers[i]);
  }
  merge(into: Int32Array, groups: number): Accumulator {
    const merged = new NumberExtreme(this.sign, this.type);
    merged.reserve(groups);
    for (let g = 0; g < Math.min(into.length, this.best.length); g++) merged.take(into[g], this.best[g]);
    return merged;
  }
  result(group: number): Value {
    const x = this.best[group];
    if (x === undefined || x !== x) return null;
    return this.type === "boolean" ? x === 1 : x;
  }
}

class TextExtreme implements Accumulator {
  best: (string | null)[] = [];
  constructor(readonly sign: 1 | -1) {}
  private take(group: number, text: string): void {
    const b = this.best[group] ?? null;
    if (b === null || this.sign * compareText(text, b) > 0) this.best[group] = text;
  }
  add(groups: Int32Array, length: number, argument: Vector | null, filter: Float64Array | null): void {
    const { codes, dictionary } = argument as { codes: Int32Array; dictionary: string[] };
    for (let i = 0; i < length; i++) if (codes[i] >= 0 && (filter === null || filter[i] === 1)) this.take(groups[i], dictionary[codes[i]]);
  }
  merge(into: Int32Array): Accumulator {
    const merged = new TextExtreme(this.sign);
    for (let g = 0; g < into.length; g++) {
      const text = this.best[g] ?? null;
      if (text !== null) merged.take(into[g], text);
    }
    return merged;
  }
  result(group: number): Value {
    return this.best[group] ?? null;
  }
}

/** Distinct values of each group; `fn` says what is made of them. */
class Distinct implements Accumulator {
  sets: Set<number | string>[] = [];
  constructor(readonly fn: "count" | "sum" | "avg") {}
  add(groups: Int32Array, length: number, argument: Vector | null, filter: Float64Array | null): void {
    const v = argument as Vector;
    for (let i = 0; i < length; i++) {
      if (isNull(v, i) || (filter !== null && filter[i] !== 1)) continue;
      const g = groups[i];
      this.sets[g] ??= new Set();
      // Adding zero turns -0 into 0: they are the same value.
      this.sets[g].add("codes" in v ? v.dictionary[v.codes[i]] : v.numbers[i] + 0);
    }
  }
  merge(into: Int32Array): Accumulator {
    const merged = new Distinct(this.fn);
    for (let g = 0; g < into.length; g++) {
      const to = into[g];
      merged.sets[to] ??= new Set();
      for (const x of this.sets[g] ?? []) merged.sets[to].add(x);
    }
    return merged;
  }
  result(group: number): Value {
    const set = this.sets[group];
    if (this.fn === "count") return set?.size ?? 0;
    if (!set || set.size === 0) return null;
    const sum = new Sum(this.fn === "avg");
    const numbers = Float64Array.from(set as Set<number>);
    sum.add(new Int32Array(numbers.length), numbers.length, { numbers }, null);
    return sum.result(0);
  }
}

/** A fresh accumulator of an aggregate whose argument has this type (null for count(*)). */
export function accumulatorOf(fn: string, distinct: boolean, argument: ValueType | null): Accumulator {
  if (distinct && (fn === "count" || fn === "sum" || fn === "avg")) return new Distinct(fn);
  switch (fn) {
    case "count":
      return new Count();
    case "sum":
      return new Sum(false);
    case "avg":
      return new Sum(true);
    case "min":
    case "max": {
      const sign = fn === "max" ? 1 : -1;
      return argument === "text" ? new TextExtreme(sign) : new NumberExtreme(sign, argument ?? "number");
    }
  }
  throw new Error(`no accumulator for ${fn}`);
}
