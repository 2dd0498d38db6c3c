import { findNamed, sameName } from "../base/names";
import type { Scope, ScopeColumn } from "./expr";
import { reachedFrom } from "./links";

/** A column by the table that has it. */
export interface ColumnPlace {
  table: string;
  column: string;
}

const tableIn = (scope: Scope, name: string) => findNamed(scope.tables, name);
const columnIn = (scope: Scope, place: ColumnPlace): ScopeColumn | undefined =>
  tableIn(scope, place.table)?.columns.find((c) => sameName(c.name, place.column));

function placeIn(scope: Scope, table: string, column: string): ColumnPlace | null {
  const owner = tableIn(scope, table);
  const found = owner?.columns.find((c) => sameName(c.name, column));
  return owner && found ? { table: owner.name, column: found.name } : null;
}

/**
 * What a column's name can mean for a table: a column of its own, else `table.column`, else a column of that
 * name in the tables that links lead to. Several where the last is unclear, none where it is unknown.
 */
export function placesOf(scope: Scope, table: string, name: string): ColumnPlace[] {
  const own = placeIn(scope, table, name);
  if (own) return [own];
  for (let dot = name.indexOf("."); dot >= 0; dot = name.indexOf(".", dot + 1)) {
    const place = placeIn(scope, name.slice(0, dot), name.slice(dot + 1));
    if (place) return [place];
  }
  return reachedFrom(scope.links ?? [], table).flatMap((t) => placeIn(scope, t, name) ?? []);
}

/**
 * A column as it is named for a table's splits and filters: bare where it is the table's own, else
 * with its table.
 */
export function nameFor(table: string, place: ColumnPlace): string {
  return sameName(table, place.table) ? place.column : `${place.table}.${place.column}`;
}

const isTime = (column: ScopeColumn | undefined) => column?.type === "date" || column?.type === "timestamp";

/**
 * The column of a table that means the same as `place`, so that several tables meet in one split or under one
 * filter: the column itself where it is the table's own or links lead to it; the column that is linked to the
 * same key; a column of the same name and type; for a date, the table's only date. Null when there is none.
 */
export function meetingColumn(scope: Scope, table: string, place: ColumnPlace): ColumnPlace | null {
  const links = scope.links ?? [];
  const reached = reachedFrom(links, table);
  if (sameName(table, place.table)) return place;
  if (reached.some((t) => sameName(t, place.table))) {
    // The key of a linked table is what the table's own column holds; so nothing is lost where a row
    // has no match.
    const direct = links.find(
      (l) => sameName(l.table, table) && sameName(l.to, place.table) && sameName(l.key, place.column),
    );
    return direct ? { table: direct.table, column: direct.column } : place;
  }
  const key = links.find((l) => sameName(l.table, place.table) && sameName(l.column, place.column));
  if (key) {
    if (sameName(table, key.to)) return { table: key.to, column: key.key };
    const other = links.find(
      (l) => sameName(l.table, table) && sameName(l.to, key.to) && sameName(l.key, key.key),
    );
    if (other) return { table: other.table, column: other.column };
    if (reached.some((t) => sameName(t, key.to))) return { table: key.to, column: key.key };
  }
  const wanted = columnIn(scope, place);
  const named = placeIn(scope, table, place.column);
  if (named && columnIn(scope, named)?.type === wanted?.type) return named;
  if (!isTime(wanted)) return null;
  const dates = tableIn(scope, table)?.columns.filter(isTime) ?? [];
  return dates.length === 1 ? placeIn(scope, table, dates[0].name) : null;
}

/**
 * The column that stands for `place` where a query is written in the terms of `table`: itself where links
 * lead there, so that rows without a match show, else where the two meet.
 */
export function columnFor(scope: Scope, table: string, place: ColumnPlace): ColumnPlace | null {
  return reachedFrom(scope.links ?? [], table).some((t) => sameName(t, place.table))
    ? place
    : meetingColumn(scope, table, place);
}

/**
 * Where the categories of a column are at home: the key that it is linked to, else the column itself. Columns
 * that hold the same things have the same home.
 */
export function homeOf(scope: Scope, place: ColumnPlace): ColumnPlace {
  const passed: ColumnPlace[] = [];
  for (let at = place; ; ) {
    const link = (scope.links ?? []).find(
      (l) => sameName(l.table, at.table) && sameName(l.column, at.column),
    );
    const isRound = passed.some((p) => sameName(p.table, at.table) && sameName(p.column, at.column));
    if (!link || isRound) return isRound ? place : at;
    passed.push(at);
    at = { table: link.to, column: link.key };
  }
}
