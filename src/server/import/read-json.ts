import { createReadStream, statSync } from "node:fs";
import type { CellKind } from "@/core/data/reading-guess";
import type { Cell } from "../store/table-files";
import { ImportProblem } from "./import-problem";
import { arraysIn, type JsonArray } from "./json-arrays";
import type { Progress } from "./progress";
import type { ImportOptions, ReadTable } from "./reader";
import { MAX_COLUMNS } from "./row-taker";
import { columnNames } from "./sniff";
import { TableBuilder } from "./table-builder";

const MAX_RECORD = 5_000_000;
const MAX_DEPTH = 64;
/**
 * Marks a whole number that stood in the file with more digits than a number keeps. Control characters cannot
 * stand raw in JSON.
 */
const LONG = "\u0001long ";

class TooLong extends ImportProblem {}

/**
 * The objects of a file as texts: the elements of one array, or objects after each other (one a line, or
 * not). They are cut by counting brackets outside strings, so that a file of any length is read in bounded
 * memory. With `start` it is the array that begins at that byte. `bytes` hears how far it has come.
 */
async function* recordTexts(
  path: string,
  start: number | null,
  bytes: (read: number) => void,
): AsyncGenerator<string> {
  const decoder = new TextDecoder("utf-8", { fatal: true });
  let [depth, quoted, escaped, row] = [0, false, false, 0];
  // Whether the file is one array: then its elements stand at depth 1.
  let base = -1;
  let ended = false;
  let record = "";
  let read = start ?? 0;
  const broken = (why: string) => new ImportProblem(`The JSON is broken after row ${row}: ${why}`);
  for await (const chunk of createReadStream(path, { highWaterMark: 1 << 18, start: start ?? 0 })) {
    let text: string;
    try {
      text = decoder.decode(chunk as Buffer, { stream: true });
    } catch {
      throw new ImportProblem("The JSON is not UTF-8 text. Save it as UTF-8 and bring it in again.");
    }
    read += (chunk as Buffer).length;
    bytes(read);
    let from = 0;
    for (let i = 0; i < text.length; i++) {
      const c = text.charCodeAt(i);
      if (quoted) {
        if (escaped) escaped = false;
        else if (c === 92) escaped = true;
        else if (c === 34) quoted = false;
        continue;
      }
      if (c <= 32 || c === 0xfeff) continue;
      if (ended && start !== null) return;
      if (ended) throw broken("something stands after its end.");
      if (base < 0) {
        if (c !== 91 && c !== 123) throw broken("it begins with neither [ nor {.");
        base = c === 91 ? 1 : 0;
        if (base === 1) {
          depth = 1;
          continue;
        }
      }
      if (depth === base && c !== 123 && c !== 44 && !(base === 1 && c === 93))
        throw broken('every row has to be an object in braces, such as {"route": "North Quay"}.');
      if (c === 34) quoted = true;
      else if (c === 123 || c === 91) {
        if (depth === base) from = i;
        if (++depth > MAX_DEPTH) throw broken(`it is nested more than ${MAX_DEPTH} levels deep.`);
      } else if (c === 125 || c === 93) {
        depth--;
        if (depth < base) {
          ended = true;
          continue;
        }
        if (depth === base) {
          record += text.slice(from, i + 1);
          row++;
          yield record;
          record = "";
          from = i + 1;
        }
      }
    }
    if (depth > base && base >= 0) {
      record += text.slice(from);
      if (record.length > MAX_RECORD)
        throw new TooLong(
          `The JSON is broken after row ${row}: a row is longer than ${MAX_RECORD / 1e6} MB.`,
        );
    }
  }
  if (base < 0) throw new ImportProblem("The file is empty. Bring in a file with at least one row.");
  if (depth > base || quoted || (base === 1 && !ended))
    throw broken("the file ends in the middle. It may have been cut short.");
}

interface JsonCell {
  text: Cell;
  kind?: CellKind;
}

/** A value as a cell's text; nested objects become columns of their own before, arrays stay as JSON text. */
function cellOf(value: unknown): JsonCell {
  if (value === null || value === undefined || value === "") return { text: null };
  if (typeof value === "number") return { text: String(value), kind: "number" };
  if (typeof value === "boolean") return { text: String(value), kind: "boolean" };
  const text = typeof value === "object" ? JSON.stringify(value) : (value as string);
  // An escaped half of a pair is no text that can be written anywhere: it is mended to U+FFFD.
  return { text: text.replaceAll(LONG, "").toWellFormed(), kind: "text" };
}

/** The leaves of a record by their path: {"a": {"b": 1}} gives a.b. */
function leavesOf(value: object, prefix: string, into: Map<string, JsonCell>): Map<string, JsonCell> {
  for (const [key, inner] of Object.entries(value)) {
    const path = (prefix ? `${prefix}.${key}` : key).toWellFormed();
    if (inner !== null && typeof inner === "object" && !Array.isArray(inner))
      leavesOf(inner as object, path, into);
    else into.set(path, cellOf(inner));
  }
  return into;
}

const STRING_OR_LONG = /"(?:[^"\\]|\\.)*"|-?\d{16,}(?![\d.eE])/gs;

/** Writes whole numbers that a number cannot hold exactly as marked texts, so that no digit is lost. */
function withLongNumbers(text: string): string {
  if (!/\d{16}/.test(text)) return text;
  return text.replace(STRING_OR_LONG, (part) =>
    part.startsWith('"') || Number.isSafeInteger(Number(part)) ? part : JSON.stringify(LONG + part),
  );
}

async function* records(
  path: string,
  start: number | null,
  bytes: (read: number) => void,
): AsyncGenerator<Map<string, JsonCell>> {
  let row = 0;
  for await (const text of recordTexts(path, start, bytes)) {
    row++;
    let value: unknown;
    try {
      value = JSON.parse(withLongNumbers(text));
    } catch (error) {
      throw new ImportProblem(
        `Row ${row} is not valid JSON: ${(error as Error).message.replace(/ in JSON.*/s, "")}.`,
      );
    }
    yield leavesOf(value as object, "", new Map());
  }
}

/** Whether a file is one single object: then its rows may stand in an array inside. */
async function isOneObject(path: string): Promise<boolean> {
  let rows = 0;
  try {
    for await (const text of recordTexts(path, null, () => {})) {
      if (++rows > 1 || !text.startsWith("{")) return false;
    }
  } catch (error) {
    return error instanceof TooLong && rows === 0;
  }
  const head = createReadStream(path, { end: 63 });
  for await (const chunk of head)
    return (
      String(chunk)
        .replace(/^\ufeff/, "")
        .trimStart()
        .startsWith("{") && rows === 1
    );
  return false;
}

/**
 * The array of a file that is one object: the one that was asked for, else the longest. Null where rows are
 * the objects themselves.
 */
async function chosenArray(
  path: string,
  wanted: string | undefined,
): Promise<{ arrays: JsonArray[]; chosen: JsonArray } | null> {
  if (!(await isOneObject(path))) return null;
  const arrays = await arraysIn(path);
  if (arrays.length === 0) return null;
  const asked = arrays.find((a) => a.path === wanted);
  if (wanted !== undefined && wanted !== "" && !asked)
    throw new ImportProblem(
      `The file has no array at “${wanted}”. It has ${arrays.map((a) => a.path).join(", ")}.`,
    );
  return { arrays, chosen: asked ?? arrays.reduce((most, a) => (a.rows > most.rows ? a : most)) };
}

/**
 * Reads JSON (an array of objects, objects after each other as NDJSON has them, or an array inside one
 * object): once for the columns, once for the rows.
 */
export async function readJson(
  id: string,
  path: string,
  options: ImportOptions,
  progress: Progress,
): Promise<ReadTable> {
  const { size } = statSync(path);
  const array = await chosenArray(path, options.sheet);
  const start = array?.chosen.start ?? null;
  const keys = new Map<string, number>();
  for await (const record of records(path, start, (read) => progress((0.4 * read) / size))) {
    for (const key of record.keys()) if (!keys.has(key)) keys.set(key, keys.size);
    if (keys.size > MAX_COLUMNS)
      throw new ImportProblem(
        `The rows have more than ${MAX_COLUMNS} different names; at most ${MAX_COLUMNS} columns can be brought in.`,
      );
  }
  if (keys.size === 0)
    throw new ImportProblem(
      "The file holds no rows with names. Bring in an array of objects, or one object a line.",
    );
  const { names, notes } = columnNames([...keys.keys()], keys.size);
  if (array && array.arrays.length > 1) {
    const others = array.arrays.filter((a) => a !== array.chosen).map((a) => `${a.path} (${a.rows} rows)`);
    notes.unshift(
      `The file is one object. Its array ${array.chosen.path} was taken; there ${others.length === 1 ? "is" : "are"} also ${others.slice(0, 5).join(", ")}: choose another under “How it was read”.`,
    );
  } else if (array)
    notes.unshift(`The file is one object; the rows are those of its array ${array.chosen.path}.`);
  const builder = new TableBuilder(id, names.length);
  try {
    for await (const record of records(path, start, (read) =>
      progress(0.4 + (0.59 * read) / size, builder.rows),
    )) {
      const cells: Cell[] = new Array(names.length).fill(null);
      const kinds: (CellKind | undefined)[] = new Array(names.length).fill(undefined);
      for (const [key, cell] of record) {
        const at = keys.get(key) as number;
        cells[at] = cell.text;
        kinds[at] = cell.kind;
      }
      builder.add(cells, kinds);
    }
    const read = builder.finish(names);
    const source = array ? { sheet: array.chosen.path, sheets: array.arrays.map((a) => a.path) } : {};
    return {
      ...read,
      rows: builder.rows,
      notes: [...notes, ...read.notes],
      source: { format: "json", ...source },
    };
  } catch (error) {
    builder.abandon();
    throw error;
  }
}
