// A bit for each value of each group: far more than stay near the processor, met in no order. Places are put
// into the bucket of their region first, and a full bucket is worked off at once, so that memory is walked
// region by region (radix partitioning: S. Manegold, P. Boncz, M. Kersten, Optimizing Main-Memory Join
// on Modern Hardware, 2002).
import { isKept } from "./cells";

/** How many places a bucket holds. */
const BUCKET = 1024;
/** The bytes of a bucket: a little more, so that the ends of all do not fall on the same lines of the cache. */
const BUCKET_BYTES: usize = 4 * BUCKET + 64;

/** A region is 256 kB, a bit for each place. */
const REGION_SHIFT = 21;

// @ts-ignore: decorator
@inline
function take(into: usize, place: u32): void {
  const word = into + (<usize>(place >>> 5) << 2);
  store<i32>(word, load<i32>(word) | (1 << (place & 31)));
}

/** Works off the first places of a bucket. */
function empty(into: usize, bucket: usize, filled: i32): void {
  for (let i = 0; i < filled; i++) take(into, load<u32>(bucket + (<usize>i << 2)));
}

/**
 * `buckets` are the counts of what 64 buckets hold and then the buckets, or zero where there are so few places
 * that each is taken at once.
 */
// @ts-ignore: decorator
@inline
function put(into: usize, buckets: usize, place: u32): void {
  if (buckets == 0) {
    take(into, place);
    return;
  }
  const region = <usize>(place >>> REGION_SHIFT);
  const filledAt = buckets + (region << 2);
  const filled = load<i32>(filledAt);
  const bucket = buckets + 256 + region * BUCKET_BYTES;
  store<u32>(bucket + (<usize>filled << 2), place);
  if (filled + 1 == BUCKET) {
    empty(into, bucket, BUCKET);
    store<i32>(filledAt, 0);
  } else store<i32>(filledAt, filled + 1);
}

// @ts-ignore: decorator
@inline
function firstOf(groups: usize, i: i32, width: u32): u32 {
  return load<u32>(groups + (<usize>i << 2)) * width;
}

/** `width` is how many places a group has; of codes, -1 is null. */
export function markInts(
  marks: usize,
  buckets: usize,
  low: i32,
  width: u32,
  codes: usize,
  groups: usize,
  length: i32,
  filter: usize,
): void {
  for (let i = 0; i < length; i++) {
    const code = load<i32>(codes + (<usize>i << 2));
    if (code >= 0 && isKept(filter, i)) put(marks, buckets, firstOf(groups, i, width) + (code - low));
  }
}

/** A null is NaN. */
export function markDoubles(
  marks: usize,
  buckets: usize,
  low: f64,
  width: u32,
  numbers: usize,
  groups: usize,
  length: i32,
  filter: usize,
): void {
  for (let i = 0; i < length; i++) {
    const x = load<f64>(numbers + (<usize>i << 3));
    if (x == x && isKept(filter, i)) put(marks, buckets, firstOf(groups, i, width) + <u32>(<i32>(x - low)));
  }
}

export function emptyMarks(marks: usize, buckets: usize): void {
  for (let region: usize = 0; region < 64; region++) {
    const filledAt = buckets + (region << 2);
    empty(marks, buckets + 256 + region * BUCKET_BYTES, load<i32>(filledAt));
    store<i32>(filledAt, 0);
  }
}

/** How many bits are set in some words. */
export function bitsIn(words: usize, length: i32): i32 {
  let bits: i64 = 0;
  const twos = length & ~1;
  for (let i = 0; i < twos; i += 2) bits += popcnt(load<i64>(words + (<usize>i << 2)));
  if (twos < length) bits += popcnt(load<u32>(words + (<usize>twos << 2)));
  return <i32>bits;
}

export function uniteWords(into: usize, from: usize, length: i32): void {
  const fours = <usize>(length & ~3) << 2;
  for (let i: usize = 0; i < fours; i += 16)
    v128.store(into + i, v128.or(v128.load(into + i), v128.load(from + i)));
  for (let i = fours, end = <usize>length << 2; i < end; i += 4)
    store<i32>(into + i, load<i32>(into + i) | load<i32>(from + i));
}
