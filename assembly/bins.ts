// How many values lie in each bin of a group, and where each value lies: a group has `width` bins of two to the
// power of `shift` places, which follow those of the group before.
import { isKept } from "./cells";

/** Writes the places from `written` on, where that is not zero; gives how many were counted. A null is NaN. */
export function countBins(
  counts: usize,
  low: f64,
  shift: i32,
  width: u32,
  numbers: usize,
  groups: usize,
  length: i32,
  filter: usize,
  written: usize,
): i32 {
  let count = 0;
  for (let i = 0; i < length; i++) {
    const x = load<f64>(numbers + (<usize>i << 3));
    if (x != x || !isKept(filter, i)) continue;
    const place = ((load<u32>(groups + (<usize>i << 2)) * width) << shift) + <u32>(<i32>(x - low));
    const bin = counts + (<usize>(place >>> shift) << 2);
    store<i32>(bin, load<i32>(bin) + 1);
    if (written != 0) store<u32>(written + (<usize>count << 2), place);
    count++;
  }
  return count;
}

/** Those of some places whose bin is marked; gives how many they are. */
export function pickPlaces(places: usize, marks: usize, shift: i32, length: i32, out: usize): i32 {
  let to = out;
  for (let i = 0; i < length; i++) {
    const place = load<u32>(places + (<usize>i << 2));
    store<u32>(to, place);
    to += <usize>load<u8>(marks + <usize>(place >>> shift)) << 2;
  }
  return <i32>((to - out) >> 2);
}

export function addCounts(into: usize, from: usize, length: i32): void {
  const fours = <usize>(length & ~3) << 2;
  for (let i: usize = 0; i < fours; i += 16)
    v128.store(into + i, i32x4.add(v128.load(into + i), v128.load(from + i)));
  for (let i = fours, end = <usize>length << 2; i < end; i += 4)
    store<i32>(into + i, load<i32>(into + i) + load<i32>(from + i));
}
