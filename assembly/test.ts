// Comparisons, and arithmetic on doubles. Arrays have room for eight more than their length.

// A loop for each comparison and for each operator: what names them is a type, which is known when the loop
// is compiled.
class Equal {}
class Unequal {}
class Less {}
class AtMost {}
class More {}
class AtLeast {}
class Plus {}
class Minus {}
class Times {}
class Through {}

// @ts-ignore: decorator
@inline
function compared<T>(a: v128, b: v128): v128 {
  if (idof<T>() == idof<Equal>()) return f64x2.eq(a, b);
  // Less or more: a null is unequal to nothing.
  if (idof<T>() == idof<Unequal>()) return v128.or(f64x2.lt(a, b), f64x2.gt(a, b));
  if (idof<T>() == idof<Less>()) return f64x2.lt(a, b);
  if (idof<T>() == idof<AtMost>()) return f64x2.le(a, b);
  if (idof<T>() == idof<More>()) return f64x2.gt(a, b);
  return f64x2.ge(a, b);
}

/** Eight numbers at a time. */
function marked<T>(a: usize, b: usize, length: i32, out: usize): void {
  for (let i = 0; i < length; i += 8) {
    const left = a + (<usize>i << 3);
    const right = b + (<usize>i << 3);
    const first = compared<T>(v128.load(left), v128.load(right));
    const second = compared<T>(v128.load(left, 16), v128.load(right, 16));
    const third = compared<T>(v128.load(left, 32), v128.load(right, 32));
    const fourth = compared<T>(v128.load(left, 48), v128.load(right, 48));
    const low = i32x4.shuffle(first, second, 0, 2, 4, 6);
    const high = i32x4.shuffle(third, fourth, 0, 2, 4, 6);
    const halves = i16x8.narrow_i32x4_s(low, high);
    const bytes = v128.and(i8x16.narrow_i16x8_s(halves, halves), i8x16.splat(1));
    v128.store64_lane(out + i, bytes, 0);
  }
}

/** `name` counts =, <>, <, <=, > and >= from zero. */
export function test(name: i32, a: usize, b: usize, length: i32, out: usize): void {
  if (name == 0) marked<Equal>(a, b, length, out);
  else if (name == 1) marked<Unequal>(a, b, length, out);
  else if (name == 2) marked<Less>(a, b, length, out);
  else if (name == 3) marked<AtMost>(a, b, length, out);
  else if (name == 4) marked<More>(a, b, length, out);
  else marked<AtLeast>(a, b, length, out);
}

// @ts-ignore: decorator
@inline
function reckoned<T>(a: v128, b: v128): v128 {
  if (idof<T>() == idof<Plus>()) return f64x2.add(a, b);
  if (idof<T>() == idof<Minus>()) return f64x2.sub(a, b);
  if (idof<T>() == idof<Times>()) return f64x2.mul(a, b);
  return f64x2.div(a, b);
}

/** What is not finite becomes NaN. */
function eachReckoned<T>(a: usize, b: usize, length: i32, out: usize): void {
  const nan = f64x2.splat(NaN);
  const zero = f64x2.splat(0);
  for (let at: usize = 0, end = <usize>length << 3; at < end; at += 16) {
    const x = reckoned<T>(v128.load(a + at), v128.load(b + at));
    v128.store(out + at, v128.bitselect(x, nan, f64x2.eq(f64x2.sub(x, x), zero)));
  }
}

/** `operator` is 0 for a sum, 1 for a difference, 2 for a product, 3 for a quotient. */
export function reckon(operator: i32, a: usize, b: usize, length: i32, out: usize): void {
  if (operator == 0) eachReckoned<Plus>(a, b, length, out);
  else if (operator == 1) eachReckoned<Minus>(a, b, length, out);
  else if (operator == 2) eachReckoned<Times>(a, b, length, out);
  else eachReckoned<Through>(a, b, length, out);
}
