import type { ValueType } from "@/core/base/value";
import { type AddsUp, type Checked, formulaKey, type Scope } from "@/core/formula/expr";
import { type Named, scopeOf } from "@/core/project/names";
import type { Measure } from "@/core/project/schema";

// What stands in the place of the checker of formulas in modules that compute nothing: what a
// snapshot says its
// formulas mean (scripts/build-embed.mjs). The engine has the checker itself.

const UNKNOWN: Checked = {
  expr: null,
  type: "null",
  problems: [{ code: "name", start: 0, end: 0, message: "Of this formula nothing travelled along." }],
  uses: { columns: [], measures: [], inputs: [] },
  names: [],
};

/** What is known of a formula; its expression is not, and `expr` only says whether there is one. */
export function checkFormula(
  formula: string,
  scope: Scope,
  table: string | null,
  level: string = "group",
  self?: string,
): Checked {
  const known = scope.known?.get(formulaKey(formula, table, level, self));
  if (!known) return UNKNOWN;
  const { type, uses, isSound } = known;
  return {
    expr: isSound ? { op: "constant", type, value: null } : null,
    type,
    problems: isSound ? [] : UNKNOWN.problems,
    uses,
    names: [],
  };
}

/** The type of a derived column. */
export function derivedType(formula: string, scope: Scope, table: string, column: string): ValueType {
  const known = scope.known?.get(formulaKey(formula, table, "derived", `${table}.${column}`));
  return known?.isSound ? known.type : "null";
}

/** Whether the parts of a measure make its whole. */
export function addsUp({ formula, table, name }: Measure, project: Named): AddsUp {
  const known = scopeOf(project).known?.get(formulaKey(formula, table, "group", name))?.addsUp ?? "yes";
  return typeof known === "boolean" ? (known ? "yes" : "no") : known;
}
