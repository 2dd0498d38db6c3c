import type { Edit } from "@/core/project/edits";
import type { Project } from "@/core/project/schema";

type WordsOf = (edit: Edit, before: Project, after: Project) => string;

/** What an edit is called until its words have come. */
export const UNTOLD = "The last change";

let known: WordsOf | null = null;

/** What says an edit in words; null until it has come. */
export const editWords = (): WordsOf | null => known;

/**
 * Fetches what says edits in words, once for a window. It knows every kind of visual with its dials, which a
 * step without pictures can do without until somebody edits.
 */
export async function fetchEditWords(): Promise<WordsOf> {
  known ??= (await import("@/core/view/edit-words")).wordsOf;
  return known;
}
