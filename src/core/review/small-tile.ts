import { UNNAMED } from "../kinds/anatomy/frame";
import type { Visual } from "../project/schema";
import { boxOf, COLUMNS, gridWidth, MOST_ROWS } from "../project/tile-layout";
import type { VisualData } from "../rows/visual-data";
import type { Scene } from "../scene/marks";
import { visualOnBoard } from "../view/board-look";
import { type Design, sceneOf } from "../view/picture";
import type { DrawnFacts, ReviewRule, Stand } from "./finding";

/** Type below this is hard to read for many; what a visual has so small at its own size is its own choice. */
const LEAST_TYPE = 11;
/** For a tile that is too small so many columns, and so many times some rows, are tried more. */
const MOST_MORE = 6;
const SOME_ROWS = 7;

interface Size {
  width: number;
  height: number;
}

const typeOf = (scene: Scene) =>
  new Map(scene.marks.flatMap((m) => (m.type === "text" ? [[m.id, m.size] as const] : [])));

/** What a visual loses at a size, in words; null where it is as it is at its own size. */
function lossOf(drawn: Visual, { visual, data, design }: DrawnFacts, size: Size): string | null {
  const [own, scene] = [sceneOf(visual, data, design), sceneOf(drawn, data, design, { size })];
  const counted = (s: Scene) => s.marks.find((m) => m.id === UNNAMED);
  const missing = counted(scene);
  if (missing?.type === "text" && !counted(own)) return `leaves ${missing.text}`;
  const before = typeOf(own);
  const small = [...typeOf(scene)].filter(([id, at]) => at < LEAST_TYPE && at < (before.get(id) ?? 0) - 0.5);
  const least = Math.min(...small.map(([, at]) => at));
  return small.length ? `has type of ${Number(least.toFixed(1))} px` : null;
}

const known = new WeakMap<Visual, { data: VisualData; design: Design; by: Map<string, string | null> }>();

/** The same for a tile, remembered: tiles that are only moved lose nothing else than before. */
function lossAt(facts: DrawnFacts, { board, tile }: Stand): string | null {
  const { data, design } = facts;
  const { width, height } = boxOf(tile, board.tiles, gridWidth(board.width));
  const drawn = visualOnBoard(facts.visual, tile, board, { theme: "light", design });
  let held = known.get(drawn);
  if (held?.data !== data || held.design !== design) {
    held = { data, design, by: new Map() };
    known.set(drawn, held);
  }
  const key = `${width} ${height}`;
  const before = held.by.get(key);
  if (before !== undefined) return before;
  const loss = lossOf(drawn, facts, { width, height });
  held.by.set(key, loss);
  return loss;
}

/** A tile in which the visual loses nothing, some rows or columns larger. */
function largerTile(facts: DrawnFacts, { tile, board }: Stand) {
  for (let more = 1; more <= MOST_MORE; more++) {
    const h = Math.min(MOST_ROWS, tile.h + more * SOME_ROWS);
    const w = Math.min(COLUMNS - tile.x, tile.w + more);
    for (const grown of [
      { ...tile, h },
      { ...tile, w },
      { ...tile, h, w },
    ])
      if (lossAt(facts, { board, tile: grown }) === null) return grown;
  }
  return null;
}

/** A tile of a board that is too small for what stands in it. */
export const smallTile: ReviewRule = {
  id: "too small for its tile",
  look: (facts) => {
    for (const stand of facts.stands) {
      const loss = lossAt(facts, stand);
      if (!loss) continue;
      const grown = largerTile(facts, stand);
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
              moved: [id],
            },
          },
        }),
      };
    }
    return null;
  },
};
