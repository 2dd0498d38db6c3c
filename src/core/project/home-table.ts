import { findNamed } from "../base/names";
import { checkFormula } from "../formula/check";
import { type Named, scopeOf } from "./names";
import type { Measure, Visual } from "./schema";

/**
 * The table in whose terms the splits and filters of a measure are written: its own, or that of the first
 * measure in its formula where it puts those of several tables together. Null where it reads no rows.
 */
export function homeTableOf(measure: Measure | undefined, project: Named): string | null {
  const passed = new Set<Measure>();
  const waiting = measure ? [measure] : [];
  for (let at = waiting.pop(); at; at = waiting.pop()) {
    if (at.table !== null) return at.table;
    if (passed.has(at)) continue;
    passed.add(at);
    const { expr, names } = checkFormula(at.formula, scopeOf(project), null, "group", at.name);
    const used = names.flatMap((n) => ("measure" in n ? (findNamed(project.measures, n.measure) ?? []) : []));
    if (expr) waiting.push(...used.reverse());
  }
  return null;
}

/** The table in whose terms the sentence of a visual is written: that of its value. */
export const homeTableOfVisual = ({ value }: Pick<Visual, "value">, project: Named): string | null =>
  homeTableOf(
    project.measures.find((m) => m.id === value),
    project,
  );

/**
 * The project in which every measure names its home table: where no formula is parsed, as in a page that was
 * taken out, it cannot be told.
 */
export function withHomeTables<P extends Named>(project: P): P {
  if (project.measures.every((m) => m.table !== null)) return project;
  return { ...project, measures: project.measures.map((m) => ({ ...m, table: homeTableOf(m, project) })) };
}
