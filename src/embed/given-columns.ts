import { DAY_MS, parseIsoDate } from "@/core/base/calendar";
import { cutText } from "@/core/base/cut-text";
import type { Value } from "@/core/base/value";
import { ColumnBuilder, type ColumnData } from "@/core/data/column";
import { readCell } from "@/core/data/reading";
import type { Reading } from "@/core/data/reading-schema";
import { packNumbers } from "@/core/data/stored";
import type { GivenCells } from "./engine-protocol";

/** A cell that is of another type than its column. */
const UNREAD = Symbol("unread");

const WORDS: Record<Reading["type"], string> = {
  number: "numbers",
  text: "texts",
  boolean: "true or false",
  date: "dates",
  timestamp: "timestamps",
};

/** What a column holds, in words. */
export const holds = ({ type }: Reading): string => WORDS[type];

/** Moments are milliseconds since 1970 in UTC, as the language counts them; days are those of UTC. */
function readMoment(ms: number, { type }: Reading): Value | typeof UNREAD {
  if (!Number.isFinite(ms) || Math.abs(ms) > 8.64e15) return UNREAD;
  return type === "date" ? Math.floor(ms / DAY_MS) : ms;
}

function readText(text: string, reading: Reading): Value | typeof UNREAD {
  if (reading.type === "date" && /^\d{4}-\d\d-\d\d$/.test(text)) return parseIsoDate(text) ?? UNREAD;
  // Rows from a program write moments as ISO 8601 does, whatever the file wrote that the reading
  // was made for.
  if (reading.type === "timestamp" && /^\d{4}-\d\d-\d\dT/.test(text)) {
    const ms = Date.parse(/Z|[+-]\d\d:?\d\d$/.test(text) ? text : `${text}Z`);
    return Number.isNaN(ms) ? UNREAD : ms;
  }
  const value = readCell(text, reading);
  return value === null && text.trim() !== "" && reading.type !== "text" ? UNREAD : value;
}

/** A value of a page in the type of its column: dates as days, timestamps as milliseconds. */
function readValue(value: unknown, reading: Reading): Value | typeof UNREAD {
  if (value === null || value === undefined) return null;
  const { type } = reading;
  if (value instanceof Date)
    return type === "date" || type === "timestamp" ? readMoment(value.getTime(), reading) : UNREAD;
  if (typeof value === "string") return type === "text" ? value : readText(value, reading);
  if (typeof value === "bigint") return readValue(Number(value), reading);
  if (typeof value === "boolean")
    return type === "boolean" ? value : type === "text" ? String(value) : UNREAD;
  if (typeof value !== "number") return UNREAD;
  if (Number.isNaN(value)) return null;
  switch (type) {
    case "number":
      return Number.isFinite(value) ? value : UNREAD;
    case "text":
      return String(value);
    case "boolean":
      return value === 1 ? true : value === 0 ? false : UNREAD;
    default:
      return readMoment(value, reading);
  }
}

/** A column as a page gave it, and the cells that are of another type, which stand as empty. */
export interface ReadColumn {
  data: ColumnData;
  filled: number;
  unread: number;
  first: { row: number; value: string } | null;
}

/** Reads the cells of a column that a page gave, in the type that the document says. */
export function readColumn(cells: GivenCells, reading: Reading): ReadColumn {
  // Numbers as the engine keeps them need not be read one by one.
  if (
    reading.type === "number" &&
    cells instanceof Float64Array &&
    cells.every((x) => Math.abs(x) !== Number.POSITIVE_INFINITY)
  )
    return { data: { type: "number", ...packNumbers(cells) }, filled: cells.length, unread: 0, first: null };
  const builder = new ColumnBuilder(reading.type, cells.length);
  let [filled, unread] = [0, 0];
  let first: ReadColumn["first"] = null;
  for (let row = 0; row < cells.length; row++) {
    const value = readValue(cells[row], reading);
    if (value === UNREAD) {
      unread++;
      first ??= { row: row + 1, value: cutText(String(cells[row]), 60) };
      builder.add(null);
      continue;
    }
    if (value !== null) filled++;
    builder.add(value);
  }
  return { data: builder.finish(), filled, unread, first };
}
