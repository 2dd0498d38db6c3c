import { sameName } from "../base/names";
import { checkFormula } from "../formula/check";
import { columnFor, placesOf } from "../formula/meeting";
import { homeTableOfVisual } from "./home-table";
import { scopeOf } from "./names";
import { splitsOf } from "./roles";
import type { Project } from "./schema";

/**
 * What works in a project, by label: measures and derived columns whose formulas are sound, visuals whose
 * split and filters mean a column.
 */
function working(project: Project): string[] {
  const scope = scopeOf(project);
  const means = (table: string, name: string) => {
    const places = placesOf(scope, table, name);
    return places.length === 1 && columnFor(scope, table, places[0]) !== null;
  };
  return [
    ...project.measures
      .filter((m) => checkFormula(m.formula, scope, m.table, "group", m.name).expr !== null)
      .map((m) => m.label),
    ...project.tables.flatMap((t) =>
      t.derived
        .filter((d) => checkFormula(d.formula, scope, t.name, "derived", `${t.name}.${d.name}`).expr !== null)
        .map((d) => `${t.name}.${d.name}`),
    ),
    ...project.visuals
      .filter((v) => {
        const table = homeTableOfVisual(v, project);
        return (
          table != null &&
          project.tables.some((t) => sameName(t.name, table)) &&
          [...splitsOf(v).map((s) => s.column), ...v.filters.map((f) => f.column)].every((name) =>
            means(table, name),
          )
        );
      })
      .map((v) => v.name),
  ];
}

/** What works before an edit and no longer after it, by label. */
export function breaksOf(before: Project, after: Project): string[] {
  const still = new Set(working(after));
  return working(before).filter((name) => !still.has(name));
}
