// Sums of doubles that keep what they lose. A null is NaN; `filter` zero stands for all.
import { isKept } from "./cells";

// @ts-ignore: decorator
@inline
function groupAt(groups: usize, i: i32): usize {
  return <usize>load<i32>(groups + (<usize>i << 2));
}

/** With the exact error of each addition (D. E. Knuth, The Art of Computer Programming 2, 4.2.2). */
export function sumCompensated(
  sums: usize,
  lost: usize,
  counts: usize,
  numbers: usize,
  groups: usize,
  length: i32,
  filter: usize,
): void {
  for (let i = 0; i < length; i++) {
    const x = load<f64>(numbers + (<usize>i << 3));
    if (x != x || !isKept(filter, i)) continue;
    const group = groupAt(groups, i);
    const sum = sums + (group << 3);
    const error = lost + (group << 3);
    const count = counts + (group << 2);
    const s = load<f64>(sum);
    const t = s + x;
    const part = t - s;
    store<f64>(error, load<f64>(error) + (s - (t - part) + (x - part)));
    store<f64>(sum, t);
    store<i32>(count, load<i32>(count) + 1);
  }
}
