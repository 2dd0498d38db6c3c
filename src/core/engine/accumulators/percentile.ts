import type { Value } from "../../base/value";
import { takeLoops } from "../loops/current-loops";
import { BLOCK, type Loops } from "../loops/loops";
import { plainLoops } from "../loops/plain-loops";
import type { Vector } from "../vector";
import { type Accumulator, type GroupedRows, gathered } from "./accumulator";
import {
  binOf,
  type Chunk,
  emptyHistogram,
  type Histogram,
  listed,
  MOST_BINS,
  MOST_PLACES,
  NARROW,
  type Owners,
  ownersFor,
  type Part,
  sumOf,
  valueAt,
} from "./binned-values";
import { selectNth } from "./select-nth";

const CHUNK = 1 << 16;

interface PercentileState {
  chunks: Chunk[];
  histogram: Histogram | null;
  parts: Part[];
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

/**
 * Keeps the values of each group; gives the one at a share of their order, interpolated as SQL's
 * percentile_cont. Whole values of a known range are counted in bins besides, so that only those of the bins
 * in question are looked at again; where a bin holds a single value, nothing else is kept.
 */
export class Percentile implements Accumulator {
  readonly takesStored = true;
  private chunks: Chunk[] = [];
  private histogram: Histogram | null = null;
  private parts: Part[] = [];
  /** Where places are written until there are so many, and how many there are. */
  private filling: { places: Int32Array; count: number } | null = null;
  private size = 0;
  /** Values are so many times what they stand for. */
  private scale = 1;
  private byGroup: { starts: Int32Array; values: Float64Array } | null = null;
  /** Of each group, where a histogram tells. */
  private ends: (Place | null)[] | null = null;
  /** Of each group, the values of the bins in question. */
  private looked: Float64Array[] | null = null;

  constructor(readonly share: number) {}

  /** The histogram with room for the groups; null where the values have none. */
  private reserve(
    size: number,
    within: { low: number; span: number } | null | undefined,
    loops: Loops = plainLoops,
  ): Histogram | null {
    this.size = Math.max(this.size, size);
    this.byGroup = this.ends = this.looked = null;
    if (this.histogram === null && this.chunks.length > 0) return null;
    const known = this.histogram ?? (within ? emptyHistogram(within) : null);
    const fits = within && known && known.low === within.low && known.span === within.span;
    const bins = this.size * (known?.width ?? 0);
    if (!fits || bins > MOST_BINS || bins * 2 ** known.shift > MOST_PLACES) {
      if (this.histogram) {
        this.putAside(loops);
        this.chunks.push(listed(this.histogram, this.parts));
      }
      this.histogram = null;
      this.parts = [];
      return null;
    }
    if (bins > known.counts.length) {
      const counts = loops.ints(Math.max(bins, Math.min(2 * known.counts.length, MOST_BINS)));
      counts.set(known.counts);
      known.counts = counts;
    }
    this.histogram = known;
    return known;
  }

  /** Makes a part of the places that were written. */
  private putAside(loops: Loops): void {
    if (!this.filling || this.filling.count === 0) return;
    const written = this.filling.places.subarray(0, this.filling.count);
    const places = loops.kept(written);
    this.parts.push({ places, into: null });
    // What was kept as it is must not be written over.
    if (places.buffer === written.buffer) this.filling = null;
    else this.filling.count = 0;
  }

  settle(loops: Loops): void {
    this.putAside(loops);
    this.filling = null;
    if (this.histogram) this.histogram.counts = loops.kept(this.histogram.counts);
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
    if (histogram) {
      if (this.filling && this.filling.count + length > this.filling.places.length) this.putAside(loops);
      if (histogram.shift > 0) this.filling ??= { places: loops.ints(Math.max(CHUNK, length)), count: 0 };
      const count = loops.countBins(histogram, numbers, groups, length, filter, this.filling);
      if (this.filling) this.filling.count += count;
      return;
    }
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

  /** Settled, where it has met values in a scan. */
  state(): PercentileState {
    const { chunks, histogram, parts, scale } = this;
    return { chunks, histogram, parts, scale };
  }

  absorb(state: unknown, into: Int32Array, groups: number, loops: Loops = plainLoops): void {
    const { chunks, histogram, parts, scale } = state as PercentileState;
    // One that has met no value yet says nothing of how they are kept.
    if (chunks.length === 0 && histogram === null) {
      this.size = Math.max(this.size, groups);
      return;
    }
    this.scale = scale;
    const own = this.reserve(groups, histogram, loops);
    if (own && histogram) {
      const { width, counts } = histogram;
      for (let g = 0; g < Math.min(into.length, Math.floor(counts.length / width)); g++)
        if (into[g] >= 0) loops.addBins(own, into[g], counts, g);
      // Parts that share where their groups belong go on sharing it.
      const afters = new Map<Int32Array | null, Int32Array>([[null, into]]);
      for (const { places, into: before } of parts) {
        const after = afters.get(before) ?? (before as Int32Array).map((g) => (g < 0 ? -1 : into[g]));
        afters.set(before, after);
        this.parts.push({ places, into: after });
      }
      return;
    }
    const all = histogram ? [listed(histogram, parts)] : chunks;
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
    this.ends ??= Array.from({ length: this.size }, (_, g) => this.placeOf(histogram, g));
    const place = this.ends[group];
    if (!place) return null;
    const { bin, nextBin, before, n, rest } = place;
    if (histogram.shift === 0)
      return this.between({ low: histogram.low + bin, high: histogram.low + nextBin }, rest);
    this.looked ??= this.lookedAt(histogram, this.ends);
    return this.between(neighbours(this.looked[group], n - before, rest > 0), rest);
  }

  /** The values of the bins in question, group by group. */
  private lookedAt(histogram: Histogram, ends: (Place | null)[]): Float64Array[] {
    const { shift, width, counts } = histogram;
    const found = ends.map((p, g) => {
      if (!p) return new Float64Array(0);
      const more = p.nextBin === p.bin ? 0 : counts[g * width + p.nextBin];
      return new Float64Array(counts[g * width + p.bin] + more);
    });
    const filled = new Int32Array(ends.length);
    const loops = takeLoops();
    const [piece, kept] = [loops.ints(BLOCK), loops.ints(BLOCK + 4)];
    const tables = new Map<Int32Array | null, Uint8Array>();
    for (const { places, into } of this.parts) {
      let table = tables.get(into);
      if (!table) tables.set(into, (table = wanted(ends, into, width, loops)));
      for (let from = 0; from < places.length; from += BLOCK) {
        const length = Math.min(BLOCK, places.length - from);
        piece.set(places.subarray(from, from + length));
        const many = loops.pickPlaces(piece, table, shift, length, kept);
        for (let i = 0; i < many; i++) {
          const { value, group } = valueAt(histogram, kept[i], into);
          found[group][filled[group]++] = value;
        }
      }
    }
    loops.end();
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

/** For each bin of the groups that belong to others by now whether its values are looked for. */
function wanted(ends: (Place | null)[], into: Int32Array | null, width: number, loops: Loops): Uint8Array {
  const groups = into?.length ?? ends.length;
  const table = loops.bytes(groups * width);
  for (let g = 0; g < groups; g++) {
    const end = ends[into ? into[g] : g];
    if (end) table[g * width + end.bin] = table[g * width + end.nextBin] = 1;
  }
  return table;
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
