import { renameInputIn, renameMeasureIn, scopeOf } from "./names";
import type { Input, Measure, Project } from "./schema";
import { nameInTemplates, nameInTexts, renameInTemplatesOf, renameInTextsOf } from "./templates";

function renameInTemplates(p: Project, sort: "measure" | "input", was: string, is: string): void {
  for (const visual of p.visuals)
    renameInTemplatesOf(visual, nameInTemplates(sort, was), nameInTemplates(sort, is));
  for (const board of p.boards) renameInTextsOf(board, nameInTexts(sort, was), nameInTexts(sort, is));
}

/** Edits of measures and inputs. */
export const MEASURE_EDITS = {
  "add measure": (p: Project, { measure }: { measure: Measure }) => void p.measures.push(measure),

  /** A new name rewrites every formula and template that uses it. */
  "change measure": (
    p: Project,
    { id, change }: { id: string; change: Partial<Omit<Measure, "id">> },
    before: Project,
  ) => {
    const measure = p.measures.find((m) => m.id === id);
    if (!measure) return;
    const from = measure.name;
    Object.assign(measure, change);
    const to = measure.name;
    if (to === from) return;
    const scope = scopeOf(before);
    for (const m of p.measures)
      m.formula = renameMeasureIn({ formula: m.formula, table: m.table, derived: false }, scope, from, to);
    renameInTemplates(p, "measure", from, to);
  },

  "remove measure": (p: Project, { id }: { id: string }) =>
    void (p.measures = p.measures.filter((m) => m.id !== id)),

  "add input": (p: Project, { input }: { input: Input }) => void p.inputs.push(input),

  /** A new name rewrites every formula and template that uses it. */
  "change input": (p: Project, { id, change }: { id: string; change: Partial<Omit<Input, "id">> }) => {
    const input = p.inputs.find((i) => i.id === id);
    if (!input) return;
    const from = input.name;
    Object.assign(input, change);
    if (input.name === from) return;
    for (const m of p.measures) m.formula = renameInputIn(m.formula, from, input.name);
    renameInTemplates(p, "input", from, input.name);
  },

  "remove input": (p: Project, { id }: { id: string }) =>
    void (p.inputs = p.inputs.filter((i) => i.id !== id)),
};
