import { isTwoBits, type TwoBits, twoBitsAt, writeTwoBits } from "./two-bits";

/** Whole numbers in the narrowest array that holds them, or doubles. */
export type Stored = Int8Array | Int16Array | Int32Array | Float64Array;
/** Cells as they rest in a column: true and false are narrower than any array. */
export type Resting = Stored | TwoBits;
/** Codes into a dictionary, in the narrowest array that holds them. */
export type Codes = Int8Array | Int16Array | Int32Array;

/**
 * Cells as they are stored: each is `values[i] / scale`. Decimals with few places are whole numbers of their
 * last place, which gives back the very double that was stored (a quotient is rounded as the decimal itself
 * is), and whose sums are exact.
 */
export interface StoredCells {
  values: Resting;
  /** What stands for null: NaN among doubles, else the least number of the array. */
  none: number;
  scale: number;
}

const WIDTHS = [
  { Of: Int8Array, most: 2 ** 7 - 1 },
  { Of: Int16Array, most: 2 ** 15 - 1 },
  { Of: Int32Array, most: 2 ** 31 - 1 },
] as const;

/** Decimals with more places than this are kept as doubles. */
const MOST_SCALE = 10_000;

/** The least array for whole numbers from `-most` to `most`, its null beside them; null where there is none. */
function widthFor(most: number): (typeof WIDTHS)[number] | null {
  return WIDTHS.find((width) => most <= width.most) ?? null;
}

/** The scale at which all numbers are whole, with the largest of them; null where they stay doubles. */
function scaleOf(numbers: Float64Array): { scale: number; most: number } | null {
  let [scale, most] = [1, 0];
  for (let i = 0; i < numbers.length; i++) {
    const x = numbers[i];
    if (x !== x) continue;
    while (Math.round(x * scale) / scale !== x) {
      scale *= 10;
      if (scale > MOST_SCALE) return null;
    }
    const size = Math.abs(x);
    if (size > most) most = size;
  }
  return { scale, most: Math.round(most * scale) };
}

/** Packs numbers, NaN for null, as narrow as they are. */
export function packNumbers(numbers: Float64Array): StoredCells & { values: Stored } {
  const whole = scaleOf(numbers);
  const width = whole && widthFor(whole.most);
  if (!whole || !width) return { values: numbers.slice(), none: Number.NaN, scale: 1 };
  const { scale } = whole;
  const values = new width.Of(numbers.length);
  const none = noneOf(values);
  for (let i = 0; i < numbers.length; i++)
    values[i] = numbers[i] !== numbers[i] ? none : Math.round(numbers[i] * scale);
  return { values, none, scale };
}

/** Packs codes, -1 for null, as narrow as the number of texts allows. */
export function packCodes(codes: Int32Array, texts: number): Codes {
  const width = widthFor(texts);
  return width && width.Of !== Int32Array ? new width.Of(codes) : codes.slice();
}

/** One cell of a column. */
export const restingAt = (values: Resting, row: number): number =>
  isTwoBits(values) ? twoBitsAt(values, row) : values[row];

/**
 * The cells of `count` rows from `from` on, in an array: in `written`, which may be longer, where they rest
 * otherwise and it is given.
 */
export function runOf(values: Resting, from: number, count: number, written?: Int8Array): Stored {
  if (!isTwoBits(values)) return values.subarray(from, from + count);
  const out = written ?? new Int8Array(count);
  writeTwoBits(values, from, count, out);
  return out;
}

/** All cells of a column in an array, one a row. */
export const inArray = (values: Resting): Stored =>
  isTwoBits(values) ? runOf(values, 0, values.length) : values;

/** What stands for null among cells. */
export const noneOf = (values: Resting): number =>
  isTwoBits(values)
    ? -128
    : values instanceof Float64Array
      ? Number.NaN
      : -(2 ** (8 * values.BYTES_PER_ELEMENT - 1));

/** Whether a stored cell is null. */
export const isNone = (stored: number, none: number): boolean => stored === none || stored !== stored;
