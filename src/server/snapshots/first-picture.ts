import type { QueryInput } from "@/core/plan/query";
import { readingOrder } from "@/core/project/phone-layout";
import type { Board, Visual } from "@/core/project/schema";
import { boxOf, gridWidth } from "@/core/project/tile-layout";
import type { Snapshot } from "@/core/snapshot/snapshot";
import { visualOnBoard } from "@/core/view/board-look";
import { filtersOfTile, UNTOUCHED } from "@/core/view/board-state";
import { pictureOf } from "@/core/view/picture";
import { toQuery } from "@/core/view/query";
import { type PlacedScene, scenesToSvg, sceneToSvg } from "@/render/svg-text";

type Theme = "light" | "night";

const answerIn = ({ answers }: Snapshot, query: QueryInput | null) => {
  const asked = JSON.stringify(query);
  return answers.find(([q]) => JSON.stringify(q) === asked)?.[1] ?? null;
};

/** A visual of a snapshot as SVG, out of what the snapshot answers itself. */
export function visualPicture(snapshot: Snapshot, visual: Visual, theme: Theme): string {
  const { project } = snapshot;
  const scene = pictureOf(visual, project, answerIn(snapshot, toQuery(visual, project)), { theme });
  return sceneToSvg(scene, { prefix: `first-${visual.id}-`, title: visual.name });
}

/** The visuals of a board in their places as one SVG, for whoever sees it before or without its script. */
export function boardPicture(snapshot: Snapshot, board: Board, theme: Theme): string {
  const { project } = snapshot;
  const width = gridWidth(board.width);
  const scenes = readingOrder(board.tiles).flatMap((tile): PlacedScene[] => {
    const kept = tile.type === "visual" && project.visuals.find((v) => v.id === tile.visual);
    if (!kept || tile.type !== "visual") return [];
    const visual = visualOnBoard(kept, tile, board, { theme, design: project });
    const box = boxOf(tile, board.tiles, width);
    const filters = filtersOfTile(board, UNTOUCHED, tile, project);
    const answer = answerIn(snapshot, toQuery(visual, project, filters));
    const size = { width: box.width, height: box.height };
    return [{ x: box.x, y: box.y, scene: pictureOf(visual, project, answer, { theme, size, filters }) }];
  });
  const height = Math.max(120, ...scenes.map(({ y, scene }) => y + scene.height));
  return scenesToSvg(scenes, { width, height, drawnWidth: width, title: board.name });
}
