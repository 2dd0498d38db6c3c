import { type CellData, type ColumnData, resting, restingBytes } from "@/core/data/column";
import { noneOf } from "@/core/data/stored";
import { isTwoBits, twoBitBytes } from "@/core/data/two-bits";

/** The arrays that cells and codes are stored in, by their name. */
const ARRAYS = { Int8Array, Int16Array, Int32Array, Float64Array } as const;
/** How cells and codes are stored. */
export type ArrayName = keyof typeof ARRAYS | "TwoBits";

/** Whether something is the name of an array. */
export const isArrayName = (name: string): name is ArrayName =>
  name === "TwoBits" || Object.hasOwn(ARRAYS, name);

/** How many bytes so many rows take. */
export const bytesOfRows = (array: ArrayName, rows: number): number =>
  array === "TwoBits" ? twoBitBytes(rows) : rows * ARRAYS[array].BYTES_PER_ELEMENT;

/**
 * A typed column in memory that all threads of the process see: its values in the machine's byte order, and
 * the distinct texts as UTF-8 JSON.
 */
export interface SharedColumn {
  type: ColumnData["type"];
  array: ArrayName;
  rows: number;
  scale: number;
  values: SharedArrayBuffer;
  dictionary: SharedArrayBuffer | null;
}

/** A column as it rests, in bytes: what its file and the memory of threads hold. */
export function bytesOfColumn(column: ColumnData): Omit<SharedColumn, "values" | "dictionary"> & {
  bytes: Uint8Array;
  dictionary: Buffer;
} {
  const data = resting(column);
  const cells = restingBytes(data);
  const isBits = data.type !== "text" && isTwoBits(data.values);
  return {
    type: data.type,
    array: isBits ? "TwoBits" : (cells.constructor.name as ArrayName),
    rows: data.type === "text" ? data.codes.length : data.values.length,
    scale: data.type === "text" ? 1 : data.scale,
    bytes: new Uint8Array(cells.buffer, cells.byteOffset, cells.byteLength),
    dictionary: Buffer.from(data.type === "text" ? JSON.stringify(data.dictionary) : ""),
  };
}

/** The same bytes in memory that threads share. */
export function sharedCopy(bytes: Uint8Array): SharedArrayBuffer {
  const shared = new SharedArrayBuffer(bytes.byteLength);
  new Uint8Array(shared).set(bytes);
  return shared;
}

/** Puts a column into shared memory. */
export function shareColumn(data: ColumnData): SharedColumn {
  const { bytes, dictionary, ...about } = bytesOfColumn(data);
  return {
    ...about,
    values: sharedCopy(bytes),
    dictionary: data.type === "text" ? sharedCopy(dictionary) : null,
  };
}

/** The column as the engine reads it, over the shared memory. */
export function columnOf({ type, array, rows, scale, values, dictionary }: SharedColumn): ColumnData {
  if (array === "TwoBits") {
    const bits = { bits: new Uint8Array(values), length: rows };
    return { type, values: bits, none: noneOf(bits), scale } as CellData;
  }
  const stored = new ARRAYS[array](values as unknown as ArrayBuffer);
  if (type !== "text") return { type, values: stored, none: noneOf(stored), scale } as CellData;
  // Copied, since a decoder takes no shared memory.
  const texts = dictionary
    ? (JSON.parse(Buffer.from(new Uint8Array(dictionary)).toString("utf8")) as string[])
    : [];
  return { type, codes: stored as Int32Array, dictionary: texts };
}

/** Bytes of the shared memory that a column takes. */
export const sharedBytes = (column: SharedColumn): number =>
  column.values.byteLength + (column.dictionary?.byteLength ?? 0);
