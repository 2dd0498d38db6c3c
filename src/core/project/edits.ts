import { sameName } from "../base/names";
import { renameInTemplate } from "../base/template";
import { checkFormula } from "../formula/check";
import { type Edit, edit } from "./edit";
import { measuresOf, renameInputIn, renameMeasureIn, scopeOf } from "./names";
import type { Board, Control, Input, Measure, Project, Tile, Visual } from "./schema";
import { freePlace, type Place, setPlace, settleTiles } from "./tile-layout";

export const renameProject = (name: string): Edit => edit((p) => void (p.name = name));

export const addMeasure = (measure: Measure): Edit => edit((p) => void p.measures.push(measure));

/** Changes a measure; a new name rewrites every formula and template that uses it. */
export const changeMeasure = (id: string, change: Partial<Omit<Measure, "id">>): Edit => {
  return (project) => {
    const scope = scopeOf(project);
    return edit((p) => {
      const measure = p.measures.find((m) => m.id === id);
      if (!measure) return;
      const from = measure.name;
      Object.assign(measure, change);
      const to = measure.name;
      if (to === from) return;
      for (const m of p.measures)
        m.formula = renameMeasureIn({ formula: m.formula, table: m.table, derived: false }, scope, from, to);
      renameInTemplates(p, from, to);
    })(project);
  };
};

function renameInTemplates(p: Project, from: string, to: string): void {
  for (const v of p.visuals) {
    v.title = renameInTemplate(v.title, from, to);
    v.subtitle = renameInTemplate(v.subtitle, from, to);
    for (const [key, dial] of Object.entries(v.dials))
      if (typeof dial === "string") v.dials[key] = renameInTemplate(dial, from, to);
  }
}

export const removeMeasure = (id: string): Edit =>
  edit((p) => void (p.measures = p.measures.filter((m) => m.id !== id)));

export const addInput = (input: Input): Edit => edit((p) => void p.inputs.push(input));

/** Changes an input; a new name rewrites every formula and template that uses it. */
export const changeInput = (id: string, change: Partial<Omit<Input, "id">>): Edit =>
  edit((p) => {
    const input = p.inputs.find((i) => i.id === id);
    if (!input) return;
    const from = input.name;
    Object.assign(input, change);
    if (input.name === from) return;
    for (const m of p.measures) m.formula = renameInputIn(m.formula, from, input.name);
    renameInTemplates(p, from, input.name);
  });

export const removeInput = (id: string): Edit =>
  edit((p) => void (p.inputs = p.inputs.filter((i) => i.id !== id)));

export const addVisual = (visual: Visual): Edit => edit((p) => void p.visuals.push(visual));
export const changeVisual = (id: string, change: Partial<Omit<Visual, "id">>): Edit =>
  edit((p) => {
    const visual = p.visuals.find((v) => v.id === id);
    if (visual) Object.assign(visual, change);
  });
/** Sets one dial, or gives it back to the kind's default with null. */
export const setDial = (id: string, dial: string, value: number | string | boolean | null): Edit =>
  edit((p) => {
    const visual = p.visuals.find((v) => v.id === id);
    if (!visual) return;
    if (value === null) delete visual.dials[dial];
    else visual.dials[dial] = value;
  });
/** Removes a visual and the tiles that show it. */
export const removeVisual = (id: string): Edit =>
  edit((p) => {
    p.visuals = p.visuals.filter((v) => v.id !== id);
    for (const b of p.boards) b.tiles = b.tiles.filter((t) => t.type !== "visual" || t.visual !== id);
  });

export const addBoard = (board: Board): Edit => edit((p) => void p.boards.push(board));
export const removeBoard = (id: string): Edit =>
  edit((p) => void (p.boards = p.boards.filter((b) => b.id !== id)));
export const changeBoard = (id: string, change: (board: Board) => void): Edit =>
  edit((p) => {
    const board = p.boards.find((b) => b.id === id);
    if (board) change(board);
  });

type NewTile = { id: string; type: "visual"; visual: string } | { id: string; type: "text"; text: string };

/** Adds a tile where there is room for it. */
export const addTile = (boardId: string, tile: NewTile, size: { width: number; height: number }): Edit =>
  changeBoard(boardId, (b) => {
    const { width: w, height: h } = size;
    b.tiles.push({ ...tile, ...freePlace(b.tiles, w, h), w, h } as Tile);
    settleTiles(b.tiles);
  });
export const removeTile = (boardId: string, tileId: string): Edit =>
  changeBoard(boardId, (b) => {
    b.tiles = b.tiles.filter((t) => t.id !== tileId);
    settleTiles(b.tiles);
  });
/** Puts tiles where they were dragged or resized to; the others give way. */
export const placeTiles = (boardId: string, places: Place[], moved: string | null = null): Edit =>
  changeBoard(boardId, (b) => {
    for (const { id, x, y, w, h } of places) {
      const tile = b.tiles.find((t) => t.id === id);
      if (tile) setPlace(tile, { x, y, w, h });
    }
    settleTiles(b.tiles, moved);
  });
/** Moves a tile by one step: sideways by a column, up or down past its neighbour. */
export const moveTile = (boardId: string, tileId: string, dx: number, dy: number): Edit =>
  changeBoard(boardId, (b) => {
    const tile = b.tiles.find((t) => t.id === tileId);
    if (!tile) return;
    const x = Math.min(12 - tile.w, Math.max(0, tile.x + dx));
    const above = b.tiles
      .filter((t) => t !== tile && t.x < tile.x + tile.w && tile.x < t.x + t.w && t.y + t.h <= tile.y)
      .sort((p, q) => q.y + q.h - p.y - p.h)[0];
    const y = dy > 0 ? tile.y + tile.h + 1 : dy < 0 ? (above?.y ?? 0) : tile.y;
    setPlace(tile, { ...tile, x, y });
    settleTiles(b.tiles, tileId);
  });
export const addControl = (boardId: string, control: Control): Edit =>
  changeBoard(boardId, (b) => void b.controls.push(control));
export const removeControl = (boardId: string, controlId: string): Edit =>
  changeBoard(boardId, (b) => void (b.controls = b.controls.filter((c) => c.id !== controlId)));

/** Where a measure is used: other measures, and visuals, by their label. */
export function usesOfMeasure(project: Project, id: string): { measures: Measure[]; visuals: Visual[] } {
  const measure = project.measures.find((m) => m.id === id);
  if (!measure) return { measures: [], visuals: [] };
  const scope = scopeOf(project);
  const measures = project.measures.filter(
    (m) =>
      m.id !== id &&
      (checkFormula(m.formula, scope, m.table, "group", m.name).uses.measures.some((n) =>
        sameName(n, measure.name),
      ) ||
        m.proofs.some((p) => p.type === "same total" && p.measure === id)),
  );
  const visuals = project.visuals.filter((v) => measuresOf(v).includes(id));
  return { measures, visuals };
}

/** Where an input is used: measures by formula, visuals by a phrase, boards by a control. */
export function usesOfInput(
  project: Project,
  id: string,
): { measures: Measure[]; visuals: Visual[]; boards: Board[] } {
  const input = project.inputs.find((i) => i.id === id);
  if (!input) return { measures: [], visuals: [], boards: [] };
  const scope = scopeOf(project);
  const refersTo = (s: Visual["target"]) => s !== null && "input" in s && s.input === id;
  return {
    measures: project.measures.filter((m) =>
      checkFormula(m.formula, scope, m.table, "group", m.name).uses.inputs.some((n) =>
        sameName(n, input.name),
      ),
    ),
    visuals: project.visuals.filter((v) => [v.target, v.minimum, v.maximum, v.comparison].some(refersTo)),
    boards: project.boards.filter((b) => b.controls.some((c) => c.type === "input" && c.input === id)),
  };
}
