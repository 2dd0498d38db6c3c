import type { QueryInput } from "@/core/plan/query";
import type { Project, Visual } from "@/core/project/schema";
import { measuresBehind, proofOutcome, proofQuery } from "@/core/view/proofs";
import type { Answer } from "./answers";

const known = new WeakMap<Visual, { of: unknown[]; measures: Set<string> }>();

/** The measures behind a visual: the same until something changes that formulas depend on. */
function behind(visual: Visual, project: Project): Set<string> {
  const { tables, links, measures: all, inputs, conventions } = project;
  const of = [tables, links, all, inputs, conventions];
  const before = known.get(visual);
  if (before?.of.every((part, i) => part === of[i])) return before.measures;
  const measures = measuresBehind(visual, project);
  known.set(visual, { of, measures });
  return measures;
}

/** The proofs that fail of what a visual shows, in words; none while they are not answered. */
export function failingProofs(
  visual: Visual,
  project: Project,
  answer: (query: QueryInput) => Answer | null,
): string[] {
  const measures = behind(visual, project);
  return project.measures
    .filter((m) => measures.has(m.id))
    .flatMap((measure) =>
      measure.proofs.flatMap((proof) => {
        const query = proofQuery(measure, proof, project);
        const outcome = query && proofOutcome(measure, proof, answer(query), project);
        return outcome?.holds === false ? [`A test of ${measure.label} fails: ${outcome.text}`] : [];
      }),
    );
}
