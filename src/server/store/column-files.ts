import { createHash } from "node:crypto";
import {
  closeSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  writeSync,
} from "node:fs";
import { join } from "node:path";
import { threadId } from "node:worker_threads";
import { crc32 } from "node:zlib";
import type { ColumnData } from "@/core/data/column";
import { readingKey } from "@/core/data/reading-label";
import type { Reading } from "@/core/data/reading-schema";
import {
  type ArrayName,
  bytesOfColumn,
  bytesOfRows,
  isArrayName,
  type SharedColumn,
  sharedCopy,
} from "./shared-column";
import { tableFiles } from "./table-files";

/**
 * Typed columns beside a table's rows, so that a table is not read from its texts again. A file holds a line
 * of JSON (what the column is, how many bytes follow, and their checksum), then its values in the byte order
 * of the machine, then the dictionary as JSON. They can all be made anew from the rows: a file that is
 * missing, broken or from another version is simply passed over.
 */
const FORMAT = "cavlo-column-3";
const ORDER = new Uint8Array(new Uint32Array([1]).buffer)[0] === 1 ? "little" : "big";

interface Head {
  format: string;
  order: string;
  type: ColumnData["type"];
  array: ArrayName;
  scale: number;
  rows: number;
  bytes: number;
  dictionary: number;
  /** CRC-32 of all that follows the head. */
  sum: number;
}

/** Named by what the reading makes of cells; hashed, since a pattern is a text that somebody typed. */
const fileOf = (id: string, at: number, reading: Reading) =>
  join(
    tableFiles(id).columns,
    `c${at}-${reading.type}-${createHash("sha256").update(readingKey(reading)).digest("hex").slice(0, 12)}`,
  );

/** Writes a column; it is seen whole or not at all. */
export function writeColumnFile(id: string, at: number, reading: Reading, data: ColumnData): void {
  const { bytes, dictionary, ...about } = bytesOfColumn(data);
  const sum = crc32(dictionary, crc32(bytes));
  const head: Head = {
    format: FORMAT,
    order: ORDER,
    ...about,
    bytes: bytes.length,
    dictionary: dictionary.length,
    sum,
  };
  const file = fileOf(id, at, reading);
  mkdirSync(tableFiles(id).columns, { recursive: true });
  // Two threads may make the same column at once: each writes a file of its own.
  const part = `${file}.${threadId}.part`;
  try {
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
  } catch (error) {
    rmSync(part, { force: true });
    throw error;
  }
}

interface Read {
  head: Head;
  bytes: Buffer;
  /** Where the values begin. */
  from: number;
}

/** The head and bytes of a column's file; null where it is broken, cut short or of another version. */
function readSound(file: string): Read | null {
  const bytes = readFileSync(file);
  const end = bytes.indexOf(10);
  let head: Head;
  try {
    head = JSON.parse(bytes.toString("utf8", 0, end)) as Head;
  } catch {
    return null;
  }
  if (head.format !== FORMAT || head.order !== ORDER || !isArrayName(head.array)) return null;
  const whole =
    head.bytes === bytesOfRows(head.array, head.rows) &&
    bytes.length === end + 1 + head.bytes + head.dictionary;
  return whole && crc32(bytes.subarray(end + 1)) === head.sum ? { head, bytes, from: end + 1 } : null;
}

/** Whether the file of a column holds what was written. */
export function isSoundColumnFile(file: string): boolean {
  try {
    return readSound(file) !== null;
  } catch {
    return false;
  }
}

/**
 * Reads a column of `rows` rows into memory that threads share, or gives null where there is no sound file of
 * it. A broken one stays until the column was made again and takes its place.
 */
export function readColumnFile(id: string, at: number, reading: Reading, rows: number): SharedColumn | null {
  const file = fileOf(id, at, reading);
  let read: Read | null;
  try {
    read = readSound(file);
  } catch {
    return null;
  }
  if (read === null)
    console.warn(
      `The column file ${file} is damaged or of another version; the column is read from the rows instead.`,
    );
  if (read === null || read.head.type !== reading.type || read.head.rows !== rows) return null;
  const { head, bytes, from } = read;
  const middle = from + head.bytes;
  return {
    type: head.type,
    array: head.array,
    rows: head.rows,
    scale: head.scale,
    values: sharedCopy(bytes.subarray(from, middle)),
    dictionary: head.type === "text" ? sharedCopy(bytes.subarray(middle)) : null,
  };
}
