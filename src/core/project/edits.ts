import { produce } from "immer";
import { checkFormula } from "../formula/check";
import { freeName, renameColumnIn, renameInputIn, renameInTemplate, renameMeasureIn, renameTableIn, scopeOf } from "./names";
import type { Board, Control, Input, Measure, Project, TableInfo, Tile, Visual } from "./schema";

/** Edits are pure: each takes a project and gives the changed one, leaving the first as it was. */
export type Edit = (project: Project) => Project;

const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();
const edit = (recipe: (draft: Project) => void): Edit => (project) => produce(project, recipe);

export const renameProject = (name: string): Edit => edit((p) => void (p.name = name));

/** Adds a table under a name that is free. */
export const addTable = (table: TableInfo): Edit =>
  edit((p) => {
    const name = freeName(
      table.name,
      p.tables.map((t) => t.name),
    );
    p.tables.push({ ...table, name });
  });

export const removeTable = (id: string): Edit => edit((p) => void (p.tables = p.tables.filter((t) => t.id !== id)));

/** Puts newly read rows in the place of a table's own; its name stays. */
export const replaceRows = (id: string, fresh: TableInfo): Edit =>
  edit((p) => {
    const table = p.tables.find((t) => t.id === id);
    if (table) Object.assign(table, { id: fresh.id, rows: fresh.rows, source: fresh.source, columns: fresh.columns });
  });

export const changeColumn = (tableId: string, column: string, change: Partial<TableInfo["columns"][number]>): Edit =>
  edit((p) => {
    const table = p.tables.find((t) => t.id === tableId);
    const found = table?.columns.find((c) => c.name === column);
    if (!table || !found) return;
    if (change.reading) found.reading = change.reading;
    if (change.name && change.name !== column) {
      found.name = change.name;
      const to = change.name;
      for (const m of p.measures) m.formula = renameColumnIn(m.formula, table.name, m.table, column, to);
      for (const v of p.visuals) {
        const own = p.measures.find((m) => m.id === v.value)?.table;
        if (!own || !same(own, table.name)) continue;
        if (v.split && same(v.split.column, column)) v.split.column = to;
        for (const f of v.filters) if (same(f.column, column)) f.column = to;
      }
      for (const b of p.boards) for (const c of b.controls) if (c.type === "filter" && same(c.table, table.name) && same(c.column, column)) c.column = to;
    }
  });

export const renameTable = (id: string, to: string): Edit =>
  edit((p) => {
    const table = p.tables.find((t) => t.id === id);
    if (!table) return;
    const from = table.name;
    table.name = to;
    for (const m of p.measures) {
      m.formula = renameTableIn(m.formula, from, to);
      if (m.table && same(m.table, from)) m.table = to;
    }
    for (const b of p.boards) for (const c of b.controls) if (c.type === "filter" && same(c.table, from)) c.table = to;
  });

export const addMeasure = (measure: Measure): Edit => edit((p) => void p.measures.push(measure));

/** Changes a measure; a new name rewrites every formula and template that uses it. */
export const changeMeasure = (id: string, change: Partial<Omit<Measure, "id">>): Edit =>
  edit((p) => {
    const measure = p.measures.find((m) => m.id === id);
    if (!measure) return;
    const from = measure.name;
    Object.assign(measure, change);
    const to = measure.name;
    if (to === from) return;
    for (const m of p.measures) {
      const columns = p.tables.find((t) => m.table !== null && same(t.name, m.table))?.columns.map((c) => c.name) ?? [];
      m.formula = renameMeasureIn(m.formula, columns, from, to);
    }
    renameInTemplates(p, from, to);
  });

function renameInTemplates(p: Project, from: string, to: string): void {
  for (const v of p.visuals) {
    v.title = renameInTemplate(v.title, from, to);
    v.subtitle = renameInTemplate(v.subtitle, from, to);
    for (const [key, dial] of Object.entries(v.dials)) if (typeof dial === "string") v.dials[key] = renameInTemplate(dial, from, to);
  }
}

export const removeMeasure = (id: string): Edit => edit((p) => void (p.measures = p.measures.filter((m) => m.id !== id)));

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

export const removeInput = (id: string): Edit => edit((p) => void (p.inputs = p.inputs.filter((i) => i.id !== id)));

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
export const removeBoard = (id: string): Edit => edit((p) => void (p.boards = p.boards.filter((b) => b.id !== id)));
export const changeBoard = (id: string, change: (board: Board) => void): Edit =>
  edit((p) => {
    const board = p.boards.find((b) => b.id === id);
    if (board) change(board);
  });

/** The first free place below the others, or beside the last tile where there is room. */
function freePlace(board: Board, w: number): { x: number; y: number } {
  const bottom = Math.max(0, ...board.tiles.map((t) => t.y + t.h));
  const last = board.tiles.filter((t) => t.y + t.h === bottom);
  const right = Math.max(0, ...last.map((t) => t.x + t.w));
  const free = board.tiles.length > 0 && right + w <= 12 && board.tiles.every((t) => t.y + t.h <= Math.min(...last.map((l) => l.y)) || t.x + t.w <= right);
  return free ? { x: right, y: Math.min(...last.map((l) => l.y)) } : { x: 0, y: bottom };
}

type NewTile = { id: string; type: "visual"; visual: string } | { id: string; type: "text"; text: string };
export const addTile = (boardId: string, tile: NewTile, w = 4, h = 6): Edit => changeBoard(boardId, (b) => void b.tiles.push({ ...tile, ...freePlace(b, w), w, h } as Tile));
export const removeTile = (boardId: string, tileId: string): Edit => changeBoard(boardId, (b) => void (b.tiles = b.tiles.filter((t) => t.id !== tileId)));
export const placeTiles = (boardId: string, places: { id: string; x: number; y: number; w: number; h: number }[]): Edit =>
  changeBoard(boardId, (b) => {
    for (const { id, x, y, w, h } of places) {
      const tile = b.tiles.find((t) => t.id === id);
      if (tile && (tile.x !== x || tile.y !== y || tile.w !== w || tile.h !== h)) Object.assign(tile, { x, y, w, h });
    }
  });
export const addControl = (boardId: string, control: Control): Edit => changeBoard(boardId, (b) => void b.controls.push(control));
export const removeControl = (boardId: string, controlId: string): Edit => changeBoard(boardId, (b) => void (b.controls = b.controls.filter((c) => c.id !== controlId)));

/** Where a measure is used: other measures, and visuals, by their label. */
export function usesOfMeasure(project: Project, id: string): { measures: Measure[]; visuals: Visual[] } {
  const measure = project.measures.find((m) => m.id === id);
  if (!measure) return { measures: [], visuals: [] };
  const scope = scopeOf(project);
  const measures = project.measures.filter((m) => m.id !== id && checkFormula(m.formula, scope, m.table, "group", [m.name]).uses.measures.some((n) => same(n, measure.name)));
  const refersTo = (s: Visual["target"]) => s !== null && "measure" in s && s.measure === id;
  const visuals = project.visuals.filter((v) => v.value === id || refersTo(v.target) || refersTo(v.minimum) || refersTo(v.maximum));
  return { measures, visuals };
}

/** Where an input is used: measures by formula, visuals by a phrase, boards by a control. */
export function usesOfInput(project: Project, id: string): { measures: Measure[]; visuals: Visual[]; boards: Board[] } {
  const input = project.inputs.find((i) => i.id === id);
  if (!input) return { measures: [], visuals: [], boards: [] };
  const scope = scopeOf(project);
  const refersTo = (s: Visual["target"]) => s !== null && "input" in s && s.input === id;
  return {
    measures: project.measures.filter((m) => checkFormula(m.formula, scope, m.table, "group", [m.name]).uses.inputs.some((n) => same(n, input.name))),
    visuals: project.visuals.filter((v) => refersTo(v.target) || refersTo(v.minimum) || refersTo(v.maximum)),
    boards: project.boards.filter((b) => b.controls.some((c) => c.type === "input" && c.input === id)),
  };
}
