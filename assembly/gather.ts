// What aggregates gather of the rows of a block, by their groups. A null is NaN; `filter` zero stands for all.

// @ts-ignore: decorator
@inline
function isKept(filter: usize, i: i32): bool {
  return filter == 0 || load<u8>(filter + i) != 0;
}
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

/** A bit for each value of a group, `words` words a group. */
// @ts-ignore: decorator
@inline
function markOne(marks: usize, counts: usize, group: usize, distance: i32, words: i32): void {
  const word = marks + ((group * <usize>words + <usize>(distance >>> 5)) << 2);
  const bit = 1 << (distance & 31);
  const had = load<i32>(word);
  const isNew = i32((had & bit) == 0);
  store<i32>(word, had | bit);
  const count = counts + (group << 3);
  store<f64>(count, load<f64>(count) + <f64>isNew);
}

/** Of codes, -1 is null. */
export function markInts(
  marks: usize,
  counts: usize,
  low: i32,
  words: i32,
  codes: usize,
  groups: usize,
  length: i32,
  filter: usize,
): void {
  for (let i = 0; i < length; i++) {
    const code = load<i32>(codes + (<usize>i << 2));
    if (code >= 0 && isKept(filter, i)) markOne(marks, counts, groupAt(groups, i), code - low, words);
  }
}

export function markDoubles(
  marks: usize,
  counts: usize,
  low: f64,
  words: i32,
  numbers: usize,
  groups: usize,
  length: i32,
  filter: usize,
): void {
  for (let i = 0; i < length; i++) {
    const x = load<f64>(numbers + (<usize>i << 3));
    if (x == x && isKept(filter, i)) markOne(marks, counts, groupAt(groups, i), <i32>(x - low), words);
  }
}

/** How many values of each group lie in each bin, `width` of them a group and `per` a unit. */
export function countBins(
  counts: usize,
  low: f64,
  per: f64,
  width: i32,
  numbers: usize,
  groups: usize,
  length: i32,
  filter: usize,
): void {
  for (let i = 0; i < length; i++) {
    const x = load<f64>(numbers + (<usize>i << 3));
    if (x != x || !isKept(filter, i)) continue;
    const to = counts + ((groupAt(groups, i) * <usize>width + <usize>(<i32>((x - low) * per))) << 2);
    store<i32>(to, load<i32>(to) + 1);
  }
}
