import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Mark, Rect } from "../../scene/marks";
import { SMALLEST, textWidth } from "../../scene/text";
import type { Bands, BandsInput, Domain } from "./axis";
import { type NamesUnder, namesBeside, namesHeight, namesUnder, underMarks } from "./band-names";
import { domainOf, gridMarks, rule } from "./band-scale";
import { notedRows } from "./frame";
import { fitAll } from "./labels";
import type { HandlePlace } from "./style";

/**
 * What bands are laid out for: the extremes of each row, what its end label may say, and which way bars run.
 */
export interface BandsWanted {
  horizontal: boolean;
  /** For each row the values that must lie on the scale. */
  reach: number[][];
  /** Values before a reader filtered any, which lie on the scale too: nobody set it, so it stands still. */
  still?: readonly number[] | undefined;
  /** For each row the wordings of the label at its end, the fullest first; none for no label. */
  labels: string[][];
  /** For each row whether its label stands at the lower end of its shapes; where it does not say, below the start. */
  before?: boolean[];
  labelSize: number;
  /** Pixels that something else takes beyond each end, such as half of a lollipop's head. */
  beyond?: (pitch: number) => number;
  /** Where the scale starts, when not at zero. */
  start?: number;
}

const LEAST = { horizontal: 12, vertical: 6 };

/** What is settled before the plot is: the rows that fit, their scale, and which sides of its start they use. */
interface Settled extends Domain {
  input: BandsInput;
  wanted: BandsWanted;
  body: Box;
  rows: VisualRow[];
  nameSize: number;
  grid: number;
  start: number;
  negative: boolean;
  positive: boolean;
}

/** The plot, and what stands around it. */
interface Plot {
  plot: Box;
  labels: Bands["labels"];
  /** The room of names beside the bands, or how they are written under them. */
  nameWidth: number;
  names: NamesUnder | null;
}

/**
 * The pixels that shapes which reach beyond their value take under the base line, where the nearest
 * value is small.
 */
function baseRoom(s: Settled, beyond: number, length: number): number {
  const distances = s.rows.flatMap((_, i) =>
    s.wanted.reach[i].map((v) => Math.abs(v - s.start) / (s.high - s.low)),
  );
  return Math.max(0, beyond - Math.min(1, ...distances) * Math.max(0, length * 0.8 - 2 * beyond));
}

const labelSizeIn = (s: Settled, most: number) => Math.max(SMALLEST, Math.min(s.wanted.labelSize, most));
const labelsOf = (s: Settled) => s.wanted.labels.slice(0, s.rows.length);

/**
 * What labels beyond the ends of bars take before and after a plot of a width: a short bar leaves its label
 * room within the plot.
 */
function endRooms(s: Settled, labels: Bands["labels"], beyond: number, width: number) {
  const { rows, low, high, start, wanted } = s;
  const rooms = { before: s.negative ? 2 + beyond : 0, after: 2 + beyond };
  for (const [i, text] of (labels?.texts ?? []).entries()) {
    if (!text || !labels) continue;
    const isBefore = wanted.before?.[i] ?? (rows[i].value ?? 0) < start;
    // What has no value stands at the start.
    const reach = wanted.reach[i].length > 0 ? wanted.reach[i] : [start];
    const end = isBefore ? Math.min(...reach) - low : high - Math.max(...reach);
    const need = textWidth(text, labels.size, 600) + 8 + beyond - (width * Math.max(0, end)) / (high - low);
    const side = isBefore ? "before" : "after";
    rooms[side] = Math.max(rooms[side], need);
  }
  return rooms;
}

/** The share of a body's width that bars to the right keep: labels that leave them less are shortened, or go. */
const LEAST_PLOT = 0.35;
const LEAST_WITH_LABELS = 0.24;
/** The shares of the width that a label may take, one after the other. */
const LABEL_ROOMS = [0.3, 0.2, 0.14];

/** The plot of bars that run to the right: names at the left, labels beyond the ends. */
function plotBeside(s: Settled): Plot {
  const { body, rows, nameSize, wanted } = s;
  const isNamed = s.input.style.toggle("axis.names") && body.width >= 100;
  const widest = Math.max(...rows.map((r) => textWidth(r.label, nameSize, 400)));
  const nameWidth = isNamed ? Math.min(body.width * 0.36, widest + 10) : 0;
  const height = body.height - (s.grid > 0 ? SMALLEST * 1.5 : 0);
  const pitch = height / rows.length;
  const beyond = wanted.beyond?.(pitch) ?? 0;
  const base = s.negative ? 0 : baseRoom(s, beyond, body.width - nameWidth);
  const size = Math.min(labelSizeIn(s, body.height / 4), Math.max(SMALLEST, pitch * 0.9));
  const plotWith = (labels: Bands["labels"]): Plot => {
    let width = body.width - nameWidth;
    let rooms = { before: base, after: 2 };
    // The room that labels take and the room that they leave depend on each other.
    for (let i = 0; i < 3; i++) {
      rooms = endRooms(s, labels, beyond, width);
      rooms.before = Math.max(base, rooms.before);
      width = Math.max(8, body.width - nameWidth - rooms.before - rooms.after);
    }
    return {
      plot: { x: body.x + nameWidth + rooms.before, y: body.y, width, height },
      labels,
      nameWidth,
      names: null,
    };
  };
  for (const share of LABEL_ROOMS) {
    const room = rows.map(() => body.width * share);
    const laid = plotWith(fitAll(labelsOf(s), room, size, 600));
    if (laid.labels && laid.plot.width >= body.width * LEAST_PLOT) return laid;
  }
  // Short labels go last: a picture without its values says less than one with shorter bars.
  const room = rows.map(() => body.width * LABEL_ROOMS[LABEL_ROOMS.length - 1]);
  const short = plotWith(fitAll(labelsOf(s), room, SMALLEST, 600));
  return short.plot.width >= body.width * LEAST_WITH_LABELS ? short : plotWith(null);
}

/** The plot of bars that stand: names under them, labels above. */
function plotOver(s: Settled): Plot {
  const { body, rows, wanted } = s;
  const pitch = body.width / rows.length;
  const wordings = labelsOf(s);
  const fitted = fitAll(
    wordings,
    rows.map(() => pitch - 3),
    labelSizeIn(s, body.width / 6),
    600,
  );
  const shortest = wordings.map((w) => w[w.length - 1] ?? "");
  const isSaid = shortest.some((t) => t !== "");
  const labels = fitted ?? (isSaid ? { texts: shortest, size: SMALLEST } : null);
  const isNamed = s.input.style.toggle("axis.names") && body.height >= 64;
  const names = isNamed ? namesUnder(rows, pitch, s.nameSize, body.height * 0.27) : null;
  const below = names ? namesHeight(names) + 4 : 0;
  const room = labels?.texts.some((t) => t !== "") ? labels.size * 1.35 : 2;
  const beyond = wanted.beyond?.(pitch) ?? 0;
  const top = (s.positive ? room : 2) + beyond;
  const under = s.negative ? room + beyond : baseRoom(s, beyond, body.height - below);
  const side = s.grid > 0 ? 4 : 0;
  const plot = {
    x: body.x + side,
    y: body.y + top,
    width: body.width - side,
    height: Math.max(8, body.height - top - under - below),
  };
  return { plot, labels, nameWidth: 0, names };
}

function settle(input: BandsInput, whole: Box, wanted: BandsWanted): { settled: Settled; marks: Mark[] } {
  const { style, data } = input;
  const { horizontal } = wanted;
  const nameSize = Math.max(SMALLEST, Math.min(style.number("axis.size"), whole.height / 6));
  const least = horizontal ? Math.max(nameSize * 1.15, LEAST.horizontal) : LEAST.vertical;
  const fits = (box: Box) => (horizontal ? box.height : box.width) / least;
  const { body, shown, marks } = notedRows(input, whole, data.rows.length, fits);
  const rows = data.rows.slice(0, shown);
  const grid = style.number("axis.grid");
  const domain = domainOf([...wanted.reach.slice(0, shown), [...(wanted.still ?? [])]], grid, wanted.start);
  const start = wanted.start ?? 0;
  const negative = rows.some((_, i) => wanted.reach[i].some((v) => v < start));
  // What stands at the start itself, or has no value, has its label on the upper side.
  const positive = rows.some((_, i) => {
    const isLabelled = (wanted.labels[i] ?? []).some((text) => text !== "");
    return wanted.reach[i].some((v) => v >= start) || (wanted.reach[i].length === 0 && isLabelled);
  });
  return {
    settled: { input, wanted, body, rows, nameSize, grid, start, negative, positive, ...domain },
    marks,
  };
}

/** The scale along a plot, and the middles of the rows across it. */
function scaleOn({ rows, low, high, start, wanted: { horizontal } }: Settled, plot: Box) {
  const pitch = (horizontal ? plot.height : plot.width) / rows.length;
  const at = (value: number) =>
    horizontal
      ? plot.x + (plot.width * (value - low)) / (high - low)
      : plot.y + plot.height - (plot.height * (value - low)) / (high - low);
  const centre = (row: number) => (horizontal ? plot.y : plot.x) + pitch * (row + 0.5);
  const band = Math.min(pitch, (horizontal ? plot.height : plot.width) / 4);
  return { horizontal, pitch, band, at, centre, base: at(Math.min(high, Math.max(low, start))) };
}

function nameMarks({ input, body, rows, nameSize }: Settled, laid: Plot, bands: Bands): Mark[] {
  const { theme } = input;
  const { pitch, centre, whole } = bands;
  if (laid.names)
    return underMarks(rows, laid.names, {
      ink: theme.ink,
      whole,
      foot: body.y + body.height,
      pitch,
      centre,
    });
  if (laid.nameWidth === 0) return [];
  const width = laid.nameWidth;
  const beside = {
    part: "axis",
    ink: theme.ink,
    right: body.x + width,
    width,
    size: nameSize,
    pitch,
    centre,
  };
  return namesBeside(rows, beside);
}

/**
 * Lays rows out as bands: names, scale, and room for the labels at the ends. Rows that do not fit are counted
 * at the foot.
 */
export function layBands(input: BandsInput, whole: Box, wanted: BandsWanted): Bands {
  const { style, theme, data } = input;
  const { settled, marks } = settle(input, whole, wanted);
  const { rows, low, high } = settled;
  const laid = wanted.horizontal ? plotBeside(settled) : plotOver(settled);
  const { plot, labels } = laid;
  const unfit = data.rows.length - rows.length;
  const left = unfit > 0 ? ` ${unfit} rows do not fit.` : "";
  const bands: Bands = { ...scaleOn(settled, plot), whole, plot, rows, low, high, labels, marks, left };
  marks.push(...gridMarks(input, whole, bands), ...nameMarks(settled, laid, bands));
  const line = settled.negative ? theme.muted : theme.rule;
  if (style.toggle("axis.line")) marks.push(rule(bands, "baseline", bands.base, line));
  return bands;
}

/** A side of a box: the one that a shape's far end is. */
export type Side = "left" | "right" | "top" | "bottom";

/** Where a bar lies within its band. */
interface BarPlace {
  row: number;
  from: number;
  to: number;
  thickness: number;
  /** Pixels from the middle of the band, for bars side by side. */
  shift?: number;
}

/** The box of a bar, and the side of it that is its far end. */
export interface PlacedBar {
  box: Box;
  far: Side;
}

/** A bar from one value to another: its box, and which side of it is the far end. */
export function barBox(bands: Bands, { row, from, to, thickness, shift = 0 }: BarPlace): PlacedBar {
  const [a, b] = [bands.at(from), bands.at(to)];
  const across = bands.centre(row) + shift - thickness / 2;
  const [low, length] = [Math.min(a, b), Math.abs(b - a)];
  return bands.horizontal
    ? { box: { x: low, y: across, width: length, height: thickness }, far: b >= a ? "right" : "left" }
    : { box: { x: across, y: low, width: thickness, height: length }, far: b <= a ? "top" : "bottom" };
}

/** The whole of the scale on the side of its start that a value lies on: what dashes are spread over. */
export const sideOf = (bands: Bands, value: number) => ({
  from: bands.base,
  to: bands.at(value < 0 ? bands.low : bands.high),
  axis: bands.horizontal ? ("x" as const) : ("y" as const),
});

/** Corner radii with only those of the named end rounded, or all. */
export function endRadii(far: Side, radius: number, both: boolean): Rect["radii"] {
  if (both) return [radius, radius, radius, radius];
  const radii: Record<Side, Rect["radii"]> = {
    top: [radius, radius, 0, 0],
    right: [0, radius, radius, 0],
    bottom: [0, 0, radius, radius],
    left: [radius, 0, 0, radius],
  };
  return radii[far];
}

const OPPOSITE = { left: "right", right: "left", top: "bottom", bottom: "top" } as const;
/** The edge that a shape with this far end grows from. */
export const growthFrom = (far: Side): Side => OPPOSITE[far];

/**
 * Where the handle on the first bar's side stands, which sets how much of its band (`width`, in percent) a
 * bar takes.
 */
export function widthPlace(bands: Bands, width: number): HandlePlace {
  const first = bands.rows.findIndex((r) => (r.value ?? 0) !== 0);
  const row = Math.max(0, first);
  const middle = (bands.base + bands.at(bands.rows[row]?.value ?? 0)) / 2;
  const centre = bands.centre(row);
  const side = (share: number) => centre + (bands.band * share) / 200;
  const point = (share: number) =>
    bands.horizontal ? { x: middle, y: side(share) } : { x: side(share), y: middle };
  return {
    ...point(width),
    track: (from, to) => {
      const [a, b] = [point(from), point(to)];
      return { type: "straight", x0: a.x, y0: a.y, x1: b.x, y1: b.y };
    },
  };
}
