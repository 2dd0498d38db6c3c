import type { Named } from "../project/names";
import type { Measure, Proof, Visual } from "../project/schema";
import type { ProofOutcome } from "../view/proofs";

/** A proof of a measure, with its outcome by the data as they are now. */
export interface SettledProof extends ProofOutcome {
  measure: Measure;
  proof: Proof;
}

/** What findings are made from. */
export interface Facts {
  visual: Visual;
  project: Named;
  /** The proofs of the project's measures. */
  proofs: readonly SettledProof[];
}

/** Something that who looks at a visual should know: what it is, in a sentence, and where it is mended. */
export interface Finding {
  /** The same finding keeps its id, so that it can be told from a new one. */
  id: string;
  rule: string;
  text: string;
  place: { type: "measure"; measure: Measure };
}

/** A rule of review: what it finds, most urgent first; nothing where all is well. */
export interface ReviewRule {
  id: string;
  find: (facts: Facts) => Finding[];
}
