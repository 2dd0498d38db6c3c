import { isNothing } from "@/core/data/reading";
import type { Cell } from "../store/table-files";
import { ImportProblem } from "./import-problem";
import type { ReadTable } from "./read-table";
import { columnNames, sniffHeader } from "./sniff";
import { TableBuilder } from "./table-builder";

export const MAX_COLUMNS = 2000;
const MAX_NOTES = 20;

/** Takes parsed rows, mends what can be mended, stores them as table `id` and guesses how the columns are read. */
export class RowTaker {
  private builder: TableBuilder | null = null;
  private names: string[] = [];
  readonly notes: string[] = [];
  private short = 0;
  header = false;

  constructor(
    private readonly id: string,
    private readonly wantsHeader: boolean | undefined,
  ) {}

  /** Takes a row by its number in the file, from 1. The array may be kept and changed. */
  take(values: Cell[], row: number): void {
    if (!this.builder) {
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
    this.builder?.add(values);
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
    this.builder = new TableBuilder(this.id, width);
    return this.header;
  }

  finish(): { rows: number; columns: ReadTable["columns"] } {
    if (!this.builder) throw new ImportProblem("The file is empty. Bring in a file with at least one row.");
    if (this.builder.rows === 0) throw new ImportProblem("The file holds a head but no rows.");
    if (this.short > 1) this.notes.push(`${this.short} rows in all were shorter than the head.`);
    const readings = this.builder.finish();
    return { rows: this.builder.rows, columns: this.names.map((name, i) => ({ name, reading: readings[i] })) };
  }

  abandon(): void {
    this.builder?.abandon();
  }
}
