import { dayOf, parseIsoTimestamp } from "../formula/calendar";
import type { Value } from "../formula/value";
import type { Reading } from "./reading-schema";

const NOTHING = new Set(["", "null", "na", "n/a", "#n/a", "nan", "none", "nil", "-", "–", "—", "?", "(null)", "(empty)", "undefined"]);
const TRUE_WORDS = new Set(["true", "yes", "y", "t", "ja", "oui"]);
const FALSE_WORDS = new Set(["false", "no", "n", "f", "nein", "non"]);
const CURRENCY = /^(?:[€$£¥₹]|eur|usd|gbp|chf|dkk|sek|nok|kr\.?)\s*|\s*(?:[€$£¥₹]|eur|usd|gbp|chf|dkk|sek|nok|kr\.?)$/giu;
const MONTHS = "jan feb mar apr may jun jul aug sep oct nov dec".split(" ");

const SPACES = "\\u0020\\u00a0\\u2009\\u202f'’";
const WHOLE_NUMBER = /^[+-]?\d{1,300}$/;
const PLAIN_NUMBER = /^[+-]?\d{1,300}(?:\.\d*)?$/;

/** A number with the one decimal mark or the other: what it looks like, and the grouping marks to take out of it. */
function numberForm(mark: string, group: string) {
  return {
    pattern: new RegExp(`^(?:\\d+|\\d{1,3}(?:[${group}${SPACES}]\\d{3})+)?(?:${mark}\\d*)?(?:[eE][+-]?\\d+)?$`, "u"),
    marks: new RegExp(`[${group}${SPACES}]`, "gu"),
  };
}
const NUMBER_FORMS = { ".": numberForm("\\.", ","), ",": numberForm(",", ".") };

/** Whether a cell holds one of the usual words for nothing. */
export function isNothing(cell: string): boolean {
  return cell.length <= 11 && NOTHING.has(cell.trim().toLowerCase());
}

/** Reads a number with its decimal mark; grouping marks, a currency sign, a percent sign and (brackets) for minus are understood. */
export function readNumber(cell: string, decimal: "." | ","): number | null {
  let text = cell.trim();
  if (decimal === "." ? PLAIN_NUMBER.test(text) : WHOLE_NUMBER.test(text)) return Number(text);
  let sign = 1;
  if (text.startsWith("(") && text.endsWith(")")) {
    sign = -1;
    text = text.slice(1, -1).trim();
  }
  const minus = /^([+\-−])\s*/u.exec(text);
  if (minus) {
    if (minus[1] !== "+") sign = -sign;
    text = text.slice(minus[0].length);
  }
  text = text.replace(CURRENCY, "");
  if (text.startsWith("-") || text.startsWith("−")) {
    sign = -sign;
    text = text.slice(1);
  }
  let scale = 1;
  if (text.endsWith("%")) {
    scale = 100;
    text = text.slice(0, -1).trim();
  }
  const { pattern, marks } = NUMBER_FORMS[decimal];
  if (text === "" || !/\d/.test(text) || !pattern.test(text)) return null;
  const plain = text.replace(marks, "").replace(",", ".");
  // Fifteen digits: 86.4 % is 0.864, not the quotient's nearest double.
  const value = sign * (scale === 1 ? Number(plain) : Number((Number(plain) / scale).toPrecision(15)));
  return Number.isFinite(value) ? value : null;
}

/** Reads a date in the given order of its parts (1/5/2026, 1.5.26, 2026-05-01, 1 May 2026) into a day, or null. */
export function readDate(cell: string, order: "ymd" | "dmy" | "mdy"): number | null {
  const text = cell.trim();
  const named = /^(\d{1,2})[ .-]+([a-z]{3,9})\.?[ ,.-]+(\d{4})$/i.exec(text) ?? null;
  if (named) {
    const month = MONTHS.indexOf(named[2].slice(0, 3).toLowerCase()) + 1;
    return month > 0 ? dayOf(Number(named[3]), month, Number(named[1])) : null;
  }
  const m = /^(\d{1,4})([-/.])(\d{1,2})\2(\d{1,4})$/.exec(text);
  if (!m) return null;
  const parts = [m[1], m[3], m[4]];
  const yearAt = order === "ymd" ? 0 : 2;
  const year = parts[yearAt];
  if (year.length !== 4 && !(year.length === 2 && order !== "ymd")) return null;
  const fullYear = year.length === 4 ? Number(year) : Number(year) + (Number(year) < 70 ? 2000 : 1900);
  const [month, day] = order === "ymd" ? [parts[1], parts[2]] : order === "dmy" ? [parts[1], parts[0]] : [parts[0], parts[1]];
  return dayOf(fullYear, Number(month), Number(day));
}

export function readBoolean(cell: string): boolean | null {
  const text = cell.trim().toLowerCase();
  if (TRUE_WORDS.has(text) || text === "1") return true;
  return FALSE_WORDS.has(text) || text === "0" ? false : null;
}

/** Reads one cell as the reading says. Gives null for an empty cell and for one that does not fit. */
export function readCell(cell: string | null, reading: Reading): Value {
  if (cell === null || isNothing(cell)) return null;
  switch (reading.type) {
    case "text":
      return cell;
    case "number":
      return readNumber(cell, reading.decimal ?? ".");
    case "boolean":
      return readBoolean(cell);
    case "date":
      return readDate(cell, reading.dateOrder ?? "ymd");
    case "timestamp":
      return parseIsoTimestamp(cell);
  }
}

type Candidate = Reading & { fits: (cell: string) => boolean };

const isWord = (cell: string) => {
  const text = cell.trim().toLowerCase();
  return TRUE_WORDS.has(text) || FALSE_WORDS.has(text);
};
const POINT_GROUPS_ONLY = /^[^\d]*\d{1,3}(\.\d{3})+[^\d]*$/;

/** In the order of preference among those that fit every cell. */
const CANDIDATES: Candidate[] = [
  { type: "boolean", fits: isWord },
  { type: "number", decimal: ".", fits: (c) => !/^[+-]?0\d+$/.test(c.trim()) && readNumber(c, ".") !== null },
  { type: "number", decimal: ",", fits: (c) => !/^[+-]?0\d+$/.test(c.trim()) && readNumber(c, ",") !== null },
  { type: "date", dateOrder: "ymd", fits: (c) => readDate(c, "ymd") !== null },
  { type: "date", dateOrder: "dmy", fits: (c) => readDate(c, "dmy") !== null },
  { type: "date", dateOrder: "mdy", fits: (c) => readDate(c, "mdy") !== null },
  { type: "timestamp", fits: (c) => parseIsoTimestamp(c) !== null },
];

/**
 * Guesses how a column is read from every cell of it. A cell that fits only one decimal mark or one order of
 * date parts settles the question; where nothing settles it, the point and day before month are taken.
 */
export class ReadingGuess {
  private open = CANDIDATES.slice();
  private filled = 0;
  private pointIsDecimal = false;
  private readonly seen = new Set<string>();

  add(cell: string | null): void {
    if (cell === null || isNothing(cell)) return;
    this.filled++;
    if (this.open.length === 0) return;
    if (this.seen.has(cell)) return;
    if (this.seen.size < 2000) this.seen.add(cell);
    this.open = this.open.filter((candidate) => candidate.fits(cell));
    if (!this.pointIsDecimal && /\.\d/.test(cell) && !POINT_GROUPS_ONLY.test(cell.trim())) this.pointIsDecimal = true;
  }

  result(): Reading {
    if (this.filled === 0 || this.open.length === 0) return { type: "text" };
    const numbers = this.open.filter((c) => c.type === "number");
    const pick = numbers.length === 2 && !this.pointIsDecimal && [...this.seen].some((c) => POINT_GROUPS_ONLY.test(c.trim())) ? numbers[1] : this.open[0];
    const { type, decimal, dateOrder } = pick;
    return { type, ...(decimal ? { decimal } : {}), ...(dateOrder ? { dateOrder } : {}) };
  }
}

/** What a reading is called on screen. */
export function readingLabel(reading: Reading): string {
  if (reading.type === "number") return reading.decimal === "," ? "number, decimal comma" : "number";
  if (reading.type === "date") return reading.dateOrder === "dmy" ? "date, day first" : reading.dateOrder === "mdy" ? "date, month first" : "date";
  return reading.type === "boolean" ? "true or false" : reading.type;
}
