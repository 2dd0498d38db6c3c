// What rows give to their groups, a record of doubles for each: lanes that are added up, then lanes of which
// the largest is kept, then the smallest. Each kind fills pairs.
import { cellAt, placeAt } from "./cells";

// @ts-ignore: decorator
@inline
function counts<T>(x: T, none: f64): i32 {
  return i32(<f64>x != none) & i32(x == x);
}

// @ts-ignore: decorator
@inline
function valuesOf<T>(
  all: bool,
  cells: usize,
  none: f64,
  at: usize,
  filter: usize,
  length: i32,
  to: usize,
  stride: usize,
  empty: f64,
): void {
  if (filter == 0 && none != none && !isFloat<T>()) {
    for (let i = 0; i < length; i++) {
      store<f64>(to, <f64>cellAt<T>(cells, placeAt(all, at, i)));
      to += stride;
    }
    return;
  }
  if (filter == 0) {
    for (let i = 0; i < length; i++) {
      const x = cellAt<T>(cells, placeAt(all, at, i));
      store<f64>(to, select<f64>(<f64>x, empty, counts<T>(x, none)));
      to += stride;
    }
    return;
  }
  for (let i = 0; i < length; i++) {
    const x = cellAt<T>(cells, placeAt(all, at, i));
    store<f64>(to, select<f64>(<f64>x, empty, counts<T>(x, none) & <i32>load<u8>(filter + i)));
    to += stride;
  }
}
// @ts-ignore: decorator
@inline
function values<T>(
  cells: usize,
  none: f64,
  at: usize,
  filter: usize,
  length: i32,
  to: usize,
  stride: usize,
  empty: f64,
): void {
  if (at == 0) valuesOf<T>(true, cells, none, at, filter, length, to, stride, empty);
  else valuesOf<T>(false, cells, none, at, filter, length, to, stride, empty);
}

/**
 * Writes cells into the lane of records that begins at `to`, `empty` where they are null (which NaN as `none`
 * says of no whole number) or filtered out; `stride` is the bytes of a record.
 */
export function fillValues(
  cells: usize,
  kind: i32,
  none: f64,
  at: usize,
  filter: usize,
  length: i32,
  to: usize,
  stride: usize,
  empty: f64,
): void {
  if (kind == 1) values<i8>(cells, none, at, filter, length, to, stride, empty);
  else if (kind == 2) values<i16>(cells, none, at, filter, length, to, stride, empty);
  else if (kind == 4) values<i32>(cells, none, at, filter, length, to, stride, empty);
  else values<f64>(cells, none, at, filter, length, to, stride, empty);
}

// @ts-ignore: decorator
@inline
function ones<T>(
  cells: usize,
  none: f64,
  at: usize,
  filter: usize,
  length: i32,
  to: usize,
  stride: usize,
): void {
  const all = at == 0;
  for (let i = 0; i < length; i++) {
    const isKept = filter == 0 ? 1 : <i32>load<u8>(filter + i);
    store<f64>(to, <f64>(counts<T>(cellAt<T>(cells, placeAt(all, at, i)), none) & isKept));
    to += stride;
  }
}

/** The same with 1 for what is neither, else 0. */
export function fillCounts(
  cells: usize,
  kind: i32,
  none: f64,
  at: usize,
  filter: usize,
  length: i32,
  to: usize,
  stride: usize,
): void {
  if (kind == 1) ones<i8>(cells, none, at, filter, length, to, stride);
  else if (kind == 2) ones<i16>(cells, none, at, filter, length, to, stride);
  else if (kind == 4) ones<i32>(cells, none, at, filter, length, to, stride);
  else ones<f64>(cells, none, at, filter, length, to, stride);
}

/** A filter's rows as 1 and 0. */
export function fillFilter(filter: usize, length: i32, to: usize, stride: usize): void {
  for (let i = 0; i < length; i++) {
    store<f64>(to, <f64>load<u8>(filter + i));
    to += stride;
  }
}

// @ts-ignore: decorator
@inline
function added(total: usize, record: usize): void {
  v128.store(total, f64x2.add(v128.load(total), v128.load(record)));
}

// @ts-ignore: decorator
@inline
function totalAt(totals: usize, groups: usize, i: i32, stride: usize): usize {
  return totals + <usize>load<i32>(groups + (<usize>i << 2)) * stride;
}

function addOne(totals: usize, groups: usize, records: usize, stride: usize, length: i32): void {
  for (let i = 0; i < length; i++) {
    added(totalAt(totals, groups, i, stride), records);
    records += stride;
  }
}

function addTwo(totals: usize, groups: usize, records: usize, stride: usize, length: i32): void {
  for (let i = 0; i < length; i++) {
    const total = totalAt(totals, groups, i, stride);
    added(total, records);
    added(total + 16, records + 16);
    records += stride;
  }
}

// @ts-ignore: decorator
@inline
function keptLargest(total: usize, record: usize): void {
  v128.store(total, f64x2.pmax(v128.load(total), v128.load(record)));
}

/** What boards ask most often beside sums: two pairs of them and a pair of largest at a time. */
function addTwoAndKeepLargest(totals: usize, groups: usize, records: usize, length: i32): void {
  for (let i = 0; i < length; i++) {
    const total = totalAt(totals, groups, i, 48);
    added(total, records);
    added(total + 16, records + 16);
    keptLargest(total + 32, records + 32);
    records += 48;
  }
}

function keepLargest(totals: usize, groups: usize, records: usize, stride: usize, length: i32): void {
  for (let i = 0; i < length; i++) {
    keptLargest(totalAt(totals, groups, i, stride), records);
    records += stride;
  }
}

function keepSmallest(totals: usize, groups: usize, records: usize, stride: usize, length: i32): void {
  for (let i = 0; i < length; i++) {
    const total = totalAt(totals, groups, i, stride);
    v128.store(total, f64x2.pmin(v128.load(total), v128.load(records)));
    records += stride;
  }
}

/**
 * Takes the records of rows into the totals of their groups, with so many pairs of each kind; NaN is neither
 * larger nor smaller than anything.
 */
export function foldLanes(
  totals: usize,
  groups: usize,
  records: usize,
  sums: i32,
  largest: i32,
  smallest: i32,
  length: i32,
): void {
  const stride = <usize>(sums + largest + smallest) << 4;
  if (sums == 2 && largest == 1 && smallest == 0) {
    addTwoAndKeepLargest(totals, groups, records, length);
    return;
  }
  for (; sums >= 2; sums -= 2) {
    addTwo(totals, groups, records, stride, length);
    totals += 32;
    records += 32;
  }
  if (sums == 1) {
    addOne(totals, groups, records, stride, length);
    totals += 16;
    records += 16;
  }
  for (; largest > 0; largest--) {
    keepLargest(totals, groups, records, stride, length);
    totals += 16;
    records += 16;
  }
  for (; smallest > 0; smallest--) {
    keepSmallest(totals, groups, records, stride, length);
    totals += 16;
    records += 16;
  }
}
