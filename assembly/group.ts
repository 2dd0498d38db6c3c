// The group of each row; where one is not known yet, -1 or a complement stands, and the return is below zero.
import { cellAt, placeAt } from "./cells";

// @ts-ignore: decorator
@inline
function byCodeOf<T>(
  all: bool,
  codes: usize,
  groupOfCode: usize,
  at: usize,
  length: i32,
  groups: usize,
): i32 {
  let met = 0;
  for (let i = 0; i < length; i++) {
    const code = <i32>cellAt<T>(codes, placeAt(all, at, i));
    const group = load<i32>(groupOfCode + (<usize>(code + 1) << 2));
    store<i32>(groups + (<usize>i << 2), group);
    met |= group;
  }
  return met;
}
// @ts-ignore: decorator
@inline
function byCode<T>(codes: usize, groupOfCode: usize, at: usize, length: i32, groups: usize): i32 {
  return at == 0
    ? byCodeOf<T>(true, codes, groupOfCode, at, length, groups)
    : byCodeOf<T>(false, codes, groupOfCode, at, length, groups);
}

export function groupCodes(
  codes: usize,
  kind: i32,
  groupOfCode: usize,
  at: usize,
  length: i32,
  groups: usize,
): i32 {
  if (kind == 1) return byCode<i8>(codes, groupOfCode, at, length, groups);
  if (kind == 2) return byCode<i16>(codes, groupOfCode, at, length, groups);
  return byCode<i32>(codes, groupOfCode, at, length, groups);
}

/** `D` is what the distance between two cells is taken in: without a sign where it is whole. */
// @ts-ignore: decorator
@inline
function byDistanceOf<T, D>(
  all: bool,
  values: usize,
  low: D,
  table: usize,
  span: D,
  at: usize,
  length: i32,
  groups: usize,
): i32 {
  let met = 0;
  for (let i = 0; i < length; i++) {
    const distance = <D>cellAt<T>(values, placeAt(all, at, i)) - low;
    // What is no number is not near, nor what lies below: without a sign it is far above.
    const isNear = isFloat<D>() ? i32(distance >= 0) & i32(distance < span) : i32(distance < span);
    const found = load<i32>(table + (select<usize>(<usize>distance, 0, isNear) << 2));
    const group = select<i32>(found, -1, isNear);
    store<i32>(groups + (<usize>i << 2), group);
    met |= group;
  }
  return met;
}
// @ts-ignore: decorator
@inline
function byDistance<T, D>(
  values: usize,
  low: D,
  table: usize,
  span: D,
  at: usize,
  length: i32,
  groups: usize,
): i32 {
  return at == 0
    ? byDistanceOf<T, D>(true, values, low, table, span, at, length, groups)
    : byDistanceOf<T, D>(false, values, low, table, span, at, length, groups);
}

/** Of whole values, by their distance from `low`, below `span`; a null lies outside. */
export function groupNear(
  values: usize,
  kind: i32,
  low: f64,
  table: usize,
  span: i32,
  at: usize,
  length: i32,
  groups: usize,
): i32 {
  if (kind == 1) return byDistance<i8, u32>(values, <u32>(<i32>low), table, <u32>span, at, length, groups);
  if (kind == 2) return byDistance<i16, u32>(values, <u32>(<i32>low), table, <u32>span, at, length, groups);
  if (kind == 4) return byDistance<i32, u64>(values, <u64>(<i64>low), table, <u64>span, at, length, groups);
  return byDistance<f64, f64>(values, low, table, span, at, length, groups);
}

export function groupPairs(pairs: usize, width: i32, second: usize, length: i32, groups: usize): i32 {
  let all = 0;
  for (let i: usize = 0, end = <usize>length << 2; i < end; i += 4) {
    const first = load<i32>(groups + i);
    const group = load<i32>(pairs + (<usize>(first * width + load<i32>(second + i)) << 2));
    store<i32>(groups + i, group < 0 ? ~first : group);
    all |= group;
  }
  return all;
}

/** Arrays have room for a few entries more than their length. */
export function numberPairs(firsts: usize, width: i32, second: usize, length: i32): void {
  const widths = i32x4.splat(width);
  for (let i: usize = 0, end = <usize>length << 2; i < end; i += 16) {
    const first = i32x4.mul(v128.load(firsts + i), widths);
    v128.store(firsts + i, i32x4.add(first, v128.load(second + i)));
  }
}
