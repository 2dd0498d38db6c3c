import { isDigitName, readNumber } from "../base/read-number";
import { TextMap } from "../base/text-map";
import { epochUnit, hasShortYear, readDate, readTimestamp } from "./cell-date";
import { outward } from "./column";
import { isNothing, isTruthWord, nothingWord, readCell } from "./reading";
import type { Reading } from "./reading-schema";

/** What a cell was in a file whose values have types of their own (JSON, XLSX, Parquet). */
export type CellKind = "number" | "text" | "boolean" | "date";

/** Why a reading is not the only one that fits. */
export type DoubtReason =
  | "decimal mark"
  | "day or month first"
  | "zero and one"
  | "digits of a date"
  | "counts from 1970"
  | "numbers with an e"
  | "all in brackets"
  | "texts like numbers"
  | "a few do not fit"
  | "words for nothing";

/**
 * Another reading that the cells of a column allow, with what it makes of the first cells that
 * it would change.
 */
export interface Doubt {
  why: DoubtReason;
  other: Reading;
  /** How many cells it is about, where that is known. */
  count?: number;
  /** `as` and `other` are what the two readings make of the text; null where one cannot read it. */
  cells: { text: string; as: string | null; other: string | null }[];
}

/** How a column of texts is read, and what its cells leave open. */
export interface Guess {
  reading: Reading;
  doubts: Doubt[];
  /** What a reader should know besides, in whole sentences. */
  notes: string[];
}

/** What the other columns and the separator of a file say of its marks. */
export interface FileHints {
  decimalComma: boolean;
  /** Some number shows that the point groups thousands. */
  pointGroups: boolean;
  dateOrder: "dmy" | "mdy" | null;
}
/** What is known where nothing else of the file was looked at. */
export const NO_HINTS: FileHints = { decimalComma: false, pointGroups: false, dateOrder: null };

interface Candidate {
  reading: Reading;
  fits: (cell: string) => boolean;
  missed: number;
  /** The first cells that do not fit. */
  misfits: string[];
}

const numberFits = (decimal: "." | ",") => (cell: string) =>
  !isDigitName(cell) && readNumber(cell, decimal) !== null;
const DATE_ORDERS = ["ymd", "dmy", "mdy"] as const;

/** In the order of preference among those that fit every cell. */
const candidates = (): Candidate[] =>
  (
    [
      [{ type: "boolean" }, isTruthWord],
      [{ type: "number", decimal: "." }, numberFits(".")],
      [{ type: "number", decimal: "," }, numberFits(",")],
      ...DATE_ORDERS.map((dateOrder): [Reading, Candidate["fits"]] => [
        { type: "date", dateOrder },
        (c) => readDate(c, dateOrder) !== null,
      ]),
      ...DATE_ORDERS.map((dateOrder): [Reading, Candidate["fits"]] => [
        { type: "timestamp", dateOrder },
        (c) => readTimestamp(c, dateOrder) !== null,
      ]),
    ] satisfies [Reading, Candidate["fits"]][]
  ).map(([reading, fits]) => ({ reading, fits, missed: 0, misfits: [] }));

const LONE_POINT = /^[^\d.,]*[1-9]\d{0,2}\.\d{3}[^\d.,]*$/;
const LONE_COMMA = /^[^\d.,]*[1-9]\d{0,2},\d{3}[^\d.,]*$/;
const COMPACT_DATE = /^\d{8}$/;
const COMPACT_MONTH = /^(?:19|20)\d{2}(?:0[1-9]|1[0-2])$/;
const WITH_E = /^\d+[eE]\d+$/;
const IN_BRACKETS = /^\(.*\)$/;

const SHOWN = 3;
const KEPT = 2000;
/**
 * A reading stays worth offering while at most this share of the distinct cells does not fit it, and
 * a few more.
 */
const FEW = 0.05;
const FEW_MORE = 3;
/** Fewer distinct cells say too little for a reading that does not fit all of them. */
const ENOUGH = 8;

/** Facts that must hold for every cell; each is dropped at the first cell that breaks it. */
interface Facts {
  binary: boolean;
  compactDates: boolean;
  compactMonths: boolean;
  seconds: boolean;
  milliseconds: boolean;
  withE: boolean;
  bracketed: boolean;
}

/**
 * Guesses how a column is read from every cell of it. What settles a question in one cell settles it for the
 * column; what no cell settles is given as a doubt, never left unsaid. Cells of files with types of their own
 * are taken as they are.
 */
export class ReadingGuess {
  private open = candidates();
  private filled = 0;
  private distinct = 0;
  private readonly seen = new TextMap<true>();
  private readonly kinds = new Set<CellKind>();
  private readonly facts: Facts = {
    binary: true,
    compactDates: true,
    compactMonths: true,
    seconds: true,
    milliseconds: true,
    withE: true,
    bracketed: true,
  };
  /** Cells that hold one mark and three digits after it, and so can be read either way. */
  private readonly unclear: string[] = [];
  private digitNames = 0;
  private percents = 0;
  private shortYears = false;

  /** Takes a cell; `kind` where the file says what it is. */
  add(cell: string | null, kind?: CellKind): void {
    if (cell === null) return;
    if (isNothing(cell)) return;
    if (kind) this.kinds.add(kind);
    this.filled++;
    if (this.seen.get(cell)) return;
    if (this.seen.size < KEPT) this.seen.set(cell, true);
    this.distinct++;
    this.try(cell);
    this.note(cell.trim(), kind);
  }

  /** Hears what a cell is whose text was taken before. */
  addKind(cell: string | null, kind: CellKind | undefined): void {
    if (cell !== null && kind && !isNothing(cell)) this.kinds.add(kind);
  }

  private try(cell: string): void {
    const most = this.distinct * FEW + FEW_MORE;
    let tooMany = false;
    for (const candidate of this.open) {
      if (candidate.fits(cell)) continue;
      candidate.missed++;
      if (candidate.misfits.length < SHOWN) candidate.misfits.push(cell);
      tooMany ||= candidate.missed > most;
    }
    if (tooMany) this.open = this.open.filter((c) => c.missed <= most);
  }

  private note(text: string, kind: CellKind | undefined): void {
    const { facts } = this;
    if (facts.binary && text !== "0" && text !== "1") facts.binary = false;
    if (facts.compactDates && !COMPACT_DATE.test(text)) facts.compactDates = false;
    if (facts.compactMonths && !COMPACT_MONTH.test(text)) facts.compactMonths = false;
    if (facts.withE && !WITH_E.test(text)) facts.withE = false;
    if (facts.bracketed && !IN_BRACKETS.test(text)) facts.bracketed = false;
    if (facts.seconds || facts.milliseconds) {
      const unit = /^\d{9,13}$/.test(text) ? epochUnit(Number(text)) : null;
      if (unit !== "s") facts.seconds = false;
      if (unit !== "ms") facts.milliseconds = false;
    }
    if (this.unclear.length < KEPT && (LONE_POINT.test(text) || LONE_COMMA.test(text)))
      this.unclear.push(text);
    if (kind !== "number" && isDigitName(text)) this.digitNames++;
    if (text.endsWith("%")) this.percents++;
    if (!this.shortYears && text.length >= 6 && text.length <= 30 && hasShortYear(text))
      this.shortYears = true;
  }

  private fitting(type: Reading["type"]): Candidate[] {
    return this.open.filter((c) => c.missed === 0 && c.reading.type === type);
  }

  /** What this column, where its own cells settle it, says of the marks in the whole file. */
  hints(): FileHints {
    const numbers = this.fitting("number");
    const commaOnly = numbers.length === 1 && numbers[0].reading.decimal === ",";
    const dates = [...this.fitting("date"), ...this.fitting("timestamp")];
    const orders = new Set(dates.map((d) => d.reading.dateOrder));
    const only = numbers.length === 0 && orders.size === 1 ? [...orders][0] : null;
    return {
      decimalComma: commaOnly && [...this.seen.keys()].some((c) => /,\d/.test(c)),
      pointGroups: commaOnly && [...this.seen.keys()].some((c) => /\d\.\d{3}/.test(c)),
      dateOrder: only === "dmy" || only === "mdy" ? only : null,
    };
  }

  /** How the column is read, what else it could be, and what to know of it. */
  settle(hints: FileHints = NO_HINTS): Guess {
    const guess = this.kinds.size > 0 ? this.typed() : this.untyped(hints);
    const isTime = guess.reading.type === "date" || guess.reading.type === "timestamp";
    const notes =
      isTime && this.shortYears && !this.kinds.has("date")
        ? [...guess.notes, "Years of two digits are read as 1970 to 2069."]
        : guess.notes;
    return { ...guess, notes };
  }

  /**
   * Values with types of their own are taken as they are; texts become dates only where all of them fit, and
   * numbers only when asked.
   */
  private typed(): Guess {
    const only = this.kinds.size === 1 ? [...this.kinds][0] : null;
    const [date, timestamp] = [this.fitting("date"), this.fitting("timestamp")];
    if (only === "number") {
      const reading: Reading = { type: "number", decimal: "." };
      return { reading, doubts: this.numberDoubts(reading), notes: [] };
    }
    if (only === "boolean") return { reading: { type: "boolean" }, doubts: [], notes: [] };
    const withDates = this.kinds.has("date") && [...this.kinds].every((k) => k === "date" || k === "text");
    if (withDates && (date.length || timestamp.length))
      return {
        reading: { type: date.length ? "date" : "timestamp", dateOrder: "ymd" },
        doubts: [],
        notes: [],
      };
    if (only === "text" && !this.facts.compactDates) {
      const time = date.length ? date : timestamp;
      if (time.length) return this.dateGuess(time, NO_HINTS);
    }
    const text: Reading = { type: "text" };
    const number = this.digitNames === 0 ? this.open.find((c) => c.reading.type === "number") : undefined;
    const saysEnough = number && (number.missed === 0 || this.kinds.has("number") || this.distinct >= ENOUGH);
    if (!saysEnough) return { reading: text, doubts: [], notes: [] };
    const doubt =
      number.missed === 0
        ? this.doubt("texts like numbers", text, number.reading)
        : this.doubt("a few do not fit", text, number.reading, number.misfits);
    return { reading: text, doubts: [doubt], notes: [] };
  }

  private untyped(hints: FileHints): Guess {
    const text: Reading = { type: "text" };
    if (this.filled === 0) return { reading: text, doubts: [], notes: [] };
    if (this.fitting("boolean").length) return { reading: { type: "boolean" }, doubts: [], notes: [] };
    const numbers = this.fitting("number");
    const dates = this.fitting("date");
    if (numbers.length && this.facts.compactDates && dates.length) {
      const reading: Reading = { type: "date", dateOrder: "ymd" };
      return {
        reading,
        doubts: [this.doubt("digits of a date", reading, { type: "number", decimal: "." })],
        notes: [],
      };
    }
    if (numbers.length) return this.numberGuess(numbers, hints);
    const time = dates.length ? dates : this.fitting("timestamp");
    if (time.length) return this.dateGuess(time, hints);
    // Nothing fits every cell: what fits nearly all is offered with those that would be lost.
    const nearly =
      this.distinct >= ENOUGH && this.digitNames === 0
        ? this.open.toSorted((a, b) => a.missed - b.missed)[0]
        : undefined;
    return {
      reading: text,
      doubts: nearly ? [this.doubt("a few do not fit", text, nearly.reading, nearly.misfits)] : [],
      notes: [],
    };
  }

  private numberGuess(fitting: Candidate[], hints: FileHints): Guess {
    const notes =
      this.percents > 0 && this.percents < this.distinct
        ? ["Some cells have a percent sign and some have none: 12 % is read as 0.12, and 12 as 12."]
        : [];
    if (fitting.length === 1) {
      const { reading } = fitting[0];
      return { reading, doubts: this.numberDoubts(reading), notes };
    }
    const [point, comma] = [
      this.unclear.some((c) => c.includes(".")),
      this.unclear.some((c) => c.includes(",")),
    ];
    // A lone point is a decimal mark unless the file shows that it groups thousands; a lone comma groups
    // thousands unless the file shows decimal commas.
    const decimal = (point && hints.pointGroups) || (comma && !point && hints.decimalComma) ? "," : ".";
    const reading: Reading = { type: "number", decimal };
    const doubts = this.numberDoubts(reading);
    if (point || comma)
      doubts.unshift(
        this.doubt("decimal mark", reading, { type: "number", decimal: decimal === "." ? "," : "." }),
      );
    return { reading, doubts, notes };
  }

  private numberDoubts(reading: Reading): Doubt[] {
    const doubts: Doubt[] = [];
    const { facts } = this;
    if (facts.binary && this.distinct === 2)
      doubts.push(this.doubt("zero and one", reading, { type: "boolean" }));
    if (facts.compactMonths)
      doubts.push(this.doubt("digits of a date", reading, { type: "date", pattern: "yyyyMM" }));
    if (facts.seconds || facts.milliseconds)
      doubts.push(
        this.doubt("counts from 1970", reading, { type: "timestamp", epoch: facts.seconds ? "s" : "ms" }),
      );
    if (facts.withE) doubts.push(this.doubt("numbers with an e", reading, { type: "text" }));
    if (facts.bracketed) doubts.push(this.doubt("all in brackets", reading, { type: "text" }));
    return doubts;
  }

  private dateGuess(fitting: Candidate[], hints: FileHints): Guess {
    const orders = fitting.map((c) => c.reading);
    const day = orders.find((r) => r.dateOrder === "dmy");
    const month = orders.find((r) => r.dateOrder === "mdy");
    const both = day && month && !orders.some((r) => r.dateOrder === "ymd");
    if (!both) return { reading: orders[0], doubts: [], notes: [] };
    const [reading, other] = hints.dateOrder === "mdy" ? [month, day] : [day, month];
    const doubt = this.doubt("day or month first", reading, other);
    return { reading, doubts: doubt.cells.length ? [doubt] : [], notes: [] };
  }

  /** A doubt with the first cells that the other reading would change. */
  private doubt(
    why: DoubtReason,
    reading: Reading,
    other: Reading,
    first: Iterable<string> = this.seen.keys(),
  ): Doubt {
    const cells: Doubt["cells"] = [];
    for (const text of first) {
      const [as, instead] = [readText(text, reading), readText(text, other)];
      if (as === instead && reading.type === other.type) continue;
      cells.push({ text: text.slice(0, 60), as, other: instead });
      if (cells.length === SHOWN) break;
    }
    return { why, other, cells };
  }
}

/** The doubts of a column of texts in which words stand that count as empty: each can be a value instead. */
export const nothingDoubts = (reading: Reading, words: ReadonlyMap<string, number>): Doubt[] =>
  reading.type !== "text"
    ? []
    : [...words].map(([text, count]) => ({
        why: "words for nothing",
        other: { ...reading, kept: [nothingWord(text) ?? text] },
        count,
        cells: [{ text, as: null, other: text }],
      }));

/** What a reading makes of a cell, as text; null where it cannot read it. */
function readText(text: string, reading: Reading): string | null {
  const value = outward(readCell(text, reading), reading.type);
  return value === null ? null : String(value).slice(0, 60);
}

/** What all columns of a file say together; a separator that leaves the comma free shows decimal commas. */
export function fileHints(guesses: ReadingGuess[], separator?: string): FileHints {
  const all = guesses.map((g) => g.hints());
  return {
    decimalComma: separator === ";" || separator === "\t" || all.some((h) => h.decimalComma),
    pointGroups: all.some((h) => h.pointGroups),
    dateOrder: all.find((h) => h.dateOrder !== null)?.dateOrder ?? null,
  };
}
