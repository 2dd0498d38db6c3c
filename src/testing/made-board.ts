import { visualTile } from "../core/project/defaults";
import type { Tile } from "../core/project/schema";

/** A tile with a visual, in a place that does not matter but where it is given. */
export const madeTile = (
  id: string,
  visual: string,
  more: Partial<Extract<Tile, { type: "visual" }>> = {},
): Extract<Tile, { type: "visual" }> => ({
  ...(visualTile(id, visual) as Extract<Tile, { type: "visual" }>),
  x: 0,
  y: 0,
  w: 3,
  h: 21,
  phone: null,
  ...more,
});
