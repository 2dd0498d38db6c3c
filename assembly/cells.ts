// Cells as they are stored. Their kind says how: 1, 2 and 4 are whole numbers of so many bytes, 8 are
// doubles.

/** `all` is known where the loop is compiled, so that none asks at every turn. */
// @ts-ignore: decorator
@inline
export function placeAt(all: bool, at: usize, i: i32): usize {
  return all ? <usize>i : <usize>load<i32>(at + (<usize>i << 2));
}

/** Whether a row counts; `filter` zero stands for all. */
// @ts-ignore: decorator
@inline
export function isKept(filter: usize, i: i32): bool {
  return filter == 0 || load<u8>(filter + i) != 0;
}

// @ts-ignore: decorator
@inline
export function cellAt<T>(cells: usize, place: usize): T {
  return load<T>(cells + (place << alignof<T>()));
}

// @ts-ignore: decorator
@inline
function doublesOf<T>(all: bool, cells: usize, none: f64, at: usize, length: i32, out: usize): void {
  for (let i = 0; i < length; i++) {
    const x = <f64>cellAt<T>(cells, placeAt(all, at, i));
    store<f64>(out + (<usize>i << 3), x == none ? NaN : x);
  }
}
// @ts-ignore: decorator
@inline
function doubles<T>(cells: usize, none: f64, at: usize, length: i32, out: usize): void {
  if (at == 0) doublesOf<T>(true, cells, none, at, length, out);
  else doublesOf<T>(false, cells, none, at, length, out);
}

/** As doubles, `none` as NaN. */
export function toDoubles(cells: usize, kind: i32, none: f64, at: usize, length: i32, out: usize): void {
  if (kind == 1) doubles<i8>(cells, none, at, length, out);
  else if (kind == 2) doubles<i16>(cells, none, at, length, out);
  else if (kind == 4) doubles<i32>(cells, none, at, length, out);
  else doubles<f64>(cells, none, at, length, out);
}

/** Arrays have room for an even number of cells. */
export function scaled(stored: usize, scale: f64, length: i32, out: usize): void {
  const scales = f64x2.splat(scale);
  for (let at: usize = 0, end = <usize>length << 3; at < end; at += 16)
    v128.store(out + at, f64x2.div(v128.load(stored + at), scales));
}

export function gatherDoubles(values: usize, at: usize, length: i32, out: usize): void {
  for (let i = 0; i < length; i++)
    store<f64>(out + (<usize>i << 3), load<f64>(values + (placeAt(false, at, i) << 3)));
}

// @ts-ignore: decorator
@inline
function ints<T>(codes: usize, at: usize, length: i32, out: usize): void {
  if (at == 0) for (let i = 0; i < length; i++) store<i32>(out + (<usize>i << 2), <i32>cellAt<T>(codes, i));
  else
    for (let i = 0; i < length; i++)
      store<i32>(out + (<usize>i << 2), <i32>cellAt<T>(codes, placeAt(false, at, i)));
}

/** Codes as whole numbers of four bytes; `at` zero stands for all places, here and everywhere. */
export function gatherInts(codes: usize, kind: i32, at: usize, length: i32, out: usize): void {
  if (kind == 1) ints<i8>(codes, at, length, out);
  else if (kind == 2) ints<i16>(codes, at, length, out);
  else ints<i32>(codes, at, length, out);
}
