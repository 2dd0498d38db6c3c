import { own, withOwn } from "../base/own";
import type { OwnPalette, OwnPicture, Project, Visual } from "./schema";

type Dials = Visual["dials"];
const visualIn = (p: Project, id: string) => p.visuals.find((v) => v.id === id);
/** The finish without settings of its own. */
const PLAIN = "plain";

/** Takes a visual's own look out of its dials: it stands in the finish now. */
function handOver(visual: Visual, look: Visual["dials"]): void {
  visual.dials = Object.fromEntries(Object.entries(visual.dials).filter(([key]) => !(key in look)));
}

/** Edits of finishes, palettes and pictures. A look is the dials of a visual that belong into a finish. */
export const LOOK_EDITS = {
  /** Makes a finish of a visual's look, over the finish it has, and gives it to the visual. */
  "save finish": (
    p: Project,
    { visual: id, finish, look }: { visual: string; finish: { id: string; name: string }; look: Dials },
  ) => {
    const visual = visualIn(p, id);
    if (!visual) return;
    const from = p.finishes.find((f) => f.id === visual.finish);
    p.finishes.push({ ...finish, base: from?.base ?? visual.finish, dials: { ...from?.dials, ...look } });
    visual.finish = finish.id;
    handOver(visual, look);
  },

  /**
   * Puts a visual's look into the finish of the project's own that it uses: all that use it change, save for
   * dials set by hand.
   */
  "update finish": (p: Project, { visual: id, look }: { visual: string; look: Dials }) => {
    const visual = visualIn(p, id);
    const finish = visual && p.finishes.find((f) => f.id === visual.finish);
    if (!visual || !finish) return;
    Object.assign(finish.dials, look);
    handOver(visual, look);
  },

  "rename finish": (p: Project, { id, name }: { id: string; name: string }) => {
    const finish = p.finishes.find((f) => f.id === id);
    if (finish) finish.name = name;
  },

  /** Takes a finish away; what used it goes back to the shipped one that it was made from. */
  "remove finish": (p: Project, { id }: { id: string }) => {
    const base = p.finishes.find((f) => f.id === id)?.base ?? PLAIN;
    p.finishes = p.finishes.filter((f) => f.id !== id);
    for (const visual of p.visuals) if (visual.finish === id) visual.finish = base;
    for (const { look } of p.boards) if (look.finish === id) look.finish = base;
  },

  /** Adds palettes, or replaces those of the same id. */
  "put palettes": (p: Project, { palettes }: { palettes: OwnPalette[] }) => {
    for (const palette of palettes) {
      const at = p.palettes.findIndex((own) => own.id === palette.id);
      if (at >= 0) p.palettes[at] = palette;
      else p.palettes.push(palette);
    }
  },

  /** Takes a palette away; dials that name it go back to the automatic one. */
  "remove palette": (p: Project, { id }: { id: string }) => {
    p.palettes = p.palettes.filter((own) => own.id !== id);
    for (const { dials } of [...p.visuals, ...p.finishes])
      for (const [key, value] of Object.entries(dials))
        if (isPaletteDial(key) && value === id) delete dials[key];
    for (const { look } of p.boards) if (look.palette === id) look.palette = null;
  },

  /** Brings pictures in, and gives them to the categories of a visual; `of` has categories by a picture's id. */
  "bring pictures": (
    p: Project,
    {
      visual: id,
      pictures,
      of,
    }: { visual: string | null; pictures: OwnPicture[]; of: Record<string, string> },
  ) => {
    p.pictures.push(...pictures);
    const visual = id === null ? undefined : visualIn(p, id);
    if (!visual) return;
    for (const { id: picture } of pictures) {
      const category = own(of, picture);
      if (category !== undefined) visual.pictures = withOwn(visual.pictures, category, picture);
    }
  },
};

/** Whether a dial, by its key, names a palette. */
const isPaletteDial = (key: string) => key.endsWith(".palette");
