import { failedProof } from "./failed-proof";
import type { Facts, Finding, ReviewRule } from "./finding";

/** Every rule that a visual is looked at by; to add one is a file and a line. */
const RULES: readonly ReviewRule[] = [failedProof];

/** What there is to say of a visual, rule by rule. */
export const review = (facts: Facts): Finding[] => RULES.flatMap((rule) => rule.find(facts));
