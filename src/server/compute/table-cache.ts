import type Database from "better-sqlite3";
import { bytesIn } from "@/core/data/bytes-in";
import { type Column, ColumnBuilder, type ColumnData, type Table } from "@/core/data/column";
import { readCell } from "@/core/data/reading";
import { readingKey } from "@/core/data/reading-label";
import type { Reading } from "@/core/data/reading-schema";
import type { TableInfo } from "@/core/project/schema";
import { readColumnFile, writeColumnFile } from "../store/column-files";
import { columnOf, type SharedColumn, shareColumn } from "../store/shared-column";
import { openSoundRows } from "../store/sound-rows";
import type { GivenColumns, LoadedColumns } from "./protocol";

const STRETCH = 50_000;

/** A column from the file of it, or from the stored texts; then the file is written for the next time. */
function loadColumn(info: TableInfo, at: number, reading: Reading): SharedColumn {
  const kept = readColumnFile(info.id, at, reading, info.rows);
  if (kept) return kept;
  const db = openSoundRows(info);
  try {
    const data = readColumn(db, at, info.rows, reading);
    try {
      writeColumnFile(info.id, at, reading, data);
    } catch (error) {
      // The file only saves time; a full disk must not keep anybody from reading.
      console.warn(`A column of ${info.name} could not be kept on the disk: ${(error as Error).message}`);
    }
    return shareColumn(data);
  } finally {
    db.close();
  }
}

function readColumn(db: Database.Database, at: number, rows: number, reading: Reading): ColumnData {
  const builder = new ColumnBuilder(reading.type, rows);
  const known = new Map<string | null, ReturnType<typeof readCell>>();
  // Whole stretches at once: stepping row by row costs more than the reading.
  const cells = db
    .prepare<[number, number], string | null>(
      `select c${at} from rows where rowid > ? and rowid <= ? order by rowid`,
    )
    .pluck();
  for (let from = 0; from < rows; from += STRETCH) {
    for (const cell of cells.all(from, from + STRETCH)) {
      let value = known.get(cell);
      if (value === undefined) {
        value = readCell(cell, reading);
        if (known.size < 50_000) known.set(cell, value);
      }
      builder.add(value);
    }
  }
  return builder.finish();
}

interface Entry {
  id: string;
  table: Table;
  loaded: Map<number, ColumnData>;
}

/** Names a column of a table, as it is read. */
export const columnKey = (at: number, reading: Reading) => `${at} ${readingKey(reading)}`;

/**
 * Tables as typed columns over shared memory. A column that no thread has loaded yet is read from storage
 * when it is first asked for, and told to the others. What this thread holds of its own (decoded texts,
 * computed columns) stays within a bound.
 */
export class TableCache {
  private readonly entries = new Map<string, Entry>();
  /** Columns in shared memory by the id of their table and their key. */
  private readonly shared = new Map<string, Map<string, SharedColumn>>();
  private loaded: LoadedColumns = [];

  constructor(private readonly limit: number) {}

  /** Takes columns that other threads loaded. */
  give(given: GivenColumns): void {
    for (const { table, key, column } of given) this.keep(table, key, column);
  }

  /** What this thread loaded since it was last asked. */
  takeLoaded(): LoadedColumns {
    const { loaded } = this;
    this.loaded = [];
    return loaded;
  }

  /** Lets go of tables. */
  forget(tables: string[]): void {
    for (const id of tables) {
      this.shared.delete(id);
      for (const [key, entry] of this.entries) if (entry.id === id) this.entries.delete(key);
    }
  }

  /** The columns of a table that this thread has, as others can be given them. */
  columnsOf(table: string): GivenColumns {
    return [...(this.shared.get(table) ?? [])].map(([key, column]) => ({ table, key, column }));
  }

  private keep(table: string, key: string, column: SharedColumn): void {
    const columns = this.shared.get(table) ?? new Map<string, SharedColumn>();
    this.shared.set(table, columns);
    columns.set(key, column);
  }

  table(info: TableInfo): Table {
    const version = JSON.stringify([info.id, info.columns.map((c) => [c.name, readingKey(c.reading)])]);
    const key = `${info.name}\n${version}`;
    let entry = this.entries.get(key);
    if (entry) this.entries.delete(key);
    else entry = this.open(info, version);
    this.entries.set(key, entry);
    return entry.table;
  }

  private open(info: TableInfo, version: string): Entry {
    const loaded = new Map<number, ColumnData>();
    const columns = info.columns.map((c, at): Column => {
      const load = () => {
        const found = loaded.get(at);
        if (found) return found;
        const data = columnOf(this.sharedColumn(info, at, c.reading));
        loaded.set(at, data);
        return data;
      };
      return {
        name: c.name,
        get data() {
          return load();
        },
      };
    });
    return { id: info.id, table: { name: info.name, version, rows: info.rows, columns }, loaded };
  }

  private sharedColumn(info: TableInfo, at: number, reading: Reading): SharedColumn {
    const key = columnKey(at, reading);
    const known = this.shared.get(info.id)?.get(key);
    if (known) return known;
    const column = loadColumn(info, at, reading);
    this.keep(info.id, key, column);
    this.loaded.push({ table: info.id, key, column });
    return column;
  }

  /** What an entry holds of this thread's own memory: decoded texts, and what was computed. */
  private ownBytes({ table, loaded }: Entry): number {
    let bytes = bytesIn(table.computed);
    for (const data of loaded.values())
      if (data.type === "text") bytes += data.dictionary.reduce((sum, t) => sum + 2 * t.length + 24, 0);
    return bytes;
  }

  /**
   * Lets go of the least recently used tables until what is this thread's own fits the bound; the last used
   * one always stays. Gives how many went.
   */
  trim(): number {
    const sizes = [...this.entries].map(([key, entry]) => ({ key, bytes: this.ownBytes(entry) }));
    let total = sizes.reduce((sum, s) => sum + s.bytes, 0);
    let gone = 0;
    for (const { key, bytes } of sizes.slice(0, -1)) {
      if (total <= this.limit && this.entries.size <= 200) break;
      this.entries.delete(key);
      total -= bytes;
      gone++;
    }
    return gone;
  }
}
