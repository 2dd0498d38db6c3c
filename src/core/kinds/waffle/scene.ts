import { formatNumber } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import { mix } from "../../scene/colour";
import type { Datum, Handle, Mark, Scene } from "../../scene/marks";
import { fitText, LINE_HEIGHT, SMALLEST } from "../../scene/text";
import { Colours } from "../anatomy/colours";
import { leadingRows, rowDatum, strength } from "../anatomy/datum";
import { blankScene, footNote, frameScene, layFrame, titleOf } from "../anatomy/frame";
import { beyondGoal, type Goal, goalOf, shareFormat } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { shareText } from "../anatomy/labels";
import { layLegend } from "../anatomy/legend";
import { clamp } from "../anatomy/scale";
import { textMark } from "../anatomy/text-mark";
import { namesFor } from "../anatomy/visual-reading";
import { cellAt, largestRemainder } from "./cells";
import type { WafflePart } from "./parts";

type Input = SceneInput<WafflePart>;

interface Grid {
  x: number;
  y: number;
  rows: number;
  columns: number;
  pitch: number;
  cell: number;
}

/** A stretch of cells of one look, counted in the order of filling; may end within a cell. */
interface Fill {
  key: string;
  row: VisualRow;
  from: number;
  to: number;
  color: string;
  datum: Datum;
}

function layGrid({ style }: Input, body: Box): Grid {
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

/** One cell, or the part of it from `from` to `to` along the order of filling. */
function cellMark(
  input: Input,
  grid: Grid,
  n: number,
  from: number,
  to: number,
  id: string,
  look: Partial<Mark>,
): Mark {
  const { style } = input;
  const order = style.choice("cell.order");
  const corner = style.choice("cell.corner");
  const shape = style.choice("cell.shape");
  const { column, row } = cellAt(n, grid.rows, grid.columns, order, corner);
  const { cell, pitch } = grid;
  const [x, y] = [grid.x + column * pitch + (pitch - cell) / 2, grid.y + row * pitch + (pitch - cell) / 2];
  const part = to - from < 1 - 1e-9;
  const along = order === "row";
  const forward = along ? corner.endsWith("left") : corner.startsWith("top");
  const [a, b] = forward ? [from, to] : [1 - to, 1 - from];
  // A part of a cell is the cell's own shape, cut across the order of filling.
  const cut = along
    ? { x: x + a * cell, y, width: (b - a) * cell, height: cell }
    : { x, y: y + a * cell, width: cell, height: (b - a) * cell };
  const clip = part ? { clip: { ...cut, radii: [0, 0, 0, 0] as [number, number, number, number] } } : {};
  if (shape === "circle")
    return {
      type: "circle",
      id,
      part: "cell",
      cx: x + cell / 2,
      cy: y + cell / 2,
      r: cell / 2,
      grow: "middle",
      ...look,
      ...clip,
    } as Mark;
  if (shape === "diamond") {
    const [mx, my] = [x + cell / 2, y + cell / 2];
    const points: [number, number][] = [
      [mx, y],
      [x + cell, my],
      [mx, y + cell],
      [x, my],
    ];
    return { type: "polygon", id, part: "cell", x: 0, y: 0, rotate: 0, points, ...look, ...clip } as Mark;
  }
  const radius = shape === "rounded" ? cell * 0.24 : 0;
  return {
    type: "rect",
    id,
    part: "cell",
    x,
    y,
    width: cell,
    height: cell,
    radii: [radius, radius, radius, radius],
    grow: along ? "left" : "bottom",
    ...look,
    ...clip,
  } as Mark;
}

/** The cells of a ratio: the reached share, and what lies past the goal. */
function ratioFills(input: Input, goal: Goal, colours: Colours, cells: number): Fill[] {
  const { data, style, theme } = input;
  const row = data.rows[0];
  const value = row.value ?? 0;
  const past = style.choice("cell.past");
  const share = value / goal.full;
  const whole = (x: number) => (style.toggle("cell.part") ? x : Math.round(x));
  const datum = rowDatum(input, row, [{ label: "Share", value: shareText(share) }]);
  const color = colours.of(row, 0);
  const deep = mix(color, theme.ink, 0.5);
  if (share <= 0) return [];
  if (share > 1 && past === "extend")
    return [
      { key: row.key, row, from: 0, to: whole(cells / share), color, datum },
      { key: `${row.key}:past`, row, from: whole(cells / share), to: cells, color: deep, datum },
    ];
  const lap = share > 1 && past === "lap" ? whole(clamp(share - 1) * cells) : 0;
  const until = whole(clamp(share) * cells);
  return [
    ...(lap > 0 ? [{ key: `${row.key}:lap`, row, from: 0, to: lap, color: deep, datum }] : []),
    { key: row.key, row, from: lap, to: until, color, datum },
  ].filter((f) => f.to > f.from);
}

function partFills(input: Input, colours: Colours, cells: number): Fill[] {
  const rows = input.data.rows
    .map((row, index) => ({ row, index }))
    .filter(({ row }) => row.value !== null && row.value > 0);
  const given = largestRemainder(
    rows.map(({ row }) => row.value as number),
    cells,
  );
  const sum = rows.reduce((total, { row }) => total + (row.value as number), 0);
  let at = 0;
  return rows.map(({ row, index }, i) => {
    const from = at;
    at += given[i];
    const share = (row.value as number) / sum;
    return {
      key: row.key,
      row,
      from,
      to: at,
      color: colours.of(row, index),
      datum: rowDatum(input, row, [
        { label: "Share", value: shareText(share) },
        { label: "Cells", value: String(given[i]) },
      ]),
    };
  });
}

function drawFills(input: Input, grid: Grid, fills: Fill[]): Mark[] {
  const { style, theme } = input;
  const cells = grid.rows * grid.columns;
  const marks: Mark[] = [];
  const track = style.toggle("track.shown") ? style.colour("track.colour", theme.track) : null;
  const covered = (n: number) => fills.some((f) => f.from <= n && f.to >= n + 1);
  if (track)
    for (let n = 0; n < cells; n++)
      if (!covered(n))
        marks.push(
          cellMark(input, grid, n, 0, 1, `empty:${n}`, { fill: track, surface: "track", part: "track" }),
        );
  for (const fill of fills)
    for (let n = Math.floor(fill.from); n < fill.to - 1e-9; n++) {
      const [a, b] = [Math.max(0, fill.from - n), Math.min(1, fill.to - n)];
      if (b - a < 1e-6) continue;
      marks.push(
        cellMark(input, grid, n, a, b, `cell:${fill.key}:${n}`, {
          fill: fill.color,
          datum: fill.datum,
          opacity: strength(input, fill.row.key),
          shows: { row: fill.row.key, value: fill.row.value ?? 0, channel: "count" },
          surface: "data",
        }),
      );
    }
  return marks;
}

/**
 * The room for the reading beside the grid: at the left where the frame is wide, above it where it is not.
 */
function layReading(input: Input, body: Box): { at: Box; body: Box } | null {
  const { style } = input;
  if (!style.toggle("reading.shown") || style.choice("readingplace.place") === "over") return null;
  const size = Math.min(style.number("reading.size"), body.height * 0.3);
  if (body.width > body.height * 1.25) {
    const width = Math.min(body.width * 0.42, Math.max(size * 3.2, 40));
    return {
      at: { x: body.x, y: body.y, width, height: body.height },
      body: { ...body, x: body.x + width + 8, width: body.width - width - 8 },
    };
  }
  const height = size * LINE_HEIGHT + 24;
  if (body.height < height * 2.2) return null;
  return {
    at: { ...body, height: height - 6 },
    body: { ...body, y: body.y + height, height: body.height - height },
  };
}

/** A grid of cells that are filled by a ratio, or divided among parts so that they add up to the whole. */
export function waffleScene(input: Input): Scene {
  const blank = blankScene(input);
  if (blank) return blank;
  const { data, style, theme } = input;
  const { marks, body: whole } = layFrame(input);
  const colours = new Colours(input);
  const parts = data.splitLabel !== null;
  const goal = goalOf(input, style.choice("cell.past"));
  const cells = style.number("cell.rows") * style.number("cell.columns");
  const fills = parts ? partFills(input, colours, cells) : ratioFills(input, goal, colours, cells);
  const negative = parts ? data.rows.filter((r) => (r.value ?? 0) < 0).length : 0;
  const tiny = fills.filter((f) => f.to <= f.from).length;
  const left = [
    negative ? `${negative} below zero left out` : "",
    tiny ? `${tiny} smaller than half a cell left out` : "",
  ]
    .filter(Boolean)
    .join("; ");
  const noted = footNote(whole, theme, left);
  const entries = colours.ruleLegend().length
    ? colours.ruleLegend()
    : parts
      ? fills.map((f) => ({
          key: f.key,
          color: f.color,
          label: f.row.label,
          value: style.toggle("legend.values") ? formatNumber(f.row.value, data.format) : "",
        }))
      : [];
  const legend = layLegend(style.choice("legend.place"), entries, noted.body, theme);
  const focused = data.rows.find((r) => r.key === input.focus);
  const said = parts ? focused : data.rows[0];
  const value = said ? said.value : data.total;
  const sum = fills.reduce((total, f) => total + (f.row.value ?? 0), 0);
  const of = parts ? sum : goal.full;
  // Without a focus, the parts of a whole are all of it.
  const share = value === null ? null : parts && !(focused && sum > 0) ? 1 : value / of;
  const names = namesFor(input, {
    value: { value, format: data.format },
    total: { value, format: data.format },
    target: { value: goal.full, format: data.format },
  }).map((n) => ({
    ...n,
    share: { value: share, format: shareFormat(share) },
    category: said?.label ?? "",
  }));
  // Parts of a whole have no share to read: the total is said in its place.
  const template =
    parts && !focused
      ? style.template("reading.text").replace("{share}", "{total}")
      : style.template("reading.text");
  const texts = names.map((n) => fillTemplate(template, n));
  const state = parts ? "" : beyondGoal(value, goal.full);
  const caption =
    focused && parts ? focused.label : state || fillTemplate(style.template("reading.caption"), names[0]);
  const reading = layReading(input, legend.body);
  const grid = layGrid(input, reading?.body ?? legend.body);
  marks.push(...legend.marks, ...drawFills(input, grid, fills), ...noted.marks);
  if (reading) {
    const size = Math.max(SMALLEST, Math.min(style.number("reading.size"), reading.at.height * 0.6));
    const main = fitText(texts, reading.at.width, size, 600);
    const small =
      caption && reading.at.height >= main.size + 16
        ? fitText([caption], reading.at.width, Math.max(SMALLEST, Math.min(13, main.size * 0.42)), 400)
        : null;
    const height = main.size * LINE_HEIGHT + (small ? small.size * LINE_HEIGHT + 2 : 0);
    const top = reading.at.y + (reading.at.height - height) / 2;
    marks.push(
      textMark("reading", "reading", {
        x: reading.at.x,
        y: top + (main.size * LINE_HEIGHT) / 2,
        text: main.text,
        size: main.size,
        weight: 600,
        fill: theme.ink,
      }),
    );
    if (small?.text)
      marks.push(
        textMark("caption", "reading", {
          x: reading.at.x,
          y: top + main.size * LINE_HEIGHT + 2 + (small.size * LINE_HEIGHT) / 2,
          text: small.text,
          size: small.size,
          weight: 400,
          fill: state ? theme.signal : theme.muted,
        }),
      );
  } else if (style.toggle("reading.shown")) marks.push(...overGrid(input, grid, texts));
  const ratio = parts
    ? leadingRows(
        input,
        (r) =>
          `${sum > 0 && (r.value ?? 0) > 0 ? shareText((r.value as number) / sum) : formatNumber(r.value, data.format)}`,
      )
    : `${formatNumber(value, data.format)} of ${formatNumber(goal.full, data.format)} (${share === null ? "—" : shareText(share)})`;
  const description = `${titleOf(input)}: waffle of ${data.valueLabel}, ${ratio}${state ? `, ${state}` : ""}${left ? `. ${left}` : ""}.`;
  return frameScene(input, marks, handlesOf(input, grid), description);
}

/** The reading on a plate in the middle of the grid, so that it reads on any cells. */
function overGrid(input: Input, grid: Grid, texts: string[]): Mark[] {
  const { style, theme } = input;
  const [width, height] = [grid.pitch * grid.columns, grid.pitch * grid.rows];
  const size = Math.max(SMALLEST, Math.min(style.number("reading.size"), height * 0.34));
  const main = fitText(texts, width * 0.8, size, 600);
  if (!main.text) return [];
  const [cx, cy] = [grid.x + width / 2, grid.y + height / 2];
  const plate = {
    width: Math.min(width, main.text.length * main.size * 0.62 + main.size),
    height: main.size * 1.45,
  };
  const r = plate.height * 0.3;
  return [
    {
      type: "rect",
      id: "plate",
      part: "reading",
      x: cx - plate.width / 2,
      y: cy - plate.height / 2,
      ...plate,
      radii: [r, r, r, r],
      fill: theme.sheet,
    },
    textMark("reading", "reading", {
      x: cx,
      y: cy,
      text: main.text,
      size: main.size,
      weight: 600,
      fill: theme.ink,
      align: "middle",
    }),
  ];
}

function handlesOf({ style }: Input, grid: Grid): Handle[] {
  const [x, y] = [grid.x + grid.cell + (grid.pitch - grid.cell) / 2, grid.y + grid.pitch / 2];
  const right = grid.x + grid.pitch;
  return [
    // Half of a gap lies at each side of a cell.
    style.handle("cell.gap", {
      x,
      y,
      track: (from, to) => ({
        type: "straight",
        x0: right - (grid.pitch * from) / 200,
        y0: y,
        x1: right - (grid.pitch * to) / 200,
        y1: y,
      }),
    }),
  ];
}
