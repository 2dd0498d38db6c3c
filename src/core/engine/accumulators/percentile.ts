import type { Value } from "../../base/value";
import type { Bins, Loops } from "../loops/loops";
import { plainLoops } from "../loops/plain-loops";
import type { Vector } from "../vector";
import { type Accumulator, type GroupedRows, gathered } from "./accumulator";
import { selectNth } from "./select-nth";

const CHUNK = 1 << 16;

/**
 * The groups of values: half as wide while all of them fit into 16 bits. Where several tables meet, there can
 * be more groups than one scan makes.
 */
type Owners = Uint16Array | Uint32Array;
const NARROW = 1 << 16;
const ownersFor = (groups: number, count: number): Owners =>
  groups <= NARROW ? new Uint16Array(count) : new Uint32Array(count);

/** Some of the values, and the group of each; null where all are of group 0. */
interface Chunk {
  values: Float64Array;
  groups: Owners | null;
  count: number;
}

/** The most bins of all groups: they stay near the processor. */
const MOST_BINS = 1 << 18;
/** The most bins of a group. */
const MOST_WIDTH = 1 << 10;
/** The most counters of all groups where each value has one of its own. */
const MOST_COUNTERS = 1 << 22;

/**
 * How many values of each group lie in each stretch of `unit` values, from `low` on, `width` of them a group.
 * Where the unit is one, this is all that there is to know of the values.
 */
interface Histogram extends Bins {
  span: number;
}

/** A range of whole values, and in which unit they are counted where that is settled. */
interface Range {
  low: number;
  span: number;
  unit?: number;
}

function emptyHistogram({ low, span, unit = 1 }: Range): Histogram {
  return { low, span, unit, width: Math.ceil(span / unit), counts: new Int32Array(0) };
}

/** The unit of values that are counted in bins. */
function coarseUnit(span: number): number {
  let unit = 1;
  while (span / unit > MOST_WIDTH) unit *= 2;
  return unit;
}

const mostOf = ({ unit, span }: Histogram) => (unit === 1 && span > MOST_WIDTH ? MOST_COUNTERS : MOST_BINS);

/** The same in coarser bins. */
function coarsened({ low, span, width, counts }: Histogram): Histogram {
  const coarse = emptyHistogram({ low, span, unit: coarseUnit(span) });
  coarse.counts = new Int32Array(Math.floor(counts.length / width) * coarse.width);
  for (let i = 0; i < counts.length; i++)
    if (counts[i] > 0)
      coarse.counts[Math.floor(i / width) * coarse.width + Math.floor((i % width) / coarse.unit)] +=
        counts[i];
  return coarse;
}

/** The values of a histogram whose unit is one, as a list. */
function listed({ low, width, counts }: Histogram): Chunk {
  let count = 0;
  for (let i = 0; i < counts.length; i++) count += counts[i];
  const values = new Float64Array(count);
  const groups = ownersFor(Math.ceil(counts.length / width), count);
  let at = 0;
  for (let i = 0; i < counts.length; i++)
    for (let n = counts[i]; n > 0; n--) {
      values[at] = (i % width) + low;
      groups[at++] = Math.floor(i / width);
    }
  return { values, groups, count };
}

interface PercentileState {
  chunks: Chunk[];
  histogram: Histogram | null;
  scale: number;
}

/** Where a share lies among the values of a group: past the n-th smallest by a rest of the way to the next. */
interface Place {
  /** The bins of the n-th and of the next, and how many values lie in bins before the first of them. */
  bin: number;
  nextBin: number;
  before: number;
  n: number;
  rest: number;
}

function sumOf(counts: Int32Array): number {
  let sum = 0;
  for (let i = 0; i < counts.length; i++) sum += counts[i];
  return sum;
}

/** The bin in which the n-th value lies, and how many lie in bins before it. */
function binOf(counts: Int32Array, n: number): { bin: number; before: number } {
  let bin = 0;
  let before = 0;
  for (let next = counts[0]; next <= n; next += counts[bin]) {
    before = next;
    bin++;
  }
  return { bin, before };
}

/** Two neighbours in the order of values. */
interface Neighbours {
  low: number;
  high: number;
}

/** The n-th smallest of some values, and the next where it is asked for. */
function neighbours(values: Float64Array, n: number, withNext: boolean): Neighbours {
  selectNth(values, 0, values.length - 1, n);
  let high = values[n];
  if (withNext) {
    high = values[n + 1];
    for (let i = n + 2; i < values.length; i++) if (values[i] < high) high = values[i];
  }
  return { low: values[n], high };
}

/** Finds the values of a chunk that lie in the bins in question of their group. */
function lookThrough(
  { values, groups, count }: Chunk,
  { low, per, bins, nextBins }: { low: number; per: number; bins: Int32Array; nextBins: Int32Array },
  found: (group: number, value: number) => void,
): void {
  for (let i = 0; i < count; i++) {
    const group = groups === null ? 0 : groups[i];
    const bin = ((values[i] - low) * per) | 0;
    if (bin === bins[group] || bin === nextBins[group]) found(group, values[i]);
  }
}

/**
 * Keeps the values of each group; gives the one at a share of their order, interpolated as SQL's
 * percentile_cont. Whole values of a known range are counted in bins besides, so that only those of the bins
 * in question are looked at again; where a bin holds a single value, nothing else is kept.
 */
export class Percentile implements Accumulator {
  readonly takesStored = true;
  private chunks: Chunk[] = [];
  private histogram: Histogram | null = null;
  private size = 0;
  /** Values are so many times what they stand for. */
  private scale = 1;
  private byGroup: { starts: Int32Array; values: Float64Array } | null = null;
  /** Of each group, where a histogram tells. */
  private places: (Place | null)[] | null = null;
  /** Of each group, the values of the bins in question. */
  private looked: Float64Array[] | null = null;

  constructor(readonly share: number) {}

  /** The histogram with room for the groups; null where the values have none. */
  private reserve(
    size: number,
    within: Range | null | undefined,
    loops: Loops = plainLoops,
  ): Histogram | null {
    this.size = Math.max(this.size, size);
    this.byGroup = this.places = this.looked = null;
    if (this.histogram === null && this.chunks.length > 0) return null;
    if (within && !this.histogram) {
      const isFine = loops.scatters && within.span * this.size <= MOST_COUNTERS;
      this.histogram = emptyHistogram({ unit: isFine ? 1 : coarseUnit(within.span), ...within });
    }
    const known = this.histogram;
    const fits = within && known && known.low === within.low && known.span === within.span;
    if (fits && this.size * known.width > mostOf(known) && known.width > MOST_WIDTH) {
      this.coarsen(loops);
      return this.reserve(size, within, loops);
    }
    if (!fits || this.size * known.width > mostOf(known)) {
      if (known?.unit === 1) {
        loops.settleBins(known);
        this.chunks.push(listed(known));
      }
      this.histogram = null;
      return null;
    }
    const needed = this.size * known.width;
    if (needed > known.counts.length) {
      const counts = loops.ints(Math.max(needed, Math.min(2 * known.counts.length, mostOf(known))));
      counts.set(known.counts);
      known.counts = counts;
    }
    return known;
  }

  /** Goes on in coarser bins, and keeps the values besides. */
  private coarsen(loops: Loops): void {
    const fine = this.histogram as Histogram;
    loops.settleBins(fine);
    this.chunks.push(listed(fine));
    this.histogram = coarsened(fine);
  }

  settle(loops: Loops): void {
    if (!this.histogram) return;
    loops.settleBins(this.histogram);
    const { counts, width } = this.histogram;
    this.histogram.counts = loops.kept(counts.subarray(0, this.size * width));
  }

  add(
    { groups, length, size, loops }: GroupedRows,
    argument: Vector | null,
    filter: Uint8Array | null,
  ): void {
    const stored = argument as Extract<Vector, { numbers: Float64Array }>;
    const numbers = stored.at ? gathered(stored.numbers, stored.at, length, loops) : stored.numbers;
    this.scale = stored.scale ?? 1;
    const histogram = this.reserve(size, stored.within, loops);
    if (histogram) loops.countBins(histogram, numbers, groups, length, filter);
    if (histogram?.unit === 1) return;
    let last = this.chunks.at(-1);
    // A scan makes at most MAX_GROUPS groups, which fit into 16 bits.
    if (!last || last.count + length > last.values.length) {
      last = {
        values: new Float64Array(Math.max(CHUNK, length)),
        groups: ownersFor(size, Math.max(CHUNK, length)),
        count: 0,
      };
      this.chunks.push(last);
    }
    const { values, groups: owners } = last as { values: Float64Array; groups: Owners };
    let { count } = last;
    for (let i = 0; i < length; i++) {
      const x = numbers[i];
      if (x !== x || (filter !== null && filter[i] === 0)) continue;
      values[count] = x;
      owners[count++] = groups[i];
    }
    last.count = count;
  }

  empty(): Percentile {
    return new Percentile(this.share);
  }

  state(): PercentileState {
    const { chunks, histogram, scale } = this;
    return { chunks, histogram: histogram && { ...histogram, buckets: null }, scale };
  }

  absorb(state: unknown, into: Int32Array, groups: number, loops: Loops = plainLoops): void {
    const { scale, ...others } = state as PercentileState;
    let { chunks, histogram } = others;
    // One that has met no value yet says nothing of how they are kept.
    if (chunks.length === 0 && histogram === null) {
      this.size = Math.max(this.size, groups);
      return;
    }
    this.scale = scale;
    // Of two that count in different units the finer is coarsened.
    if (histogram && this.histogram && histogram.unit > this.histogram.unit) this.coarsen(loops);
    const own = this.reserve(groups, histogram, loops);
    if (own && histogram && histogram.unit < own.unit)
      [chunks, histogram] = [[listed(histogram)], coarsened(histogram)];
    if (own && histogram) {
      const { width, counts } = histogram;
      for (let g = 0; g < Math.min(into.length, Math.floor(counts.length / width)); g++)
        if (into[g] >= 0) loops.addBins(own, into[g], counts, g);
      if (own.unit === 1) return;
    }
    const all = histogram?.unit === 1 ? [listed(histogram)] : chunks;
    for (const chunk of into.includes(-1) ? all.map((c) => withoutLeftOut(c, into)) : all) {
      const { values, groups: owners, count } = chunk;
      this.chunks.push({ values, count, groups: groups === 1 ? null : moved(owners, into, count, groups) });
    }
  }

  result(group: number): Value {
    if (group >= this.size || !(this.share >= 0 && this.share <= 1)) return null;
    return this.histogram ? this.binned(this.histogram, group) : this.listedResult(group);
  }

  /** The value between two neighbours; adding zero turns -0 into 0. */
  private between({ low, high }: Neighbours, rest: number): number {
    const a = low / this.scale;
    return (rest === 0 ? a : a + (high / this.scale - a) * rest) + 0;
  }

  private placeOf({ width, counts }: Histogram, group: number): Place | null {
    const own = counts.subarray(group * width, (group + 1) * width);
    const count = sumOf(own);
    if (count === 0) return null;
    const at = this.share * (count - 1);
    const n = Math.floor(at);
    const { bin, before } = binOf(own, n);
    let nextBin = bin;
    if (at > n && before + own[bin] <= n + 1)
      do nextBin++;
      while (own[nextBin] === 0);
    return { bin, nextBin, before, n, rest: at - n };
  }

  private binned(histogram: Histogram, group: number): Value {
    this.places ??= Array.from({ length: this.size }, (_, g) => this.placeOf(histogram, g));
    const place = this.places[group];
    if (!place) return null;
    const { bin, nextBin, before, n, rest } = place;
    if (histogram.unit === 1)
      return this.between({ low: histogram.low + bin, high: histogram.low + nextBin }, rest);
    this.looked ??= this.lookedAt(histogram, this.places);
    return this.between(neighbours(this.looked[group], n - before, rest > 0), rest);
  }

  /** The values of the bins in question, group by group. */
  private lookedAt({ low, unit, width, counts }: Histogram, places: (Place | null)[]): Float64Array[] {
    const bins = Int32Array.from(places, (p) => p?.bin ?? -1);
    const nextBins = Int32Array.from(places, (p) => p?.nextBin ?? -1);
    const found = places.map((p, g) => {
      if (!p) return new Float64Array(0);
      const more = p.nextBin === p.bin ? 0 : counts[g * width + p.nextBin];
      return new Float64Array(counts[g * width + p.bin] + more);
    });
    const filled = new Int32Array(places.length);
    for (const chunk of this.chunks)
      lookThrough(chunk, { low, per: 1 / unit, bins, nextBins }, (group, value) => {
        found[group][filled[group]++] = value;
      });
    return found;
  }

  private listedResult(group: number): Value {
    const { starts, values } = this.sorted();
    const own = values.subarray(starts[group], starts[group + 1]);
    if (own.length === 0) return null;
    const at = this.share * (own.length - 1);
    const n = Math.floor(at);
    return this.between(neighbours(own, n, at > n), at - n);
  }

  /** The values in the order of their groups, made when it is first asked for. */
  private sorted(): { starts: Int32Array; values: Float64Array } {
    if (this.byGroup) return this.byGroup;
    const starts = new Int32Array(this.size + 1);
    for (const { groups, count } of this.chunks) {
      if (groups === null) starts[1] += count;
      else for (let i = 0; i < count; i++) starts[groups[i] + 1]++;
    }
    for (let g = 0; g < this.size; g++) starts[g + 1] += starts[g];
    const next = starts.slice();
    const all = new Float64Array(starts[this.size]);
    for (const { values, groups, count } of this.chunks) {
      if (groups === null) {
        all.set(values.subarray(0, count), next[0]);
        next[0] += count;
      } else for (let i = 0; i < count; i++) all[next[groups[i]]++] = values[i];
    }
    this.byGroup = { starts, values: all };
    return this.byGroup;
  }
}

/** The values of a chunk whose groups stay. */
function withoutLeftOut({ values, groups, count }: Chunk, into: Int32Array): Chunk {
  const kept = { values: new Float64Array(count), groups: groups && new Uint32Array(count), count: 0 };
  for (let i = 0; i < count; i++) {
    const group = groups === null ? 0 : groups[i];
    if (into[group] < 0) continue;
    kept.values[kept.count] = values[i];
    if (kept.groups) kept.groups[kept.count] = group;
    kept.count++;
  }
  return kept;
}

function moved(owners: Owners | null, into: Int32Array, count: number, groups: number): Owners {
  // Where all keep their numbers, nothing is copied.
  if (owners !== null && groups <= NARROW && into.every((to, group) => to === group)) return owners;
  const made = ownersFor(groups, count);
  for (let i = 0; i < count; i++) made[i] = into[owners === null ? 0 : owners[i]];
  return made;
}
