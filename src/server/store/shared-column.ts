import type { ColumnData } from "@/core/data/column";

/**
 * A typed column in memory that all threads of the process see: its values in the machine's byte order, and
 * the distinct texts as UTF-8 JSON.
 */
export interface SharedColumn {
  type: ColumnData["type"];
  values: SharedArrayBuffer;
  dictionary: SharedArrayBuffer | null;
}

const ARRAYS = {
  number: Float64Array,
  timestamp: Float64Array,
  date: Int32Array,
  boolean: Uint8Array,
} as const;

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
    values: sharedCopy(new Uint8Array(values.buffer, values.byteOffset, values.byteLength)),
    dictionary: data.type === "text" ? sharedCopy(Buffer.from(JSON.stringify(data.dictionary))) : null,
  };
}

/** The column as the engine reads it, over the shared memory. */
export function columnOf({ type, values, dictionary }: SharedColumn): ColumnData {
  if (type !== "text")
    return { type, values: new ARRAYS[type](values as unknown as ArrayBuffer) } as ColumnData;
  // Copied, since a decoder takes no shared memory.
  const texts = dictionary
    ? (JSON.parse(Buffer.from(new Uint8Array(dictionary)).toString("utf8")) as string[])
    : [];
  return { type, codes: new Int32Array(values), dictionary: texts };
}

/** Bytes of the shared memory that a column takes. */
export const sharedBytes = (column: SharedColumn): number =>
  column.values.byteLength + (column.dictionary?.byteLength ?? 0);
