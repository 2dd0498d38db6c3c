import { sameName } from "../base/names";
import { checkFormula } from "../formula/check";
import { placesOf } from "../formula/meeting";
import { homeTableOfVisual } from "./home-table";
import { type Named, scopeOf } from "./names";
import { ordersOf, splitsOf } from "./roles";
import type { Project } from "./schema";

/**
 * What uses a column, by label: measures and derived columns by formula, visuals by split or filter, boards
 * by a control, links.
 */
export function usesOfColumn(project: Project, table: string, column: string): string[] {
  const scope = scopeOf(project);
  const isIt = (place: { table: string; column: string }) =>
    sameName(place.table, table) && sameName(place.column, column);
  const inFormula = (formula: string, own: string | null, level: "group" | "derived", path: string) =>
    checkFormula(formula, scope, own, level, path).uses.columns.some(isIt);
  const inName = (named: Named, value: string | null, name: string) => {
    const own = homeTableOfVisual({ value }, named);
    return own !== null && placesOf(scope, own, name).some(isIt);
  };
  return [
    ...project.measures.filter((m) => inFormula(m.formula, m.table, "group", m.name)).map((m) => m.label),
    ...project.tables.flatMap((t) =>
      t.derived
        .filter(
          (d) =>
            !isIt({ table: t.name, column: d.name }) &&
            inFormula(d.formula, t.name, "derived", `${t.name}.${d.name}`),
        )
        .map((d) => `${t.name}.${d.name}`),
    ),
    ...project.visuals
      .filter(
        (v) =>
          splitsOf(v).some((s) => inName(project, v.value, s.column)) ||
          ordersOf(v).some(
            ({ by }) => typeof by === "object" && "column" in by && inName(project, v.value, by.column),
          ) ||
          v.filters.some((f) => inName(project, v.value, f.column)),
      )
      .map((v) => v.name),
    ...project.boards
      .filter((b) => b.controls.some((c) => c.type === "filter" && isIt(c)))
      .map((b) => b.name),
    ...project.inputs.filter((i) => i.choicesFrom && isIt(i.choicesFrom)).map((i) => i.label),
    ...project.links
      .filter((l) => isIt(l) || (sameName(l.to, table) && sameName(l.key, column)))
      .map((l) => `the link from ${l.table} to ${l.to}`),
  ];
}
