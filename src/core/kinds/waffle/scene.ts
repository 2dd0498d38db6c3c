import { formatNumber } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import { counted } from "../../project/fixed-words";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Handle, Mark } from "../../scene/marks";
import { fitText, LINE_HEIGHT, SMALLEST } from "../../scene/text";
import { Colours } from "../anatomy/colours";
import { leadingRows, strength } from "../anatomy/datum";
import { drawing } from "../anatomy/drawing";
import { footNote, layFrame } from "../anatomy/frame";
import {
  beyondGoal,
  chosenEnd,
  type Goals,
  goalOf,
  shareFormat,
  shareOfGoal,
  shareText,
  textAgainst,
} from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { legendFor, rowEntries } from "../anatomy/legend";
import type { LegendEntry } from "../anatomy/legend-entry";
import { pictureMark } from "../anatomy/pictures";
import { haveShares, openWords, restBeside } from "../anatomy/rest";
import { textMark } from "../anatomy/text-mark";
import { titleOf } from "../anatomy/titles";
import { namesFor } from "../anatomy/visual-reading";
import { type Cell, cellMark, type Grid, layGrid, middleOf } from "./grid";
import { layMultiples, type OwnGrid } from "./multiples";
import type { WafflePart } from "./parts";
import { type CellRun, partRuns, ratioRuns, wholeOf } from "./runs";

type Input = SceneInput<WafflePart>;

interface Laid {
  marks: Mark[];
  legend: Mark[];
  /** What stands at the foot, over the cells. */
  foot: Mark[];
  goal: Goals;
  runs: CellRun[];
  /** The grid whose cells are divided, or filled by a ratio; the first where each part has its own. */
  grid: Grid;
  /** What each part fills of a grid of its own; empty where they share one. */
  each: OwnGrid[];
  said: Said;
  /** Where the reading stands beside the grid; null where it does not. */
  beside: Box | null;
  left: string;
}

/** Whether the cells are divided among parts, and not filled by a ratio. */
const isDivided = ({ data }: Input) => data.splitLabel !== null;

/**
 * Whether parts share out one grid: those that make no whole together, or have a target each, cannot, and get
 * a grid of their own. `grids` is what the dial says.
 */
export function sharesOneGrid({ splitLabel, addsUp, own }: Input["data"], grids: string): boolean {
  const isApart = !addsUp || own.target !== null;
  return splitLabel !== null && grids !== "each" && !(grids === "auto" && isApart);
}
const hasGridsEach = (input: Input): boolean =>
  isDivided(input) && !sharesOneGrid(input.data, input.style.choice("cell.grids"));

/** What the reading says: of the part under the pointer, of the ratio, or of the whole. */
interface Said {
  value: number | null;
  share: number | null;
  texts: string[];
  caption: string;
  /** What is said of a value beyond the goal; empty otherwise. */
  state: string;
}

/** The part of the whole that a value is: parts without a focus are all of it. */
function shareSaid(value: number | null, focused: VisualRow | undefined, of: number) {
  if (value === null) return null;
  return focused && of > 0 ? value / of : 1;
}

function readingOf(input: Input, goal: Goals): Said {
  const { data, style } = input;
  const parts = isDivided(input);
  const focused = data.rows.find((r) => r.key === input.focus?.row);
  const row = parts ? focused : data.rows[0];
  const value = row ? row.value : data.total;
  const share = parts ? shareSaid(value, focused, wholeOf(input)) : shareOfGoal(goal, value);
  const now = { value, format: data.format };
  const target = { value: goal.whole, format: data.format };
  const names = namesFor(input, { value: now, total: now, target }).map((n) => ({
    ...n,
    share: { value: share, format: shareFormat(share, data.format) },
    category: row?.label ?? "",
  }));
  const text = parts ? style.template("reading.text") : textAgainst(style.template("reading.text"), goal);
  // Parts of a whole have no share to read: the total is said in its place.
  const template = parts && !focused ? text.replace("{share}", "{total}") : text;
  const state = parts ? "" : beyondGoal(data, value, goal.whole);
  const untold = parts ? "" : goal.missing;
  const caption = state || untold || fillTemplate(style.template("reading.caption"), names[0]);
  return {
    value,
    share,
    texts: names.map((n) => fillTemplate(template, n)),
    caption: focused && parts ? focused.label : caption,
    state,
  };
}

/** What has no cell, in words. */
function leftOut(input: Input, runs: CellRun[]): string {
  const apart =
    isDivided(input) && !input.data.addsUp && input.data.rows.length > 1 ? input.data.words.notAdditive : "";
  const negative = isDivided(input) ? input.data.rows.filter((r) => (r.value ?? 0) < 0).length : 0;
  const tiny = runs.filter((f) => f.to <= f.from).length;
  return [
    counted(input.data.words.belowLeftOut, negative),
    counted(input.data.words.tinyLeftOut, tiny),
    isDivided(input) ? openWords(input.data, restBeside(input.data) / wholeOf(input)) : "",
    apart,
  ]
    .filter(Boolean)
    .join("; ");
}

function lay(input: Input): Laid {
  const { style, theme } = input;
  const { marks, body: whole } = layFrame(input);
  const colours = new Colours(input);
  const goal = goalOf(input, style.choice("cell.past"));
  const cells = style.number("cell.rows") * style.number("cell.columns");
  const divided = isDivided(input);
  if (hasGridsEach(input)) return layEach(input, goal, colours, whole, marks);
  const runs = divided ? partRuns(input, colours, cells) : ratioRuns(input, goal, colours, cells);
  const left = leftOut(input, runs);
  const noted = footNote(whole, theme, left);
  return {
    marks,
    foot: noted.marks,
    goal,
    runs,
    said: readingOf(input, goal),
    left,
    each: [],
    ...layAround(input, colours, divided ? runs : [], noted.body),
  };
}

/** Grids of the parts beside each other; what a full one is stands at the foot where nobody named it. */
function layEach(input: Input, goal: Goals, colours: Colours, whole: Box, marks: Mark[]): Laid {
  const { style, theme, data } = input;
  const cells = style.number("cell.rows") * style.number("cell.columns");
  const end = chosenEnd(data, goal);
  const first = layMultiples(input, goal, colours, footNote(whole, theme, end).body, cells);
  const left = counted(data.words.unfit, first.unfit);
  const noted = footNote(whole, theme, [end, left].filter(Boolean).join("; "));
  const laid = layMultiples(input, goal, colours, noted.body, cells);
  return {
    marks,
    legend: laid.marks,
    foot: noted.marks,
    goal,
    runs: [],
    each: laid.grids,
    grid: laid.grids[0].grid,
    said: readingOf(input, goal),
    beside: null,
    left: [end, left].filter(Boolean).join("; "),
  };
}

/** Legend and reading where they leave the largest cells; a legend stays where it was put. */
function layAround(input: Input, colours: Colours, runs: CellRun[], body: Box): Around {
  const place = input.style.choice("legend.place");
  const entries = rowEntries(input, runs);
  // A crowd has no room below the cells.
  const places = entries.length > 24 ? ["right"] : ["right", "bottom"];
  const tried = (place === "auto" ? places : [place]).flatMap((at): Around[] => {
    const legend = legendFor(input, colours, entries, body, { place: at });
    const beside = (["left", "above"] as const).map((side): Around => {
      const reading = layReading(input, legend.body, side);
      const grid = layGrid(input, reading?.body ?? legend.body);
      return { legend: legend.marks, grid, beside: reading?.at ?? null };
    });
    return at === "right" ? [...beside, ...inColumn(input, colours, entries, body)] : beside;
  });
  // Names go before the reading, and both before the size of the cells: a legend that has no room leaves the
  // cells large, and without names.
  const rank = ({ legend, grid, beside }: Around) =>
    (legend.length ? 2e6 : 0) -
    (legend.some((m) => m.id === "legend:more") ? 1e6 : 0) +
    (beside ? 1e3 : 0) +
    grid.pitch;
  return tried.reduce((best, one) => (rank(one) > rank(best) + 1e-9 ? one : best));
}
type Around = Pick<Laid, "legend" | "grid" | "beside">;

/** The reading over the legend in one column, and the grid beside them; none where there is no reading. */
function inColumn(input: Input, colours: Colours, entries: LegendEntry[], body: Box): Around[] {
  const reading = layReading(input, body, "above");
  if (!reading) return [];
  const under = { ...reading.body, y: reading.body.y + 6, height: reading.body.height - 6 };
  const legend = legendFor(input, colours, entries, under, { place: "right" });
  if (legend.marks.length === 0) return [];
  const x = legend.body.x + legend.body.width + 16;
  const grid = layGrid(input, { ...body, width: legend.body.width });
  return [{ legend: legend.marks, grid, beside: { ...reading.at, x, width: body.x + body.width - x } }];
}

/** The cells of a grid; `of` tells those of several grids apart. */
function cellMarks(input: Input, grid: Grid, runs: CellRun[], of = ""): Mark[] {
  const { style, theme } = input;
  const isCovered = (n: number) => runs.some((f) => f.from <= n && f.to >= n + 1);
  const track = style.colour("track.colour", theme.track);
  const isTracked = style.toggle("track.shown");
  const empty = Array.from({ length: grid.rows * grid.columns }, (_, n) => n).flatMap((n) => {
    if (!isTracked || isCovered(n)) return [];
    const look = { id: `empty:${of}${n}`, part: "track", fill: track, surface: "track" } as const;
    return [cellMark(input, grid, { n, from: 0, to: 1 }, look)];
  });
  return [...empty, ...runs.flatMap((run) => runMarks(input, grid, run))];
}

function runMarks(input: Input, grid: Grid, run: CellRun): Mark[] {
  const marks: Mark[] = [];
  for (let n = Math.floor(run.from); n < run.to - 1e-9; n++) {
    const cell = { n, from: Math.max(0, run.from - n), to: Math.min(1, run.to - n) };
    if (cell.to - cell.from >= 1e-6) marks.push(...filledCell(input, grid, run, cell));
  }
  return marks;
}

/** A filled cell, or its part, with the picture of its row in it or in its place. */
function filledCell(input: Input, grid: Grid, { id, row, color, datum }: CellRun, cell: Cell): Mark[] {
  const { surface, style } = input;
  const shows = { row: row.key, value: row.value ?? 0, channel: "count" } as const;
  const opacity = strength(input, row.key);
  const look = { id: `cell:${id}:${cell.n}`, part: "cell", fill: color, datum, opacity, shows };
  const drawn = cellMark(input, grid, cell, { ...look, surface: "data" });
  const isReplaced = style.choice("cell.picture") === "above";
  const size = grid.cell * (isReplaced ? 1 : 0.66);
  if (size < LEAST_PICTURE) return [drawn];
  const ink = isReplaced ? surface.shown(color) : surface.inkOn(color);
  const place = { id: `picture:${id}:${cell.n}`, part: "cell", ...middleOf(input, grid, cell.n), size, ink };
  const picture = pictureMark(input, row, { ...place, opacity });
  if (!picture) return [drawn];
  const cut = drawn.clip ? { clip: drawn.clip } : {};
  return isReplaced ? [{ ...picture, ...cut, datum, shows }] : [drawn, { ...picture, ...cut }];
}
/** A picture of fewer pixels a side is a smear. */
const LEAST_PICTURE = 7;

/** The room for the reading at the left of the grid or above it; null where there is none. */
function layReading(input: Input, body: Box, side: "left" | "above"): { at: Box; body: Box } | null {
  const { style } = input;
  if (!style.toggle("reading.shown") || style.choice("readingplace.place") === "over") return null;
  const size = Math.min(style.number("reading.size"), body.height * 0.3);
  if (side === "left") {
    if (body.width < body.height * 0.9) return null;
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

/** The reading in its room beside the grid, with its caption under it where that has room. */
function besideMarks({ style, theme }: Input, { texts, caption, state }: Said, at: Box): Mark[] {
  const size = Math.max(SMALLEST, Math.min(style.number("reading.size"), at.height * 0.6));
  const main = fitText(texts, at.width, size, 600);
  const isCaptioned = caption !== "" && at.height >= main.size + 16;
  const under = Math.max(SMALLEST, Math.min(13, main.size * 0.42));
  const small = isCaptioned ? fitText([caption], at.width, under, 400) : null;
  const height = main.size * LINE_HEIGHT + (small ? small.size * LINE_HEIGHT + 2 : 0);
  const top = at.y + (at.height - height) / 2;
  const y = top + (main.size * LINE_HEIGHT) / 2;
  const marks: Mark[] = [
    textMark("reading", "reading", { x: at.x, y, ...main, weight: 600, fill: theme.ink }),
  ];
  if (!small?.text) return marks;
  const below = top + main.size * LINE_HEIGHT + 2 + (small.size * LINE_HEIGHT) / 2;
  const fill = state ? theme.signal : theme.muted;
  return [...marks, textMark("caption", "reading", { x: at.x, y: below, ...small, weight: 400, fill })];
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

function readingMarks(input: Input, { said, beside, grid, each }: Laid): Mark[] {
  if (each.length) return [];
  if (beside) return besideMarks(input, said, beside);
  return input.style.toggle("reading.shown") ? overGrid(input, grid, said.texts) : [];
}

function handles({ style }: Input, { grid }: Laid): Handle[] {
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

/** "42 of 80 (53 %)", or the value alone where nobody named a target. */
function ratioWords({ data }: Input, { value, share }: Said, { whole, missing }: Goals): string {
  const said = formatNumber(value, data.format);
  if (whole === null) return `${said}, ${missing}`;
  return `${said} of ${formatNumber(whole, data.format)} (${share === null ? "—" : shareText(share, data.format)})`;
}

function say(input: Input, { said, goal, left, each }: Laid): string {
  const { data } = input;
  if (each.length)
    return `${titleOf(input)}: waffles of ${data.valueLabel}, one for each ${data.splitLabel ?? "part"}, ${leadingRows(input)}${left ? `. ${left}` : ""}.`;
  const sum = wholeOf(input);
  const ofSum = (value: number | null) =>
    haveShares(data) && sum > 0 && value !== null && value > 0
      ? shareText(value / sum, data.format)
      : formatNumber(value, data.format);
  const ratio = isDivided(input) ? leadingRows(input, (r) => ofSum(r.value)) : ratioWords(input, said, goal);
  return `${titleOf(input)}: waffle of ${data.valueLabel}, ${ratio}${said.state ? `, ${said.state}` : ""}${left ? `. ${left}` : ""}.`;
}

/** A grid of cells that are filled by a ratio, or divided among parts so that they add up to the whole. */
export const waffleScene = drawing<Input, Laid>({
  lay,
  draw: (input, laid) => [
    ...laid.marks,
    ...laid.legend,
    ...(laid.each.length
      ? laid.each.flatMap(({ row, grid, runs }) => cellMarks(input, grid, runs, `${row.key}:`))
      : cellMarks(input, laid.grid, laid.runs)),
    ...laid.foot,
    ...readingMarks(input, laid),
  ],
  handles,
  say,
});
