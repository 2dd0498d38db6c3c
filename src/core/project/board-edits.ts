import type { Value } from "../base/value";
import type { Board, Control, Project, Setting } from "./schema";
import { freePlace, type Place, setPlace, settleTiles } from "./tile-layout";

type NewTile = { id: string; type: "visual"; visual: string } | { id: string; type: "text"; text: string };

/** What of a control can be changed. */
export type ControlChange =
  | Partial<Pick<Extract<Control, { type: "filter" }>, "label" | "as" | "many" | "by" | "begins" | "leaves">>
  | Partial<Pick<Extract<Control, { type: "input" }>, "as">>;

/** Changes a board where it is there. */
function change(p: Project, id: string, recipe: (board: Board) => void): void {
  const board = p.boards.find((b) => b.id === id);
  if (board) recipe(board);
}

/** Edits of boards: their names, tiles and controls. */
export const BOARD_EDITS = {
  "add board": (p: Project, { board }: { board: Board }) => void p.boards.push(board),
  "rename board": (p: Project, { id, name }: { id: string; name: string }) =>
    change(p, id, (b) => void (b.name = name)),
  "remove board": (p: Project, { id }: { id: string }) =>
    void (p.boards = p.boards.filter((b) => b.id !== id)),

  /** Adds a tile where there is room for it. */
  "add tile": (
    p: Project,
    { board, tile, size }: { board: string; tile: NewTile; size: { width: number; height: number } },
  ) =>
    change(p, board, (b) => {
      const { width: w, height: h } = size;
      const given = tile.type === "visual" ? { ...tile, aside: false } : tile;
      b.tiles.push({ ...given, ...freePlace(b.tiles, w, h), w, h });
      settleTiles(b.tiles);
    }),

  "write tile": (p: Project, { board, tile, text }: { board: string; tile: string; text: string }) =>
    change(p, board, (b) => {
      const found = b.tiles.find((t) => t.id === tile);
      if (found?.type === "text") found.text = text;
    }),

  "remove tile": (p: Project, { board, tile }: { board: string; tile: string }) =>
    change(p, board, (b) => {
      b.tiles = b.tiles.filter((t) => t.id !== tile);
      settleTiles(b.tiles);
    }),

  /** Puts tiles where they were dragged or resized to; the others give way. */
  "place tiles": (
    p: Project,
    { board, places, moved = null }: { board: string; places: Place[]; moved?: string | null },
  ) =>
    change(p, board, (b) => {
      for (const { id, x, y, w, h } of places) {
        const tile = b.tiles.find((t) => t.id === id);
        if (tile) setPlace(tile, { x, y, w, h });
      }
      settleTiles(b.tiles, moved);
    }),

  /** Moves a tile by one step: sideways by a column, up or down past its neighbour. */
  "move tile": (
    p: Project,
    { board, tile: id, dx, dy }: { board: string; tile: string; dx: number; dy: number },
  ) =>
    change(p, board, (b) => {
      const tile = b.tiles.find((t) => t.id === id);
      if (!tile) return;
      const x = Math.min(12 - tile.w, Math.max(0, tile.x + dx));
      const above = b.tiles
        .filter((t) => t !== tile && t.x < tile.x + tile.w && tile.x < t.x + t.w && t.y + t.h <= tile.y)
        .sort((s, t) => t.y + t.h - s.y - s.h)[0];
      const y = dy > 0 ? tile.y + tile.h + 1 : dy < 0 ? (above?.y ?? 0) : tile.y;
      setPlace(tile, { ...tile, x, y });
      settleTiles(b.tiles, id);
    }),

  "add control": (p: Project, { board, control }: { board: string; control: Control }) =>
    change(p, board, (b) => void b.controls.push(control)),

  /** What filters of a board are set to when it is opened, and the values of inputs, by their ids. */
  "keep state": (
    p: Project,
    {
      board,
      set,
      values,
    }: {
      board: string;
      set: { control: string; setting: Setting }[];
      values: { input: string; value: Value }[];
    },
  ) => {
    change(p, board, (b) => {
      for (const { control, setting } of set) {
        const found = b.controls.find((c) => c.id === control);
        if (found?.type === "filter") found.begins = setting;
      }
    });
    for (const { input, value } of values) {
      const found = p.inputs.find((i) => i.id === input);
      if (found) found.value = value;
    }
  },

  "stand aside": (p: Project, { board, tile, aside }: { board: string; tile: string; aside: boolean }) =>
    change(p, board, (b) => {
      const found = b.tiles.find((t) => t.id === tile);
      if (found?.type === "visual") found.aside = aside;
    }),

  /** Changes how a control of a board is set, or what it is called, or which tiles it leaves. */
  "change control": (
    p: Project,
    { board, control, change: by }: { board: string; control: string; change: ControlChange },
  ) =>
    change(p, board, (b) => {
      const found = b.controls.find((c) => c.id === control);
      if (found) Object.assign(found, by);
    }),

  /** Puts a control at another place among them. */
  "move control": (p: Project, { board, control, to }: { board: string; control: string; to: number }) =>
    change(p, board, (b) => {
      const from = b.controls.findIndex((c) => c.id === control);
      if (from >= 0) b.controls.splice(to, 0, ...b.controls.splice(from, 1));
    }),

  "remove control": (p: Project, { board, control }: { board: string; control: string }) =>
    change(p, board, (b) => void (b.controls = b.controls.filter((c) => c.id !== control))),
};
