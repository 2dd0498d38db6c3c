import { measuresBehind } from "../view/proofs";
import type { ReviewRule } from "./finding";

/** A visual shows a measure, or one that stands behind it, whose proof fails. */
export const failedProof: ReviewRule = {
  id: "failed proof",
  find: ({ visual, project, proofs }) => {
    const failed = proofs.filter((p) => p.holds === false);
    if (failed.length === 0) return [];
    const behind = measuresBehind(visual, project);
    return failed
      .filter((p) => behind.has(p.measure.id))
      .map(({ measure, proof, text }) => ({
        id: `failed proof ${proof.id}`,
        text: `A test of ${measure.label} fails: ${text}.`,
        why: "What is shown rests on a measure that is not what it was expected to be.",
        measure,
      }));
  },
};
