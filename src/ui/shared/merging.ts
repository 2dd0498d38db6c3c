import type { breaks } from "@/core/changes/broken";
import type { merge } from "@/core/changes/merge";

/** What puts the versions of several windows together, and says whether an edit of before still applies. */
export interface Merging {
  merge: typeof merge;
  breaks: typeof breaks;
}

let known: Merging | null = null;

/** What puts versions together; null until it has come. */
export const merging = (): Merging | null => known;

/** Fetches it, once for a window: it knows every kind of visual, and who is alone does without. */
export async function fetchMerging(): Promise<Merging> {
  if (!known) {
    const [{ merge }, { breaks }] = await Promise.all([
      import("@/core/changes/merge"),
      import("@/core/changes/broken"),
    ]);
    known = { merge, breaks };
  }
  return known;
}
