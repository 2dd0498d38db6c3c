"use client";
import { useState } from "react";
import { KINDS } from "@/core/kinds";
import type { Visual } from "@/core/project/schema";
import { firstSetUp } from "@/core/view/first-set-up";
import { sceneOf } from "@/core/view/picture";
import { Busy } from "../shared/busy";
import { useDesign } from "../shared/design";
import { Choose, Labelled } from "../shared/labelled";
import { useProject } from "../shared/project-context";
import { StaticPicture } from "../shared/static-picture";
import { useTheme } from "../shared/theme";
import { useVisualsData } from "../shared/visual-data";

/** Where a new visual begins: every kind, drawn with the person's own measure. */
export function Gallery({ onPick, onCancel }: { onPick: (visual: Visual) => void; onCancel?: () => void }) {
  const project = useProject((s) => s.document);
  const theme = useTheme((s) => s.theme);
  const design = useDesign();
  const [measureId, setMeasureId] = useState(project.measures[0]?.id ?? "");
  const measure = project.measures.find((m) => m.id === measureId) ?? project.measures[0];
  const drafts = measure ? KINDS.map((kind) => firstSetUp(kind, measure, project)) : [];
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
        {onCancel && (
          <button type="button" className="button ml-auto" onClick={onCancel}>
            Cancel
          </button>
        )}
      </div>
      <div className="mt-5 grid max-w-6xl grid-cols-4 gap-4 max-lg:grid-cols-3">
        {drafts.map((draft, i) => (
          <button
            key={draft.kind}
            type="button"
            onClick={() => onPick(draft)}
            className="rounded-lg border border-rule bg-sheet p-3 text-left transition-colors hover:border-verdigris"
          >
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
        ))}
      </div>
    </section>
  );
}
