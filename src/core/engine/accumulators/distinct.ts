import type { Value } from "../../base/value";
import { grown, type Loops, type Marks } from "../loops/loops";
import { plainLoops } from "../loops/plain-loops";
import type { Vector } from "../vector";
import { type Accumulator, type GroupedRows, gathered } from "./accumulator";

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
  marks: Int32Array | null;
  pairs: PairsState | null;
}

/** How many words hold the marks of a group, one bit a value. */
const wordsFor = (span: number) => Math.ceil(span / 32);

/** Visits the values of each group. */
function eachOf(
  { low, span, marks, pairs }: Omit<DistinctState, "counts">,
  visit: (group: number, value: number) => void,
): void {
  if (pairs) {
    const { owners, values } = pairs;
    for (let i = 0; i < owners.length; i++) if (owners[i] !== 0) visit(owners[i] - 1, values[i]);
    return;
  }
  if (!marks) return;
  const words = wordsFor(span);
  for (let i = 0; i < marks.length; i++)
    for (let rest = marks[i]; rest !== 0; rest &= rest - 1) {
      const bit = 31 - Math.clz32(rest & -rest);
      visit(Math.floor(i / words), (i % words) * 32 + bit + low);
    }
}

/** So many words are much to copy. */
const MUCH = 1 << 18;
/** The most words of marks that are kept, a bit a value, before values are hashed instead. */
const MOST_WORDS = 1 << 22;

/**
 * Distinct values of each group; texts by their codes. Values in a small range are marked in a table, others
 * are hashed. An accumulator of the same aggregate gets each value once; where that is null the values are
 * only counted.
 */
export class Distinct implements Accumulator {
  private counts: Float64Array = new Float64Array(0);
  private pairs: HashedPairs | null = null;
  /** The values that were met, by their distance from the lowest; `words` is zero until their range is known. */
  private table: Marks = { low: 0, words: 0, marks: new Int32Array(0) };
  private span = 0;
  private size = 0;
  private byGroup: { starts: Int32Array; values: Float64Array } | null = null;

  /** Where values are only counted, they are told apart as they are stored. */
  readonly takesStored: boolean;

  constructor(private readonly once: (() => Accumulator) | null) {
    this.takesStored = once === null;
  }

  /**
   * Makes room for the groups: marks while they fit the range and the bound, else pairs. Gives whether marks
   * are used.
   */
  private reserve(
    size: number,
    within: { low: number; span: number } | null | undefined,
    loops: Loops = plainLoops,
  ): boolean {
    this.size = Math.max(this.size, size);
    this.counts = grown(this.counts, size);
    if (this.pairs) return false;
    const { table } = this;
    // A range without room, such as milliseconds of years, is never taken: nothing may be as long as it.
    if (this.span === 0 && within && size * wordsFor(within.span) <= MOST_WORDS) {
      this.span = within.span;
      [table.low, table.words] = [within.low, wordsFor(within.span)];
    }
    const sameRange = this.span > 0 && within?.low === table.low && within.span === this.span;
    const words = size * table.words;
    if (sameRange && words <= MOST_WORDS) {
      if (words > table.marks.length) {
        // With room for more groups where that fits too, and for few more where it is much.
        const more = words < MUCH ? 2 * words : words + (words >>> 2);
        const marks = loops.ints(Math.max(words, Math.min(more, MOST_WORDS)));
        marks.set(table.marks);
        table.marks = marks;
      }
      return true;
    }
    loops.settleMarks(table, this.counts);
    const pairs = new HashedPairs();
    this.each((group, value) => pairs.take(group, value));
    this.pairs = pairs;
    table.marks = new Int32Array(0);
    return false;
  }

  private each(visit: (group: number, value: number) => void): void {
    eachOf(this.state(), visit);
  }

  settle(loops: Loops): void {
    const { table, counts } = this;
    loops.settleMarks(table, counts);
    // What was only made room for is left.
    const { marks, words } = table;
    table.marks = loops.kept(marks.subarray(0, Math.min(this.size * words, marks.length)));
  }

  add(
    { groups, length, size, loops }: GroupedRows,
    argument: Vector | null,
    filter: Uint8Array | null,
  ): void {
    const v = argument as Vector;
    const isMarked = this.reserve(size, v.within, loops);
    const given: Int32Array | Float64Array = "codes" in v ? v.codes : v.numbers;
    const values = "at" in v && v.at ? gathered(given as Float64Array, v.at, length, loops) : given;
    const { counts, pairs } = this;
    if (isMarked) {
      loops.mark(this.table, counts, values, groups, length, filter);
      return;
    }
    const none = "codes" in v ? -1 : Number.NaN;
    for (let i = 0; i < length; i++) {
      // Adding zero turns -0 into 0: they are the same value.
      const value = values[i] + 0;
      if (value === none || value !== value || (filter !== null && filter[i] === 0)) continue;
      if (pairs?.take(groups[i], value)) counts[groups[i]]++;
    }
  }

  empty(): Distinct {
    return new Distinct(this.once);
  }

  state(): DistinctState {
    const { counts, span, pairs } = this;
    const { marks, low } = this.table;
    return { counts, low, span, marks: pairs ? null : marks, pairs: pairs?.state() ?? null };
  }

  absorb(state: unknown, into: Int32Array, groups: number, loops: Loops = plainLoops): void {
    const { counts, low, span, marks, pairs } = state as DistinctState;
    if (span === 0 && !pairs) {
      this.counts = grown(this.counts, groups);
      return;
    }
    const marked = this.reserve(groups, pairs ? null : { low, span }, loops);
    if (!marked) this.pairs?.reserve(counts.reduce((sum, n) => sum + n, 0));
    this.byGroup = null;
    if (marked && marks) {
      const words = wordsFor(span);
      for (let g = 0; g < Math.min(into.length, Math.floor(marks.length / words)); g++)
        if (into[g] >= 0)
          loops.unite(this.table, this.counts, into[g], marks.subarray(g * words, (g + 1) * words));
      return;
    }
    eachOf({ low, span, marks, pairs }, (group, value) => {
      if (into[group] >= 0 && this.pairs?.take(into[group], value)) this.counts[into[group]]++;
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
      { groups: new Int32Array(numbers.length), length: numbers.length, size: 1, loops: plainLoops },
      { numbers },
      null,
      null,
    );
    return accumulator.result(0);
  }
}
