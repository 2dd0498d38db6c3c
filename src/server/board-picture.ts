import { z } from "zod";
import { readingOrder } from "@/core/project/phone-layout";
import type { Board, Project, Tile } from "@/core/project/schema";
import { boxOf, gridWidth } from "@/core/project/tile-layout";
import { visualOnBoard } from "@/core/view/board-look";
import { filtersOf, UNTOUCHED } from "@/core/view/board-state";
import { pictureOf } from "@/core/view/picture";
import { toQuery } from "@/core/view/query";
import { type PlacedScene, scenesToSvg } from "@/render/svg-text";
import { answerQuery } from "./results";
import { readProject } from "./store/projects";

/** The picture shows so much of a board, in pixels of the board, so wide and so high. */
const SHOWN = { width: gridWidth("fluid"), height: 775 };
/** The picture's own width, in pixels. */
const WIDTH = 160;
/** So many tiles are told apart at that size. */
const MOST = 9;

export const pictureQuerySchema = z.object({ theme: z.enum(["light", "night"]).default("light") });

/** The first board that shows a visual. */
const firstBoard = ({ boards }: Project): Board | undefined =>
  boards.find((b) => b.tiles.some((t) => t.type === "visual"));

/** The scenes of a board's tiles as it begins; a tile that cannot be drawn is left out. */
async function scenesOf(
  id: string,
  document: Project,
  board: Board,
  theme: "light" | "night",
  signal: AbortSignal,
): Promise<PlacedScene[]> {
  const filters = filtersOf(board.controls, UNTOUCHED);
  const box = (tile: Tile) => boxOf(tile, board.tiles, SHOWN.width);
  const tiles = readingOrder(board.tiles)
    .filter((tile) => tile.type === "visual" && box(tile).y < SHOWN.height)
    .slice(0, MOST);
  const drawn = tiles.map(async (tile): Promise<PlacedScene | null> => {
    const kept = tile.type === "visual" ? document.visuals.find((v) => v.id === tile.visual) : undefined;
    if (!kept) return null;
    const visual = visualOnBoard(kept, tile, board, { theme, design: document });
    const { x, y, width, height } = box(tile);
    const query = toQuery(visual, document, filters, {});
    const answer = query ? await answerQuery(id, document, query, signal) : null;
    if (answer && "error" in answer) return null;
    return { x, y, scene: pictureOf(visual, document, answer, { theme, size: { width, height }, filters }) };
  });
  const settled = await Promise.allSettled(drawn);
  signal.throwIfAborted();
  return settled.flatMap((one) => (one.status === "fulfilled" && one.value ? [one.value] : []));
}

/**
 * A project's first board as a small SVG, for the list of projects: 204 where it has none. It stays what it
 * is until the project is saved again. Throws 404 where there is no such project.
 */
export async function answerBoardPicture(
  id: string,
  theme: "light" | "night",
  known: string | null,
  signal: AbortSignal,
): Promise<Response> {
  const { document, revision } = readProject(id);
  const tag = `"${revision}-${theme}"`;
  const headers = { etag: tag, "cache-control": "private, no-cache" };
  if (known === tag) return new Response(null, { status: 304, headers });
  const board = firstBoard(document);
  const scenes = board ? await scenesOf(id, document, board, theme, signal) : [];
  if (!board || scenes.length === 0) return new Response(null, { status: 204, headers });
  const svg = scenesToSvg(scenes, { ...SHOWN, drawnWidth: WIDTH, title: board.name });
  return new Response(svg, { headers: { ...headers, "content-type": "image/svg+xml; charset=utf-8" } });
}
