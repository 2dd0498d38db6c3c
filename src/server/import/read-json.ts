import { createReadStream, statSync } from "node:fs";
import type { CellKind } from "@/core/data/reading-guess";
import type { Cell } from "../store/table-files";
import { ImportProblem } from "./import-problem";
import { arraysIn, type JsonArray } from "./json-arrays";
import type { Progress } from "./progress";
import type { ImportOptions, ReadTable } from "./reader";
import { MAX_COLUMNS } from "./row-taker";
import { columnNames } from "./sniff";
import { ThreadedBuilder } from "./threaded-builder";

const MAX_RECORD = 5_000_000;
const MAX_DEPTH = 64;
/**
 * Marks a whole number that stood in the file with more digits than a number keeps. Control characters cannot
 * stand raw in JSON.
 */
const LONG = "\u0001long ";

class TooLong extends ImportProblem {}

const [OPEN_LIST, CLOSE_LIST, OPEN, CLOSE, QUOTE, ESCAPE, COMMA] = [...'[]{}"\\,'].map((c) =>
  c.charCodeAt(0),
);
const BYTE_ORDER_MARK = 0xfeff;

/**
 * Cuts objects out of a text that comes in pieces, by counting brackets outside strings: the elements of one
 * array, or objects after each other.
 */
class ObjectCutter {
  private depth = 0;
  private quoted = false;
  private escaped = false;
  private row = 0;
  /** The depth that objects stand at: 1 in an array, 0 after each other; -1 before the first sign. */
  private base = -1;
  private record = "";
  /** Whether the array is closed. */
  ended = false;

  /** `isPart` where the array is a part of a longer text, whose rest is not looked at. */
  constructor(private readonly isPart: boolean) {}

  private broken(why: string): ImportProblem {
    return new ImportProblem(`The JSON is broken after row ${this.row}: ${why}`);
  }

  /** The objects that end in the next piece of the text. */
  *take(text: string): Generator<string> {
    let from = 0;
    for (let i = 0; i < text.length; i++) {
      if (this.quoted) {
        i = this.stringEnd(text, i);
        continue;
      }
      const c = text.charCodeAt(i);
      if (c <= 32 || c === BYTE_ORDER_MARK) continue;
      if (this.ended && this.isPart) return;
      const before = this.depth;
      this.outside(c);
      if (before === this.base && this.depth > before) from = i;
      if (before > this.depth && this.depth === this.base) {
        this.row++;
        yield this.record + text.slice(from, i + 1);
        this.record = "";
        from = i + 1;
      }
    }
    if (this.base >= 0 && this.depth > this.base) this.keep(text.slice(from));
  }

  /** The place of the quote that ends a string, or the end of the piece; what is escaped ends none. */
  private stringEnd(text: string, from: number): number {
    let i = this.escaped ? from + 1 : from;
    this.escaped = false;
    for (; i < text.length; i++) {
      const c = text.charCodeAt(i);
      if (c === QUOTE) {
        this.quoted = false;
        return i;
      }
      if (c === ESCAPE && ++i === text.length) this.escaped = true;
    }
    return i;
  }

  /** A sign outside strings: how deep it leads, and whether it may stand there. */
  private outside(c: number): void {
    if (this.ended) throw this.broken("something stands after its end.");
    if (this.base < 0) {
      if (c !== OPEN_LIST && c !== OPEN) throw this.broken("it begins with neither [ nor {.");
      this.base = c === OPEN_LIST ? 1 : 0;
      if (this.base === 1) {
        this.depth = 1;
        return;
      }
    }
    if (this.depth === this.base && c !== OPEN && c !== COMMA && !(this.base === 1 && c === CLOSE_LIST))
      throw this.broken('every row has to be an object in braces, such as {"route": "North Quay"}.');
    if (c === QUOTE) this.quoted = true;
    else if (c === OPEN || c === OPEN_LIST) {
      if (++this.depth > MAX_DEPTH) throw this.broken(`it is nested more than ${MAX_DEPTH} levels deep.`);
    } else if (c === CLOSE || c === CLOSE_LIST) {
      this.depth--;
      this.ended = this.depth < this.base;
    }
  }

  /** Keeps the beginning of an object whose end comes with a later piece. */
  private keep(piece: string): void {
    this.record += piece;
    if (this.record.length > MAX_RECORD)
      throw new TooLong(
        `The JSON is broken after row ${this.row}: a row is longer than ${MAX_RECORD / 1e6} MB.`,
      );
  }

  /** Says that the text has ended. Throws where an object or the array has not. */
  end(): void {
    if (this.base < 0) throw new ImportProblem("The file is empty. Bring in a file with at least one row.");
    if (this.depth > this.base || this.quoted || (this.base === 1 && !this.ended))
      throw this.broken("the file ends in the middle. It may have been cut short.");
  }
}

/**
 * The objects of a file as texts, so that a file of any length is read in bounded memory. With `start` they
 * are those of the array that begins at that byte. `bytes` hears how far it has come.
 */
async function* recordTexts(
  path: string,
  start: number | null,
  bytes: (read: number) => void,
): AsyncGenerator<string> {
  const decoder = new TextDecoder("utf-8", { fatal: true });
  const cutter = new ObjectCutter(start !== null);
  let read = start ?? 0;
  for await (const chunk of createReadStream(path, { highWaterMark: 1 << 18, start: start ?? 0 })) {
    let text: string;
    try {
      text = decoder.decode(chunk as Buffer, { stream: true });
    } catch {
      throw new ImportProblem("The JSON is not UTF-8 text. Save it as UTF-8 and bring it in again.");
    }
    read += (chunk as Buffer).length;
    bytes(read);
    yield* cutter.take(text);
    if (cutter.ended && start !== null) return;
  }
  cutter.end();
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

const STRING_OR_NUMBER = /"(?:[^"\\]|\\.)*"|-?\d[\d.eE+-]*/gs;
const LONG_WHOLE = /^-?\d{16,}$/;

/** Writes whole numbers that a number cannot hold exactly as marked texts, so that no digit is lost. */
function withLongNumbers(text: string): string {
  if (!/\d{16}/.test(text)) return text;
  return text.replace(STRING_OR_NUMBER, (part) =>
    LONG_WHOLE.test(part) && !Number.isSafeInteger(Number(part)) ? JSON.stringify(LONG + part) : part,
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
  const builder = new ThreadedBuilder(id, names.length);
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
