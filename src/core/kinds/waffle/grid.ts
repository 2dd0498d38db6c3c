import type { Box } from "../../scene/box";
import type { Mark } from "../../scene/marks";
import type { SceneInput } from "../anatomy/kind";
import { cellAt } from "./cells";
import type { WafflePart } from "./parts";

type Input = SceneInput<WafflePart>;

/** A grid of cells: its top left corner, the distance of two cells, and the size of one, in pixels. */
export interface Grid {
  x: number;
  y: number;
  rows: number;
  columns: number;
  pitch: number;
  cell: number;
}

/** The largest grid of the visual's rows and columns in the middle of a box. */
export function layGrid({ style }: Input, body: Box): Grid {
  const [rows, columns] = [style.number("cell.rows"), style.number("cell.columns")];
  const pitch = Math.max(1.5, Math.min(body.width / columns, body.height / rows));
  return {
    rows,
    columns,
    pitch,
    cell: pitch * (1 - style.number("cell.gap") / 100),
    x: body.x + (body.width - pitch * columns) / 2,
    y: body.y + (body.height - pitch * rows) / 2,
  };
}

/** A cell in the order of filling, or the part of it between two shares of its length. */
export interface Cell {
  n: number;
  from: number;
  to: number;
}

/** The box that a part of a cell takes, across the order of filling. */
function cutOf({ style }: Input, { from, to }: Cell, x: number, y: number, cell: number): Box {
  const along = style.choice("cell.order") === "row";
  const corner = style.choice("cell.corner");
  const forward = along ? corner.endsWith("left") : corner.startsWith("top");
  const [a, b] = forward ? [from, to] : [1 - to, 1 - from];
  return along
    ? { x: x + a * cell, y, width: (b - a) * cell, height: cell }
    : { x, y: y + a * cell, width: cell, height: (b - a) * cell };
}

/** What a cell looks like besides its shape. */
type CellLook = Pick<Mark, "id" | "part" | "fill" | "surface" | "datum" | "opacity" | "shows">;

/** The middle of a cell by its place in the order of filling. */
export function middleOf({ style }: Input, grid: Grid, n: number): { x: number; y: number } {
  const { pitch, rows, columns } = grid;
  const { column, row } = cellAt(n, rows, columns, style.choice("cell.order"), style.choice("cell.corner"));
  return { x: grid.x + (column + 0.5) * pitch, y: grid.y + (row + 0.5) * pitch };
}

/** One cell, or a part of it: its own shape, cut. */
export function cellMark(input: Input, grid: Grid, wanted: Cell, look: CellLook): Mark {
  const { style } = input;
  const { cell } = grid;
  const { x: mx, y: my } = middleOf(input, grid, wanted.n);
  const [x, y] = [mx - cell / 2, my - cell / 2];
  const isPart = wanted.to - wanted.from < 1 - 1e-9;
  const cut = {
    ...cutOf(input, wanted, x, y, cell),
    radii: [0, 0, 0, 0] as [number, number, number, number],
  };
  const clip = isPart ? { clip: cut } : {};
  switch (style.choice("cell.shape")) {
    case "circle":
      return { type: "circle", cx: mx, cy: my, r: cell / 2, grow: "middle", ...look, ...clip };
    case "diamond": {
      const points: [number, number][] = [
        [mx, y],
        [x + cell, my],
        [mx, y + cell],
        [x, my],
      ];
      return { type: "polygon", x: 0, y: 0, rotate: 0, points, ...look, ...clip };
    }
    default: {
      const r = style.choice("cell.shape") === "rounded" ? cell * 0.24 : 0;
      const box = { x, y, width: cell, height: cell };
      const grow = style.choice("cell.order") === "row" ? "left" : "bottom";
      return { type: "rect", ...box, radii: [r, r, r, r], grow, ...look, ...clip };
    }
  }
}
