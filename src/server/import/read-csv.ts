import { createReadStream, statSync } from "node:fs";
import { Transform } from "node:stream";
import { CsvError, type Parser, parse } from "csv-parse";
import type { Encoding } from "@/core/data/file-formats";
import type { Cell } from "../store/table-files";
import { FirstRows, rowsAboveHead } from "./above-head";
import { ImportProblem } from "./import-problem";
import type { Progress } from "./progress";
import type { ImportOptions, ReadTable } from "./reader";
import { RowTaker } from "./row-taker";
import { readSample, sniffEncoding, sniffQuote, sniffSeparator } from "./sniff";

const MAX_RECORD = 5_000_000;

/** Bytes of a file as text, whatever piece of it they come in. */
function decoding(encoding: Encoding): Transform {
  const decoder = new TextDecoder(encoding);
  return new Transform({
    transform: (bytes: Buffer, _, done) => done(null, decoder.decode(bytes, { stream: true })),
    flush: (done) => done(null, decoder.decode()),
  });
}

/** The cells of a record, which is changed for it. */
function cellsOf(record: Cell[]): Cell[] {
  for (let i = 0; i < record.length; i++) if (record[i] === "") record[i] = null;
  return record;
}

function problemOf(error: unknown): unknown {
  if (!(error instanceof CsvError)) return error;
  const line = (error as CsvError & { lines?: number }).lines;
  const at = line ? ` near line ${line}` : "";
  if (error.code === "CSV_QUOTE_NOT_CLOSED")
    return new ImportProblem(
      `A quote opened${at} is never closed. Close it, or double it where it belongs to the text.`,
    );
  if (error.code === "CSV_MAX_RECORD_SIZE")
    return new ImportProblem(
      `A row${at} is longer than ${MAX_RECORD / 1e6} MB. Look for a quote that is never closed.`,
    );
  return new ImportProblem(`The file cannot be read${at}: ${error.message}`);
}

/**
 * Reads a CSV or TSV file into the stored rows of table `id`. `progress` hears the share done, 0 to 1.
 * Rejects with an ImportProblem where the file is broken; then, and when `signal` aborts, nothing is left
 * behind.
 */
export async function readCsv(
  id: string,
  path: string,
  options: ImportOptions,
  progress: Progress,
  signal?: AbortSignal,
): Promise<ReadTable> {
  const { size } = statSync(path);
  if (size === 0) throw new ImportProblem("The file is empty. Bring in a file with at least one row.");
  const encoding = options.encoding ?? sniffEncoding(path, size);
  const sample = readSample(path, encoding);
  const quote = sniffQuote(sample);
  const separator = options.separator ?? sniffSeparator(sample, quote);
  const taker = new RowTaker(id, options.header);
  const first = new FirstRows(options, taker, { above: rowsAboveHead });
  const source = createReadStream(path, { highWaterMark: 1 << 18, signal });
  let read = 0;
  source.on("data", (chunk) => {
    read += chunk.length;
    progress(Math.min(0.99, read / size), taker.rows);
  });
  const parser: Parser = parse({
    delimiter: separator,
    quote,
    bom: true,
    relax_column_count: true,
    relax_quotes: true,
    skip_empty_lines: true,
    max_record_size: MAX_RECORD,
  });
  source.on("error", (error) => parser.destroy(error));
  // The parser reads UTF-8 by itself; text would only be made into bytes again.
  if (encoding === "utf-8") source.pipe(parser);
  else {
    const text = source.pipe(decoding(encoding));
    text.on("error", (error) => parser.destroy(error));
    text.pipe(parser);
  }
  try {
    let row = 0;
    // Records are taken as many at a time as there are; one at a time costs as much as the parsing.
    const ended = new Promise<void>((resolve, reject) => {
      parser.on("error", reject);
      parser.on("end", resolve);
      parser.on("readable", () => {
        try {
          for (let record: string[] | null = parser.read(); record !== null; record = parser.read())
            first.add({ cells: cellsOf(record), number: ++row });
        } catch (error) {
          parser.destroy(error as Error);
        }
      });
    });
    await ended;
    first.end();
    const table = taker.finish(separator);
    return {
      ...table,
      notes: [...first.notes, ...table.notes],
      source: { format: "csv", encoding, separator, header: taker.header, above: first.above },
    };
  } catch (error) {
    taker.abandon();
    source.destroy();
    throw problemOf(error);
  }
}
