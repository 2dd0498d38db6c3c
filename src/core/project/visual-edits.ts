import type { Measure, Project, Visual } from "./schema";

const visualIn = (p: Project, id: string) => p.visuals.find((v) => v.id === id);

/** Edits of visuals and their dials. */
export const VISUAL_EDITS = {
  /** Adds a visual, and the measure that it was drawn with where that was only proposed. */
  "add visual": (p: Project, { visual, measure }: { visual: Visual; measure?: Measure }) => {
    if (measure) p.measures.push(measure);
    p.visuals.push(visual);
  },

  "change visual": (p: Project, { id, change }: { id: string; change: Partial<Omit<Visual, "id">> }) => {
    const visual = visualIn(p, id);
    if (visual) Object.assign(visual, change);
  },

  /** Null gives the dial back to what the finish or the kind has for it. */
  "set dial": (
    p: Project,
    { id, dial, value }: { id: string; dial: string; value: number | string | boolean | null },
  ) => {
    const visual = visualIn(p, id);
    if (!visual) return;
    if (value === null) delete visual.dials[dial];
    else visual.dials[dial] = value;
  },

  /** Gives dials back to what the finish or the kind has for them. */
  "clear dials": (p: Project, { id, dials }: { id: string; dials: string[] }) => {
    const visual = visualIn(p, id);
    if (visual) for (const dial of dials) delete visual.dials[dial];
  },

  /** Removes a visual and the tiles that show it. */
  "remove visual": (p: Project, { id }: { id: string }) => {
    p.visuals = p.visuals.filter((v) => v.id !== id);
    for (const b of p.boards) b.tiles = b.tiles.filter((t) => t.type !== "visual" || t.visual !== id);
  },
};
