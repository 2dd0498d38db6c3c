import type { Value } from "../../base/value";

/** Keys as numbers: the distinct ones, and for each group the place of its own among them. */
export interface Numbered {
  values: Value[];
  of: Int32Array;
}

/** The keys of `size` groups as numbers. */
export function numbered(keys: readonly Value[], size: number): Numbered {
  const numbers = new Map<Value, number>();
  const values: Value[] = [];
  const of = new Int32Array(size);
  for (let g = 0; g < size; g++) {
    let number = numbers.get(keys[g]);
    if (number === undefined) {
      number = values.push(keys[g]) - 1;
      numbers.set(keys[g], number);
    }
    of[g] = number;
  }
  return { values, of };
}

/** Pairs are numbered in a table while there are at most so many, else in a map. */
const DENSE = 1 << 22;

/** Gives pairs of numbers numbers of their own, in the order in which they are first met; and how many. */
function pairNumbers(of: Int32Array, count: number, { values, of: numbers }: Numbered): number {
  const width = values.length;
  let met = 0;
  if (count * width <= DENSE) {
    const known = new Int32Array(count * width).fill(-1);
    for (let g = 0; g < of.length; g++) {
      const pair = of[g] * width + numbers[g];
      if (known[pair] < 0) known[pair] = met++;
      of[g] = known[pair];
    }
    return met;
  }
  const known = new Map<number, number>();
  for (let g = 0; g < of.length; g++) {
    const pair = of[g] * width + numbers[g];
    const before = known.get(pair);
    if (before === undefined) known.set(pair, met);
    of[g] = before ?? met++;
  }
  return met;
}

/** The number of each group's line, of those that differ in a key; and for each line one of its groups. */
export function linesOf(columns: Numbered[], size: number): { of: Int32Array; first: Int32Array } {
  const of = new Int32Array(size);
  let count = Math.min(1, size);
  for (const column of columns) count = pairNumbers(of, count, column);
  const first = new Int32Array(count);
  for (let g = size - 1; g >= 0; g--) first[of[g]] = g;
  return { of, first };
}
