import { asyncBufferFromFile, parquetMetadataAsync, parquetReadObjects } from "hyparquet";
import { compressors } from "hyparquet-compressors";
import { isoDate, isoTimestamp } from "@/core/base/calendar";
import type { CellKind } from "@/core/data/reading-guess";
import type { Cell } from "../store/table-files";
import { ImportProblem } from "./import-problem";
import type { Progress } from "./progress";
import type { ImportOptions, ReadTable } from "./reader";
import { MAX_COLUMNS } from "./row-taker";
import { columnNames } from "./sniff";
import { ThreadedBuilder } from "./threaded-builder";

const DAY_MS = 86_400_000;
const MOST_GROUP_BYTES = 1_000_000_000;

/** A value as a cell's text, and what it is. Whole numbers beyond 2^53 stay texts, digit for digit. */
function cellOf(value: unknown): { text: Cell; kind?: CellKind } {
  if (
    value === null ||
    value === undefined ||
    value === "" ||
    (typeof value === "number" && !Number.isFinite(value))
  )
    return { text: null };
  if (value instanceof Date) {
    if (Number.isNaN(value.getTime())) return { text: null };
    return {
      text:
        value.getTime() % DAY_MS === 0 ? isoDate(value.getTime() / DAY_MS) : isoTimestamp(value.getTime()),
      kind: "date",
    };
  }
  if (value instanceof Uint8Array) return { text: new TextDecoder().decode(value), kind: "text" };
  if (typeof value === "bigint")
    return { text: String(value), kind: Number.isSafeInteger(Number(value)) ? "number" : "text" };
  if (typeof value === "object")
    return {
      text: JSON.stringify(value, (_, v) => (typeof v === "bigint" ? String(v) : v)).toWellFormed(),
      kind: "text",
    };
  return {
    text: String(value).toWellFormed(),
    kind: typeof value === "number" ? "number" : typeof value === "boolean" ? "boolean" : "text",
  };
}

/** Reads a Parquet file, one row group after the other. */
export async function readParquet(
  id: string,
  path: string,
  _options: ImportOptions,
  progress: Progress,
): Promise<ReadTable> {
  const broken = (error: unknown) =>
    error instanceof ImportProblem
      ? error
      : new ImportProblem(
          `The Parquet file cannot be read: ${error instanceof Error ? error.message : String(error)}. It may have been cut short.`,
        );
  const file = await asyncBufferFromFile(path);
  const metadata = await parquetMetadataAsync(file).catch((error) => {
    throw broken(error);
  });
  const fields = metadata.schema
    .slice(1)
    .flatMap((s, i, all) => (i === 0 || isTopLevel(all, i) ? [s.name] : []));
  if (fields.length === 0) throw new ImportProblem("The Parquet file holds no columns.");
  if (fields.length > MAX_COLUMNS)
    throw new ImportProblem(
      `The file has ${fields.length} columns; at most ${MAX_COLUMNS} can be brought in.`,
    );
  const rows = Number(metadata.num_rows);
  if (rows === 0) throw new ImportProblem("The Parquet file holds no rows.");
  const { names, notes } = columnNames(fields, fields.length);
  const builder = new ThreadedBuilder(id, names.length);
  try {
    let start = 0;
    for (const group of metadata.row_groups) {
      const end = start + Number(group.num_rows);
      if (Number(group.total_byte_size) > MOST_GROUP_BYTES)
        throw new ImportProblem(
          "A row group of the file unpacks to more than 1 GB. Write the file with smaller row groups.",
        );
      const records = await parquetReadObjects({ file, metadata, compressors, rowStart: start, rowEnd: end });
      for (const record of records) {
        const cells = fields.map((f) => cellOf(record[f]));
        builder.add(
          cells.map((c) => c.text),
          cells.map((c) => c.kind),
        );
      }
      start = end;
      progress(Math.min(0.99, end / rows), end);
    }
    const read = builder.finish(names);
    return { ...read, rows: builder.rows, notes: [...notes, ...read.notes], source: { format: "parquet" } };
  } catch (error) {
    builder.abandon();
    throw broken(error);
  }
}

/** Whether the schema element at a place is a column of its own and not a part of a nested one before it. */
function isTopLevel(elements: { num_children?: number }[], at: number): boolean {
  let open = 0;
  for (let i = 0; i < at; i++) open += (elements[i].num_children ?? 0) - (open > 0 ? 1 : 0);
  return open === 0;
}
