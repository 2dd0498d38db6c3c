import type { Bins } from "../loops/loops";

/**
 * The groups of values: half as wide while all of them fit into 16 bits. Where several tables meet, there can
 * be more groups than one scan makes.
 */
export type Owners = Uint16Array | Uint32Array;
export const NARROW = 1 << 16;
export const ownersFor = (groups: number, count: number): Owners =>
  groups <= NARROW ? new Uint16Array(count) : new Uint32Array(count);

/** Some of the values, and the group of each; null where all are of group 0. */
export interface Chunk {
  values: Float64Array;
  groups: Owners | null;
  count: number;
}

/** The most bins of all groups: they stay near the processor. */
export const MOST_BINS = 1 << 18;
/** The most bins of a group. */
const MOST_WIDTH = 1 << 10;
/** Places are whole numbers below this. */
export const MOST_PLACES = 2 ** 31;

/** Whole values of a known range, counted in bins of a power of two of them. */
export interface Histogram extends Bins {
  span: number;
}

export function emptyHistogram({ low, span }: { low: number; span: number }): Histogram {
  let shift = 0;
  while (span / 2 ** shift > MOST_WIDTH) shift++;
  return { low, span, shift, width: Math.ceil(span / 2 ** shift), counts: new Int32Array(0) };
}

/**
 * The places of some values where a bin holds several: those of a group follow those of the group before, as
 * its bins do. `into` tells for each group to which one it belongs by now; null where to itself.
 */
export interface Part {
  places: Int32Array;
  into: Int32Array | null;
}

/** The value at a place, and its group. */
export function valueAt({ low, shift, width }: Histogram, place: number, into: Int32Array | null) {
  const each = width * 2 ** shift;
  const group = Math.floor((place >>> 0) / each);
  return { value: low + ((place >>> 0) - group * each), group: into ? into[group] : group };
}

/** The values of a histogram as a list. */
export function listed(histogram: Histogram, parts: Part[]): Chunk {
  const { low, shift, width, counts } = histogram;
  const count = sumOf(counts);
  const values = new Float64Array(count);
  const groups = ownersFor(Math.ceil(counts.length / width), count);
  let at = 0;
  if (shift > 0) {
    for (const { places, into } of parts)
      for (const place of places) {
        const { value, group } = valueAt(histogram, place, into);
        if (group < 0) continue;
        values[at] = value;
        groups[at++] = group;
      }
    return { values, groups, count: at };
  }
  for (let i = 0; i < counts.length; i++)
    for (let n = counts[i]; n > 0; n--) {
      values[at] = (i % width) + low;
      groups[at++] = Math.floor(i / width);
    }
  return { values, groups, count };
}

export function sumOf(counts: Int32Array): number {
  let sum = 0;
  for (let i = 0; i < counts.length; i++) sum += counts[i];
  return sum;
}

/** The bin in which the n-th value lies, and how many lie in bins before it. */
export function binOf(counts: Int32Array, n: number): { bin: number; before: number } {
  let bin = 0;
  let before = 0;
  for (let next = counts[0]; next <= n; next += counts[bin]) {
    before = next;
    bin++;
  }
  return { bin, before };
}
