import metrics from "./font-metrics.json";

/** The weights that every family ships. */
export type Weight = 400 | 500 | 600 | 700;
/** Text in visuals never gets smaller than this. */
export const SMALLEST = 9;
/** The distance of two lines, as a multiple of the size of their letters. */
export const LINE_HEIGHT = 1.2;

/** The width of each character of a family by weight, in thousandths of the size; 0 where the font lacks it. */
type Widths = Record<Weight, Uint16Array>;

const [, LAST_CODE] = metrics.ranges[metrics.ranges.length - 1];

/**
 * The widths of each weight out of the short form that scripts/make-fonts.mjs writes: of a weight
 * what it differs
 * in from the one before, and of a letter with an accent what it differs in from the letter without.
 */
function tablesOf(short: number[][]): Widths {
  const differences = new Array<number>(short[0].length).fill(0);
  const tables = short.map((weight) => {
    const byCode = new Uint16Array(LAST_CODE + 1);
    let i = 0;
    for (const [from, to] of metrics.ranges)
      for (let code = from; code <= to; code++, i++) {
        differences[i] += weight[i];
        const base = String.fromCodePoint(code).normalize("NFD").codePointAt(0) as number;
        byCode[code] = differences[i] + (base < code ? byCode[base] : 0);
      }
    return byCode;
  });
  return { 400: tables[0], 500: tables[1], 600: tables[2], 700: tables[3] };
}

const tables = new Map<string, Widths>();

function widthsIn(family: string): Widths {
  let known = tables.get(family);
  if (!known) {
    known = tablesOf(metrics.families[family as keyof typeof metrics.families] ?? metrics.families.archivo);
    tables.set(family, known);
  }
  return known;
}

/** The widths of a family that a page brings, as scripts/make-widths.mjs writes them. */
export interface BroughtWidths {
  /** The first and the last code of each stretch, and for some weights the widths of all of them in order. */
  ranges: [number, number][];
  widths: Record<string, number[]>;
}

/** Makes the widths of a family known that a page brings: a weight that it lacks is that of the nearest. */
export function bringWidths(family: string, { ranges, widths }: BroughtWidths): void {
  const last = Math.max(0, ...ranges.map(([, to]) => to));
  const nearest = (weight: number) =>
    Object.keys(widths)
      .map(Number)
      .sort((a, b) => Math.abs(a - weight) - Math.abs(b - weight))[0];
  const tableOf = (weight: number) => {
    const byCode = new Uint16Array(last + 1);
    let i = 0;
    for (const [from, to] of ranges)
      for (let code = from; code <= to; code++) byCode[code] = widths[nearest(weight)]?.[i++] ?? 0;
    return byCode;
  };
  tables.set(family, { 400: tableOf(400), 500: tableOf(500), 600: tableOf(600), 700: tableOf(700) });
}

let current = widthsIn("archivo");

/**
 * Lays something out with texts measured in a type family. Layout is synchronous, so that no other measuring
 * comes between.
 */
export function measuredIn<T>(family: string, lay: () => T): T {
  const before = current;
  current = widthsIn(family);
  try {
    return lay();
  } finally {
    current = before;
  }
}

/**
 * Width of a character that the font lacks, in thousandths of the size: a full square for ideographs, else a
 * wide letter.
 */
function foreignWidth(code: number): number {
  if ((code >= 0x300 && code <= 0x36f) || code === 0x200b || (code >= 0xfe00 && code <= 0xfe0f)) return 0;
  return code >= 0x1100 ? 1020 : 640;
}

/** Width of a text in thousandths of its size. Whole numbers, so that parts add up to it exactly. */
function unitsOf(text: string, weight: Weight): number {
  const widths = current[weight];
  let units = 0;
  for (let i = 0; i < text.length; i++) {
    const code = text.codePointAt(i) as number;
    if (code > 0xffff) i++;
    units += widths[code] || foreignWidth(code);
  }
  return units;
}

/** Width of a text in pixels, from the shipped font's advance widths (kerning is not counted). */
export const textWidth = (text: string, size: number, weight: Weight): number =>
  (unitsOf(text, weight) * size) / 1000;

/** A number with its sign, its currency, its separators and its unit, which no cut may divide. */
const NUMBER =
  /[\p{Sc}+\u2212-]*\d(?:[\d.,'\u2019\u2009\u202f\u00a0]*\d)?[\u2009\u202f\u00a0]?(?:[%\u2030\p{Sc}]|(?:k|M|bn|min|h|d)(?!\p{L}))?/gu;

/** A place to cut a text at, before the number that it would divide. */
function beforeNumber(text: string, end: number): number {
  for (const { 0: number, index } of text.matchAll(NUMBER)) {
    if (index >= end) break;
    if (end < index + number.length) return text.slice(0, index).trimEnd().length;
  }
  return end;
}

/** The text where it fits a width, else an empty one: for numbers, which are never cut. */
export const whole = (text: string, width: number, size: number, weight: Weight): string =>
  textWidth(text, size, weight) <= width + 0.01 ? text : "";

/** The text cut to a width with an ellipsis, never within a number; an empty text when nothing fits. */
export function shorten(text: string, width: number, size: number, weight: Weight): string {
  // A width that was computed from the text itself must not cut it by a rounding error.
  if (textWidth(text, size, weight) <= width + 0.01) return text;
  const room = (width * 1000) / size - unitsOf("…", weight);
  // The longest start that fits; spaces at its end take no room, since they are left off.
  let [units, end, at] = [0, 0, 0];
  for (const char of text) {
    units += unitsOf(char, weight);
    at += char.length;
    if (char.trim() === "") continue;
    if (units > room) break;
    end = at;
  }
  end = beforeNumber(text, end);
  return end === 0 ? "" : `${text.slice(0, end)}…`;
}

const BETWEEN_ANY = /[\u3040-\u30ff\u3400-\u9fff\uac00-\ud7af\uff00-\uffef]/;

/** A word, or a sign of scripts that are written without spaces, with the space before it if it has one. */
interface Piece {
  text: string;
  space: string;
}

const SIGN_OR_UNIT = "[%‰€£$°](?:\\s|$)|(?<=\\d\\s)\\p{L}{1,2}(?:\\s|$)";
const BREAK = new RegExp(`[ \\t\\r\\n]+(?!${SIGN_OR_UNIT})`, "u");

/** The pieces that a line may break between. */
function pieces(text: string): Piece[] {
  // Other spaces stand within numbers, which are never torn; nor is a sign from the word that it follows, or
  // a unit from its number.
  const words = text.split(BREAK).filter(Boolean);
  if (!BETWEEN_ANY.test(text)) return words.map((word) => ({ text: word, space: " " }));
  return words.flatMap((word) => {
    const parts: string[] = [];
    let open = false;
    for (const char of word) {
      const alone = BETWEEN_ANY.test(char);
      if (alone || !open) parts.push(char);
      else parts[parts.length - 1] += char;
      open = !alone;
    }
    return parts.map((part, i) => ({ text: part, space: i === 0 ? " " : "" }));
  });
}

const joined = (parts: Piece[]) =>
  parts.reduce((line, { text, space }, i) => (i === 0 ? text : line + space + text), "");

/**
 * Breaks a text into at most `lines` lines of a width; what does not fit ends in an ellipsis. Where not even
 * the beginning of a line fits, the text ends before it.
 */
export function wrap(text: string, width: number, size: number, weight: Weight, lines: number): string[] {
  const parts = lines > 0 ? pieces(text) : [];
  const room = (width * 1000) / size;
  const out: string[] = [];
  for (let i = 0; i < parts.length; ) {
    if (out.length === lines - 1) {
      out.push(shorten(joined(parts.slice(i)), width, size, weight));
      break;
    }
    let end = i + 1;
    let units = unitsOf(parts[i].text, weight);
    for (; end < parts.length; end++) {
      units += unitsOf(parts[end].space + parts[end].text, weight);
      if (units > room) break;
    }
    const line = shorten(joined(parts.slice(i, end)), width, size, weight);
    if (line === "") break;
    out.push(line);
    i = end;
  }
  return out.filter((line) => line !== "");
}

/**
 * The largest size from `size` down to the floor at which a text fits a width; null when it does not fit at
 * the floor.
 */
export function fittingSize(text: string, width: number, size: number, weight: Weight): number | null {
  const needed = textWidth(text, size, weight);
  if (needed <= width) return size;
  const scaled = Math.floor(((size * width) / needed) * 4) / 4;
  return scaled >= SMALLEST ? scaled : null;
}

/**
 * A text at the largest size that fits: the first of the candidates that fits without shrinking below `keep`
 * of the size, else the last one, shrunk to the floor and then shortened; where that has a number, nothing.
 */
export function fitText(
  candidates: string[],
  width: number,
  size: number,
  weight: Weight,
  keep = 0.7,
): { text: string; size: number } {
  for (const text of candidates) {
    const fitting = fittingSize(text, width, size, weight);
    if (fitting !== null && fitting >= size * keep) return { text, size: fitting };
  }
  const last = candidates[candidates.length - 1];
  const fitting = fittingSize(last, width, size, weight);
  return fitting !== null
    ? { text: last, size: fitting }
    : { text: /\d/.test(last) ? "" : shorten(last, width, SMALLEST, weight), size: SMALLEST };
}
