import type { Value, ValueType } from "../formula/value";
import { compareText, compareValues } from "../formula/value";
import { Distinct } from "./distinct";
import { Percentile } from "./percentile";
import type { Vector } from "./vector";

/** The rows of a block: `groups[0 .. length)` are their groups, all below `size`. */
export interface GroupedRows {
  groups: Int32Array;
  length: number;
  size: number;
}

/**
 * Gathers one aggregate for many groups. `add` takes a block: its rows by group, the argument's values (null
 * for count(*)), and optionally a filter (a row counts where it is not 0).
 */
export interface Accumulator {
  /** Whether the argument's values may be given where they lie (`at` of a vector). */
  readonly takesPlaces?: boolean;
  add(rows: GroupedRows, argument: Vector | null, filter: Uint8Array | null, by: Vector | null): void;
  /** The same aggregate for coarser groups: group g here belongs to group `into[g]` there. */
  merge(into: Int32Array, groups: number): Accumulator;
  /** The value of a group; groups that no row reached give what the aggregate gives for no rows. */
  result(group: number): Value;
}

/** The array with room for `size` entries. */
export function grown<T extends Float64Array | Int32Array>(array: T, size: number): T {
  if (size <= array.length) return array;
  const next = new (array.constructor as { new (n: number): T })(Math.max(size, array.length * 2, 64));
  next.set(array);
  return next;
}

/** Whether merging into these groups would change nothing. */
export const isIdentity = (into: Int32Array): boolean => into.every((to, group) => to === group);

export const isNull = (v: Vector, i: number) => ("codes" in v ? v.codes[i] < 0 : v.numbers[i] !== v.numbers[i]);

/** Counts rows, or those with a value. */
export class Count implements Accumulator {
  counts = new Int32Array(0);
  add({ groups, length, size }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    this.counts = grown(this.counts, size);
    const { counts } = this;
    // A loop for each case, so that none tests what does not change from row to row.
    if (argument === null && filter === null) for (let i = 0; i < length; i++) counts[groups[i]]++;
    else if (argument === null && filter !== null) for (let i = 0; i < length; i++) counts[groups[i]] += filter[i];
    else if (argument !== null) for (let i = 0; i < length; i++) if ((filter === null || filter[i] !== 0) && !isNull(argument, i)) counts[groups[i]]++;
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

/** Sums of whole numbers without a null: nothing is asked of a row. */
function addFull(sums: Float64Array, numbers: Float64Array, at: Int32Array | null, groups: Int32Array, length: number): void {
  if (at === null) for (let i = 0; i < length; i++) sums[groups[i]] += numbers[i];
  else for (let i = 0; i < length; i++) sums[groups[i]] += numbers[at[i]];
}

/** Two such sums and the count of the same rows in one loop: none waits for another's group. */
function addFullPair(
  counts: Int32Array,
  first: Float64Array,
  firstNumbers: Float64Array,
  second: Float64Array,
  secondNumbers: Float64Array,
  groups: Int32Array,
  length: number,
): void {
  for (let i = 0; i < length; i++) {
    const g = groups[i];
    counts[g]++;
    first[g] += firstNumbers[i];
    second[g] += secondNumbers[i];
  }
}

function addPlaced(sums: Float64Array, counts: Int32Array, numbers: Float64Array, at: Int32Array, groups: Int32Array, length: number): void {
  for (let i = 0; i < length; i++) {
    const x = numbers[at[i]];
    if (x !== x) continue;
    const g = groups[i];
    sums[g] += x;
    counts[g]++;
  }
}

/** The values at some places, written out. */
const placed = (numbers: Float64Array, at: Int32Array, length: number) => Float64Array.from({ length }, (_, i) => numbers[at[i]]);

function addWhole(sums: Float64Array, counts: Int32Array, numbers: Float64Array, groups: Int32Array, length: number, filter: Uint8Array | null): void {
  if (filter === null) {
    for (let i = 0; i < length; i++) {
      const x = numbers[i];
      if (x !== x) continue;
      const g = groups[i];
      sums[g] += x;
      counts[g]++;
    }
    return;
  }
  for (let i = 0; i < length; i++) {
    const x = numbers[i];
    if (x !== x || filter[i] === 0) continue;
    const g = groups[i];
    sums[g] += x;
    counts[g]++;
  }
}

/**
 * Sum with Neumaier's compensation (A. Neumaier, Rundungsfehleranalyse einiger Verfahren zur Summation endlicher
 * Summen, ZAMM 54, 1974), so that the order of the rows does not show; the mean is the same sum over the count.
 */
export class Sum implements Accumulator {
  readonly takesPlaces = true;
  sums = new Float64Array(0);
  lost = new Float64Array(0);
  private own = new Int32Array(0);
  /** Who counts the rows of each group, where every row has a value and so this need not count for itself; else null. */
  private rows: Count | null = null;
  constructor(readonly mean: boolean) {}
  /** Leaves the counting to `rows`: for an argument that is whole and never null, without a filter. */
  countBy(rows: Count): void {
    this.rows = rows;
  }
  /** Whether the rows are counted elsewhere, so that two such sums can share a loop. */
  get isFull(): boolean {
    return this.rows !== null;
  }
  /** Adds a block to this sum, to another that is full as well, and to the count of the rows. */
  addWith(other: Sum, count: Count, rows: GroupedRows, own: Vector, others: Vector): void {
    const [a, b] = [own, others] as { numbers: Float64Array; at?: Int32Array }[];
    if (a.at || b.at) {
      count.add(rows, null, null);
      this.add(rows, own, null);
      other.add(rows, others, null);
      return;
    }
    this.reserve(rows.size);
    other.reserve(rows.size);
    count.counts = grown(count.counts, rows.size);
    addFullPair(count.counts, this.sums, a.numbers, other.sums, b.numbers, rows.groups, rows.length);
  }
  private get counts(): Int32Array {
    return this.rows ? this.rows.counts : this.own;
  }
  private reserve(size: number): void {
    this.sums = grown(this.sums, size);
    this.lost = grown(this.lost, size);
    if (this.rows === null) this.own = grown(this.own, size);
  }
  add({ groups, length, size }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    this.reserve(size);
    const { sums, lost, own: counts } = this;
    const { numbers, at, whole } = argument as { numbers: Float64Array; at?: Int32Array; whole?: boolean };
    if (whole) {
      // Sums of whole numbers lose nothing, so there is nothing to compensate.
      if (this.rows) addFull(sums, numbers, at ?? null, groups, length);
      else if (at && filter === null) addPlaced(sums, counts, numbers, at, groups, length);
      else addWhole(sums, counts, at ? placed(numbers, at, length) : numbers, groups, length, filter);
      return;
    }
    for (let i = 0; i < length; i++) {
      const x = at ? numbers[at[i]] : numbers[i];
      if (x !== x || (filter !== null && filter[i] === 0)) continue;
      const g = groups[i];
      const s = sums[g];
      const t = s + x;
      // The exact error of one addition without a branch (D. E. Knuth, The Art of Computer Programming 2, 4.2.2).
      const part = t - s;
      lost[g] += s - (t - part) + (x - part);
      sums[g] = t;
      counts[g]++;
    }
  }
  merge(into: Int32Array, groups: number): Accumulator {
    const merged = new Sum(this.mean);
    merged.reserve(groups);
    const { counts } = this;
    for (let g = 0; g < Math.min(into.length, this.sums.length); g++) {
      const to = into[g];
      const s = merged.sums[to];
      const x = this.sums[g];
      const t = s + x;
      merged.lost[to] += (Math.abs(s) >= Math.abs(x) ? s - t + x : x - t + s) + this.lost[g];
      merged.sums[to] = t;
      merged.own[to] += counts[g];
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
  add({ groups, length, size }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    this.reserve(size);
    const { numbers: values } = argument as { numbers: Float64Array };
    if (this.sign === 1) takeLargest(this.best, groups, length, values, filter);
    else takeSmallest(this.best, groups, length, values, filter);
  }
  merge(into: Int32Array, groups: number): Accumulator {
    const merged = new NumberExtreme(this.sign, this.type);
    merged.reserve(groups);
    const take = this.sign === 1 ? takeLargest : takeSmallest;
    take(merged.best, into, Math.min(into.length, this.best.length), this.best, null);
    return merged;
  }
  result(group: number): Value {
    const x = this.best[group];
    if (x === undefined || x === this.none) return null;
    return this.type === "boolean" ? x === 1 : x;
  }
}

/** A null (NaN) is neither larger nor smaller than anything. */
function takeLargest(best: Float64Array, groups: Int32Array, length: number, numbers: Float64Array, filter: Uint8Array | null): void {
  if (filter === null) for (let i = 0; i < length; i++) if (numbers[i] > best[groups[i]]) best[groups[i]] = numbers[i];
  if (filter !== null) for (let i = 0; i < length; i++) if (filter[i] !== 0 && numbers[i] > best[groups[i]]) best[groups[i]] = numbers[i];
}

function takeSmallest(best: Float64Array, groups: Int32Array, length: number, numbers: Float64Array, filter: Uint8Array | null): void {
  if (filter === null) for (let i = 0; i < length; i++) if (numbers[i] < best[groups[i]]) best[groups[i]] = numbers[i];
  if (filter !== null) for (let i = 0; i < length; i++) if (filter[i] !== 0 && numbers[i] < best[groups[i]]) best[groups[i]] = numbers[i];
}

class TextExtreme implements Accumulator {
  best: (string | null)[] = [];
  constructor(readonly sign: 1 | -1) {}
  private take(group: number, text: string): void {
    const b = this.best[group] ?? null;
    if (b === null || this.sign * compareText(text, b) > 0) this.best[group] = text;
  }
  add({ groups, length }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    const { codes, dictionary } = argument as { codes: Int32Array; dictionary: string[] };
    for (let i = 0; i < length; i++) if (codes[i] >= 0 && (filter === null || filter[i] !== 0)) this.take(groups[i], dictionary[codes[i]]);
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

/** The true and false values of each group: whether all, or any, are true. */
class Truth implements Accumulator {
  private readonly counts = [new Count(), new Count()];
  constructor(readonly all: boolean) {}
  add({ groups, length, size }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    const { numbers } = argument as { numbers: Float64Array };
    for (const truth of [0, 1]) {
      const where = Uint8Array.from({ length }, (_, i) => (numbers[i] === truth && (filter === null || filter[i] !== 0) ? 1 : 0));
      this.counts[truth].add({ groups, length, size }, null, where);
    }
  }
  merge(into: Int32Array, groups: number): Accumulator {
    const merged = new Truth(this.all);
    for (const truth of [0, 1]) merged.counts[truth] = this.counts[truth].merge(into, groups) as Count;
    return merged;
  }
  result(group: number): Value {
    const [no, yes] = this.counts.map((c) => c.result(group) as number);
    if (no + yes === 0) return null;
    return this.all ? no === 0 : yes > 0;
  }
}

/**
 * Mean and spread of each group in one pass (B. P. Welford, Technometrics 4, 1962), put together for coarser groups as in
 * T. F. Chan, G. H. Golub, R. J. LeVeque, Updating Formulae and a Pairwise Algorithm for Computing Sample Variances, 1979.
 */
class Spread implements Accumulator {
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

/** The value of the row with the largest (or smallest) key of each group; of several such rows the first. Rows without a key or a value are passed over. */
class ByKey implements Accumulator {
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
  add({ groups, length }: GroupedRows, argument: Vector | null, filter: Uint8Array | null, by: Vector | null): void {
    const at = (v: Vector, i: number) => ("codes" in v ? v.dictionary[v.codes[i]] : v.numbers[i]);
    const [values, keys] = [argument as Vector, by as Vector];
    for (let i = 0; i < length; i++) {
      if (isNull(keys, i) || isNull(values, i) || (filter !== null && filter[i] === 0)) continue;
      this.take(groups[i], at(keys, i), at(values, i));
    }
  }
  merge(into: Int32Array): Accumulator {
    const merged = new ByKey(this.sign, this.type);
    for (let g = 0; g < into.length; g++) {
      const key = this.keys[g];
      if (key !== undefined) merged.take(into[g], key, this.values[g]);
    }
    return merged;
  }
  result(group: number): Value {
    if (this.keys[group] === undefined) return null;
    const value = this.values[group];
    return this.type === "boolean" ? value === 1 : value;
  }
}

type Asked = { fn: string; distinct: boolean; arg: { type: ValueType } | null; fraction: { op: string; value?: Value } | null };

/** A fresh accumulator of a bound aggregate. */
export function accumulatorOf({ fn, distinct, arg, fraction }: Asked): Accumulator {
  if (distinct) return new Distinct(fn === "count" ? null : () => accumulatorOf({ fn, distinct: false, arg, fraction }));
  const type = arg?.type ?? "number";
  switch (fn) {
    case "count":
      return new Count();
    case "sum":
    case "avg":
      return new Sum(fn === "avg");
    case "min":
    case "max":
      return type === "text" ? new TextExtreme(fn === "max" ? 1 : -1) : new NumberExtreme(fn === "max" ? 1 : -1, type);
    case "median":
      return new Percentile(0.5);
    case "percentile_cont":
      return new Percentile(fraction?.op === "constant" && typeof fraction.value === "number" ? fraction.value : Number.NaN);
    case "stddev_pop":
    case "stddev_samp":
    case "var_pop":
    case "var_samp":
      return new Spread(fn.startsWith("stddev"), fn.endsWith("samp"));
    case "max_by":
    case "min_by":
      return new ByKey(fn === "max_by" ? 1 : -1, type);
    case "bool_and":
    case "bool_or":
      return new Truth(fn === "bool_and");
  }
  throw new Error(`no accumulator for ${fn}`);
}
