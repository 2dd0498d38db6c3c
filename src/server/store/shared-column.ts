import type { CellData, ColumnData } from "@/core/data/column";
import { noneOf, type Stored } from "@/core/data/stored";

/** The arrays that cells and codes are stored in, by their name. */
export const ARRAYS = { Int8Array, Int16Array, Int32Array, Float64Array } as const;
export type ArrayName = keyof typeof ARRAYS;

/**
 * A typed column in memory that all threads of the process see: its values in the machine's byte order, and
 * the distinct texts as UTF-8 JSON.
 */
export interface SharedColumn {
  type: ColumnData["type"];
  array: ArrayName;
  scale: number;
  values: SharedArrayBuffer;
  dictionary: SharedArrayBuffer | null;
}

/** The name of an array's type. */
export const arrayName = (values: Stored): ArrayName => values.constructor.name as ArrayName;

/** The same bytes in memory that threads share. */
export function sharedCopy(bytes: Uint8Array): SharedArrayBuffer {
  const shared = new SharedArrayBuffer(bytes.byteLength);
  new Uint8Array(shared).set(bytes);
  return shared;
}

/** Puts a column into shared memory. */
export function shareColumn(data: ColumnData): SharedColumn {
  const values = data.type === "text" ? data.codes : data.values;
  return {
    type: data.type,
    array: arrayName(values),
    scale: data.type === "text" ? 1 : data.scale,
    values: sharedCopy(new Uint8Array(values.buffer, values.byteOffset, values.byteLength)),
    dictionary: data.type === "text" ? sharedCopy(Buffer.from(JSON.stringify(data.dictionary))) : null,
  };
}

/** The column as the engine reads it, over the shared memory. */
export function columnOf({ type, array, scale, values, dictionary }: SharedColumn): ColumnData {
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
