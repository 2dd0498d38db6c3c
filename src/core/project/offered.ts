import { findNamed, sameName } from "../base/names";
import type { ValueType } from "../base/value";
import { reachedFrom } from "../formula/links";
import { type Named, scopeOf } from "./names";

/** A column that a table's splits and filters may name. */
export interface OfferedColumn {
  /** As a query names it: bare for the table's own, else `table.column`. */
  name: string;
  type: ValueType;
  /** The table that has it. */
  table: string;
  column: string;
  own: boolean;
}

/**
 * The columns that are offered for a table: its own, its derived ones, then those that links lead to; hidden
 * ones and ones with a problem are left out.
 */
export function offeredColumns(project: Named, table: string | null): OfferedColumn[] {
  if (table === null) return [];
  const scope = scopeOf(project);
  // The key of a link says what the table's own column says already.
  const isOwnKey = (to: string, key: string) =>
    project.links.some((l) => sameName(l.table, table) && sameName(l.to, to) && sameName(l.key, key));
  return [table, ...reachedFrom(scope.links ?? [], table)].flatMap((name) => {
    const info = findNamed(project.tables, name);
    const hidden = new Set(
      [...(info?.columns ?? []), ...(info?.derived ?? [])].filter((c) => c.hidden).map((c) => c.name),
    );
    const own = sameName(name, table);
    return (findNamed(scope.tables, name)?.columns ?? []).flatMap((c): OfferedColumn[] =>
      hidden.has(c.name) || c.type === "null" || isOwnKey(name, c.name)
        ? []
        : [
            {
              name: own ? c.name : `${info?.name}.${c.name}`,
              type: c.type,
              table: info?.name ?? name,
              column: c.name,
              own,
            },
          ],
    );
  });
}
