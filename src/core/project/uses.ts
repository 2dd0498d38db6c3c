import { sameName } from "../base/names";
import { checkFormula } from "../formula/check";
import { scopeOf } from "./names";
import { measuresOf, numberSources } from "./roles";
import type { Board, Measure, NumberSource, Project, Visual } from "./schema";
import { templatesName, textsName } from "./templates";

/** Where a measure is used: by other measures, by visuals, and in texts of boards. */
export function usesOfMeasure(
  project: Project,
  id: string,
): { measures: Measure[]; visuals: Visual[]; boards: Board[] } {
  const measure = project.measures.find((m) => m.id === id);
  if (!measure) return { measures: [], visuals: [], boards: [] };
  const scope = scopeOf(project);
  const measures = project.measures.filter(
    (m) =>
      m.id !== id &&
      (checkFormula(m.formula, scope, m.table, "group", m.name).uses.measures.some((n) =>
        sameName(n, measure.name),
      ) ||
        m.proofs.some((p) => p.type === "same total" && p.measure === id)),
  );
  const visuals = project.visuals.filter(
    (v) => measuresOf(v).includes(id) || templatesName(v, "measure", measure.name),
  );
  return { measures, visuals, boards: project.boards.filter((b) => textsName(b, "measure", measure.name)) };
}

/** Where an input is used: measures by formula, visuals by a phrase, boards by a control or a text. */
export function usesOfInput(
  project: Project,
  id: string,
): { measures: Measure[]; visuals: Visual[]; boards: Board[] } {
  const input = project.inputs.find((i) => i.id === id);
  if (!input) return { measures: [], visuals: [], boards: [] };
  const scope = scopeOf(project);
  const refersTo = (s: NumberSource) => "input" in s && s.input === id;
  return {
    measures: project.measures.filter((m) =>
      checkFormula(m.formula, scope, m.table, "group", m.name).uses.inputs.some((n) =>
        sameName(n, input.name),
      ),
    ),
    visuals: project.visuals.filter(
      (v) => numberSources(v).some(refersTo) || templatesName(v, "input", input.name),
    ),
    boards: project.boards.filter(
      (b) =>
        b.controls.some((c) => c.type === "input" && c.input === id) || textsName(b, "input", input.name),
    ),
  };
}

/** The visuals whose numbers an input moves: by a phrase, by a text, or by a measure, through others too. */
export function movedByInput(project: Project, id: string): Visual[] {
  const { measures, visuals } = usesOfInput(project, id);
  const scope = scopeOf(project);
  const uses = project.measures.map((m) => ({
    measure: m,
    of: checkFormula(m.formula, scope, m.table, "group", m.name).uses.measures,
  }));
  const moved = new Set(measures);
  for (let before = -1; before !== moved.size; ) {
    before = moved.size;
    for (const { measure, of } of uses)
      if ([...moved].some((m) => of.some((name) => sameName(name, m.name)))) moved.add(measure);
  }
  const ids = new Set([...moved].map((m) => m.id));
  return project.visuals.filter((v) => visuals.includes(v) || measuresOf(v).some((m) => ids.has(m)));
}
