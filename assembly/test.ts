// Comparisons, and arithmetic on doubles. Arrays have room for eight more than their length.

export const EQUAL = 0;
export const UNEQUAL = 1;
export const LESS = 2;
export const AT_MOST = 3;
export const MORE = 4;
export const AT_LEAST = 5;

// @ts-ignore: decorator
@inline
function compared(test: i32, a: v128, b: v128): v128 {
  if (test == EQUAL) return f64x2.eq(a, b);
  // Neither less nor more: a null is unequal to nothing.
  if (test == UNEQUAL) return v128.or(f64x2.lt(a, b), f64x2.gt(a, b));
  if (test == LESS) return f64x2.lt(a, b);
  if (test == AT_MOST) return f64x2.le(a, b);
  if (test == MORE) return f64x2.gt(a, b);
  return f64x2.ge(a, b);
}

/** Each eighth of `a` beside that of `b`, or beside one number where `b` is zero. */
// @ts-ignore: decorator
@inline
function marked(test: i32, a: usize, b: usize, number: f64, length: i32, out: usize): void {
  const same = f64x2.splat(number);
  for (let i = 0; i < length; i += 8) {
    const left = a + (<usize>i << 3);
    const right = b + (<usize>i << 3);
    const first = compared(test, v128.load(left), b == 0 ? same : v128.load(right));
    const second = compared(test, v128.load(left, 16), b == 0 ? same : v128.load(right, 16));
    const third = compared(test, v128.load(left, 32), b == 0 ? same : v128.load(right, 32));
    const fourth = compared(test, v128.load(left, 48), b == 0 ? same : v128.load(right, 48));
    const low = i32x4.shuffle(first, second, 0, 2, 4, 6);
    const high = i32x4.shuffle(third, fourth, 0, 2, 4, 6);
    const halves = i16x8.narrow_i32x4_s(low, high);
    const bytes = v128.and(i8x16.narrow_i16x8_s(halves, halves), i8x16.splat(1));
    v128.store64_lane(out + i, bytes, 0);
  }
}

export function test(name: i32, a: usize, b: usize, number: f64, length: i32, out: usize): void {
  switch (name) {
    case EQUAL:
      return marked(EQUAL, a, b, number, length, out);
    case UNEQUAL:
      return marked(UNEQUAL, a, b, number, length, out);
    case LESS:
      return marked(LESS, a, b, number, length, out);
    case AT_MOST:
      return marked(AT_MOST, a, b, number, length, out);
    case MORE:
      return marked(MORE, a, b, number, length, out);
    default:
      return marked(AT_LEAST, a, b, number, length, out);
  }
}

// @ts-ignore: decorator
@inline
function reckoned(operator: i32, a: v128, b: v128): v128 {
  if (operator == 0) return f64x2.add(a, b);
  if (operator == 1) return f64x2.sub(a, b);
  if (operator == 2) return f64x2.mul(a, b);
  return f64x2.div(a, b);
}

/** What is not finite becomes NaN. */
// @ts-ignore: decorator
@inline
function eachReckoned(operator: i32, a: usize, b: usize, length: i32, out: usize): void {
  const nan = f64x2.splat(NaN);
  const zero = f64x2.splat(0);
  for (let at: usize = 0, end = <usize>length << 3; at < end; at += 16) {
    const x = reckoned(operator, v128.load(a + at), v128.load(b + at));
    v128.store(out + at, v128.bitselect(x, nan, f64x2.eq(f64x2.sub(x, x), zero)));
  }
}

/** `operator` is 0 for a sum, 1 for a difference, 2 for a product, 3 for a quotient. */
export function reckon(operator: i32, a: usize, b: usize, length: i32, out: usize): void {
  if (operator == 0) eachReckoned(0, a, b, length, out);
  else if (operator == 1) eachReckoned(1, a, b, length, out);
  else if (operator == 2) eachReckoned(2, a, b, length, out);
  else eachReckoned(3, a, b, length, out);
}
