"use client";
import { useMemo } from "react";
import type { Input } from "@/core/project/schema";
import { movedByInput } from "@/core/project/uses";
import { Busy } from "../shared/busy";
import { InputControl } from "../shared/input-control";
import { useProject } from "../shared/project-context";
import { StepLink } from "../shared/step-link";
import { useTheme } from "../shared/theme";
import { useVisualsData } from "../shared/visual-data";
import { VisualThumbnail } from "../shared/visual-thumbnail";

/** So many pictures are enough to see what an input does. */
const MOST = 6;

/** An input's control as a board has it, live with the visuals it moves. */
export function InputPreview({
  input,
  onChange,
}: {
  input: Input;
  onChange: (value: Input["value"]) => void;
}) {
  const project = useProject((s) => s.document);
  const id = useProject((s) => s.id);
  const theme = useTheme((s) => s.theme);
  const { measures, visuals, inputs, tables } = project;
  // Which visuals it moves does not depend on what it is set to.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the rest of the document has no say
  const moved = useMemo(
    () => movedByInput(project, input.id),
    [measures, visuals, inputs.length, tables, input.name],
  );
  const shown = useMemo(() => moved.slice(0, MOST), [moved]);
  const data = useVisualsData(shown);
  return (
    <section aria-label="As a board has it" className="mt-6 border-t border-rule pt-4">
      <h2 className="section-title">As a board has it</h2>
      <div className="mt-2 flex max-w-72 items-end">
        <InputControl input={input} value={input.value} onChange={onChange} />
      </div>
      {shown.length === 0 ? (
        <p className="mt-3 text-sm text-muted">
          It moves no visual yet: write :{input.name} in a measure, or choose it as a target.
        </p>
      ) : (
        <ul
          className="mt-4 grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-3"
          aria-label="Visuals it moves"
        >
          {shown.map((visual, i) => (
            <li key={visual.id}>
              <StepLink
                to={`/p/${id}/visuals?visual=${visual.id}`}
                className="block rounded-md border border-rule bg-sheet p-1.5 hover:border-muted"
              >
                <Busy pending={data[i].pending}>
                  <VisualThumbnail visual={visual} data={data[i].data} theme={theme} />
                </Busy>
                <span className="block truncate text-xs font-medium" title={visual.name}>
                  {visual.name}
                </span>
              </StepLink>
            </li>
          ))}
        </ul>
      )}
      {moved.length > MOST && <p className="mt-2 text-sm text-muted">and {moved.length - MOST} more</p>}
    </section>
  );
}
