import type { Board, Tile } from "./board-schema";
import {
  boundsOf,
  COLUMNS,
  freePlace,
  HEADING_ROWS,
  MOST_ROWS,
  type Place,
  type Placed,
  sectionOf,
  withinGrid,
  withMembers,
} from "./tile-layout";

// What is done with one tile of a board or with several at once: each gives the places that follow, of those
// that were meant alone. What gives way for them is told by makeRoom.

/** No tile is made lower than this, in rows. */
const LEAST_ROWS = 2;

const placeOf = ({ id, x, y, w, h }: Placed): Place => ({ id, x, y, w, h });

/** The tiles that are meant by some ids, in the order of these. */
const chosen = (tiles: readonly Placed[], ids: Iterable<string>): Placed[] =>
  [...ids].flatMap((id) => tiles.find((t) => t.id === id) ?? []);

/** Tiles moved together by columns and rows, as far as there is a grid; sections take their own along. */
export function movedPlaces(
  tiles: readonly Placed[],
  ids: ReadonlySet<string>,
  { columns, rows }: { columns: number; rows: number },
): Place[] {
  const moved = chosen(tiles, withMembers(ids, tiles));
  if (moved.length === 0) return [];
  const { x, y, w } = boundsOf(moved);
  const right = Math.max(-x, Math.min(COLUMNS - x - w, columns));
  const down = Math.max(-y, rows);
  return moved.map((t) => ({ ...placeOf(t), x: t.x + right, y: t.y + down }));
}

/** The edges of a tile that a hand holds. */
export interface Held {
  left?: boolean;
  right?: boolean;
  top?: boolean;
  bottom?: boolean;
}

/** Tiles with some of their edges moved by columns and rows; a section never becomes smaller than what is in it. */
export function resizedPlaces(
  tiles: readonly Placed[],
  ids: ReadonlySet<string>,
  held: Held,
  { columns, rows }: { columns: number; rows: number },
): Place[] {
  return chosen(tiles, ids).map((tile) => {
    const own = tile.type === "section" ? tiles.filter((t) => sectionOf(t, tiles)?.id === tile.id) : [];
    const within = own.length > 0 ? boundsOf(own) : null;
    let { x: left, y: top } = tile;
    let [right, bottom] = [tile.x + tile.w, tile.y + tile.h];
    const least = tile.type === "line" ? 1 : LEAST_ROWS;
    if (held.left) left = Math.max(0, Math.min(left + columns, within ? within.x : right - 1));
    if (held.right)
      right = Math.min(COLUMNS, Math.max(right + columns, within ? within.x + within.w : left + 1));
    if (held.top)
      top = Math.max(0, bottom - MOST_ROWS, Math.min(top + rows, within ? within.y : bottom - least));
    if (held.bottom)
      bottom = Math.min(top + MOST_ROWS, Math.max(bottom + rows, within ? within.y + within.h : top + least));
    return { id: tile.id, x: left, y: top, w: right - left, h: bottom - top };
  });
}

/** Where tiles are lined up. */
export type Edge = "left" | "centre" | "right" | "top" | "middle" | "bottom";

/** Tiles lined up at an edge, or in the middle, of the box around them; sections take their own along. */
export function alignedPlaces(tiles: readonly Placed[], ids: ReadonlySet<string>, edge: Edge): Place[] {
  const meant = chosen(tiles, ids);
  if (meant.length === 0) return [];
  const box = boundsOf(meant);
  const at = {
    left: () => ({ x: box.x }),
    centre: ({ w }: Placed) => ({ x: Math.round(box.x + (box.w - w) / 2) }),
    right: ({ w }: Placed) => ({ x: box.x + box.w - w }),
    top: () => ({ y: box.y }),
    middle: ({ h }: Placed) => ({ y: Math.round(box.y + (box.h - h) / 2) }),
    bottom: ({ h }: Placed) => ({ y: box.y + box.h - h }),
  }[edge];
  return along(tiles, meant, (t) => ({ x: t.x, y: t.y, ...at(t) }));
}

/** Tiles with the same space between each and the next, across or down; the first and the last stay. */
export function distributedPlaces(
  tiles: readonly Placed[],
  ids: ReadonlySet<string>,
  direction: "across" | "down",
): Place[] {
  const [from, size] = direction === "across" ? (["x", "w"] as const) : (["y", "h"] as const);
  const meant = chosen(tiles, ids).toSorted((a, b) => a[from] - b[from]);
  if (meant.length < 3) return meant.map(placeOf);
  const last = meant[meant.length - 1];
  const taken = meant.reduce((sum, t) => sum + t[size], 0);
  const space = (last[from] + last[size] - meant[0][from] - taken) / (meant.length - 1);
  let before = 0;
  const to = new Map<string, number>();
  for (const [i, t] of meant.entries()) {
    to.set(t.id, Math.max(0, Math.round(meant[0][from] + before + i * space)));
    before += t[size];
  }
  return along(tiles, meant, (t) => ({ x: t.x, y: t.y, [from]: to.get(t.id) ?? t[from] }));
}

/** Tiles as wide, or as high, as the first of them. */
export function sameSizePlaces(tiles: readonly Placed[], ids: ReadonlySet<string>, side: "w" | "h"): Place[] {
  const [first, ...others] = chosen(tiles, ids);
  return first ? others.map((t) => ({ id: t.id, ...withinGrid({ ...t, [side]: first[side] }) })) : [];
}

/** Two tiles with their places exchanged. */
export function swappedPlaces(tiles: readonly Placed[], a: string, b: string): Place[] {
  const [one, other] = chosen(tiles, [a, b]);
  if (!one || !other) return [];
  return [
    { ...placeOf(other), id: one.id },
    { ...placeOf(one), id: other.id },
  ];
}

/** Places of tiles at new corners; what lies in a section among them goes along, unless it is meant itself. */
function along(
  tiles: readonly Placed[],
  meant: readonly Placed[],
  to: (tile: Placed) => { x: number; y: number },
): Place[] {
  const places = new Map(meant.map((t) => [t.id, { ...placeOf(t), ...to(t) }]));
  for (const t of tiles) {
    const section = sectionOf(t, tiles);
    const moved = section && places.get(section.id);
    if (!section || !moved || places.has(t.id)) continue;
    places.set(t.id, { ...placeOf(t), x: t.x + moved.x - section.x, y: t.y + moved.y - section.y });
  }
  return [...places.values()];
}

/**
 * The tiles of a board without the free rows between them: each goes up until it meets one, or the top. A
 * section takes its own along, at their places in it. Only those that move are given.
 */
export function closedUpPlaces(tiles: readonly Placed[]): Place[] {
  const settled: Place[] = [];
  const blocks = tiles.filter((t) => !sectionOf(t, tiles)).toSorted((a, b) => a.y - b.y || a.x - b.x);
  for (const block of blocks) {
    const above = settled.filter((s) => s.x < block.x + block.w && block.x < s.x + s.w);
    settled.push({ ...placeOf(block), y: Math.max(0, ...above.map((s) => s.y + s.h)) });
  }
  const to = new Map(settled.map((place) => [place.id, place.y]));
  const moved = blocks.filter((block) => to.get(block.id) !== block.y);
  return along(tiles, moved, ({ id, x, y }) => ({ x, y: to.get(id) ?? y }));
}

/** A section around some tiles: its place, and theirs below its heading. Null where one is among them already. */
export function sectionAround(
  tiles: readonly Placed[],
  ids: ReadonlySet<string>,
): { section: Omit<Place, "id">; places: Place[] } | null {
  const meant = chosen(tiles, ids);
  const isFree = (t: Placed) => t.type !== "section" && !sectionOf(t, tiles);
  if (meant.length === 0 || !meant.every(isFree)) return null;
  const box = boundsOf(meant);
  return {
    // Two rows below them, so that they stay as high as they are.
    section: { ...box, h: box.h + HEADING_ROWS + 2 },
    places: meant.map((t) => ({ ...placeOf(t), y: t.y + HEADING_ROWS })),
  };
}

/**
 * Copies of tiles for a board: at the same places where these are free there, else together where there is
 * room. Nothing else moves.
 */
export function pastedTiles(copied: readonly Tile[], tiles: readonly Tile[], newId: () => string): Tile[] {
  if (copied.length === 0) return [];
  const box = boundsOf(copied);
  const isTaken = tiles.some(
    (t) => t.x < box.x + box.w && box.x < t.x + t.w && t.y < box.y + box.h && box.y < t.y + t.h,
  );
  const { x, y } = isTaken ? freePlace(tiles, box.w, box.h) : box;
  return copied.map((t) => ({ ...t, id: newId(), x: t.x - box.x + x, y: t.y - box.y + y }));
}

/** A copy of a board under another name; what names its tiles in it names those of the copy. */
export function copyOfBoard(of: Board, name: string, newId: () => string): Board {
  const ids = new Map(of.tiles.map((t) => [t.id, newId()]));
  const renamed = (all: readonly string[]) => all.flatMap((id) => ids.get(id) ?? []);
  return {
    ...of,
    id: newId(),
    name,
    tiles: of.tiles.map((t) => ({ ...t, id: ids.get(t.id) ?? newId() })),
    controls: of.controls.map((c) => ({
      ...c,
      id: newId(),
      ...(c.type === "filter" ? { leaves: renamed(c.leaves) } : {}),
    })),
    phoneOrder: renamed(of.phoneOrder),
  };
}
