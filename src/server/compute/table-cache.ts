import type Database from "better-sqlite3";
import { type Column, ColumnBuilder, type ColumnData, type Table, tableBytes } from "@/core/data/column";
import { readCell } from "@/core/data/reading";
import type { Reading } from "@/core/data/reading-schema";
import type { TableInfo } from "@/core/project/schema";
import { readColumnFile, writeColumnFile } from "../store/column-files";
import { openRows } from "../store/table-files";

const STRETCH = 50_000;

/** A column from the file of it, or from the stored texts; then the file is written for the next time. */
function loadColumn(id: string, at: number, rows: number, reading: Reading): ColumnData {
  const kept = readColumnFile(id, at, reading, rows);
  if (kept) return kept;
  const db = openRows(id);
  try {
    const data = readColumn(db, at, rows, reading);
    writeColumnFile(id, at, reading, data);
    return data;
  } finally {
    db.close();
  }
}

function readColumn(db: Database.Database, at: number, rows: number, reading: Reading): ColumnData {
  const builder = new ColumnBuilder(reading.type, rows);
  const known = new Map<string | null, ReturnType<typeof readCell>>();
  // Whole stretches at once: stepping row by row costs more than the reading.
  const cells = db.prepare<[number, number], string | null>(`select c${at} from rows where rowid > ? and rowid <= ? order by rowid`).pluck();
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

/**
 * Tables as typed columns. A column is read from storage when it is first asked for; the most recently used tables
 * stay within a bound of memory.
 */
export class TableCache {
  private readonly entries = new Map<string, { table: Table; loaded: Map<number, Column> }>();

  constructor(private readonly limit: number) {}

  table(info: TableInfo): Table {
    const version = JSON.stringify([info.id, info.columns.map((c) => [c.name, c.reading])]);
    const key = `${info.name}\n${version}`;
    let entry = this.entries.get(key);
    if (entry) this.entries.delete(key);
    else entry = this.open(info, version);
    this.entries.set(key, entry);
    return entry.table;
  }

  private open(info: TableInfo, version: string) {
    const loaded = new Map<number, Column>();
    const columns = info.columns.map((c, at): Column => {
      const load = () => {
        const found = loaded.get(at);
        if (found) return found.data;
        const data = loadColumn(info.id, at, info.rows, c.reading);
        loaded.set(at, { name: c.name, data });
        return data;
      };
      return {
        name: c.name,
        get data() {
          return load();
        },
      };
    });
    return { table: { name: info.name, version, rows: info.rows, columns }, loaded };
  }

  /** Unloads the least recently used tables until the rest fits the bound; the last used one always stays. */
  trim(): void {
    const sizes = [...this.entries].map(([key, { table, loaded }]) => ({ key, bytes: tableBytes({ columns: [...loaded.values()], computed: table.computed }) }));
    let total = sizes.reduce((sum, s) => sum + s.bytes, 0);
    for (const { key, bytes } of sizes.slice(0, -1)) {
      if (total <= this.limit && this.entries.size <= 200) return;
      this.entries.delete(key);
      total -= bytes;
    }
  }
}
