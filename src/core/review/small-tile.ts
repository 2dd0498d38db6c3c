import { UNNAMED } from "../kinds/anatomy/frame";
import { BOARD_WIDTH, tileSize } from "../project/tile-layout";
import type { Scene } from "../scene/marks";
import { sceneOf } from "../view/picture";
import type { DrawnFacts, ReviewRule, Stand } from "./finding";

/** Type below this is hard to read for many; what a visual has so small at its own size is its own choice. */
const LEAST_TYPE = 11;
/** So many rows or columns more are tried for a tile that is too small. */
const MOST_MORE = 6;

const typeOf = (scene: Scene) =>
  new Map(scene.marks.flatMap((m) => (m.type === "text" ? [[m.id, m.size] as const] : [])));

/** What a visual loses in a tile, in words; null where it is as it is at its own size. */
function lossAt(facts: DrawnFacts, own: Scene, size: { width: number; height: number }): string | null {
  const { visual, data, design } = facts;
  const scene = sceneOf(visual, data, design, { size });
  const counted = (s: Scene) => s.marks.find((m) => m.id === UNNAMED);
  const missing = counted(scene);
  if (missing?.type === "text" && !counted(own)) return `leaves ${missing.text}`;
  const before = typeOf(own);
  const small = [...typeOf(scene)].filter(([id, at]) => at < LEAST_TYPE && at < (before.get(id) ?? 0) - 0.5);
  const least = Math.min(...small.map(([, at]) => at));
  return small.length ? `has type of ${Number(least.toFixed(1))} px` : null;
}

/** A tile in which the visual loses nothing, a few rows or columns larger. */
function largerTile(facts: DrawnFacts, own: Scene, { tile }: Stand) {
  for (let more = 1; more <= MOST_MORE; more++)
    for (const grown of [
      { ...tile, h: tile.h + more },
      { ...tile, w: Math.min(12 - tile.x, tile.w + more) },
      { ...tile, h: tile.h + more, w: Math.min(12 - tile.x, tile.w + more) },
    ])
      if (lossAt(facts, own, tileSize(grown, BOARD_WIDTH)) === null) return grown;
  return null;
}

/** A tile of a board that is too small for what stands in it. */
export const smallTile: ReviewRule = {
  id: "too small for its tile",
  look: (facts) => {
    const { visual, data, design, stands } = facts;
    if (stands.length === 0) return null;
    const own = sceneOf(visual, data, design);
    for (const stand of stands) {
      const loss = lossAt(facts, own, tileSize(stand.tile, BOARD_WIDTH));
      if (!loss) continue;
      const grown = largerTile(facts, own, stand);
      const { id, x, y } = stand.tile;
      return {
        text: `Its tile on ${stand.board.name} ${loss}.`,
        why: "What cannot be read there is not there for who looks at the board.",
        ...(grown && {
          mend: {
            label: "Make the tile larger",
            edit: {
              type: "place tiles",
              board: stand.board.id,
              places: [{ id, x, y, w: grown.w, h: grown.h }],
              moved: id,
            },
          },
        }),
      };
    }
    return null;
  },
};
