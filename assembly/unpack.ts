// Cells as they are stored, as doubles and as whole numbers of 32 bits.

/** `width` is the bytes of a stored whole number: 1, 2 or 4. */
export function toDoubles(from: usize, width: i32, out: usize, length: i32): void {
  if (width == 1)
    for (let i = 0; i < length; i++) store<f64>(out + (<usize>i << 3), <f64>load<i8>(from + i));
  else if (width == 2)
    for (let i = 0; i < length; i++) store<f64>(out + (<usize>i << 3), <f64>load<i16>(from + (<usize>i << 1)));
  else
    for (let i = 0; i < length; i++) store<f64>(out + (<usize>i << 3), <f64>load<i32>(from + (<usize>i << 2)));
}

export function toInts(from: usize, width: i32, out: usize, length: i32): void {
  if (width == 1)
    for (let i = 0; i < length; i++) store<i32>(out + (<usize>i << 2), load<i8>(from + i));
  else
    for (let i = 0; i < length; i++) store<i32>(out + (<usize>i << 2), load<i16>(from + (<usize>i << 1)));
}

/** `none` becomes NaN. Arrays have room for an even number of cells. */
export function markNulls(stored: usize, none: f64, length: i32, out: usize): void {
  const nones = f64x2.splat(none);
  const nan = f64x2.splat(NaN);
  for (let at: usize = 0, end = <usize>length << 3; at < end; at += 16) {
    const x = v128.load(stored + at);
    v128.store(out + at, v128.bitselect(nan, x, f64x2.eq(x, nones)));
  }
}

export function scaled(stored: usize, scale: f64, length: i32, out: usize): void {
  const scales = f64x2.splat(scale);
  for (let at: usize = 0, end = <usize>length << 3; at < end; at += 16)
    v128.store(out + at, f64x2.div(v128.load(stored + at), scales));
}

export function gatherDoubles(values: usize, at: usize, length: i32, out: usize): void {
  for (let i = 0; i < length; i++)
    store<f64>(out + (<usize>i << 3), load<f64>(values + (<usize>load<i32>(at + (<usize>i << 2)) << 3)));
}

export function gatherInts(values: usize, at: usize, length: i32, out: usize): void {
  for (let i = 0; i < length; i++)
    store<i32>(out + (<usize>i << 2), load<i32>(values + (<usize>load<i32>(at + (<usize>i << 2)) << 2)));
}
