import { cutText } from "@/core/base/cut-text";
import { findNamed } from "@/core/base/names";
import { compareValues, type Value } from "@/core/base/value";
import { type Column, cellValue, outward } from "@/core/data/column";
import { cellText, profileColumn } from "@/core/data/profile";
import { isNothing } from "@/core/data/reading";
import { selectRows } from "@/core/engine/selection";
import { checkStop, type StopFlag } from "@/core/engine/stop";
import type { TableSource } from "@/core/engine/table-source";
import type { Scope } from "@/core/formula/expr";
import { placesOf } from "@/core/formula/meeting";
import type { Filter, ResultColumn } from "@/core/plan/query";
import { QueryError } from "@/core/plan/query-error";
import type { TableInfo } from "@/core/project/schema";
import { openSoundRows } from "../store/sound-rows";
import type { RowsPage, ShownRows, TableProfile, UnreadCells } from "./protocol";

const SHOWN_BAD = 5;
/** Between two looks at the stop flag. */
const STEP = 8192;

/** A column of a table: of its file, with its place there, or derived. */
type ShownColumn = Column & { derived: boolean; at: number };

/**
 * The columns of a table, the derived ones after those of the file; `visible` without hidden ones. A derived
 * one whose formula has a problem is left out.
 */
function columnsOf(source: TableSource, info: TableInfo, visible = false): ShownColumn[] {
  const derived = info.derived.flatMap((d) => {
    if (visible && d.hidden) return [];
    try {
      return [{ name: d.name, data: source.column(info.name, d.name).data, derived: true, at: -1 }];
    } catch (error) {
      if (error instanceof QueryError) return [];
      throw error;
    }
  });
  const own = source.table.columns.map(({ name, data }, at) => ({ name, data, derived: false, at }));
  return [...own.filter(({ at }) => !visible || !info.columns[at]?.hidden), ...derived];
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
      const found = { row, text: cutText(cell, 60) };
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
export interface RowsWish extends ShownRows {
  offset: number;
  limit: number;
  sort: { column: string; order: "asc" | "desc" } | null;
  find: string;
}

/** What filters of a table are read against. */
export interface FilterGround {
  scope: Scope;
  /** In whole days. */
  today: Value;
}

/** The rows of a table that filters keep, in its order; their columns can be others that links lead to. */
function keptRows(source: TableSource, filters: Filter[], { scope, today }: FilterGround): Int32Array {
  const { table } = source;
  const placed = filters.map((filter) => {
    const [place] = placesOf(scope, table.name, filter.column);
    if (place) return { filter, place };
    throw new QueryError(
      "unknown_column",
      `The table ${table.name} has no column “${filter.column}” to filter by.`,
    );
  });
  return selectRows(source, placed, today)?.slice() ?? Int32Array.from({ length: table.rows }, (_, i) => i);
}

const orders = new WeakMap<TableSource["table"], { key: string; rows: Int32Array }>();

/**
 * Row numbers in the asked order, with only the rows that the filters keep and in which some cell holds the
 * text. The last answer is kept for paging.
 */
function orderedRows(
  source: TableSource,
  columns: Column[],
  { sort, find, filters, visible }: RowsWish,
  ground: FilterGround,
): Int32Array {
  const key = JSON.stringify([source.version, sort, find, filters, visible, ground.today]);
  const { table } = source;
  const known = orders.get(table);
  if (known?.key === key) return known.rows;
  let rows = keptRows(source, filters, ground);
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
export function pageOfRows(
  source: TableSource,
  info: TableInfo,
  wish: RowsWish,
  ground: FilterGround,
): RowsPage {
  const columns = columnsOf(source, info, wish.visible);
  const order = orderedRows(source, columns, wish, ground);
  const db = openSoundRows(info);
  try {
    const stored = db.prepare<[number], (string | null)[]>("select * from rows where rowid = ?").raw();
    const rows = [...order.subarray(wish.offset, wish.offset + wish.limit)].map((row) => {
      const texts = stored.get(row + 1) as (string | null)[];
      const unread: number[] = [];
      const cells = columns.map((c, at) => {
        const value = cellValue(c.data, row);
        if (value !== null) return String(outward(value, c.data.type));
        const text = c.derived ? null : texts[c.at];
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

/** The values of some of the rows that are shown, as they are read, by column: what an export writes. */
export function valuesOf(
  source: TableSource,
  info: TableInfo,
  { offset, limit, filters, visible }: Omit<RowsWish, "sort" | "find">,
  ground: FilterGround,
): ResultColumn[] {
  const columns = columnsOf(source, info, visible);
  const order = orderedRows(
    source,
    columns,
    { offset, limit, filters, visible, sort: null, find: "" },
    ground,
  );
  const rows = [...order.subarray(offset, offset + limit)];
  return columns.map(({ name, data }) => ({
    name,
    type: data.type,
    values: rows.map((row) => outward(cellValue(data, row), data.type)),
  }));
}
