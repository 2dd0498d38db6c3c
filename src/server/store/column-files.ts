import { createHash } from "node:crypto";
import { closeSync, fsyncSync, mkdirSync, openSync, readFileSync, renameSync, rmSync, writeSync } from "node:fs";
import { join } from "node:path";
import { crc32 } from "node:zlib";
import type { ColumnData } from "@/core/data/column";
import { readingKey } from "@/core/data/reading-label";
import type { Reading } from "@/core/data/reading-schema";
import { tableFiles } from "./table-files";

/**
 * Typed columns beside a table's rows, so that a table is not read from its texts again. A file holds a line of JSON (what the
 * column is, how many bytes follow, and their checksum), then its values in the byte order of the machine, then the dictionary as JSON. They can all
 * be made anew from the rows: a file that is missing, broken or from another version is simply passed over.
 */
const FORMAT = "cavlo-column-2";
const ORDER = new Uint8Array(new Uint32Array([1]).buffer)[0] === 1 ? "little" : "big";
const ARRAYS = { number: Float64Array, timestamp: Float64Array, date: Int32Array, boolean: Uint8Array, text: Int32Array } as const;

interface Head {
  format: string;
  order: string;
  type: ColumnData["type"];
  rows: number;
  bytes: number;
  dictionary: number;
  /** CRC-32 of all that follows the head. */
  sum: number;
}

/** Named by what the reading makes of cells; hashed, since a pattern is a text that somebody typed. */
const fileOf = (id: string, at: number, reading: Reading) =>
  join(tableFiles(id).columns, `c${at}-${reading.type}-${createHash("sha256").update(readingKey(reading)).digest("hex").slice(0, 12)}`);

/** Writes a column; it is seen whole or not at all. */
export function writeColumnFile(id: string, at: number, reading: Reading, data: ColumnData): void {
  const values = data.type === "text" ? data.codes : data.values;
  const dictionary = Buffer.from(data.type === "text" ? JSON.stringify(data.dictionary) : "");
  const bytes = new Uint8Array(values.buffer, values.byteOffset, values.byteLength);
  const sum = crc32(dictionary, crc32(bytes));
  const head: Head = { format: FORMAT, order: ORDER, type: data.type, rows: values.length, bytes: bytes.length, dictionary: dictionary.length, sum };
  const file = fileOf(id, at, reading);
  mkdirSync(tableFiles(id).columns, { recursive: true });
  const part = `${file}.part`;
  const handle = openSync(part, "w");
  try {
    writeSync(handle, `${JSON.stringify(head)}\n`);
    for (let done = 0; done < bytes.length; ) done += writeSync(handle, bytes, done);
    for (let done = 0; done < dictionary.length; ) done += writeSync(handle, dictionary, done);
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
  renameSync(part, file);
}

/** Reads a column of `rows` rows, or null where there is no sound file of it. */
export function readColumnFile(id: string, at: number, reading: Reading, rows: number): ColumnData | null {
  const file = fileOf(id, at, reading);
  let bytes: Buffer;
  try {
    bytes = readFileSync(file);
  } catch {
    return null;
  }
  try {
    const end = bytes.indexOf(10);
    const head = JSON.parse(bytes.toString("utf8", 0, end)) as Head;
    const Values = ARRAYS[head.type];
    const sound = head.format === FORMAT && head.order === ORDER && head.type === reading.type && head.rows === rows && head.bytes === rows * Values.BYTES_PER_ELEMENT;
    if (!sound || bytes.length !== end + 1 + head.bytes + head.dictionary || crc32(bytes.subarray(end + 1)) !== head.sum) throw new Error("not this column");
    // Copied, so that the values begin where the machine can read them.
    const values = new Values(new Uint8Array(bytes.subarray(end + 1, end + 1 + head.bytes)).buffer);
    if (head.type !== "text") return { type: head.type, values } as ColumnData;
    const dictionary = JSON.parse(bytes.toString("utf8", end + 1 + head.bytes)) as string[];
    return { type: "text", codes: values as Int32Array, dictionary };
  } catch {
    rmSync(file, { force: true });
    return null;
  }
}
