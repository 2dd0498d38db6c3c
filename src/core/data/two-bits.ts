/**
 * True and false in two bits a row, four rows a byte from its lowest bits on: 0 is false, 1 is true,
 * 2 is null.
 */
export interface TwoBits {
  bits: Uint8Array;
  /** The number of rows. */
  length: number;
}

/** What two bits stand for among cells of a byte each. */
const CELLS = Int8Array.of(0, 1, -128, -128);

/** The four cells that each byte stands for, side by side. */
const FOURS = new Int32Array(256);
new Int8Array(FOURS.buffer).forEach((_, at, cells) => {
  cells[at] = CELLS[((at >> 2) >> (2 * (at & 3))) & 3];
});

/** Whether cells stand in two bits each. */
export const isTwoBits = (cells: object): cells is TwoBits => "bits" in cells;

/** How many bytes so many rows take. */
export const twoBitBytes = (rows: number): number => Math.ceil(rows / 4);

/** Puts true (1), false (0) and null (below zero) into two bits each. */
export function toTwoBits(cells: Int8Array): TwoBits {
  const bits = new Uint8Array(twoBitBytes(cells.length));
  for (let row = 0; row < cells.length; row++)
    bits[row >> 2] |= (cells[row] < 0 ? 2 : cells[row]) << (2 * (row & 3));
  return { bits, length: cells.length };
}

/** The cell of a row: 0, 1, or -128 for null. */
export const twoBitsAt = ({ bits }: TwoBits, row: number): number =>
  CELLS[(bits[row >> 2] >> (2 * (row & 3))) & 3];

/** Writes the cells of `count` rows from `from` on. */
export function writeTwoBits({ bits }: TwoBits, from: number, count: number, out: Int8Array): void {
  let done = 0;
  // Four at a time where both begin with a whole four.
  if ((from & 3) === 0 && (out.byteOffset & 3) === 0) {
    const fours = new Int32Array(out.buffer, out.byteOffset, count >> 2);
    for (let i = 0, at = from >> 2; i < fours.length; i++, at++) fours[i] = FOURS[bits[at]];
    done = 4 * fours.length;
  }
  for (; done < count; done++) {
    const row = from + done;
    out[done] = CELLS[(bits[row >> 2] >> (2 * (row & 3))) & 3];
  }
}
