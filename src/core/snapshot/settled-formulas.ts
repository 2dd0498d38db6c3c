import { checkFormula } from "../formula/check";
import { type AddsUp, formulaKey, type KnownFormula } from "../formula/expr";
import { addsUp } from "../project/adds-up";
import { scopeOf } from "../project/names";
import type { Project } from "../project/schema";

/** What the measures and derived columns of a document mean, by their keys. */
export function settledFormulas(project: Project): [string, KnownFormula][] {
  const scope = scopeOf(project);
  const settled = (
    formula: string,
    table: string | null,
    level: "group" | "derived",
    self: string,
    isSum: AddsUp,
  ): [string, KnownFormula] => {
    const { type, expr, uses } = checkFormula(formula, scope, table, level, self);
    return [formulaKey(formula, table, level, self), { type, isSound: expr !== null, uses, addsUp: isSum }];
  };
  return [
    ...project.measures.map((m) => settled(m.formula, m.table, "group", m.name, addsUp(m, project))),
    ...project.tables.flatMap((t) =>
      t.derived.map((d) => settled(d.formula, t.name, "derived", `${t.name}.${d.name}`, "no")),
    ),
  ];
}
