import type { Value } from "../base/value";
import type { Board, BoardLook, Control, Setting, Tile } from "./board-schema";
import type { Project } from "./schema";
import { freePlace, makeRoom, type Place } from "./tile-layout";

type Without<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;

/** A tile without its place. */
export type TileContent = Without<Tile, "x" | "y" | "w" | "h" | "phone">;
type Change<Type extends Tile["type"]> = Omit<
  Extract<Tile, { type: Type }>,
  "id" | "type" | "x" | "y" | "w" | "h"
>;
/** What of a tile can be changed besides its place; what a tile of its type has not is left out. */
export type TileChange = Partial<
  Change<"visual"> & Change<"text"> & Change<"picture"> & Change<"line"> & Change<"section">
>;

/** What of a control can be changed. */
export type ControlChange =
  | Partial<
      Pick<
        Extract<Control, { type: "filter" }>,
        "label" | "as" | "many" | "by" | "begins" | "leaves" | "width"
      >
    >
  | Partial<Pick<Extract<Control, { type: "input" }>, "as" | "width">>;

/** Changes a board where it is there. */
function change(p: Project, id: string, recipe: (board: Board) => void): void {
  const board = p.boards.find((b) => b.id === id);
  if (board) recipe(board);
}

/** Puts tiles of a board somewhere, and lets the others give way; nothing is written where nothing changes. */
function place(board: Board, places: Place[]): void {
  const tiles = new Map(board.tiles.map((t) => [t.id, t]));
  for (const { id, ...to } of makeRoom(board.tiles, places)) {
    const tile = tiles.get(id);
    for (const key of ["x", "y", "w", "h"] as const) if (tile && tile[key] !== to[key]) tile[key] = to[key];
  }
}

/** Edits of boards: their names, tiles and controls. */
export const BOARD_EDITS = {
  "add board": (p: Project, { board }: { board: Board }) => void p.boards.push(board),
  "rename board": (p: Project, { id, name }: { id: string; name: string }) =>
    change(p, id, (b) => void (b.name = name)),
  "remove board": (p: Project, { id }: { id: string }) =>
    void (p.boards = p.boards.filter((b) => b.id !== id)),

  /** Changes what a board is made for and drawn in, and its order on a phone. */
  "change board": (
    p: Project,
    {
      board,
      change: by,
    }: {
      board: string;
      change: { width?: Board["width"]; look?: Partial<BoardLook>; phoneOrder?: string[] };
    },
  ) =>
    change(p, board, (b) => {
      const { look, ...others } = by;
      Object.assign(b, others);
      if (look) Object.assign(b.look, look);
    }),

  /** Adds a tile where there is room for it; nothing else moves. */
  "add tile": (
    p: Project,
    { board, tile, size }: { board: string; tile: TileContent; size: { width: number; height: number } },
  ) =>
    change(p, board, (b) => {
      const { width: w, height: h } = size;
      b.tiles.push({ ...tile, ...freePlace(b.tiles, w, h), w, h, phone: null });
    }),

  /** Adds tiles with their places; `places` are those to which tiles that are there go for them. */
  "add tiles": (
    p: Project,
    { board, tiles, places = [] }: { board: string; tiles: Tile[]; places?: Place[] },
  ) =>
    change(p, board, (b) => {
      b.tiles.push(...tiles);
      if (places.length > 0) place(b, [...places, ...tiles]);
    }),

  "change tile": (
    p: Project,
    { board, tile, change: by }: { board: string; tile: string; change: TileChange },
  ) =>
    change(p, board, (b) => {
      const found = b.tiles.find((t) => t.id === tile);
      if (found)
        for (const [key, value] of Object.entries(by))
          if (key in found) Object.assign(found, { [key]: value });
    }),

  /** Takes tiles off; nothing else moves, and what lies in a section stays where its ground is taken away. */
  "remove tiles": (p: Project, { board, tiles }: { board: string; tiles: string[] }) =>
    change(p, board, (b) => void (b.tiles = b.tiles.filter((t) => !tiles.includes(t.id)))),

  /** Puts tiles where they were dragged or resized to; others give way. `moved` are those that somebody moved. */
  "place tiles": (p: Project, { board, places }: { board: string; places: Place[]; moved?: string[] }) =>
    change(p, board, (b) => place(b, places)),

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
