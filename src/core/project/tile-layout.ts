import type { Board, Tile } from "./board-schema";

/** Where a tile stands on the grid of a board, in columns and rows. */
export interface Place {
  id: string;
  x: number;
  y: number;
  w: number;
  h: number;
}
type Box = Omit<Place, "id">;
/** A tile as far as its place goes; a section with a heading keeps room for it. */
export type Placed = Place & { type: Tile["type"]; heading?: string };

export const COLUMNS = 12;
/**
 * The height of a row of the grid in pixels, and the gap between tiles. The gap below a tile is of
 * its own rows.
 */
export const ROW = 8;
export const GAP = 12;
/** The space between a board's edge and its grid, in pixels. */
export const EDGE = 20;
/** So wide is a fluid board seen where it is not known how wide it will be. */
export const USUAL_WIDTH = 1280;
/** The rows that the heading of a section has above its tiles. */
export const HEADING_ROWS = 5;
/** The most rows that a tile is made, and the last row that one can be put on; a section grows beyond. */
export const MOST_ROWS = 1000;
export const LAST_ROW = 7000;
const GROWN_ROWS = 100_000;

/** The width of a board's grid, in pixels, on a board that is so wide or fluid. */
export const gridWidth = (width: Board["width"]): number =>
  (width === "fluid" ? USUAL_WIDTH : width) - 2 * EDGE;

const meets = (a: Box, b: Box) => a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;
const holds = (outer: Box, inner: Box) =>
  outer.x <= inner.x &&
  outer.y <= inner.y &&
  inner.x + inner.w <= outer.x + outer.w &&
  inner.y + inner.h <= outer.y + outer.h;

/** The section that a tile lies wholly within; undefined where it lies on the board itself. */
export const sectionOf = <T extends Placed>(tile: Placed, tiles: readonly T[]): T | undefined =>
  tile.type === "section"
    ? undefined
    : tiles.find((t) => t.type === "section" && t.id !== tile.id && holds(t, tile));

/** Tiles with those that lie in the sections among them. */
export const withMembers = (ids: ReadonlySet<string>, tiles: readonly Placed[]): Set<string> =>
  new Set(
    tiles.flatMap((t) => {
      const section = sectionOf(t, tiles);
      return ids.has(t.id) || (section && ids.has(section.id)) ? t.id : [];
    }),
  );

/** Keeps a place within the grid. */
export function withinGrid({ x, y, w, h }: Box): Box {
  const width = Math.min(COLUMNS, Math.max(1, w));
  return {
    x: Math.min(COLUMNS - width, Math.max(0, x)),
    y: Math.min(LAST_ROW, Math.max(0, y)),
    w: width,
    h: Math.min(GROWN_ROWS, Math.max(1, h)),
  };
}

/**
 * Moves what would lie under others below them, from the top down; what is `fixed` stays where it is. Changes
 * the places that it is given.
 */
function giveWay(places: Place[], fixed: ReadonlySet<string>): void {
  const order = places.toSorted(
    (a, b) => Number(fixed.has(b.id)) - Number(fixed.has(a.id)) || a.y - b.y || a.x - b.x,
  );
  const settled: Place[] = [];
  for (const place of order) {
    for (;;) {
      const under = settled.find((s) => meets(s, place));
      if (!under) break;
      place.y = under.y + under.h;
    }
    settled.push(place);
  }
}

/** The rows at the top of a section that its heading has for itself. */
const headRows = ({ heading }: Placed) => (heading ? HEADING_ROWS : 0);

/** The section over whose edge a tile lies with its middle within. */
function sectionUnder({ x, y, w, h }: Box, places: readonly Placed[]): Placed | undefined {
  const middle = { x: x + w / 2, y: y + h / 2, w: 0, h: 0 };
  return places.find((s) => s.type === "section" && holds(s, middle));
}

/**
 * The places of all tiles once some were put somewhere: the others stay where they are, but what would lie
 * under a tile goes below it. A section goes down with its tiles, and grows where they need more room; a tile
 * that lies within a section, or is put over its edge with its middle within, becomes one of its own. Free
 * rows stay free.
 */
export function makeRoom(tiles: readonly Placed[], moved: readonly Place[]): Place[] {
  const to = new Map(moved.map((p) => [p.id, p]));
  const places = tiles.map((t): Placed => {
    const place = to.get(t.id);
    const box = place ? withinGrid(place) : { x: t.x, y: t.y, w: t.w, h: t.h };
    return { id: t.id, type: t.type, heading: t.heading, ...box };
  });
  const fixed = new Set(to.keys());
  for (const place of places) {
    if (!to.has(place.id) || place.type === "section" || sectionOf(place, places)) continue;
    const under = sectionUnder(place, places);
    if (!under) continue;
    Object.assign(under, boundsOf([under, place]));
    fixed.add(under.id);
  }
  const members = new Map<string, Placed[]>();
  const blocks: Placed[] = [];
  for (const place of places) {
    const section = sectionOf(place, places);
    if (section) members.set(section.id, [...(members.get(section.id) ?? []), place]);
    else blocks.push(place);
  }
  for (const block of blocks) {
    const own = members.get(block.id) ?? [];
    for (const member of own) member.y = Math.max(member.y, block.y + headRows(block));
    giveWay(own, fixed);
    block.h = Math.max(block.h, ...own.map((m) => m.y + m.h - block.y));
  }
  const before = new Map(blocks.map((b) => [b.id, b.y]));
  giveWay(blocks, fixed);
  for (const block of blocks)
    for (const member of members.get(block.id) ?? []) member.y += block.y - (before.get(block.id) ?? block.y);
  return places.map(({ id, x, y, w, h }) => ({ id, x, y, w, h }));
}

/** The first place from the top, left to right, where a tile of this size meets no other. */
export function freePlace(tiles: readonly Box[], w: number, h: number): { x: number; y: number } {
  // A place that meets nothing begins at the top, or where another tile ends.
  const rows = [0, ...tiles.map((t) => t.y + t.h)].sort((a, b) => a - b);
  for (const y of rows)
    for (let x = 0; x + w <= COLUMNS; x++) if (!tiles.some((t) => meets({ x, y, w, h }, t))) return { x, y };
  return { x: 0, y: rows[rows.length - 1] };
}

/** The box around some places. */
export function boundsOf(places: readonly Box[]): Box {
  const [x, y] = [Math.min(...places.map((p) => p.x)), Math.min(...places.map((p) => p.y))];
  const right = Math.max(...places.map((p) => p.x + p.w));
  return { x, y, w: right - x, h: Math.max(...places.map((p) => p.y + p.h)) - y };
}

/** The space around a tile within its place, in pixels: the gap below it, and those to the edges of its section. */
export function insetsOf(
  tile: Placed,
  tiles: readonly Placed[],
): { left: number; right: number; top: number; bottom: number } {
  const section = sectionOf(tile, tiles);
  const at = (touches: boolean) => (touches ? GAP : 0);
  if (!section) return { left: 0, right: 0, top: 0, bottom: GAP };
  return {
    left: at(section.x === tile.x),
    right: at(section.x + section.w === tile.x + tile.w),
    top: at(section.y === tile.y),
    bottom: GAP + at(section.y + section.h === tile.y + tile.h),
  };
}

/** Where a tile stands on a grid that is so wide, with rows as high as they are made for, in pixels. */
export function boxOf(
  tile: Placed,
  tiles: readonly Placed[],
  width: number,
): { x: number; y: number; width: number; height: number } {
  const column = (width + GAP) / COLUMNS;
  const { left, right, top, bottom } = insetsOf(tile, tiles);
  return {
    x: tile.x * column + left,
    y: tile.y * ROW + top,
    width: Math.round(tile.w * column - GAP - left - right),
    height: tile.h * ROW - top - bottom,
  };
}

/** How many rows a board's tiles take. */
export const rowsOf = (tiles: readonly Box[]): number => Math.max(0, ...tiles.map((t) => t.y + t.h));
