// Which rows of a run are kept: the places of those that are, written one after the other.

/**
 * For each set of four neighbours the places of those in it, written one after the other: 16 times 16 bytes.
 */
const PLACES: usize = memory.data(256);

for (let set = 0; set < 16; set++) {
  let to: usize = PLACES + (<usize>set << 4);
  for (let bit = 0; bit < 4; bit++)
    if ((set & (1 << bit)) != 0) {
      store<i32>(to, bit);
      to += 4;
    }
}

// @ts-ignore: decorator
@inline
function within(x: v128, lows: v128, highs: v128): i32 {
  return i64x2.bitmask(v128.and(f64x2.ge(x, lows), f64x2.le(x, highs)));
}

/** `out` has room for four more than are kept. */
export function pickRange(cells: usize, low: f64, high: f64, count: i32, out: usize): i32 {
  const lows = f64x2.splat(low);
  const highs = f64x2.splat(high);
  let to = out;
  const fours = count & ~3;
  for (let i = 0; i < fours; i += 4) {
    const from = cells + (<usize>i << 3);
    const set = within(v128.load(from), lows, highs) | (within(v128.load(from, 16), lows, highs) << 2);
    v128.store(to, i32x4.add(v128.load(PLACES + (<usize>set << 4)), i32x4.splat(i)));
    to += <usize>popcnt(set) << 2;
  }
  for (let i = fours; i < count; i++) {
    const x = load<f64>(cells + (<usize>i << 3));
    store<i32>(to, i);
    to += <usize>(i32(x >= low) & i32(x <= high)) << 2;
  }
  return <i32>((to - out) >> 2);
}

export function pickRangeAmong(cells: usize, low: f64, high: f64, from: usize, length: i32, out: usize): i32 {
  let to = out;
  for (let i = 0; i < length; i++) {
    const at = load<i32>(from + (<usize>i << 2));
    const x = load<f64>(cells + (<usize>at << 3));
    store<i32>(to, at);
    to += <usize>(i32(x >= low) & i32(x <= high)) << 2;
  }
  return <i32>((to - out) >> 2);
}

/** By the mark of each code, that of null first; `from` zero stands for all places. */
export function pickCodes(codes: usize, marks: usize, from: usize, length: i32, out: usize): i32 {
  let to = out;
  for (let i = 0; i < length; i++) {
    const at = from == 0 ? i : load<i32>(from + (<usize>i << 2));
    store<i32>(to, at);
    to += <usize>load<u8>(marks + load<i32>(codes + (<usize>at << 2)) + 1) << 2;
  }
  return <i32>((to - out) >> 2);
}

/** By the mark of each whole cell's distance from `low`, that of null, which lies below, first. */
export function pickNear(cells: usize, low: f64, marks: usize, from: usize, length: i32, out: usize): i32 {
  let to = out;
  for (let i = 0; i < length; i++) {
    const at = from == 0 ? i : load<i32>(from + (<usize>i << 2));
    store<i32>(to, at);
    const distance = <i32>max(load<f64>(cells + (<usize>at << 3)) - low + 1, 0);
    to += <usize>load<u8>(marks + distance) << 2;
  }
  return <i32>((to - out) >> 2);
}
