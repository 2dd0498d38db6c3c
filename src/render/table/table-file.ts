import type { Value } from "@/core/base/value";
import type { Result, ResultColumn } from "@/core/plan/query";
import { csvCell } from "./csv";
import type { Head, TableFileWriter } from "./table-writer";
import { XlsxWriter } from "./xlsx";

/** The formats that numbers leave in, with their media types. */
export const TABLE_FORMATS = {
  csv: "text/csv; charset=utf-8",
  json: "application/json; charset=utf-8",
  ndjson: "application/x-ndjson; charset=utf-8",
  xlsx: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
} as const;
/** One of the formats that numbers leave in. */
export type TableFormat = keyof typeof TABLE_FORMATS;

const encoder = new TextEncoder();
const NOTHING = new Uint8Array(0);
const rowsOf = (columns: Value[][]): Value[][] => (columns[0] ?? []).map((_, i) => columns.map((c) => c[i]));

class CsvWriter implements TableFileWriter {
  constructor(private readonly columns: Head) {}
  private line = (cells: Value[]) => `${cells.map(csvCell).join(",")}\r\n`;
  head() {
    return encoder.encode(this.line(this.columns.map((c) => c.name)));
  }
  rows(columns: Value[][]) {
    return encoder.encode(rowsOf(columns).map(this.line).join(""));
  }
  end() {
    return NOTHING;
  }
}

/** Rows as objects: one array of them, or one a line. */
class JsonWriter implements TableFileWriter {
  private first = true;
  constructor(
    private readonly columns: Head,
    private readonly lines: boolean,
  ) {}
  head() {
    return this.lines ? NOTHING : encoder.encode("[");
  }
  rows(columns: Value[][]) {
    let text = "";
    for (const row of rowsOf(columns)) {
      // Written by hand, so that no name can mean anything else than a name.
      const record = `{${this.columns.map((c, i) => `${JSON.stringify(c.name)}:${JSON.stringify(row[i])}`).join(",")}}`;
      text += this.lines ? `${record}\n` : `${this.first ? "\n" : ",\n"}${record}`;
      this.first = false;
    }
    return encoder.encode(text);
  }
  end() {
    return this.lines ? NOTHING : encoder.encode("\n]\n");
  }
}

/** A writer of a format for rows with these columns. */
export function tableFileWriter(format: TableFormat, columns: Head): TableFileWriter {
  if (format === "csv") return new CsvWriter(columns);
  return format === "xlsx" ? new XlsxWriter(columns) : new JsonWriter(columns, format === "ndjson");
}

const OTHER = "Other";
const NO_MATCH = "(no match)";

/**
 * The columns of a result as they are handed out: what stands for Other, or for those without a match, says
 * so in the column of its split.
 */
function handedOut(result: Result): ResultColumn[] {
  const { crossed } = result;
  /** Which of a split's keys stands in a row, as its place among them. */
  const word = (split: number, row: number): string | null => {
    if (!crossed) return result.others?.row === row ? OTHER : result.noMatch?.row === row ? NO_MATCH : null;
    const { others, noMatch } = crossed.splits[split];
    const at = crossed.at[row][split];
    return others?.at === at ? OTHER : noMatch?.at === at ? NO_MATCH : null;
  };
  const splits = crossed ? 2 : 1;
  return result.columns.map((c, i) =>
    i < splits ? { ...c, values: c.values.map((value, row) => word(i, row) ?? value) } : c,
  );
}

/** A whole result as a file of one of the formats. */
export function resultFile(format: TableFormat, result: Result): Uint8Array {
  const columns = handedOut(result);
  const writer = tableFileWriter(format, columns);
  const parts = [writer.head(), writer.rows(columns.map((c) => c.values)), writer.end()];
  const bytes = new Uint8Array(parts.reduce((sum, p) => sum + p.length, 0));
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
}
