import { checkFormula } from "./check";
import type { Scope } from "./expr";

/**
 * The table over which a measure's formula can only be meant: where its names mean nothing over the one it
 * has, and all of them something over exactly one other. Else the table that it has.
 */
export function tableMeant(formula: string, scope: Scope, table: string | null, self: string): string | null {
  const problems = checkFormula(formula, scope, table, "group", self).problems;
  if (!problems.some((p) => p.code === "name")) return table;
  const fitting = scope.tables.filter(
    (t) => t.name !== table && checkFormula(formula, scope, t.name, "group", self).expr !== null,
  );
  return fitting.length === 1 ? fitting[0].name : table;
}
