import { findNamed } from "@/core/base/names";
import { compareValues, type Value } from "@/core/base/value";
import { type Column, cellValue, outward } from "@/core/data/column";
import { cellText, profileColumn } from "@/core/data/profile";
import { isNothing } from "@/core/data/reading";
import { selectRows } from "@/core/engine/selection";
import { checkStop, type StopFlag } from "@/core/engine/stop";
import type { TableSource } from "@/core/engine/table-source";
import { type Filter, QueryError, type ResultColumn } from "@/core/plan/query";
import type { TableInfo } from "@/core/project/schema";
import { openSoundRows } from "../store/sound-rows";
import type { RowsPage, TableProfile, UnreadCells } from "./protocol";

const SHOWN_BAD = 5;
/** Between two looks at the stop flag. */
const STEP = 8192;

/**
 * All columns of a table, the derived ones after those of the file. A derived one whose formula has a problem
 * is left out.
 */
function columnsOf(source: TableSource, info: TableInfo): (Column & { derived: boolean })[] {
  const derived = info.derived.flatMap((d) => {
    try {
      return [{ name: d.name, data: source.column(info.name, d.name).data, derived: true }];
    } catch (error) {
      if (error instanceof QueryError) return [];
      throw error;
    }
  });
  return [...source.table.columns.map((c) => ({ name: c.name, data: c.data, derived: false })), ...derived];
}

/**
 * The filled cells of a stored column that a reading gives null for: how many, and the first and the last of
 * them, by row from 1.
 */
export function unreadCells(
  info: TableInfo,
  at: number,
  read: (cell: string, row: number) => Value,
  stop: StopFlag,
): UnreadCells {
  const db = openSoundRows(info);
  try {
    let unread = 0;
    let row = 0;
    const first: { row: number; text: string }[] = [];
    let last: { row: number; text: string }[] = [];
    for (const cell of db
      .prepare<[], string | null>(`select c${at} from rows order by rowid`)
      .pluck()
      .iterate()) {
      row++;
      if (row % STEP === 0) checkStop(stop);
      if (cell === null || isNothing(cell) || read(cell, row - 1) !== null) continue;
      unread++;
      const found = { row, text: cell.slice(0, 60) };
      if (first.length < SHOWN_BAD) first.push(found);
      else last = [...last.slice(1 - SHOWN_BAD), found];
    }
    return { unread, unreadCells: [...first, ...last] };
  } finally {
    db.close();
  }
}

/** The profile of a table's columns, with the filled cells that the reading could not read. */
export function profileTable(source: TableSource, info: TableInfo): TableProfile {
  return {
    rows: source.table.rows,
    columns: columnsOf(source, info).map((column, at) => {
      source.checkStop();
      const profile = profileColumn(column);
      const none = { unread: 0, unreadCells: [] };
      const bad =
        column.derived || column.data.type === "text" || profile.nulls === 0
          ? none
          : unreadCells(info, at, (_cell, row) => cellValue(column.data, row), source.stop);
      return { name: column.name, type: column.data.type, derived: column.derived, ...profile, ...bad };
    }),
  };
}

/** Which rows are shown, and in what order. */
export interface RowsWish {
  offset: number;
  limit: number;
  sort: { column: string; order: "asc" | "desc" } | null;
  find: string;
  filters: Filter[];
}

const orders = new WeakMap<TableSource["table"], { key: string; rows: Int32Array }>();

/**
 * Row numbers in the asked order, with only the rows that the filters keep and in which some cell holds the
 * text. The last answer is kept for paging.
 */
function orderedRows(source: TableSource, columns: Column[], { sort, find, filters }: RowsWish): Int32Array {
  const key = JSON.stringify([source.version, sort, find, filters]);
  const { table } = source;
  const known = orders.get(table);
  if (known?.key === key) return known.rows;
  const placed = filters.map((filter) => ({ filter, place: { table: table.name, column: filter.column } }));
  let rows =
    selectRows(source, placed, null)?.slice() ?? Int32Array.from({ length: table.rows }, (_, i) => i);
  const wanted = find.trim().toLowerCase();
  if (wanted) {
    rows = rows.filter((row, i) => {
      if (i % STEP === 0) source.checkStop();
      return columns.some((c) => cellText(c, row).toLowerCase().includes(wanted));
    });
  }
  if (sort) {
    const column = findNamed(columns, sort.column);
    if (!column)
      throw new QueryError(
        "unknown_column",
        `The table ${table.name} has no column “${sort.column}” to sort by.`,
      );
    const { data } = column;
    const sign = sort.order === "asc" ? 1 : -1;
    let compared = 0;
    rows = rows.sort((a, b) => {
      if (++compared % STEP === 0) source.checkStop();
      const [x, y] = [cellValue(data, a), cellValue(data, b)];
      if (x === null || y === null) return x === y ? a - b : x === null ? 1 : -1;
      return sign * compareValues(x, y) || a - b;
    });
  }
  orders.set(table, { key, rows });
  return rows;
}

/** A page of rows as they are read; a filled cell that could not be read is given as its text and marked. */
export function pageOfRows(source: TableSource, info: TableInfo, wish: RowsWish): RowsPage {
  const columns = columnsOf(source, info);
  const order = orderedRows(source, columns, wish);
  const db = openSoundRows(info);
  try {
    const stored = db.prepare<[number], (string | null)[]>("select * from rows where rowid = ?").raw();
    const rows = [...order.subarray(wish.offset, wish.offset + wish.limit)].map((row) => {
      const texts = stored.get(row + 1) as (string | null)[];
      const unread: number[] = [];
      const cells = columns.map((c, at) => {
        const value = cellValue(c.data, row);
        if (value !== null) return String(outward(value, c.data.type));
        const text = c.derived ? null : texts[at];
        if (text === null || isNothing(text)) return null;
        unread.push(at);
        return text;
      });
      return { number: row + 1, cells, unread };
    });
    return { total: order.length, columns: columns.map((c) => c.name), rows };
  } finally {
    db.close();
  }
}

/** The values of some rows as they are read, by column: what an export writes. */
export function valuesOf(
  source: TableSource,
  info: TableInfo,
  offset: number,
  limit: number,
): ResultColumn[] {
  const rows = Math.max(0, Math.min(limit, source.table.rows - offset));
  return columnsOf(source, info).map(({ name, data }) => ({
    name,
    type: data.type,
    values: Array.from({ length: rows }, (_, i) => outward(cellValue(data, offset + i), data.type)),
  }));
}
