import { createReadStream, statSync } from "node:fs";
import { CsvError, type Parser, parse } from "csv-parse";
import iconv from "iconv-lite";
import { z } from "zod";
import { isNothing, ReadingGuess } from "@/core/data/reading";
import type { Reading } from "@/core/data/reading-schema";
import { type Cell, TableWriter } from "../store/table-files";
import { columnNames, ENCODINGS, type Encoding, ImportProblem, readSample, SEPARATORS, type Separator, sniffEncoding, sniffHeader, sniffQuote, sniffSeparator } from "./sniff";

/** How a file is to be read where the person said so; the rest is detected. */
export const csvOptionsSchema = z.object({
  encoding: z.enum(ENCODINGS).optional(),
  separator: z.enum(SEPARATORS).optional(),
  header: z.union([z.boolean(), z.enum(["true", "false"]).transform((t) => t === "true")]).optional(),
});
export type CsvOptions = z.infer<typeof csvOptionsSchema>;

export interface CsvTable {
  rows: number;
  columns: { name: string; reading: Reading }[];
  encoding: Encoding;
  separator: Separator;
  header: boolean;
  /** What was mended on the way, with row numbers. */
  notes: string[];
}

const MAX_COLUMNS = 2000;
const MAX_RECORD = 5_000_000;
const MAX_NOTES = 20;

/** Takes parsed rows, mends what can be mended, stores them and guesses how the columns are read. */
class RowTaker {
  private writer: TableWriter | null = null;
  private guesses: ReadingGuess[] = [];
  private names: string[] = [];
  readonly notes: string[] = [];
  private short = 0;
  header = false;

  constructor(
    private readonly id: string,
    private readonly wantsHeader: boolean | undefined,
  ) {}

  take(cells: string[], row: number): void {
    const values: Cell[] = cells.map((c) => (c === "" ? null : c));
    if (!this.writer) {
      if (this.begin(values)) return;
    }
    const width = this.names.length;
    if (values.length > width) {
      const extra = values.slice(width);
      if (extra.some((c) => c !== null && !isNothing(c)))
        throw new ImportProblem(
          `Row ${row} has ${values.length} cells, but ${this.header ? "the head" : "the first row"} has ${width}. Look for a separator too many in row ${row}, or put the cell in quotes.`,
        );
      values.length = width;
    } else if (values.length < width) {
      this.short++;
      if (this.short === 1) this.notes.push(`Row ${row} has ${values.length} of ${width} cells; the missing ones are empty.`);
      while (values.length < width) values.push(null);
    }
    for (let i = 0; i < width; i++) this.guesses[i].add(values[i]);
    this.writer?.add(values);
  }

  /** Starts the table with its first row; true where that row was the head. */
  private begin(first: Cell[]): boolean {
    this.header = this.wantsHeader ?? sniffHeader(first);
    let width = first.length;
    // Separators at the end of every line make empty columns without names.
    while (this.header && width > 1 && first[width - 1] === null) width--;
    if (width > MAX_COLUMNS) throw new ImportProblem(`The file has ${width} columns; at most ${MAX_COLUMNS} can be brought in. Check the separator.`);
    const { names, notes } = columnNames(this.header ? first : null, width);
    this.names = names;
    this.notes.push(...notes.slice(0, MAX_NOTES));
    this.guesses = names.map(() => new ReadingGuess());
    this.writer = new TableWriter(this.id, width);
    return this.header;
  }

  finish(): { rows: number; columns: CsvTable["columns"] } {
    if (!this.writer) throw new ImportProblem("The file is empty. Bring in a file with at least one row.");
    if (this.writer.rows === 0) throw new ImportProblem("The file holds a head but no rows.");
    if (this.short > 1) this.notes.push(`${this.short} rows in all were shorter than the head.`);
    this.writer.finish();
    return { rows: this.writer.rows, columns: this.names.map((name, i) => ({ name, reading: this.guesses[i].result() })) };
  }

  abandon(): void {
    this.writer?.abandon();
  }
}

function problemOf(error: unknown): unknown {
  if (!(error instanceof CsvError)) return error;
  const line = (error as CsvError & { lines?: number }).lines;
  const at = line ? ` near line ${line}` : "";
  if (error.code === "CSV_QUOTE_NOT_CLOSED") return new ImportProblem(`A quote opened${at} is never closed. Close it, or double it where it belongs to the text.`);
  if (error.code === "CSV_MAX_RECORD_SIZE") return new ImportProblem(`A row${at} is longer than ${MAX_RECORD / 1e6} MB. Look for a quote that is never closed.`);
  return new ImportProblem(`The file cannot be read${at}: ${error.message}`);
}

/**
 * Reads a CSV or TSV file into the stored rows of table `id`. `progress` hears the share done, 0 to 1. Rejects with an
 * ImportProblem where the file is broken; then, and when `signal` aborts, nothing is left behind.
 */
export async function readCsv(id: string, path: string, options: CsvOptions, progress: (share: number) => void, signal?: AbortSignal): Promise<CsvTable> {
  const { size } = statSync(path);
  if (size === 0) throw new ImportProblem("The file is empty. Bring in a file with at least one row.");
  const encoding = options.encoding ?? sniffEncoding(path, size);
  const sample = readSample(path, encoding);
  const quote = sniffQuote(sample);
  const separator = options.separator ?? sniffSeparator(sample, quote);
  const taker = new RowTaker(id, options.header);
  const source = createReadStream(path, { highWaterMark: 1 << 18, signal });
  let read = 0;
  source.on("data", (chunk) => {
    read += chunk.length;
    progress(Math.min(0.99, read / size));
  });
  const parser: Parser = parse({ delimiter: separator, quote, bom: true, relax_column_count: true, relax_quotes: true, skip_empty_lines: true, max_record_size: MAX_RECORD });
  const text = source.pipe(iconv.decodeStream(encoding));
  source.on("error", (error) => parser.destroy(error));
  text.on("error", (error) => parser.destroy(error));
  text.pipe(parser);
  try {
    let row = 0;
    for await (const record of parser) taker.take(record as string[], ++row);
    const { rows, columns } = taker.finish();
    return { rows, columns, encoding, separator, header: taker.header, notes: taker.notes };
  } catch (error) {
    taker.abandon();
    source.destroy();
    throw problemOf(error);
  }
}
