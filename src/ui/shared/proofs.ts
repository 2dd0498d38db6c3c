"use client";
import type { Measure, Visual } from "@/core/project/schema";
import { review } from "@/core/review";
import type { Finding, SettledProof } from "@/core/review/finding";
import type { VisualData } from "@/core/rows/visual-data";
import { proofOutcome, proofQuery } from "@/core/view/proofs";
import { useDesign } from "./design";
import { useDraft, useResults } from "./results";

const NO_MEASURES: Measure[] = [];

/**
 * Every proof of some measures with its outcome now; asked anew whenever tables, links, measures or inputs
 * change.
 */
export function useProofs(measures: Measure[] = NO_MEASURES): SettledProof[] {
  const { draft } = useDraft();
  const proofs = measures.flatMap((measure) => measure.proofs.map((proof) => ({ measure, proof })));
  const answers = useResults(proofs.map(({ measure, proof }) => proofQuery(measure, proof, draft)));
  return proofs.map(({ measure, proof }, i) => ({
    measure,
    proof,
    ...proofOutcome(measure, proof, answers[i], draft),
  }));
}

/** The proofs of the project that fail. */
export function useFailedProofs(): SettledProof[] {
  const { draft } = useDraft();
  return useProofs(draft.measures).filter((p) => p.holds === false);
}

/** What there is to say of each visual, of its data as they are drawn. */
export function useFindings(visuals: Visual[], data: readonly (VisualData | null)[]): Finding[][] {
  const { draft } = useDraft();
  const design = useDesign();
  const proofs = useProofs(draft.measures);
  return visuals.map((visual, i) =>
    review({ visual, project: draft, design, data: data[i] ?? null, proofs }),
  );
}
