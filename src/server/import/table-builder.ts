import { TextMap } from "@/core/base/text-map";
import { ColumnBuilder, type ColumnData } from "@/core/data/column";
import { nothingWord, readCell } from "@/core/data/reading";
import { type CellKind, type Doubt, fileHints, nothingDoubts, ReadingGuess } from "@/core/data/reading-guess";
import type { Reading } from "@/core/data/reading-schema";
import { writeColumnFile } from "../store/column-files";
import { type Cell, removeTableFiles, TableWriter } from "../store/table-files";

const MOST_DISTINCT = 250_000;
const STEP = 1 << 16;

/** The cells of a column as codes into its distinct texts, as long as these are not too many to remember. */
class CellRecorder {
  private codes = new Int32Array(STEP);
  private count = 0;
  private texts: string[] = [];
  private known: TextMap<number> | null = new TextMap();

  /** Takes the next cell; false where the same text was there before. */
  add(cell: Cell): boolean {
    if (this.known === null) return true;
    if (this.count === this.codes.length) {
      const grown = new Int32Array(this.codes.length * 2);
      grown.set(this.codes);
      this.codes = grown;
    }
    if (cell === null) {
      this.codes[this.count++] = -1;
      return false;
    }
    const code = this.known.get(cell);
    if (code !== undefined) {
      this.codes[this.count++] = code;
      return false;
    }
    this.codes[this.count++] = this.texts.length;
    this.known.set(cell, this.texts.length);
    if (this.texts.push(cell) > MOST_DISTINCT) this.forget();
    return true;
  }

  private forget(): void {
    this.known = null;
    this.texts = [];
    this.codes = new Int32Array(0);
  }

  /** How often each word for nothing stands in the column, as it is written first; none where texts were too many. */
  nothings(): Map<string, number> {
    const counts = new Map<string, number>();
    const byWord = new Map<string, string>();
    const written = this.texts.map((text) => {
      const word = nothingWord(text);
      if (word === null) return null;
      if (!byWord.has(word)) byWord.set(word, text.trim());
      return byWord.get(word) ?? null;
    });
    if (byWord.size === 0) return counts;
    for (let i = 0; i < this.count; i++) {
      const text = this.codes[i] < 0 ? null : written[this.codes[i]];
      if (text !== null) counts.set(text, (counts.get(text) ?? 0) + 1);
    }
    return counts;
  }

  /**
   * The column as a reading reads it; each distinct text is read once. Null where the texts were too many.
   */
  column(reading: Reading): ColumnData | null {
    if (this.known === null) return null;
    const values = this.texts.map((t) => readCell(t, reading));
    const nothing = readCell(null, reading);
    const builder = new ColumnBuilder(reading.type, this.count);
    for (let i = 0; i < this.count; i++) builder.add(this.codes[i] < 0 ? nothing : values[this.codes[i]]);
    return builder.finish();
  }
}

/** A doubt about one column, by its name, and the reading that the column was given in spite of it. */
export type ColumnDoubt = Doubt & { column: string; reading: Reading };

/** How the columns of a new table are read. */
export interface ReadColumns {
  columns: { name: string; reading: Reading }[];
  doubts: ColumnDoubt[];
  notes: string[];
}

/**
 * Stores the rows of a new table as they come, guesses how its columns are read, and keeps them typed beside
 * the rows.
 */
export class TableBuilder {
  private readonly writer: TableWriter;
  private readonly guesses: ReadingGuess[];
  private readonly recorders: CellRecorder[];

  constructor(
    readonly id: string,
    columns: number,
  ) {
    this.writer = new TableWriter(id, columns);
    this.guesses = Array.from({ length: columns }, () => new ReadingGuess());
    this.recorders = Array.from({ length: columns }, () => new CellRecorder());
  }

  get rows(): number {
    return this.writer.rows;
  }

  /** Takes a row; `kinds` says what each cell is where the file's values have types of their own. */
  add(cells: Cell[], kinds?: (CellKind | undefined)[]): void {
    this.writer.add(cells);
    for (let i = 0; i < cells.length; i++) {
      // A text says the same about its column however often it stands there.
      if (this.recorders[i].add(cells[i])) this.guesses[i].add(cells[i], kinds?.[i]);
      else if (kinds) this.guesses[i].addKind(cells[i], kinds[i]);
    }
  }

  /**
   * Ends the table and gives how its columns are read, and what else their cells could be. `separator` is
   * that of a text file.
   */
  finish(names: string[], separator?: string): ReadColumns {
    this.writer.finish();
    const hints = fileHints(this.guesses, separator);
    const settled = this.guesses.map((g) => g.settle(hints));
    for (const [at, { reading }] of settled.entries()) {
      const data = this.recorders[at].column(reading);
      if (data) writeColumnFile(this.id, at, reading, data);
    }
    return {
      columns: settled.map(({ reading }, i) => ({ name: names[i], reading })),
      doubts: settled.flatMap(({ reading, doubts }, i) =>
        [...doubts, ...nothingDoubts(reading, this.recorders[i].nothings())].map((d) => ({
          column: names[i],
          reading,
          ...d,
        })),
      ),
      notes: settled.flatMap(({ notes }, i) => notes.map((n) => `“${names[i]}”: ${n}`)),
    };
  }

  /** Leaves nothing behind. */
  abandon(): void {
    this.writer.abandon();
    removeTableFiles(this.id);
  }
}
