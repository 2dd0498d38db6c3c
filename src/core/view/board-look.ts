import type { Board, BoardLook, Ground, Tile, Visual } from "../project/schema";
import { sectionOf } from "../project/tile-layout";
import { THEMES, themeOn } from "../scene/colour";
import { type Design, styleOf } from "./picture";

type ThemeName = "light" | "night";

/** The grounds that have a name, by day and by night; all texts of the application read on them. */
const NAMED: Record<Exclude<Ground, "none" | object>, Record<ThemeName, string>> = {
  panel: { light: "#f9f6ef", night: "#141d1f" },
  sheet: { light: THEMES.light.sheet, night: THEMES.night.sheet },
  well: { light: "#ebe6da", night: "#223032" },
  tint: { light: "#ddede8", night: "#1c3a36" },
};

/** A ground as it is painted, with the inks that read on it; null where there is none. */
export interface PaintedGround {
  background: string;
  ink: string;
  muted: string;
}

/** The colours of a ground in a theme. */
export function groundColours(ground: Ground, theme: ThemeName): PaintedGround | null {
  if (ground === "none") return null;
  const background = (typeof ground === "string" ? NAMED[ground] : ground)[theme];
  const { ink, muted } = themeOn(background);
  return { background, ink, muted };
}

/** The ground that a tile lies on: that of its section, else the board's. */
export function groundUnder(tile: Tile, { tiles, look }: Pick<Board, "tiles" | "look">): Ground {
  const section = tile.type === "section" ? undefined : sectionOf(tile, tiles);
  return section?.type === "section" && section.ground !== "none" ? section.ground : look.ground;
}

const FRAMES: Record<Exclude<BoardLook["frame"], "own">, Visual["dials"]> = {
  bare: { "frame.border": false, "frame.filled": false },
  line: { "frame.border": true, "frame.filled": false },
  card: { "frame.border": true, "frame.filled": true },
  plate: { "frame.border": false, "frame.filled": true },
};

/** The visual with what a board says of all of its visuals laid over its own look. */
function dressed(
  visual: Visual,
  { palette, finish, frame }: BoardLook,
  under: PaintedGround | null,
  design: Design,
): Visual {
  const dials: Visual["dials"] = {
    ...visual.dials,
    ...(palette === null ? {} : { "colours.palette": palette }),
    ...(frame === "own" ? {} : FRAMES[frame]),
  };
  const seen = { ...visual, dials, finish: finish ?? visual.finish };
  // What has no ground of its own is drawn in the inks that read on what lies under it.
  if (under && !styleOf(seen, design).toggle("frame.filled"))
    seen.dials = { ...dials, "frame.filled": true, "frame.background": under.background };
  return seen;
}

const known = new WeakMap<Visual, { design: Design; by: Map<string, Visual> }>();

/**
 * A visual as it is drawn in a tile of a board: in the board's look. The visual itself where the board says
 * nothing of it; the same object for the same look.
 */
export function visualOnBoard(
  visual: Visual,
  tile: Tile,
  board: Pick<Board, "tiles" | "look">,
  { theme, design }: { theme: ThemeName; design: Design },
): Visual {
  const { look } = board;
  const ground = groundUnder(tile, board);
  const under = typeof ground === "object" ? groundColours(ground, theme) : null;
  if (look.palette === null && look.finish === null && look.frame === "own" && !under) return visual;
  let held = known.get(visual);
  if (held?.design.finishes !== design.finishes) {
    held = { design, by: new Map() };
    known.set(visual, held);
  }
  const key = JSON.stringify([look.palette, look.finish, look.frame, under?.background]);
  const seen = held.by.get(key) ?? dressed(visual, look, under, design);
  held.by.set(key, seen);
  return seen;
}
