import type { Board, Tile } from "./board-schema";
import { HEADING_ROWS, type Placed, sectionOf } from "./tile-layout";

/** How many rows a tile has on a phone where nothing else is said. */
function rowsOnPhone(tile: Tile): number {
  const between = (least: number, most: number) => Math.min(most, Math.max(least, tile.h));
  switch (tile.type) {
    case "visual":
      return between(21, 49);
    case "picture":
      return between(8, 40);
    case "text":
      // What it needs beyond that its words make room for.
      return 4;
    case "line":
      return 3;
    case "section":
      return tile.heading ? HEADING_ROWS : 1;
  }
}

/** Things in an order of one's own: those that it does not name follow the one that they stand after. */
function inOrder<T extends { id: string }>(things: readonly T[], order: readonly string[]): T[] {
  const named = order.flatMap((id) => things.find((t) => t.id === id) ?? []);
  const found = [...new Set(named)];
  for (const [i, thing] of things.entries()) {
    if (found.includes(thing)) continue;
    const before = things[i - 1];
    found.splice(before ? found.indexOf(before) + 1 : 0, 0, thing);
  }
  return found;
}

const fromTop = (a: Placed, b: Placed) => a.y - b.y || a.x - b.x;

/** The tiles as they are read: from the top row to the bottom one, each from the left, a section before its own. */
export function readingOrder(tiles: readonly Tile[]): Tile[] {
  return inBlocks(tiles, []);
}

/** The tiles of a board in their order on a phone: a section stands before its own, which stay together. */
export const phoneTiles = ({ tiles, phoneOrder }: Pick<Board, "tiles" | "phoneOrder">): Tile[] =>
  inBlocks(tiles, phoneOrder);

function inBlocks(tiles: readonly Tile[], order: readonly string[]): Tile[] {
  const sorted = tiles.toSorted(fromTop);
  const within = new Map(sorted.map((t) => [t.id, sectionOf(t, sorted)?.id]));
  const blocks = sorted.filter((t) => within.get(t.id) === undefined);
  return inOrder(blocks, order).flatMap((block) => [
    block,
    ...(block.type === "section"
      ? inOrder(
          sorted.filter((t) => within.get(t.id) === block.id),
          order,
        )
      : []),
  ]);
}

/**
 * The order on a phone once a tile was moved among those of its section, or of the board, by one; null where
 * it cannot go further.
 */
export function shiftedOrder(
  board: Pick<Board, "tiles" | "phoneOrder">,
  id: string,
  by: 1 | -1,
): string[] | null {
  const ordered = phoneTiles(board);
  const sectionIdOf = (tile: Tile) => sectionOf(tile, board.tiles)?.id;
  const moved = ordered.find((t) => t.id === id);
  if (!moved) return null;
  const beside = ordered.filter((t) => sectionIdOf(t) === sectionIdOf(moved));
  const other = beside[beside.indexOf(moved) + by];
  if (!other) return null;
  const order = ordered.map((t) => t.id);
  const [a, b] = [order.indexOf(id), order.indexOf(other.id)];
  [order[a], order[b]] = [order[b], order[a]];
  return order;
}

/** Where a tile stands in the one column of a phone, in rows; a section lies under all of its own. */
export interface PhonePlace {
  row: number;
  rows: number;
  /** The section that it lies in; null on the board itself. */
  section: string | null;
}

/** The places of a board's tiles on a phone, by their ids, from the first row (0) on. */
export function phonePlaces(board: Pick<Board, "tiles" | "phoneOrder">): Map<string, PhonePlace> {
  const places = new Map<string, PhonePlace>();
  let row = 0;
  const ordered = phoneTiles(board);
  for (const [i, tile] of ordered.entries()) {
    const rows = tile.phone ?? rowsOnPhone(tile);
    const section = sectionOf(tile, board.tiles);
    places.set(tile.id, { row, rows, section: section?.id ?? null });
    row += rows;
    const around = section && places.get(section.id);
    if (!around) continue;
    const next = ordered[i + 1];
    // Its ground ends a little below the last of its own.
    if (!next || sectionOf(next, board.tiles) !== section) row += 1;
    around.rows = row - around.row;
  }
  return places;
}
