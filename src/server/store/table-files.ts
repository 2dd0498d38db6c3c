import { accessSync, closeSync, fsyncSync, openSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";
import { settings } from "../settings";

/** Rows of a table are texts, null where a cell is empty, in columns c0, c1, … of one SQLite file a table. */
export type Cell = string | null;

/** The most parameters of one SQLite statement, as it is compiled here by default. */
const MOST_PARAMETERS = 32_766;

/** The folder with one SQLite file a table. */
export const tablesFolder = () => join(settings.data, "tables");

/**
 * Where a table's files are: its rows, the rows while they are being written, what is to be known of it, the
 * file it came from, and the folder of its typed columns.
 */
export function tableFiles(id: string): {
  rows: string;
  part: string;
  about: string;
  source: string;
  upload: string;
  columns: string;
} {
  if (!/^[A-Za-z0-9_-]+$/.test(id)) throw new Error("a table id has only letters, digits, - and _");
  const base = join(tablesFolder(), id);
  return {
    rows: `${base}.sqlite`,
    part: `${base}.part.sqlite`,
    about: `${base}.about.json`,
    source: `${base}.source`,
    upload: `${base}.upload`,
    columns: `${base}.columns`,
  };
}

/**
 * Removes all files of a table: those that are made from others first, so that what a stopped process leaves
 * can still be known.
 */
export function removeTableFiles(id: string): void {
  const { columns, part, upload, source, rows, about } = tableFiles(id);
  for (const file of [columns, part, upload, source, rows, about])
    rmSync(file, { force: true, recursive: true });
}

function sync(file: string): void {
  const handle = openSync(file, "r");
  fsyncSync(handle);
  closeSync(handle);
}

/**
 * Writes the rows of a new table. Nothing of them is to be seen until `finish`, which moves the whole file to
 * its place; a process that dies before leaves a part file, which the next start removes.
 */
export class TableWriter {
  private readonly db: Database.Database;
  private readonly insertMany: Database.Statement;
  private readonly insertOne: Database.Statement;
  /**
   * Cells of rows that wait to be inserted together: one statement for many rows costs much less than
   * one for each.
   */
  private waiting: Cell[] = [];
  private readonly together: number;
  private readonly files: ReturnType<typeof tableFiles>;
  rows = 0;

  constructor(
    id: string,
    readonly columns: number,
  ) {
    this.files = tableFiles(id);
    // SQLite's own complaint about a missing folder has no code to know it by.
    accessSync(tablesFolder());
    rmSync(this.files.part, { force: true });
    this.db = new Database(this.files.part);
    // No second file on the disk, which nobody would remove; off, the mode that needs none, is refused here.
    this.db.pragma("journal_mode = memory");
    this.db.pragma("synchronous = off");
    const names = Array.from({ length: columns }, (_, i) => `c${i}`);
    this.db.exec(`create table rows (${names.map((n) => `${n} text`).join(", ")}) strict`);
    const row = `(${names.map(() => "?").join(", ")})`;
    const into = `insert into rows (${names.join(", ")}) values `;
    this.together = Math.max(1, Math.min(64, Math.floor(MOST_PARAMETERS / columns)));
    this.insertOne = this.db.prepare(into + row);
    this.insertMany = this.db.prepare(into + new Array(this.together).fill(row).join(", "));
    this.db.exec("begin");
  }

  add(row: Cell[]): void {
    for (let i = 0; i < this.columns; i++) this.waiting.push(row[i]);
    this.rows++;
    if (this.waiting.length < this.together * this.columns) return;
    this.insertMany.run(this.waiting);
    this.waiting = [];
  }

  finish(): void {
    for (let at = 0; at < this.waiting.length; at += this.columns)
      this.insertOne.run(this.waiting.slice(at, at + this.columns));
    this.db.exec("commit");
    this.db.close();
    sync(this.files.part);
    renameSync(this.files.part, this.files.rows);
  }

  abandon(): void {
    this.db.close();
    rmSync(this.files.part, { force: true });
  }
}

/** Opens the stored rows of a table for reading. */
export function openRows(id: string): Database.Database {
  return new Database(tableFiles(id).rows, { readonly: true, fileMustExist: true });
}
