import { kindOf } from "../kinds";
import { FINISHES } from "../kinds/anatomy/finishes";
import { type Edit, edit } from "../project/edit";
import type { OwnPicture, Project, Visual } from "../project/schema";
import type { Palette } from "../scene/palettes";

/** Parts whose dials belong to what one visual says, not to how it looks. */
const SAYING = new Set(["domain", "readingplace", "figures"]);

/**
 * The dials of a visual's own that are a matter of look: not its texts, and not what is tied to its numbers.
 */
export function lookOf(visual: Pick<Visual, "kind" | "dials">): Visual["dials"] {
  const looks = new Set(
    kindOf(visual.kind).parts.flatMap((part) =>
      SAYING.has(part.id)
        ? []
        : part.dials.filter((d) => d.type !== "template").map((d) => `${part.id}.${d.id}`),
    ),
  );
  return Object.fromEntries(Object.entries(visual.dials).filter(([key]) => looks.has(key)));
}

const visualIn = (p: Project, id: string) => p.visuals.find((v) => v.id === id);

/** Takes a visual's own look out of its dials: it stands in the finish now. */
function handOver(visual: Visual, look: Visual["dials"]): void {
  visual.dials = Object.fromEntries(Object.entries(visual.dials).filter(([key]) => !(key in look)));
}

/** Makes a finish of a visual's look, over the finish it has, and gives it to the visual. */
export const saveFinish = (visualId: string, finish: { id: string; name: string }): Edit =>
  edit((p) => {
    const visual = visualIn(p, visualId);
    if (!visual) return;
    const look = lookOf(visual);
    const from = p.finishes.find((f) => f.id === visual.finish);
    p.finishes.push({ ...finish, base: from?.base ?? visual.finish, dials: { ...from?.dials, ...look } });
    visual.finish = finish.id;
    handOver(visual, look);
  });

/**
 * Puts a visual's look into the finish of the project's own that it uses: all that use it change, save for
 * dials set by hand.
 */
export const updateFinish = (visualId: string): Edit =>
  edit((p) => {
    const visual = visualIn(p, visualId);
    const finish = visual && p.finishes.find((f) => f.id === visual.finish);
    if (!visual || !finish) return;
    const look = lookOf(visual);
    Object.assign(finish.dials, look);
    handOver(visual, look);
  });

export const renameFinish = (id: string, name: string): Edit =>
  edit((p) => {
    const finish = p.finishes.find((f) => f.id === id);
    if (finish) finish.name = name;
  });

/** Takes a finish away; what used it goes back to the shipped one that it was made from. */
export const removeFinish = (id: string): Edit =>
  edit((p) => {
    const base = p.finishes.find((f) => f.id === id)?.base ?? FINISHES[0].id;
    p.finishes = p.finishes.filter((f) => f.id !== id);
    for (const visual of p.visuals) if (visual.finish === id) visual.finish = base;
  });

/** Adds palettes, or replaces those of the same id. */
export const putPalettes = (palettes: Palette[]): Edit =>
  edit((p) => {
    for (const palette of palettes) {
      const at = p.palettes.findIndex((own) => own.id === palette.id);
      if (at >= 0) p.palettes[at] = palette;
      else p.palettes.push(palette);
    }
  });

/** Takes a palette away; dials that name it go back to the automatic one. */
export const removePalette = (id: string): Edit =>
  edit((p) => {
    p.palettes = p.palettes.filter((own) => own.id !== id);
    for (const { dials } of [...p.visuals, ...p.finishes])
      if (dials["colours.palette"] === id) delete dials["colours.palette"];
  });

export const addPicture = (picture: OwnPicture): Edit => edit((p) => void p.pictures.push(picture));
