import type { Tile } from "./schema";

/** Where a tile stands on the 12-column grid, in columns and rows. */
export interface Place {
  id: string;
  x: number;
  y: number;
  w: number;
  h: number;
}

const COLUMNS = 12;
/** The board's grid in pixels: rows of one height, and the gap between tiles. */
export const ROW_HEIGHT = 44;
export const GAP = 12;
/** The width of a board's grid in a window of usual width. */
export const BOARD_WIDTH = 1240;

/** The pixels that a tile has on a board of a width. */
export function tileSize(
  { w, h }: Pick<Place, "w" | "h">,
  boardWidth: number,
): { width: number; height: number } {
  const column = (boardWidth - GAP * (COLUMNS - 1)) / COLUMNS;
  return { width: w * column + (w - 1) * GAP, height: h * ROW_HEIGHT + (h - 1) * GAP };
}
const meets = (a: Omit<Place, "id">, b: Omit<Place, "id">) =>
  a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;

/** Sets a tile's place, kept within the grid; nothing is written where nothing changes. */
export function setPlace(tile: Tile, { x, y, w, h }: Omit<Place, "id">): void {
  const width = Math.min(COLUMNS, Math.max(1, w));
  const next = {
    w: width,
    h: Math.min(40, Math.max(1, h)),
    x: Math.min(COLUMNS - width, Math.max(0, x)),
    y: Math.max(0, y),
  };
  for (const key of ["x", "y", "w", "h"] as const) if (tile[key] !== next[key]) tile[key] = next[key];
}

/**
 * Lets all tiles rise until they rest on another or on the top, from the top down; where two would meet, the
 * one that was `moved` keeps its place and the other goes below it.
 */
export function settleTiles(tiles: Tile[], moved: string | null = null): void {
  const order = tiles.toSorted(
    (a, b) => a.y - b.y || Number(b.id === moved) - Number(a.id === moved) || a.x - b.x,
  );
  const placed: Tile[] = [];
  for (const tile of order) {
    let y = tile.y;
    const at = (row: number) => placed.find((p) => meets({ ...tile, y: row }, p));
    for (let other = at(y); other; other = at(y)) y = other.y + other.h;
    while (y > 0 && !at(y - 1)) y--;
    if (tile.y !== y) tile.y = y;
    placed.push(tile);
  }
}

/** The first place from the top, left to right, where a tile of this size meets no other. */
export function freePlace(tiles: Tile[], w: number, h: number): { x: number; y: number } {
  for (let y = 0; ; y++) {
    for (let x = 0; x + w <= COLUMNS; x++) if (!tiles.some((t) => meets({ x, y, w, h }, t))) return { x, y };
  }
}

/** Where a tile stands on a board's grid, as styles: by its own place, and on a phone by its height alone. */
export const tileStyle = ({ type, x, y, w, h }: Pick<Tile, "type" | "x" | "y" | "w" | "h">) => ({
  "--column": `${x + 1} / span ${w}`,
  "--row": `${y + 1} / span ${h}`,
  "--phone-height": type === "text" ? "auto" : `span ${Math.min(7, Math.max(3, h))}`,
});
