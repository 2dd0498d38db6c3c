import { checkFormula } from "../formula/check";
import { tableTold } from "../formula/home-table";
import { type Named, scopeOf } from "./names";
import type { Measure } from "./schema";

/** The table that a measure's names tell now; its own where somebody has set one. */
function toldTable(measure: Measure, project: Named): string | null {
  const { formula, name, table, tableSet } = measure;
  return tableSet && table !== null ? table : tableTold(formula, scopeOf(project), table, name);
}

const isSound = ({ formula, table, name }: Measure, project: Named) =>
  checkFormula(formula, scopeOf(project), table, "group", name).expr !== null;

/** Whether names can mean something else than they did: one of the other parts of a document is another. */
const meansElse = (a: Named, b: Named) =>
  a.tables !== b.tables || a.links !== b.links || a.inputs !== b.inputs;

/**
 * The project with the tables that its measures' names tell, where nobody has set them. `before` is the
 * project that it was: what did not change, and is sound, stays as it is.
 */
export function withToldTables<P extends Named>(project: P, before: Named | null = null): P {
  if (before && project.measures === before.measures && !meansElse(project, before)) return project;
  const stays = (measure: Measure) =>
    (measure.tableSet && measure.table !== null) ||
    (before?.measures.includes(measure) &&
      (measure.table !== null || !meansElse(project, before)) &&
      isSound(measure, project));
  const asked = new Set(project.measures.filter((m) => !stays(m)).map((m) => m.id));
  if (asked.size === 0) return project;
  // A measure of measures is sound once those are: its table is told in the pass after theirs.
  for (let now = project, left = asked.size; ; left--) {
    const measures = now.measures.map((measure) => {
      const table = asked.has(measure.id) ? toldTable(measure, now) : measure.table;
      return table === measure.table ? measure : { ...measure, table };
    });
    if (left < 0 || measures.every((m, i) => m === now.measures[i])) return now;
    now = { ...now, measures };
  }
}
