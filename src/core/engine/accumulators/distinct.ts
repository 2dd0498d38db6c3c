import type { Value } from "../../base/value";
import type { Vector } from "../vector";
import { type Accumulator, type GroupedRows, grown } from "./accumulator";

const FIRST_CAPACITY = 1024;
const bits = new Float64Array(1);
const halves = new Uint32Array(bits.buffer);

/**
 * Spreads a value of a group over the slots of a table of 2^(32 - shift) slots (multiplicative hashing: D. E.
 * Knuth, The Art of Computer Programming 3, 6.4).
 */
function slotOf(group: number, value: number, shift: number): number {
  let h = value | 0;
  if (h !== value) {
    bits[0] = value;
    h = halves[0] ^ Math.imul(halves[1], 0x85ebca6b);
  }
  return Math.imul(h ^ Math.imul(group + 1, 0xc2b2ae35), 0x9e3779b1) >>> shift;
}

/** Values of groups in an open-addressing table. */
class HashedPairs {
  private values = new Float64Array(FIRST_CAPACITY);
  /** The group of each slot plus one; 0 is an empty slot. */
  private owners = new Int32Array(FIRST_CAPACITY);
  private shift = 32 - Math.log2(FIRST_CAPACITY);
  private used = 0;

  /** Whether the pair is new; then it is kept. */
  take(group: number, value: number): boolean {
    const { values, owners } = this;
    const mask = owners.length - 1;
    const owner = group + 1;
    let slot = slotOf(group, value, this.shift);
    for (let found = owners[slot]; found !== 0; found = owners[slot]) {
      if (found === owner && values[slot] === value) return false;
      slot = (slot + 1) & mask;
    }
    owners[slot] = owner;
    values[slot] = value;
    if (++this.used * 2 > owners.length) this.resize(owners.length * 4);
    return true;
  }

  /**
   * Makes room for so many slots, a power of two: values that come in the order of another table's slots
   * would crowd together in a small one.
   */
  private resize(slots: number): void {
    const { values, owners } = this;
    this.values = new Float64Array(slots);
    this.owners = new Int32Array(slots);
    this.shift = 32 - Math.log2(slots);
    const mask = slots - 1;
    for (let i = 0; i < owners.length; i++) {
      if (owners[i] === 0) continue;
      let slot = slotOf(owners[i] - 1, values[i], this.shift);
      while (this.owners[slot] !== 0) slot = (slot + 1) & mask;
      this.owners[slot] = owners[i];
      this.values[slot] = values[i];
    }
  }

  reserve(pairs: number): void {
    const slots = 2 ** Math.ceil(Math.log2(Math.max(pairs, 1) * 2 + 1));
    if (slots > this.owners.length) this.resize(slots);
  }

  state(): PairsState {
    return { owners: this.owners, values: this.values };
  }
}

/** For each slot the group of its value plus one, 0 where it is empty; and the value. */
interface PairsState {
  owners: Int32Array;
  values: Float64Array;
}

interface DistinctState {
  /** How many values each group has. */
  counts: Float64Array;
  low: number;
  span: number;
  marks: Uint8Array | null;
  pairs: PairsState | null;
}

/** Takes over the marks of one group from `from` on; gives how many of them were not there yet. */
function markNew(marks: Uint8Array, from: number, into: Uint8Array, to: number, span: number): number {
  let added = 0;
  for (let i = 0; i < span; i++) {
    added += marks[from + i] & (1 - into[to + i]);
    into[to + i] |= marks[from + i];
  }
  return added;
}

/** Visits the values of each group. */
function eachOf(
  { low, span, marks, pairs }: Omit<DistinctState, "counts">,
  visit: (group: number, value: number) => void,
): void {
  if (pairs) {
    const { owners, values } = pairs;
    for (let i = 0; i < owners.length; i++) if (owners[i] !== 0) visit(owners[i] - 1, values[i]);
  } else if (marks)
    for (let i = 0; i < marks.length; i++) if (marks[i] === 1) visit(Math.floor(i / span), (i % span) + low);
}

/** The most marks that are kept, one byte each, before values are hashed instead. */
const MOST_MARKS = 1 << 24;

/**
 * Distinct values of each group; texts by their codes. Values in a small range are marked in a table, others
 * are hashed. An accumulator of the same aggregate gets each value once; where that is null the values are
 * only counted.
 */
export class Distinct implements Accumulator {
  private counts = new Float64Array(0);
  private pairs: HashedPairs | null = null;
  private marks = new Uint8Array(0);
  private low = 0;
  private span = 0;
  private byGroup: { starts: Int32Array; values: Float64Array } | null = null;

  constructor(private readonly once: (() => Accumulator) | null) {}

  /**
   * Makes room for the groups: marks while they fit the range and the bound, else pairs. Gives whether marks
   * are used.
   */
  private reserve(size: number, within: { low: number; span: number } | null | undefined): boolean {
    this.counts = grown(this.counts, size);
    if (this.pairs) return false;
    if (this.span === 0 && within) [this.low, this.span] = [within.low, within.span];
    const sameRange = this.span > 0 && within?.low === this.low && within.span === this.span;
    if (sameRange && size * this.span <= MOST_MARKS) {
      if (size * this.span > this.marks.length) {
        // With room for more groups where that fits too.
        const marks = new Uint8Array(Math.max(size * this.span, Math.min(2 * this.marks.length, MOST_MARKS)));
        marks.set(this.marks);
        this.marks = marks;
      }
      return true;
    }
    const pairs = new HashedPairs();
    this.each((group, value) => pairs.take(group, value));
    this.pairs = pairs;
    this.marks = new Uint8Array(0);
    return false;
  }

  private each(visit: (group: number, value: number) => void): void {
    eachOf(this.state(), visit);
  }

  add({ groups, length, size }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    const v = argument as Vector;
    const marked = this.reserve(size, v.within);
    const values: Int32Array | Float64Array = "codes" in v ? v.codes : v.numbers;
    const none = "codes" in v ? -1 : Number.NaN;
    const { counts, marks, span, low, pairs } = this;
    for (let i = 0; i < length; i++) {
      // Adding zero turns -0 into 0: they are the same value.
      const value = values[i] + 0;
      if (value === none || value !== value || (filter !== null && filter[i] === 0)) continue;
      const group = groups[i];
      if (marked) {
        const at = group * span + value - low;
        counts[group] += 1 - marks[at];
        marks[at] = 1;
      } else if (pairs?.take(group, value)) counts[group]++;
    }
  }

  empty(): Distinct {
    return new Distinct(this.once);
  }

  state(): DistinctState {
    const { counts, marks, low, span } = this;
    return { counts, low, span, marks: this.pairs ? null : marks, pairs: this.pairs?.state() ?? null };
  }

  absorb(state: unknown, into: Int32Array, groups: number): void {
    const { counts, low, span, marks, pairs } = state as DistinctState;
    const marked = this.reserve(groups, pairs ? null : { low, span });
    if (!marked) this.pairs?.reserve(counts.reduce((sum, n) => sum + n, 0));
    this.byGroup = null;
    if (marked && marks) {
      for (let g = 0; g < Math.min(into.length, Math.floor(marks.length / span)); g++)
        this.counts[into[g]] += markNew(marks, g * span, this.marks, into[g] * span, span);
      return;
    }
    eachOf({ low, span, marks, pairs }, (group, value) => {
      if (this.pairs?.take(into[group], value)) this.counts[into[group]]++;
    });
  }

  /** The values in the order of their groups, made when it is first asked for. */
  private sorted(): { starts: Int32Array; values: Float64Array } {
    if (this.byGroup) return this.byGroup;
    const starts = new Int32Array(this.counts.length + 1);
    for (let g = 0; g < this.counts.length; g++) starts[g + 1] = starts[g] + this.counts[g];
    const next = starts.slice();
    const values = new Float64Array(starts[this.counts.length]);
    this.each((group, value) => {
      values[next[group]++] = value;
    });
    this.byGroup = { starts, values };
    return this.byGroup;
  }

  result(group: number): Value {
    if (this.once === null) return this.counts[group] ?? 0;
    const { starts, values } = this.sorted();
    const numbers =
      group < this.counts.length ? values.subarray(starts[group], starts[group + 1]) : new Float64Array(0);
    const accumulator = this.once();
    accumulator.add(
      { groups: new Int32Array(numbers.length), length: numbers.length, size: 1 },
      { numbers },
      null,
      null,
    );
    return accumulator.result(0);
  }
}
