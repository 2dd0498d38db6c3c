import { cellValue, findColumn, outward, type Table } from "@/core/data/column";
import { cellText, profileColumn } from "@/core/data/profile";
import { isNothing } from "@/core/data/reading";
import { QueryError } from "@/core/engine/query";
import { compareValues } from "@/core/formula/value";
import type { TableInfo } from "@/core/project/schema";
import { openRows } from "../store/table-files";
import type { RowsPage, TableProfile } from "./protocol";

/** The profile of a table's columns, with how many filled cells the reading could not read. */
export function profileTable(table: Table, info: TableInfo): TableProfile {
  const db = openRows(info.id);
  try {
    return {
      rows: table.rows,
      columns: table.columns.map((column, at) => {
        const profile = profileColumn(column);
        const { data } = column;
        let unread = 0;
        let firstUnread: { row: number; text: string } | null = null;
        if (data.type !== "text" && profile.nulls > 0) {
          let row = 0;
          for (const cell of db.prepare<[], string | null>(`select c${at} from rows order by rowid`).pluck().iterate()) {
            row++;
            if (cell === null || isNothing(cell) || cellValue(data, row - 1) !== null) continue;
            unread++;
            firstUnread ??= { row, text: cell.slice(0, 60) };
          }
        }
        return { name: column.name, type: data.type, ...profile, unread, firstUnread };
      }),
    };
  } finally {
    db.close();
  }
}

const orders = new WeakMap<Table, { key: string; rows: Int32Array }>();

/** Row numbers in the asked order, with only the rows in which some cell holds the text. The last answer is kept for paging. */
function orderedRows(table: Table, sort: { column: string; order: "asc" | "desc" } | null, find: string): Int32Array {
  const key = JSON.stringify([sort, find]);
  const known = orders.get(table);
  if (known?.key === key) return known.rows;
  let rows = Int32Array.from({ length: table.rows }, (_, i) => i);
  const wanted = find.trim().toLowerCase();
  if (wanted) rows = rows.filter((row) => table.columns.some((c) => cellText(c, row).toLowerCase().includes(wanted)));
  if (sort) {
    const column = findColumn(table, sort.column);
    if (!column) throw new QueryError("unknown_column", `The table ${table.name} has no column “${sort.column}” to sort by.`);
    const { data } = column;
    const sign = sort.order === "asc" ? 1 : -1;
    rows = rows.sort((a, b) => {
      const [x, y] = [cellValue(data, a), cellValue(data, b)];
      if (x === null || y === null) return x === y ? a - b : x === null ? 1 : -1;
      return sign * compareValues(x, y) || a - b;
    });
  }
  orders.set(table, { key, rows });
  return rows;
}

/** A page of rows as they are read; a filled cell that could not be read is given as its text and marked. */
export function pageOfRows(table: Table, info: TableInfo, offset: number, limit: number, sort: { column: string; order: "asc" | "desc" } | null, find: string): RowsPage {
  const order = orderedRows(table, sort, find);
  const db = openRows(info.id);
  try {
    const stored = db.prepare<[number], (string | null)[]>("select * from rows where rowid = ?").raw();
    const rows = [...order.subarray(offset, offset + limit)].map((row) => {
      const source = stored.get(row + 1) as (string | null)[];
      const unread: number[] = [];
      const cells = table.columns.map((c, at) => {
        const value = cellValue(c.data, row);
        if (value !== null) return String(outward(value, c.data.type));
        const text = source[at];
        if (text === null || isNothing(text)) return null;
        unread.push(at);
        return text;
      });
      return { number: row + 1, cells, unread };
    });
    return { total: order.length, rows };
  } finally {
    db.close();
  }
}
