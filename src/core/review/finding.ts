import type { Edit } from "../project/edits";
import type { Named } from "../project/names";
import type { Board, Measure, Proof, Tile, Visual } from "../project/schema";
import type { VisualData } from "../rows/visual-data";
import type { Design, KindStyle } from "../view/picture";
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
  design: Design;
  /** What the visual draws; null while its answer is awaited. */
  data: VisualData | null;
  /** The proofs of the project's measures. */
  proofs: readonly SettledProof[];
  /** The tiles that it stands in. */
  stands: readonly Stand[];
}

/** A tile of a board with a visual in it. */
export interface Stand {
  board: Board;
  tile: Extract<Tile, { type: "visual" }>;
}

/** The tiles that each visual stands in, by its id. */
export function standsOf(boards: readonly Board[]): Map<string, Stand[]> {
  const found = new Map<string, Stand[]>();
  for (const board of boards)
    for (const tile of board.tiles)
      if (tile.type === "visual")
        found.set(tile.visual, [...(found.get(tile.visual) ?? []), { board, tile }]);
  return found;
}

/** The facts of a visual that draws something, with its measure and its dials as they stand. */
export interface DrawnFacts extends Facts {
  data: VisualData;
  measure: Measure;
  style: KindStyle;
}

/** What mends a finding: what it does, in the words of a button, and the edit, which can be undone. */
export interface Mend {
  label: string;
  edit: Edit;
}

/** Something that who looks at a visual should know. */
export interface Finding {
  /** The same finding keeps its id, so that it can be told from a new one and be left as it is. */
  id: string;
  rule: string;
  /** What is wrong, and why it matters, a sentence each. */
  text: string;
  why: string;
  mend?: Mend;
  /** The measure at which it is mended, where that is not the visual. */
  measure?: Measure;
}

/** A rule of review: what it finds, most urgent first; nothing where all is well. */
export type ReviewRule =
  | { id: string; find: (facts: Facts) => Omit<Finding, "rule">[] }
  | { id: string; look: (facts: DrawnFacts) => Omit<Finding, "rule" | "id"> | null };

/** A change of the visual that facts are of, as a mend. */
export const change = (label: string, { visual }: Facts, fields: Partial<Omit<Visual, "id">>): Mend => ({
  label,
  edit: { type: "change visual", id: visual.id, change: fields },
});

/** A dial of the visual that facts are of, set as a mend; null gives it back to its finish. */
export const turn = (
  label: string,
  { visual }: Facts,
  dial: string,
  value: number | string | boolean | null,
): Mend => ({ label, edit: { type: "set dial", id: visual.id, dial, value } });
