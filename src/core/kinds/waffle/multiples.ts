import { formatNumber } from "../../base/number-format";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Mark } from "../../scene/marks";
import { LINE_HEIGHT, SMALLEST, shorten, textWidth } from "../../scene/text";
import type { Colours } from "../anatomy/colours";
import { type Goals, goalFor } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { APART, textMark } from "../anatomy/text-mark";
import { type Grid, layGrid } from "./grid";
import type { WafflePart } from "./parts";
import { type CellRun, ratioRuns } from "./runs";

type Input = SceneInput<WafflePart>;

/** A grid of one row, with the cells that it fills. */
export interface OwnGrid {
  row: VisualRow;
  grid: Grid;
  runs: CellRun[];
}

/** Grids of a row each, their names, and how many rows there is no room for. */
export interface Multiples {
  grids: OwnGrid[];
  marks: Mark[];
  unfit: number;
}

/** Cells nearer to each other than this are a smear. */
const LEAST_PITCH = 2.4;
const GAP = 10;

/** The boxes of so many grids in as many columns. */
function boxesIn(body: Box, count: number, columns: number): Box[] {
  const rows = Math.ceil(count / columns);
  const width = (body.width - GAP * (columns - 1)) / columns;
  const height = (body.height - GAP * (rows - 1)) / rows;
  return Array.from({ length: count }, (_, i) => ({
    x: body.x + (i % columns) * (width + GAP),
    y: body.y + Math.floor(i / columns) * (height + GAP),
    width,
    height,
  }));
}

/** The boxes of so many grids in the number of columns that gives them the largest cells. */
function boxesOf(input: Input, body: Box, count: number, foot: number): Box[] {
  const pitch = (boxes: Box[]) => layGrid(input, { ...boxes[0], height: boxes[0].height - foot }).pitch;
  const tried = Array.from({ length: count }, (_, i) => boxesIn(body, count, i + 1));
  return tried.reduce((best, one) => (pitch(one) > pitch(best) + 1e-9 ? one : best));
}

/** What stands under a grid: the name of its row, cut before its value is. */
function nameMark({ theme, data }: Input, row: VisualRow, box: Box, size: number): Mark {
  const value = APART + formatNumber(row.value, row.format ?? data.format);
  const room = box.width - textWidth(value, size, 500);
  const text =
    room > size * 3 ? shorten(row.label, room, size, 500) + value : shorten(row.label, box.width, size, 500);
  const y = box.y + box.height - (size * LINE_HEIGHT) / 2;
  const look = { size, weight: 500, fill: theme.ink, align: "middle" } as const;
  return textMark(`name:${row.key}`, "labels", { x: box.x + box.width / 2, y, text, ...look });
}

/**
 * One grid for each row, which fills it by its own share of the goal: for parts that make no whole together.
 * Rows whose cells would be too small are left out, the last ones first.
 */
export function layMultiples(
  input: Input,
  goal: Goals,
  colours: Colours,
  body: Box,
  cells: number,
): Multiples {
  const { data } = input;
  const size = Math.max(SMALLEST, Math.min(11.5, body.height * 0.08));
  const foot = size * LINE_HEIGHT + 2;
  let count = data.rows.length;
  const pitchOf = (boxes: Box[]) => layGrid(input, { ...boxes[0], height: boxes[0].height - foot }).pitch;
  let boxes = boxesOf(input, body, count, foot);
  while (count > 1 && pitchOf(boxes) < LEAST_PITCH) {
    count = Math.min(count - 1, Math.floor(count * 0.8));
    boxes = boxesOf(input, body, count, foot);
  }
  const shown = data.rows.slice(0, count);
  const grids = shown.map((row, i) => ({
    row,
    grid: layGrid(input, { ...boxes[i], height: Math.max(1, boxes[i].height - foot) }),
    runs: ratioRuns(input, goalFor(data, goal, row), colours, cells, row, i),
  }));
  return {
    grids,
    marks: shown.map((row, i) => nameMark(input, row, boxes[i], size)),
    unfit: data.rows.length - count,
  };
}
