"use client";
import { useMemo, useRef } from "react";
import type { Visual } from "@/core/project/schema";
import { meetingMends } from "@/core/review/meeting-mends";
import { useProject } from "../shared/project-context";
import { StepLink } from "../shared/step-link";

/** What makes a visual answer again whose tables do not meet in its split, a button each. */
export function MeetingMends({ visual }: { visual: Visual }) {
  const project = useProject((s) => s.document);
  const id = useProject((s) => s.id);
  const apply = useProject((s) => s.apply);
  const told = useMemo(() => meetingMends(visual, project), [visual, project]);
  const row = useRef<HTMLDivElement>(null);
  const table = project.tables.find((t) => t.id === told?.table);
  return (
    // It stays where it is empty, so that the focus has a place when a mend has done its work.
    <div ref={row} tabIndex={-1} className="flex flex-wrap items-center gap-x-3 gap-y-1 text-sm outline-none">
      {told?.mends.map(({ label, edit }) => (
        <button
          key={label}
          type="button"
          className="mt-1 min-h-6 font-medium underline"
          onClick={() => {
            apply(edit);
            row.current?.focus();
          }}
        >
          {label}
        </button>
      ))}
      {table && (
        <StepLink
          to={`/p/${id}/data?table=${table.id}`}
          className="mt-1 flex min-h-6 items-center font-medium underline"
        >
          Open {table.name}
        </StepLink>
      )}
    </div>
  );
}
