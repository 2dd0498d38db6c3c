import type { Board, Ground, Tile } from "@/core/project/schema";
import { groundColours, groundUnder } from "@/core/view/board-look";

type ThemeName = "light" | "night";

/** A ground as the styles that the texts on it are written in; none where there is no ground. */
export const groundStyles = (ground: Ground, theme: ThemeName): Record<string, string> =>
  Object.fromEntries(
    Object.entries(groundColours(ground, theme) ?? {}).map(([name, value]) => [`--under-${name}`, value]),
  );

/** The styles of a tile's ground: a section's own, else what lies under it. */
export const tileGround = (tile: Tile, board: Pick<Board, "tiles" | "look">, theme: ThemeName) =>
  groundStyles(tile.type === "section" ? tile.ground : groundUnder(tile, board), theme);

const NAMES = ["--under-background", "--under-ink", "--under-muted"];

/** Gives an element the styles of a ground, in the place of those that it has. */
export function paintGround(element: HTMLElement, styles: Record<string, string>): void {
  for (const name of NAMES) {
    if (styles[name]) element.style.setProperty(name, styles[name]);
    else element.style.removeProperty(name);
  }
}
