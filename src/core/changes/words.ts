import type { Project } from "../project/schema";
import { differences } from "../view/differences";
import { type Change, withChanges } from "./changes";

/** What changes make of a document, each in words: "Hole 58 % → 64 %, Passengers by route". */
export const changeWords = (document: Project, changes: readonly Change[]): string[] =>
  differences(document, withChanges(document, changes, true).document).map(({ words }) => words);
