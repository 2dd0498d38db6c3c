"use client";
import type { Visual } from "@/core/project/schema";
import { review } from "@/core/review";
import type { Finding } from "@/core/review/finding";
import type { VisualData } from "@/core/rows/visual-data";
import { useDesign } from "./design";
import { useProofs } from "./proofs";
import { useDraft } from "./results";

/** What there is to say of each visual, of its data as they are drawn. */
export function useFindings(visuals: Visual[], data: readonly (VisualData | null)[]): Finding[][] {
  const { draft } = useDraft();
  const design = useDesign();
  const proofs = useProofs(draft.measures);
  return visuals.map((visual, i) =>
    review({ visual, project: draft, design, data: data[i] ?? null, proofs }),
  );
}
