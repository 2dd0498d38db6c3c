import { cutText } from "@/core/base/cut-text";
import { isNothing } from "@/core/data/reading";
import type { Cell } from "../store/table-files";
import { ImportProblem } from "./import-problem";
import type { ImportOptions } from "./reader";
import type { FileRow, RowTaker } from "./row-taker";
import { lookOf, sniffHeader } from "./sniff";

/** A head and what stands above it are looked for among so many rows. */
export const FIRST_ROWS = 60;
/** So many rows under the head are looked at for whether it is one. */
const LOOKED_AT = 5;

const isFilled = (cell: Cell | undefined): cell is string => cell != null && !isNothing(cell);
const filledIn = (row: Cell[]): number => row.filter(isFilled).length;
const widthOf = (row: Cell[]): number => row.findLastIndex(isFilled) + 1;

/** The width that most rows have, the larger one of two that are as frequent. */
function usualWidth(rows: Cell[][]): number {
  const counts = new Map<number, number>();
  for (const row of rows) counts.set(widthOf(row), (counts.get(widthOf(row)) ?? 0) + 1);
  return [...counts].reduce((best, one) =>
    one[1] > best[1] || (one[1] === best[1] && one[0] > best[0]) ? one : best,
  )[0];
}

/** A title, the line that says the separator, or a word with what it stands for, as “As of” and a day. */
const isTitle = (row: Cell[], usual: number): boolean => {
  const filled = filledIn(row);
  return filled <= 1 || (filled === 2 && usual >= 4 && isFilled(row[0]) && isFilled(row[1]));
};

/** Whether some column under a head holds something else than texts. */
function standsOverValues(head: Cell[], below: Cell[][]): boolean {
  return head.some(
    (name, i) =>
      isFilled(name) &&
      lookOf(name) === "text" &&
      below.some((row) => isFilled(row[i]) && lookOf(row[i]) !== "text"),
  );
}

/**
 * How many of the first rows of a file stand above the head of its table: titles, and what a report says of
 * itself. None where it cannot be told from a table whose first rows are hardly filled: what follows has to
 * be a head, and there is more than texts under it, or all that is above it ends before the table does.
 */
export function rowsAboveHead(rows: Cell[][]): number {
  // From where there is more than titles, of which there may be more than rows; a list has no width.
  const from = rows.findIndex((row) => filledIn(row) > 1);
  const usual = from < 0 ? 0 : usualWidth(rows.slice(from));
  if (usual < 2) return 0;
  const first = rows.findIndex((row) => !isTitle(row, usual));
  if (first < 1) return 0;
  const [head, ...below] = rows.slice(first).map((row) => row.slice(0, usual));
  if (!sniffHeader([...head, ...new Array(usual - head.length).fill(null)], below[0] ?? null)) return 0;
  const above = rows.slice(0, first);
  const isShort = above.every((row) => row.length < usual);
  return isShort || standsOverValues(head, below.slice(0, LOOKED_AT)) ? first : 0;
}

/** Says what was left out above a head. */
function aboveNote(above: Cell[][]): string {
  const said = above.map((row) => cutText(row.filter(isFilled).join(" "), 60)).filter((text) => text !== "");
  const quoted = said.slice(0, 3).map((text) => `“${text}”`);
  const what = said.length > 3 ? `${quoted.join(", ")} and ${said.length - 3} more` : quoted.join(", ");
  return `${above.length === 1 ? "A row" : `${above.length} rows`} above the head ${above.length === 1 ? "was" : "were"} left out${what ? `: ${what}` : ""}.`;
}

/**
 * The same for a sheet, whose cells have types: what holds one cell above a wider table is a title whatever
 * comes next, since heads of several rows look like none.
 */
export function rowsAboveSheet(rows: Cell[][]): number {
  const first = rows.slice(0, -1).findIndex((row) => filledIn(row) > 1);
  // The last row is the head where nothing else can be; a cell beside a list makes it no table.
  const titles = first < 0 ? rows.length - 1 : first;
  const isTable = titles > 0 && usualWidth(rows.slice(titles)) > 1;
  return Math.max(isTable ? titles : 0, rowsAboveHead(rows));
}

/** How a file has its rows: what stands above the table, and how the first of the others are made of it. */
interface RowsOf<Row> {
  above: (rows: Cell[][]) => number;
  shape?: (rows: Row[]) => Row[];
}

/**
 * Holds the first rows of a file back until it is told how many of them stand above the table; these are left
 * out, all others are taken in their order.
 */
export class FirstRows<Row extends FileRow> {
  private held: Row[] | null = [];
  /** How many rows were left out, once that is told. */
  above = 0;
  readonly notes: string[] = [];

  constructor(
    private readonly options: ImportOptions,
    private readonly taker: RowTaker,
    private readonly file: RowsOf<Row>,
  ) {}

  add(row: Row): void {
    if (this.held === null) this.taker.take(row);
    else if (this.held.push(row) === FIRST_ROWS + (this.options.above ?? 0)) this.end();
  }

  /** There are no more rows, or enough to tell. Throws an ImportProblem where none is left. */
  end(): void {
    const rows = this.held;
    if (rows === null) return;
    this.held = null;
    const { above, header } = this.options;
    this.above = above ?? (header === false ? 0 : this.file.above(rows.map((row) => row.cells)));
    if (rows.length > 0 && this.above >= rows.length)
      throw new ImportProblem(
        `All ${rows.length} rows of the file would be left out. Leave out fewer rows above the table.`,
      );
    // What somebody asked for need not be said.
    if (above === undefined && this.above > 0)
      this.notes.push(aboveNote(rows.slice(0, this.above).map((row) => row.cells)));
    const below = rows.slice(this.above);
    this.taker.widest = Math.max(0, ...below.map((row) => widthOf(row.cells)));
    for (const row of this.file.shape?.(below) ?? below) this.taker.take(row);
  }
}
