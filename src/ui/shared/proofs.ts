"use client";
import type { Measure } from "@/core/project/schema";
import type { SettledProof } from "@/core/review/finding";
import { proofOutcome, proofQuery } from "@/core/view/proofs";
import { useDraft, useResults } from "./results";

const NO_MEASURES: Measure[] = [];

/**
 * Every proof of some measures with its outcome now; asked anew whenever tables, links, measures
 * or inputs change.
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
