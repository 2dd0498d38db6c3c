import { closeSync, openSync, readSync } from "node:fs";
import { cutText } from "@/core/base/cut-text";
import { sameName } from "@/core/base/names";
import { readNumber } from "@/core/base/read-number";
import { readDate, readTimestamp } from "@/core/data/cell-date";
import { type Encoding, keysOf, SEPARATORS, type Separator } from "@/core/data/file-formats";
import { isNothing, readBoolean } from "@/core/data/reading";
import { LONGEST } from "@/core/project/most";
import type { Cell } from "../store/table-files";
import { ImportProblem } from "./import-problem";

const SAMPLE = 256 * 1024;

/**
 * Finds the encoding: by its byte order mark, by the zero bytes of UTF-16, else UTF-8 where the whole file is
 * valid, else Windows-1252.
 */
export function sniffEncoding(path: string, size: number): Encoding {
  const file = openSync(path, "r");
  try {
    const head = Buffer.alloc(Math.min(size, SAMPLE));
    readSync(file, head, 0, head.length, 0);
    if (head[0] === 0xff && head[1] === 0xfe) return "utf-16le";
    if (head[0] === 0xfe && head[1] === 0xff) return "utf-16be";
    let [even, odd] = [0, 0];
    for (let i = 0; i < head.length; i++) if (head[i] === 0) i % 2 === 0 ? even++ : odd++;
    if (odd > head.length * 0.2 && even < head.length * 0.02) return "utf-16le";
    if (even > head.length * 0.2 && odd < head.length * 0.02) return "utf-16be";
    if (even + odd > 0)
      throw new ImportProblem(
        "This is not a text file: it holds zero bytes. Bring in a CSV, TSV, JSON, XLSX or Parquet file.",
      );
    const decoder = new TextDecoder("utf-8", { fatal: true });
    const chunk = Buffer.alloc(1 << 20);
    for (let at = 0; ; ) {
      const read = readSync(file, chunk, 0, chunk.length, at);
      decoder.decode(chunk.subarray(0, read), { stream: read > 0 });
      if (read === 0) return "utf-8";
      at += read;
    }
  } catch (error) {
    if (error instanceof TypeError) return "windows-1252";
    throw error;
  } finally {
    closeSync(file);
  }
}

/** The first characters of a file. */
export function readSample(path: string, encoding: Encoding): string {
  const file = openSync(path, "r");
  const bytes = Buffer.alloc(SAMPLE);
  const read = readSync(file, bytes, 0, SAMPLE, 0);
  closeSync(file);
  return new TextDecoder(encoding).decode(bytes.subarray(0, read), { stream: true });
}

/** Counts a character outside quotes in each of the first lines. */
function countsOf(sample: string, char: string, quote: string): number[] {
  const counts: number[] = [];
  let [count, quoted] = [0, false];
  for (const c of sample) {
    if (c === quote) quoted = !quoted;
    else if (quoted) continue;
    else if (c === char) count++;
    else if (c === "\n") {
      counts.push(count);
      count = 0;
      if (counts.length === 50) break;
    }
  }
  if (count > 0 || counts.length === 0) counts.push(count);
  return counts;
}

/** The quote sign: the apostrophe only where fields begin and end with it and none with the double quote. */
export function sniffQuote(sample: string): '"' | "'" {
  const fields = (quote: string) =>
    (
      sample.match(new RegExp(`(?:^|[,;\\t|\\n])${quote}[^${quote}\\n]*${quote}(?=[,;\\t|\\r\\n]|$)`, "g")) ??
      []
    ).length;
  return fields("'") >= 2 && fields('"') === 0 ? "'" : '"';
}

/** The separator that splits the first lines into the same, largest number of cells. */
export function sniffSeparator(sample: string, quote: string): Separator {
  let best: Separator = ",";
  let bestScore = 0;
  for (const separator of keysOf(SEPARATORS)) {
    const counts = countsOf(sample, separator, quote);
    const usual = counts.toSorted((a, b) => a - b)[Math.floor(counts.length / 2)];
    if (usual === 0) continue;
    const steady = counts.filter((c) => c === usual).length / counts.length;
    // A decimal comma appears once a number; a steady count is worth more than a high one.
    const score = steady * 100 + Math.min(usual, 50) * 0.5;
    if (score > bestScore) [best, bestScore] = [separator, score];
  }
  return best;
}

type Look = "number" | "date" | "truth" | "text";

/** What a cell looks like on its own. */
export function lookOf(cell: string): Look {
  if (readNumber(cell, ".") !== null || readNumber(cell, ",") !== null) return "number";
  if (
    readDate(cell, "ymd") !== null ||
    readDate(cell, "dmy") !== null ||
    readDate(cell, "mdy") !== null ||
    readTimestamp(cell, "ymd") !== null
  )
    return "date";
  return readBoolean(cell) !== null && cell.length > 1 ? "truth" : "text";
}

/**
 * Whether the first row holds names: at least half of its cells filled, and none of them a number, a date or
 * true. Where some are (a column a year or a month), the second row settles it: names are all filled, all
 * different, and not of the same look as what stands below them.
 */
export function sniffHeader(first: Cell[], second: Cell[] | null): boolean {
  const filled = first.filter((c): c is string => c !== null && !isNothing(c));
  if (filled.length === 0 || filled.length < first.length / 2) return false;
  if (filled.every((c) => lookOf(c) === "text")) return true;
  if (
    second === null ||
    filled.length < first.length ||
    new Set(filled.map((c) => c.trim().toLowerCase())).size < filled.length
  )
    return false;
  const below = filled.map(
    (c, i) =>
      [
        lookOf(c),
        second[i] === null || second[i] === undefined || isNothing(second[i]) ? null : lookOf(second[i]),
      ] as const,
  );
  if (
    below.some(
      ([above, under]) =>
        (above === "text" && under !== null && under !== "text") || (above === "date" && under === "number"),
    )
  )
    return true;
  const isYear = (cell: Cell | undefined) => cell != null && /^(?:19|20)\d\d$/.test(cell.trim());
  return (
    filled.every((c, i) => below[i][0] === "text" || isYear(c)) &&
    filled.some((c, i) => isYear(c) && !isYear(second[i]))
  );
}

/**
 * Column names out of a head row: trimmed, cut where they are very long, numbered where they repeat, made up
 * where they are empty. Says what was mended.
 */
export function columnNames(head: Cell[] | null, width: number): { names: string[]; notes: string[] } {
  const names: string[] = [];
  const notes: string[] = [];
  for (let i = 0; i < width; i++) {
    const written = (head?.[i] ?? "").replace(/\s+/g, " ").trim();
    const isLong = written.length > LONGEST.column;
    const given = cutText(written, LONGEST.column).trim();
    let name = given || `column_${i + 1}`;
    if (head && !given) notes.push(`Column ${i + 1} has no name in the file; it is called ${name}.`);
    for (let n = 2; names.some((k) => sameName(k, name)); n++) name = `${given || `column_${i + 1}`}_${n}`;
    if (isLong)
      notes.push(
        `The name of column ${i + 1} has ${written.length.toLocaleString("en")} characters; it is called ${name}.`,
      );
    else if (given && name !== given)
      notes.push(`The name “${given}” stands twice; column ${i + 1} is called ${name}.`);
    names.push(name);
  }
  return { names, notes };
}
