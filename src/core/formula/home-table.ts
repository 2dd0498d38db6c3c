import { sameName } from "../base/names";
import { checkFormula } from "./check";
import { type Expr, type Scope, tablesOf } from "./expr";

/**
 * What the names of a measure's formula tell of the table over whose rows it is computed: one or several
 * tables that they can be meant of, that it needs none of its own (it only puts measures of several tables
 * together), or nothing: it is not sound over any table, or holds no name that tells one, as count(*).
 */
export type TablesMeant = { says: "tables"; tables: string[] } | { says: "none" } | { says: "nothing" };

const NOTHING: TablesMeant = { says: "nothing" };

/** What the measures tell that a formula puts together: their table, where all of them read the same one. */
function meantByMeasures(expr: Expr): TablesMeant {
  const read = tablesOf(expr);
  if (read.length === 0) return NOTHING;
  return read.length === 1 ? { says: "tables", tables: read } : { says: "none" };
}

/**
 * The tables that a measure's formula can be meant of: those over which it is sound and of which it names a
 * column of their own. A table that only reaches what it names through links is none: `sum(seats)` is meant of
 * the vessels that have seats, not of the trips that have vessels.
 */
export function tablesMeant(formula: string, scope: Scope, self?: string): TablesMeant {
  const bare = checkFormula(formula, scope, null, "group", self);
  if (bare.expr) return meantByMeasures(bare.expr);
  const sound = scope.tables.flatMap(({ name }) => {
    const { expr, uses } = checkFormula(formula, scope, name, "group", self);
    return expr ? [{ name, expr, uses }] : [];
  });
  if (sound.length === 0) return NOTHING;
  const own = sound.filter(({ name, uses }) => uses.columns.some((c) => sameName(c.table, name)));
  if (own.length > 0) return { says: "tables", tables: own.map(({ name }) => name) };
  // Only count(*) and measures: rows are counted of the table that the measures read.
  const read = (expr: Expr, but: string) => tablesOf(expr).filter((t) => !sameName(t, but));
  const common = sound.filter(
    ({ name, expr, uses }) => uses.measures.length > 0 && read(expr, name).length === 0,
  );
  return common.length === 1 ? { says: "tables", tables: [common[0].name] } : NOTHING;
}

/**
 * The table of a measure after a change of its formula, of tables or of links, while nobody has set it: the
 * one that it has as long as its names can be meant of that; else the one that they tell. Where they tell
 * several or nothing it stays.
 */
export function tableTold(formula: string, scope: Scope, table: string | null, self: string): string | null {
  const meant = tablesMeant(formula, scope, self);
  if (meant.says === "none") return null;
  if (meant.says === "nothing") return table;
  const { tables } = meant;
  if (table !== null && tables.some((t) => sameName(t, table))) return table;
  return tables.length === 1 ? tables[0] : table;
}
