import { createReadStream, statSync } from "node:fs";
import type { Reading } from "@/core/data/reading-schema";
import type { Cell } from "../store/table-files";
import { ImportProblem } from "./import-problem";
import type { ImportOptions, ReadTable } from "./read-table";
import { MAX_COLUMNS } from "./row-taker";
import { columnNames } from "./sniff";
import { TableBuilder } from "./table-builder";

const MAX_RECORD = 5_000_000;
const MAX_DEPTH = 64;

/**
 * The objects of a file as texts: the elements of one array, or objects after each other (one a line, or not). They are cut by
 * counting brackets outside strings, so that a file of any length is read in bounded memory. `bytes` hears how far it has come.
 */
async function* recordTexts(path: string, bytes: (read: number) => void): AsyncGenerator<string> {
  const decoder = new TextDecoder("utf-8", { fatal: true });
  let [depth, quoted, escaped, row] = [0, false, false, 0];
  // Whether the file is one array: then its elements stand at depth 1.
  let base = -1;
  let ended = false;
  let record = "";
  let read = 0;
  const broken = (why: string) => new ImportProblem(`The JSON is broken after row ${row}: ${why}`);
  for await (const chunk of createReadStream(path, { highWaterMark: 1 << 18 })) {
    let text: string;
    try {
      text = decoder.decode(chunk as Buffer, { stream: true });
    } catch {
      throw new ImportProblem("The JSON is not UTF-8 text. Save it as UTF-8 and bring it in again.");
    }
    read += (chunk as Buffer).length;
    bytes(read);
    let start = 0;
    for (let i = 0; i < text.length; i++) {
      const c = text.charCodeAt(i);
      if (quoted) {
        if (escaped) escaped = false;
        else if (c === 92) escaped = true;
        else if (c === 34) quoted = false;
        continue;
      }
      if (c <= 32 || c === 0xfeff) continue;
      if (ended) throw broken("something stands after its end.");
      if (base < 0) {
        if (c !== 91 && c !== 123) throw broken("it begins with neither [ nor {.");
        base = c === 91 ? 1 : 0;
        if (base === 1) {
          depth = 1;
          continue;
        }
      }
      if (depth === base && c !== 123 && c !== 44 && !(base === 1 && c === 93)) throw broken('every row has to be an object in braces, such as {"route": "North Quay"}.');
      if (c === 34) quoted = true;
      else if (c === 123 || c === 91) {
        if (depth === base) start = i;
        if (++depth > MAX_DEPTH) throw broken(`it is nested more than ${MAX_DEPTH} levels deep.`);
      } else if (c === 125 || c === 93) {
        depth--;
        if (depth < base) {
          ended = true;
          continue;
        }
        if (depth === base) {
          record += text.slice(start, i + 1);
          row++;
          yield record;
          record = "";
          start = i + 1;
        }
      }
    }
    if (depth > base && base >= 0) {
      record += text.slice(start);
      if (record.length > MAX_RECORD) throw broken(`a row is longer than ${MAX_RECORD / 1e6} MB.`);
    }
  }
  if (base < 0) throw new ImportProblem("The file is empty. Bring in a file with at least one row.");
  if (depth > base || quoted || (base === 1 && !ended)) throw broken("the file ends in the middle. It may have been cut short.");
}

/** A value as a cell's text; nested objects become columns of their own before, arrays stay as JSON text. */
function cellOf(value: unknown): Cell {
  if (value === null || value === undefined || value === "") return null;
  return typeof value === "object" ? JSON.stringify(value) : String(value);
}

/** The leaves of a record by their path: {"a": {"b": 1}} gives a.b. */
function leavesOf(value: object, prefix: string, into: Map<string, Cell>): Map<string, Cell> {
  for (const [key, inner] of Object.entries(value)) {
    const path = prefix ? `${prefix}.${key}` : key;
    if (inner !== null && typeof inner === "object" && !Array.isArray(inner)) leavesOf(inner as object, path, into);
    else into.set(path, cellOf(inner));
  }
  return into;
}

async function* records(path: string, bytes: (read: number) => void): AsyncGenerator<Map<string, Cell>> {
  let row = 0;
  for await (const text of recordTexts(path, bytes)) {
    row++;
    let value: unknown;
    try {
      value = JSON.parse(text);
    } catch (error) {
      throw new ImportProblem(`Row ${row} is not valid JSON: ${(error as Error).message.replace(/ in JSON.*/s, "")}.`);
    }
    yield leavesOf(value as object, "", new Map());
  }
}

/** Reads JSON (an array of objects, or objects after each other, as NDJSON has them): once for the columns, once for the rows. */
export async function readJson(id: string, path: string, _options: ImportOptions, progress: (share: number) => void): Promise<ReadTable> {
  const { size } = statSync(path);
  const keys = new Map<string, number>();
  for await (const record of records(path, (read) => progress((0.4 * read) / size))) {
    for (const key of record.keys()) if (!keys.has(key)) keys.set(key, keys.size);
    if (keys.size > MAX_COLUMNS) throw new ImportProblem(`The rows have more than ${MAX_COLUMNS} different names; at most ${MAX_COLUMNS} columns can be brought in.`);
  }
  if (keys.size === 0) throw new ImportProblem("The file holds no rows with names. Bring in an array of objects, or one object a line.");
  const { names, notes } = columnNames([...keys.keys()], keys.size);
  const builder = new TableBuilder(id, names.length);
  let readings: Reading[] = [];
  try {
    for await (const record of records(path, (read) => progress(0.4 + (0.59 * read) / size))) {
      const cells: Cell[] = new Array(names.length).fill(null);
      for (const [key, cell] of record) cells[keys.get(key) as number] = cell;
      builder.add(cells);
    }
    readings = builder.finish();
  } catch (error) {
    builder.abandon();
    throw error;
  }
  return { rows: builder.rows, columns: names.map((name, i) => ({ name, reading: readings[i] })), notes, source: { format: "json" } };
}
