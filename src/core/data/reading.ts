import { DAY_MS } from "../base/calendar";
import { readByPattern } from "../base/date-pattern";
import { readNumber } from "../base/read-number";
import type { Value } from "../base/value";
import { readDate, readTimestamp } from "./cell-date";
import type { Reading } from "./reading-schema";

const NOTHING = new Set([
  "",
  "null",
  "na",
  "n/a",
  "#n/a",
  "nan",
  "none",
  "nil",
  "-",
  "–",
  "—",
  "?",
  "(null)",
  "(empty)",
  "undefined",
]);
const TRUE_WORDS = new Set(["true", "yes", "y", "t", "ja", "oui"]);
const FALSE_WORDS = new Set(["false", "no", "n", "f", "nein", "non"]);

/** Whether a cell holds one of the usual words for nothing. */
export function isNothing(cell: string): boolean {
  return cell.length <= 11 && NOTHING.has(cell.trim().toLowerCase());
}

/** The word for nothing that a cell holds, as words are told apart; null where it is blank or says something. */
export function nothingWord(cell: string): string | null {
  const word = cell.length <= 11 ? cell.trim().toLowerCase() : "";
  return word !== "" && NOTHING.has(word) ? word : null;
}

/** Whether a cell is one of the usual words for true or false; 1 and 0 are numbers. */
export function isTruthWord(cell: string): boolean {
  const text = cell.trim().toLowerCase();
  return TRUE_WORDS.has(text) || FALSE_WORDS.has(text);
}

/** A cell as true or false, from its words or from 1 and 0; null where it is neither. */
export function readBoolean(cell: string): boolean | null {
  const text = cell.trim().toLowerCase();
  if (TRUE_WORDS.has(text) || text === "1") return true;
  return FALSE_WORDS.has(text) || text === "0" ? false : null;
}

function readMoment(cell: string, { epoch, pattern, dateOrder }: Reading): number | null {
  if (pattern) return readByPattern(cell, pattern);
  if (!epoch) return readTimestamp(cell, dateOrder ?? "ymd");
  const count = readNumber(cell, ".");
  const ms = count === null ? null : Math.round(epoch === "s" ? count * 1000 : count);
  // The largest moment that a date can hold (ECMA-262).
  return ms === null || Math.abs(ms) > 8.64e15 ? null : ms;
}

/**
 * Reads one cell as the reading says: dates as days, timestamps as milliseconds. Gives null for an empty cell
 * and for one that does not fit; a word for nothing is empty where the reading does not keep it.
 */
export function readCell(cell: string | null, reading: Reading): Value {
  if (cell === null) return null;
  if (isNothing(cell)) {
    const isKept = reading.type === "text" && reading.kept?.includes(nothingWord(cell) ?? "");
    return isKept ? cell : null;
  }
  switch (reading.type) {
    case "text":
      return cell;
    case "number":
      return readNumber(cell, reading.decimal ?? ".");
    case "boolean":
      return readBoolean(cell);
    case "date": {
      if (!reading.pattern) return readDate(cell, reading.dateOrder ?? "ymd");
      const moment = readByPattern(cell, reading.pattern);
      return moment === null ? null : Math.floor(moment / DAY_MS);
    }
    case "timestamp":
      return readMoment(cell, reading);
  }
}
