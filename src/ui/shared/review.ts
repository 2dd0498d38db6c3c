"use client";
import { useMemo } from "react";
import type { Visual } from "@/core/project/schema";
import { review } from "@/core/review";
import { type Finding, type Stand, standsOf } from "@/core/review/finding";
import type { VisualData } from "@/core/rows/visual-data";
import { useDesign } from "./design";
import { useProject } from "./project-context";
import { useProofs } from "./proofs";
import { useDraft } from "./results";

const NOWHERE: readonly Stand[] = [];

/** What there is to say of each visual, of its data as they are drawn. */
export function useFindings(visuals: Visual[], data: readonly (VisualData | null)[]): Finding[][] {
  const { draft } = useDraft();
  const design = useDesign();
  const proofs = useProofs(draft.measures);
  const boards = useProject((s) => s.document.boards);
  const stands = useMemo(() => standsOf(boards), [boards]);
  return visuals.map((visual, i) =>
    review({
      visual,
      project: draft,
      design,
      data: data[i] ?? null,
      proofs,
      stands: stands.get(visual.id) ?? NOWHERE,
    }),
  );
}
