import { own } from "@/core/base/own";
import type { QueryInput } from "@/core/plan/query";
import type { Board, Project, Tile, Visual } from "@/core/project/schema";
import { boxOf, gridWidth } from "@/core/project/tile-layout";
import { visualOnBoard } from "@/core/view/board-look";
import {
  type BoardState,
  type filtersOfTile,
  inputsOf,
  seenVisual,
  tileFilters,
} from "@/core/view/board-state";
import { filledIn, readText } from "@/core/view/board-text";
import { pictureOf } from "@/core/view/picture";
import { toQuery } from "@/core/view/query";
import { trailOf } from "@/core/view/steps";
import { textNames, wholeForText } from "@/core/view/text-names";
import type { Answer } from "@/present/answers";
import { tileGround } from "@/present/ground-styles";
import { GONE } from "@/present/still-tiles";
import { type Piece, textPieces } from "@/present/text-tree";
import type { tilePlaces } from "@/present/tile-place";
import { sceneToSvg } from "@/render/svg-text";

// The tiles of a board as HTML: what its readers see before any script runs.

type Theme = "light" | "night";

const ENTITIES: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" };
/** A text that stands in HTML as itself. */
export const escaped = (text: string) => text.replace(/[&<>"]/g, (sign) => ENTITIES[sign]);

/** What a board is, and what its reader has changed. */
export interface Asked {
  document: Project;
  board: Board;
  state: BoardState;
}

/** What a tile is filtered by at first: a part that is lit up in it is for the script. */
const firstFilters = (...asked: Parameters<typeof filtersOfTile>) => tileFilters(...asked, true).all;

/** The query of a visual in its tile; null while its sentence lacks its value. */
export const queryOf = (
  { document, board, state }: Asked,
  tile: Extract<Tile, { type: "visual" }>,
  visual: Visual,
) =>
  toQuery(
    seenVisual(visual, state),
    document,
    firstFilters(board, state, tile, document),
    inputsOf(document.inputs, state),
  );

/** What is known of a board as it begins. */
export interface Begun extends Asked {
  answerTo: (query: QueryInput) => Answer | null;
  places: ReturnType<typeof tilePlaces>;
  theme: Theme;
}

/** Styles as an attribute has them. */
export const styled = (styles: Record<string, string>) =>
  Object.entries(styles)
    .map(([name, value]) => `${name}:${value}`)
    .join(";");

const pieceHtml = (piece: Piece): string => {
  if (typeof piece === "string") return escaped(piece);
  const attributes = Object.entries(piece.attributes ?? {}).map(([n, value]) => ` ${n}="${escaped(value)}"`);
  const isVoid = piece.tag === "br" || piece.tag === "hr";
  const inner = piece.pieces.map(pieceHtml).join("");
  return `<${piece.tag}${attributes.join("")}>${isVoid ? "" : `${inner}</${piece.tag}>`}`;
};

const textHtml = (pieces: Piece[]) => `<div class="board-text">${pieces.map(pieceHtml).join("")}</div>`;

/** A tile as it stands before it can be used, as HTML. */
export function tileHtml(begun: Begun, tile: Tile): string {
  const { board, places, theme } = begun;
  const style = styled({ ...places.get(tile.id), ...tileGround(tile, board, theme) });
  return `<div class="board-tile" style="${style}">${contentHtml(begun, tile)}</div>`;
}

function contentHtml(begun: Begun, tile: Tile): string {
  const { document, board, state, answerTo } = begun;
  switch (tile.type) {
    case "text": {
      const ground = { project: document, board, state };
      const names = textNames(tile, ground, answerTo);
      const pieces = textPieces(filledIn(readText(tile.text || "An empty text."), names));
      const whole = wholeForText(tile, ground).map((label) => `whole for ${label}`);
      const notes = { tag: "p", attributes: { class: "board-notes" }, pieces: [whole.join(" · ")] };
      return textHtml(whole.length > 0 ? [...pieces, notes] : pieces);
    }
    case "picture": {
      if (tile.picture === null) return "<div></div>";
      const picture = document.pictures.find((p) => p.id === tile.picture);
      if (!picture) return textHtml([GONE.picture]);
      const image = `class="board-image board-image-${tile.fit}" src="${escaped(picture.href)}"`;
      return `<img ${image} alt="${escaped(tile.shows)}">`;
    }
    case "line":
      return `<hr class="board-line board-line-${tile.along}">`;
    case "section": {
      const heading = tile.heading ? `<h2>${escaped(tile.heading)}</h2>` : "";
      return `<div class="board-section${tile.border ? " board-bordered" : ""}">${heading}</div>`;
    }
    case "visual": {
      const visual = document.visuals.find((v) => v.id === tile.visual);
      return visual ? visualHtml(begun, tile, visual) : textHtml([GONE.visual]);
    }
  }
}

function visualHtml(
  { document, board, state, answerTo, theme }: Begun,
  tile: Extract<Tile, { type: "visual" }>,
  visual: Visual,
): string {
  const { width, height } = boxOf(tile, board.tiles, gridWidth(board.width));
  const filters = firstFilters(board, state, tile, document);
  const query = queryOf({ document, board, state }, tile, visual);
  const dressed = visualOnBoard(visual, tile, board, { theme, design: document });
  const scene = pictureOf(seenVisual(dressed, state), document, query && answerTo(query), {
    size: { width, height },
    theme,
    filters,
    inputs: inputsOf(document.inputs, state),
    lit: state.picks.findLast((p) => p.visual === visual.id) ?? null,
  });
  // A table is written by the script: it says what the picture does.
  const svg = tile.as === "table" ? "" : sceneToSvg(scene, { prefix: `first-${tile.id}-` });
  const trail = trailOf(visual, own(state.steps, visual.id) ?? [], document);
  const names = trail.length === 0 ? [] : [visual.name, ...trail];
  const above = names.map((name) => `<span>${escaped(name)}</span>`).join("");
  const nav = above && `<nav class="board-trail">${above}</nav>`;
  return `<div class="board-visual">${nav}<div class="board-stage" role="img" aria-label="${escaped(scene.description)}">${svg}</div></div>`;
}
