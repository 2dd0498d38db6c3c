// Which rows of a run are kept: the places of those that are, written one after the other. Where they are
// written there is room for four more.
import { cellAt, placeAt } from "./cells";

/** For each set of four neighbours the places of those in it, one after the other: 16 times 16 bytes. */
const PLACES: usize = memory.data(256);

for (let set = 0; set < 16; set++) {
  let to: usize = PLACES + (<usize>set << 4);
  for (let bit = 0; bit < 4; bit++)
    if ((set & (1 << bit)) != 0) {
      store<i32>(to, bit);
      to += 4;
    }
}

/** Writes the places of a set of neighbours from `i` on; gives where the next are written. */
// @ts-ignore: decorator
@inline
function putFour(to: usize, set: i32, i: i32): usize {
  v128.store(to, i32x4.add(v128.load(PLACES + (<usize>set << 4)), i32x4.splat(i)));
  return to + (<usize>popcnt(set) << 2);
}

// @ts-ignore: decorator
@inline
function countFrom(out: usize, to: usize): i32 {
  return <i32>((to - out) >> 2);
}

// @ts-ignore: decorator
@inline
function within<T>(x: v128, lows: v128, highs: v128): v128 {
  return v128.and(v128.ge<T>(x, lows), v128.le<T>(x, highs));
}

/** All cells of a run, as many at once as stand in 16 bytes; the rest one by one. */
// @ts-ignore: decorator
@inline
function runInRange<T>(cells: usize, low: T, high: T, count: i32, out: usize): i32 {
  const lanes = 16 / sizeof<T>();
  const lows = v128.splat<T>(low);
  const highs = v128.splat<T>(high);
  // Doubles come two at a time: two of these make a set of four.
  const step: i32 = sizeof<T>() == 8 ? 4 : <i32>lanes;
  const end = count - (count % step);
  let to = out;
  for (let i = 0; i < end; i += step) {
    const from = cells + (<usize>i << alignof<T>());
    const kept = within<T>(v128.load(from), lows, highs);
    if (sizeof<T>() == 8) {
      const more = within<T>(v128.load(from, 16), lows, highs);
      to = putFour(to, i64x2.bitmask(kept) | (i64x2.bitmask(more) << 2), i);
    } else {
      const first =
        sizeof<T>() == 1
          ? i8x16.bitmask(kept)
          : sizeof<T>() == 2
            ? i16x8.bitmask(kept)
            : i32x4.bitmask(kept);
      to = putFour(to, first & 15, i);
      if (sizeof<T>() < 4) to = putFour(to, (first >> 4) & 15, i + 4);
      if (sizeof<T>() < 2) {
        to = putFour(to, (first >> 8) & 15, i + 8);
        to = putFour(to, (first >> 12) & 15, i + 12);
      }
    }
  }
  for (let i = end; i < count; i++) {
    const x = cellAt<T>(cells, i);
    store<i32>(to, i);
    to += <usize>(i32(x >= low) & i32(x <= high)) << 2;
  }
  return countFrom(out, to);
}

// @ts-ignore: decorator
@inline
function amongInRange<T>(cells: usize, low: T, high: T, from: usize, length: i32, out: usize): i32 {
  let to = out;
  for (let i = 0; i < length; i++) {
    const at = load<i32>(from + (<usize>i << 2));
    const x = cellAt<T>(cells, at);
    store<i32>(to, at);
    to += <usize>(i32(x >= low) & i32(x <= high)) << 2;
  }
  return countFrom(out, to);
}

// @ts-ignore: decorator
@inline
function wholeInRange<T>(cells: usize, low: f64, high: f64, from: usize, length: i32, out: usize): i32 {
  const past = <f64>(<i64>1 << (8 * sizeof<T>() - 1));
  const least = max(ceil(low), -past);
  const most = min(floor(high), past - 1);
  // What is no number is neither.
  if (!(least <= most)) return 0;
  return from == 0
    ? runInRange<T>(cells, <T>least, <T>most, length, out)
    : amongInRange<T>(cells, <T>least, <T>most, from, length, out);
}

export function pickRange(
  cells: usize,
  kind: i32,
  low: f64,
  high: f64,
  from: usize,
  length: i32,
  out: usize,
): i32 {
  if (kind == 1) return wholeInRange<i8>(cells, low, high, from, length, out);
  if (kind == 2) return wholeInRange<i16>(cells, low, high, from, length, out);
  if (kind == 4) return wholeInRange<i32>(cells, low, high, from, length, out);
  return from == 0
    ? runInRange<f64>(cells, low, high, length, out)
    : amongInRange<f64>(cells, low, high, from, length, out);
}

// @ts-ignore: decorator
@inline
function markedOf<T>(all: bool, codes: usize, marks: usize, from: usize, length: i32, out: usize): i32 {
  let to = out;
  for (let i = 0; i < length; i++) {
    const at = <i32>placeAt(all, from, i);
    store<i32>(to, at);
    to += <usize>load<u8>(marks + <i32>cellAt<T>(codes, at) + 1) << 2;
  }
  return countFrom(out, to);
}
// @ts-ignore: decorator
@inline
function marked<T>(codes: usize, marks: usize, from: usize, length: i32, out: usize): i32 {
  return from == 0
    ? markedOf<T>(true, codes, marks, from, length, out)
    : markedOf<T>(false, codes, marks, from, length, out);
}

/** By the mark of each code, that of null first. */
export function pickCodes(codes: usize, kind: i32, marks: usize, from: usize, length: i32, out: usize): i32 {
  if (kind == 1) return marked<i8>(codes, marks, from, length, out);
  if (kind == 2) return marked<i16>(codes, marks, from, length, out);
  return marked<i32>(codes, marks, from, length, out);
}

/** `D` is what the distance between two cells is taken in. */
// @ts-ignore: decorator
@inline
function nearOf<T, D>(
  all: bool,
  cells: usize,
  below: D,
  marks: usize,
  from: usize,
  length: i32,
  out: usize,
): i32 {
  let to = out;
  for (let i = 0; i < length; i++) {
    const at = <i32>placeAt(all, from, i);
    store<i32>(to, at);
    const distance = <D>cellAt<T>(cells, at) - below;
    // What is no number, and what lies below, is null.
    to += <usize>load<u8>(marks + (distance > 0 ? <usize>distance : 0)) << 2;
  }
  return countFrom(out, to);
}
// @ts-ignore: decorator
@inline
function near<T, D>(cells: usize, below: D, marks: usize, from: usize, length: i32, out: usize): i32 {
  return from == 0
    ? nearOf<T, D>(true, cells, below, marks, from, length, out)
    : nearOf<T, D>(false, cells, below, marks, from, length, out);
}

/** By the mark of each whole cell's distance from `low`, after that of null, which lies below. */
export function pickNear(
  cells: usize,
  kind: i32,
  low: f64,
  marks: usize,
  from: usize,
  length: i32,
  out: usize,
): i32 {
  const below = low - 1;
  if (kind == 1) return near<i8, i32>(cells, <i32>below, marks, from, length, out);
  if (kind == 2) return near<i16, i32>(cells, <i32>below, marks, from, length, out);
  if (kind == 4) return near<i32, i64>(cells, <i64>below, marks, from, length, out);
  return near<f64, f64>(cells, below, marks, from, length, out);
}
