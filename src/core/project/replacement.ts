import { sameName } from "../base/names";
import { usesOfColumn } from "./column-uses";
import type { Project, TableInfo } from "./schema";

/**
 * What no longer fits when a table's file is replaced: a column that is gone, or whose cells are
 * of another type.
 */
export interface Misfit {
  column: string;
  what: string;
  /** What uses the column, by label. */
  uses: string[];
}

/**
 * Compares a table with newly read rows that are to take its place. Columns that are gone and
 * used nowhere fit.
 */
export function misfitsOf(project: Project, table: TableInfo, fresh: TableInfo): Misfit[] {
  return table.columns.flatMap((column): Misfit[] => {
    const found = fresh.columns.find((c) => sameName(c.name, column.name));
    const uses = usesOfColumn(project, table.name, column.name);
    if (!found) return uses.length ? [{ column: column.name, what: "is not in the new file", uses }] : [];
    const [was, is] = [column.reading.type, found.reading.type];
    return was === is || was === "text"
      ? []
      : [{ column: column.name, what: `was read as ${was}; the new file looks like ${is}`, uses }];
  });
}

/** Newly read rows with the readings that the table's columns have had so far. */
export function withReadingsOf(table: TableInfo, fresh: TableInfo): TableInfo {
  return {
    ...fresh,
    columns: fresh.columns.map((c) => ({
      ...c,
      reading: table.columns.find((t) => sameName(t.name, c.name))?.reading ?? c.reading,
    })),
  };
}
