import { isNothing } from "@/core/data/reading";
import type { CellKind } from "@/core/data/reading-guess";
import type { Cell } from "../store/table-files";
import { ImportProblem } from "./import-problem";
import { columnNames, sniffHeader } from "./sniff";
import type { ReadColumns } from "./table-builder";
import { ThreadedBuilder } from "./threaded-builder";
import { totalNote } from "./total-row";

/** The most columns that a table can have. */
export const MAX_COLUMNS = 2000;
const MAX_NOTES = 20;

/**
 * A row of a file by its number there, from 1. The arrays may be kept and changed; `kinds` are those of cells
 * that have types of their own.
 */
export interface FileRow {
  cells: Cell[];
  number: number;
  kinds?: (CellKind | undefined)[];
}

/**
 * Takes parsed rows, mends what can be mended, stores them as table `id` and guesses how the columns are
 * read.
 */
export class RowTaker {
  private builder: ThreadedBuilder | null = null;
  private names: string[] = [];
  readonly notes: string[] = [];
  private short = 0;
  private last: Cell[] = [];
  header = false;

  /** The cells of the widest of the first rows: so wide is a table without names. */
  widest = 0;

  constructor(
    private readonly id: string,
    private readonly wantsHeader: boolean | undefined,
  ) {}

  /** The first row waits for the second, since the two together show whether it is a head. */
  private first: FileRow | null = null;

  take(row: FileRow): void {
    if (this.builder) this.store(row);
    else if (this.first === null) this.first = row;
    else {
      this.begin(this.first, row.cells);
      this.store(row);
    }
  }

  private store({ cells, number, kinds }: FileRow): void {
    const width = this.names.length;
    if (cells.length > width) {
      const extra = cells.slice(width);
      const beyond = extra.findIndex((c) => c !== null && !isNothing(c));
      if (beyond >= 0 && kinds)
        throw new ImportProblem(
          `Row ${number} has a cell in column ${width + beyond + 1}, beside the table, which has ${width}. Give that column a name in the head, or empty the cell.`,
        );
      if (beyond >= 0)
        throw new ImportProblem(
          `Row ${number} has ${cells.length} cells, but ${this.header ? "the head" : "the first row"} has ${width}. Look for a separator too many in row ${number}, or put the cell in quotes.`,
        );
      cells.length = width;
    } else if (cells.length < width) {
      this.short++;
      if (this.short === 1)
        this.notes.push(`Row ${number} has ${cells.length} of ${width} cells; the missing ones are empty.`);
      while (cells.length < width) cells.push(null);
    }
    this.last = cells;
    this.builder?.add(cells, kinds);
  }

  /** Starts the table with its first row, which is its head or is stored. */
  private begin(row: FileRow, second: Cell[] | null): void {
    const first = row.cells;
    const missing = new Array<Cell>(Math.max(0, this.widest - first.length)).fill(null);
    this.header = this.wantsHeader ?? sniffHeader([...first, ...missing], second);
    let width = this.header ? first.length : Math.max(first.length, this.widest);
    // Separators at the end of every line make empty columns without names.
    while (this.header && width > 1 && first[width - 1] === null) width--;
    if (width > MAX_COLUMNS)
      throw new ImportProblem(
        `The file has ${width} columns; at most ${MAX_COLUMNS} can be brought in. Check the separator.`,
      );
    const { names, notes } = columnNames(this.header ? first : null, width);
    this.names = names;
    this.notes.push(...notes.slice(0, MAX_NOTES));
    if (notes.length > MAX_NOTES) this.notes.push(`${notes.length - MAX_NOTES} more names were mended.`);
    this.builder = new ThreadedBuilder(this.id, width);
    if (!this.header) this.store(row);
  }

  /** Ends the table. `separator` is that of a text file, whose cells have no types of their own. */
  finish(separator?: string): { rows: number } & ReadColumns {
    if (this.first && !this.builder) this.begin(this.first, null);
    if (!this.builder) throw new ImportProblem("The file is empty. Bring in a file with at least one row.");
    if (this.builder.rows === 0) throw new ImportProblem("The file holds a head but no rows.");
    if (this.short > 1) this.notes.push(`${this.short} rows in all were shorter than the head.`);
    const total = this.builder.rows > 2 ? totalNote(this.last) : null;
    if (total) this.notes.push(total);
    const { columns, doubts, notes } = this.builder.finish(this.names, separator);
    return { rows: this.builder.rows, columns, doubts, notes: [...this.notes, ...notes] };
  }

  /** How many rows were stored so far. */
  get rows(): number {
    return this.builder?.rows ?? 0;
  }

  abandon(): void {
    this.builder?.abandon();
  }
}
