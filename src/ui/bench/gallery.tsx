"use client";
import { useState } from "react";
import { KINDS } from "@/core/kinds";
import type { Project, Visual } from "@/core/project/schema";
import { firstSetUp, proposedIn, withoutProposals } from "@/core/view/first-set-up";
import { sceneOf } from "@/core/view/picture";
import { sayRole } from "@/core/view/sentence";
import { Busy } from "../shared/busy";
import { useDesign } from "../shared/design";
import { Choose, Labelled } from "../shared/labelled";
import { useProject } from "../shared/project-context";
import { StaticPicture } from "../shared/static-picture";
import { StepLink } from "../shared/step-link";
import { useTheme } from "../shared/theme";
import { useVisualsData } from "../shared/visual-data";

/** What a draft supposes, in the words of the sentence. */
const supposed = (draft: Visual, project: Project) =>
  proposedIn(draft)
    .map((role) => sayRole(role, { visual: draft, project, scale: { minimum: 0, maximum: 0 }, pictured: [] }))
    .join(", ");

/** Where a new visual begins: every kind, drawn with the person's own measure. */
export function Gallery({ onPick, onCancel }: { onPick: (visual: Visual) => void; onCancel?: () => void }) {
  const project = useProject((s) => s.document);
  const projectId = useProject((s) => s.id);
  const theme = useTheme((s) => s.theme);
  const design = useDesign();
  const [measureId, setMeasureId] = useState(project.measures[0]?.id ?? "");
  const measure = project.measures.find((m) => m.id === measureId) ?? project.measures[0];
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const first = measure ? KINDS.map((kind) => firstSetUp(kind, measure, project)) : [];
  const drafts = first.map((draft) => (left.has(draft.kind) ? withoutProposals(draft) : draft));
  const turn = (kind: string) => {
    const next = new Set(left);
    if (!next.delete(kind)) next.add(kind);
    setLeft(next);
  };
  const data = useVisualsData(drafts);
  if (!measure) {
    return (
      <div className="grid h-full place-items-center p-8 text-center">
        <div className="max-w-sm">
          <h1 className="text-lg">A visual shows a measure</h1>
          <p className="mt-2 text-muted">
            Name one first, for example sum(passengers), on the Measures step.
          </p>
        </div>
      </div>
    );
  }
  return (
    <section aria-label="New visual" className="h-full overflow-auto p-6">
      <div className="flex items-end gap-4">
        <h1 className="text-xl">New visual</h1>
        <div className="w-64">
          <Labelled label="Show" stacked>
            {(id) => (
              <Choose
                id={id}
                value={measure.id}
                options={project.measures.map((m) => ({ value: m.id, label: m.label }))}
                onChange={setMeasureId}
              />
            )}
          </Labelled>
        </div>
        <StepLink to={`/p/${projectId}/contact-sheet`} className="button ml-auto">
          Every kind in every finish
        </StepLink>
        {onCancel && (
          <button type="button" className="button" onClick={onCancel}>
            Cancel
          </button>
        )}
      </div>
      <div className="mt-5 grid max-w-6xl grid-cols-4 gap-4 max-lg:grid-cols-3">
        {drafts.map((draft, i) => (
          <div
            key={draft.kind}
            className="rounded-lg border border-rule bg-sheet p-3 transition-colors hover:border-verdigris"
          >
            <button type="button" onClick={() => onPick(draft)} className="block w-full text-left">
              <Busy pending={data[i].pending}>
                <StaticPicture
                  scene={sceneOf(
                    { ...draft, dials: { "frame.border": false, "heading.shown": false } },
                    data[i].data,
                    design,
                    { size: { width: 320, height: 230 }, theme },
                  )}
                  label=""
                  className="h-auto w-full"
                />
              </Busy>
              <span className="mt-2 block font-semibold">{KINDS[i].label}</span>
            </button>
            {supposed(first[i], project) && (
              <p className="mt-1 text-sm text-muted">
                {left.has(draft.kind) ? "Left out: " : "Proposed: "}
                {supposed(first[i], project)}{" "}
                <button
                  type="button"
                  className="underline hover:text-ink"
                  aria-label={`${left.has(draft.kind) ? "Take" : "Leave out"} what ${KINDS[i].label} proposes`}
                  onClick={() => turn(draft.kind)}
                >
                  {left.has(draft.kind) ? "Take it" : "Leave it out"}
                </button>
              </p>
            )}
          </div>
        ))}
      </div>
    </section>
  );
}
