import { findNamed, sameName } from "@/core/base/names";
import type { ColumnPlace } from "@/core/formula/meeting";
import type { Project, TableInfo } from "@/core/project/schema";
import { EmbedError } from "./embed-error";
import type { GivenCells, GivenTable } from "./engine-protocol";

/** The most rows of a table over which a page computes. */
export const MOST_ROWS = 5_000_000;
/** So many of the first rows say under which names rows have their columns. */
const LOOKED_AT = 200;

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value) && !ArrayBuffer.isView(value);

const isCells = (value: unknown): value is GivenCells =>
  Array.isArray(value) || (ArrayBuffer.isView(value) && !(value instanceof DataView));

/** The member of an object that a name means, without regard to case; undefined where it has none. */
function keyOf(names: Iterable<string>, wanted: string): string | undefined {
  let found: string | undefined;
  for (const name of names) {
    if (name === wanted) return name;
    if (sameName(name, wanted)) found ??= name;
  }
  return found;
}

function tooMany(table: string, rows: number): void {
  if (rows <= MOST_ROWS) return;
  const count = rows.toLocaleString("en");
  throw new EmbedError(
    "too-many-rows",
    `rows.${table} has ${count} rows, and a page computes over ${MOST_ROWS.toLocaleString("en")} at most. Give it fewer, or sums of them.`,
    { table },
  );
}

/** The table's columns out of rows that are objects. */
function fromObjects(info: TableInfo, rows: unknown[]): GivenTable {
  const { name: table } = info;
  const at = rows.findIndex((row) => !isRecord(row));
  if (at >= 0)
    throw new EmbedError("rows", `rows.${table}: row ${at + 1} is no object. Give each row as an object.`, {
      table,
    });
  const objects = rows as Record<string, unknown>[];
  const names = new Set(objects.slice(0, LOOKED_AT).flatMap((row) => Object.keys(row)));
  return {
    name: table,
    rows: rows.length,
    columns: info.columns.map(({ name: column }) => {
      const key = keyOf(names, column);
      if (key === undefined && rows.length > 0) throw missing(table, column, [...names]);
      return {
        name: column,
        cells: objects.map((row) => (key !== undefined && Object.hasOwn(row, key) ? row[key] : null)),
      };
    }),
  };
}

/** The table's columns out of an object of columns. */
function fromColumns(info: TableInfo, given: Record<string, unknown>): GivenTable {
  const { name: table } = info;
  let rows: number | null = null;
  const columns = info.columns.map(({ name: column }) => {
    const key = keyOf(Object.keys(given), column);
    if (key === undefined) throw missing(table, column, Object.keys(given));
    const cells = given[key];
    if (!isCells(cells))
      throw new EmbedError(
        "rows",
        `rows.${table}.${column} is no list of values. Give an array for each column.`,
        {
          table,
          column,
        },
      );
    rows ??= cells.length;
    if (cells.length !== rows)
      throw new EmbedError(
        "rows",
        `rows.${table}.${column} has ${cells.length} values, and another column has ${rows}. All columns of a table are of one length.`,
        { table, column },
      );
    return { name: column, cells };
  });
  return { name: table, rows: rows ?? 0, columns };
}

const missing = (table: string, column: string, names: string[]): EmbedError =>
  new EmbedError(
    "missing-column",
    `rows.${table} lacks the column ${column}${names.length > 0 ? `; it has ${names.slice(0, 8).join(", ")}` : ""}.`,
    { table, column },
  );

/** The tables with the columns that are needed; all of them where nothing is said. */
function neededTables({ tables }: Pick<Project, "tables">, needs: ColumnPlace[] | null): TableInfo[] {
  if (needs === null) return tables;
  return tables.flatMap((t) => {
    const isNeeded = ({ name }: { name: string }) =>
      needs.some((n) => sameName(n.table, t.name) && sameName(n.column, name));
    const columns = t.columns.filter(isNeeded);
    return columns.length > 0 ? [{ ...t, columns }] : [];
  });
}

/**
 * What a page gives as `rows`, column by column: for each table of the document a list of objects, or an object
 * of columns, as far as they are needed. Throws an EmbedError where something is missing or of another form.
 */
export function givenTables(
  given: unknown,
  project: Pick<Project, "tables">,
  needs: ColumnPlace[] | null = null,
): GivenTable[] {
  if (!isRecord(given))
    throw new EmbedError("rows", "rows is no object. Give one set of rows a table: { sailings: [...] }.");
  const unknown = Object.keys(given).find((name) => !findNamed(project.tables, name));
  if (unknown !== undefined && !project.tables.some((t) => keyOf(Object.keys(given), t.name)))
    throw new EmbedError(
      "missing-table",
      `rows has ${unknown}, which is no table here. Its tables are ${project.tables.map((t) => t.name).join(", ")}.`,
      { table: unknown },
    );
  return neededTables(project, needs).map((info) => {
    const { name: table } = info;
    const key = keyOf(Object.keys(given), table);
    const rows = key === undefined ? undefined : given[key];
    if (rows === undefined || rows === null)
      throw new EmbedError("missing-table", `rows lacks the table ${table}.`, { table });
    if (Array.isArray(rows)) {
      tooMany(table, rows.length);
      return fromObjects(info, rows);
    }
    if (!isRecord(rows))
      throw new EmbedError("rows", `rows.${table} is neither a list of rows nor an object of columns.`, {
        table,
      });
    const made = fromColumns(info, rows);
    tooMany(table, made.rows);
    return made;
  });
}
