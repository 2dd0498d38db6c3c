import { formatNumber } from "../../base/number-format";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Mark } from "../../scene/marks";
import { LINE_HEIGHT, SMALLEST, textWidth, wrap } from "../../scene/text";
import { number, part, toggle } from "./dial";
import { notedRows } from "./frame";
import type { SceneInput } from "./kind";
import { fitAll } from "./labels";
import { niceAbove } from "./scale";
import type { SharedPart } from "./shared-parts";
import type { HandlePlace } from "./style";
import { textMark } from "./text-mark";

/** The axis that kinds of bands share. */
export const AXIS_PART = part("axis", "Axis", [
  toggle("names", "Names", true),
  number("size", "Size", [9, 20, 0.5], "px", 11.5),
  toggle("line", "Base line", true),
  number("grid", "Grid lines", [0, 8, 1], "", 0),
]);

type BandsInput = SceneInput<typeof AXIS_PART | SharedPart>;

/**
 * What bands are laid out for: the extremes of each row, what its end label may say, and which way bars run.
 */
export interface BandsWanted {
  horizontal: boolean;
  /** For each row the values that must lie on the scale. */
  reach: number[][];
  /** For each row the wordings of the label at its end, the fullest first; none for no label. */
  labels: string[][];
  labelSize: number;
  /** Pixels that something else takes beyond each end, such as half of a lollipop's head. */
  beyond?: (pitch: number) => number;
  /** Where the scale starts, when not at zero. */
  start?: number;
}

/** Rows laid out as bands across a scale. */
export interface Bands {
  horizontal: boolean;
  plot: Box;
  rows: VisualRow[];
  pitch: number;
  /**
   * What thicknesses are a share of: the pitch, but no more than a quarter of the plot, so that few bars are
   * not slabs.
   */
  band: number;
  /** The pixel of a value along the scale. */
  at: (value: number) => number;
  /** The pixel of a row's middle across it. */
  centre: (row: number) => number;
  /** The pixel that bars start from. */
  base: number;
  /** Names, base line, grid, and the note of what does not fit. */
  marks: Mark[];
  /**
   * The labels at the ends of rows whose shapes end at a pixel; `reach` is how far a shape goes beyond its
   * value, `half` half of its thickness.
   */
  endLabels: (ends: { at: number; negative: boolean; reach: number; half: number }[], ink?: string) => Mark[];
  low: number;
  high: number;
  /** How many rows do not fit, as a sentence for the description; empty when all do. */
  left: string;
}

const LEAST = { horizontal: 12, vertical: 6 };

function domainOf(reach: number[][], grid: number, start: number | undefined): { low: number; high: number } {
  const all = reach.flat().filter(Number.isFinite);
  let low = Math.min(start ?? 0, ...all);
  let high = Math.max(start ?? 0, ...all);
  if (start !== undefined && start > Math.min(...all)) low = Math.min(...all);
  if (!(high > low)) high = low + Math.max(1, Math.abs(low));
  if (grid > 0 && start === undefined) {
    const step = niceAbove((high - low) / grid);
    low = Math.floor(low / step - 1e-9) * step;
    high = Math.ceil(high / step - 1e-9) * step;
  }
  return { low, high };
}

/** Names beside horizontal bands, on at most two lines. */
function namesBeside(
  rows: VisualRow[],
  bands: Pick<Bands, "pitch" | "centre">,
  right: number,
  width: number,
  size: number,
  input: BandsInput,
): Mark[] {
  return rows.flatMap((row, i) => {
    const lines = wrap(row.label, width - 8, size, 400, bands.pitch >= size * 2.5 ? 2 : 1);
    return lines.map((line, k) =>
      textMark(`name${k}:${row.key}`, "axis", {
        x: right - 8,
        y: bands.centre(i) + (k - (lines.length - 1) / 2) * size * LINE_HEIGHT,
        text: line,
        size,
        weight: 400,
        fill: input.theme.ink,
        align: "end",
      }),
    );
  });
}

/** How names under vertical bands are written: how many bands apart, how large, on how many lines. */
function namesUnder(
  rows: VisualRow[],
  pitch: number,
  size: number,
  room: number,
): { every: number; size: number; lines: string[][] } | null {
  const most = room >= size * 2.6 ? 2 : 1;
  const whole = (label: string, lines: string[]) =>
    lines.join("").replace(/\s/g, "") === label.replace(/\s/g, "");
  const writes = (at: number, every: number) =>
    rows.map((r) => wrap(r.label, pitch * every - 4, at, 400, most));
  for (const at of [size, SMALLEST]) {
    if (at > size) continue;
    const lines = writes(at, 1);
    if (lines.every((l, i) => whole(rows[i].label, l))) return { every: 1, size: at, lines };
  }
  // What is cut must still be told apart: bands too narrow for that are named in steps.
  const cut = writes(SMALLEST, 1);
  const legible = cut.every(
    (lines, i) => whole(rows[i].label, lines) || (lines.join("").length > 5 && pitch >= 30),
  );
  if (legible && new Set(cut.map((l) => l.join(" "))).size === new Set(rows.map((r) => r.label)).size)
    return { every: 1, size: SMALLEST, lines: cut };
  const every = Math.max(1, Math.ceil(38 / pitch));
  if (every > rows.length && rows.length > 1) return null;
  return { every, size: SMALLEST, lines: writes(SMALLEST, every) };
}

/**
 * Lays rows out as bands: names, scale, and room for the labels at the ends. Rows that do not fit are counted
 * at the foot.
 */
export function layBands(input: BandsInput, whole: Box, wanted: BandsWanted): Bands {
  const { style, theme, data } = input;
  const { horizontal } = wanted;
  const size = Math.max(SMALLEST, Math.min(style.number("axis.size"), whole.height / 6));
  const least = horizontal ? Math.max(size * 1.15, LEAST.horizontal) : LEAST.vertical;
  const noted = notedRows(
    whole,
    theme,
    data.rows.length,
    (box) => (horizontal ? box.height : box.width) / least,
  );
  const body = noted.body;
  const rows = data.rows.slice(0, noted.shown);
  const marks: Mark[] = [...noted.marks];
  const grid = style.number("axis.grid");
  const { low, high } = domainOf(wanted.reach.slice(0, rows.length), grid, wanted.start);
  const labelled = wanted.labels.slice(0, rows.length);
  const named = style.toggle("axis.names") && (horizontal ? body.width >= 130 : body.height >= 64);
  const negative = rows.some((_, i) => wanted.reach[i].some((v) => v < (wanted.start ?? 0)));
  const positive = high > (wanted.start ?? 0);
  const gridRoom = grid > 0 ? SMALLEST * 1.5 : 0;
  const gridText = (value: number) =>
    formatNumber(value, {
      ...data.format,
      units: Math.abs(high) >= 1e4 || Math.abs(low) >= 1e4 ? "automatic" : data.format.units,
    });
  let plot: Box;
  let pitch: number;
  let names: ReturnType<typeof namesUnder> = null;
  let nameWidth = 0;
  let labels: { texts: string[]; size: number } | null;
  const labelWanted = Math.max(
    SMALLEST,
    Math.min(wanted.labelSize, horizontal ? body.height / 4 : body.width / 6),
  );
  // What reaches beyond its value reaches under the base line where the value is small.
  const nearest = Math.min(
    1,
    ...rows.flatMap((_, i) => wanted.reach[i].map((v) => Math.abs(v - (wanted.start ?? 0)) / (high - low))),
  );
  const baseRoom = (beyond: number, length: number) =>
    Math.max(0, beyond - nearest * Math.max(0, length * 0.8 - 2 * beyond));
  if (horizontal) {
    nameWidth = named
      ? Math.min(body.width * 0.38, Math.max(...rows.map((r) => textWidth(r.label, size, 400))) + 10)
      : 0;
    pitch = (body.height - gridRoom) / rows.length;
    labels = fitAll(
      labelled,
      rows.map(() => body.width * 0.3),
      Math.min(labelWanted, Math.max(SMALLEST, pitch * 0.9)),
      600,
    );
    const beyond = wanted.beyond?.(pitch) ?? 0;
    const below = baseRoom(beyond, body.width - nameWidth);
    const width = labels ? Math.max(0, ...labels.texts.map((t) => textWidth(t, labels?.size ?? 9, 600))) : 0;
    const room = width > 0 ? width + 8 : 2;
    const [before, after] = [negative ? room + beyond : below, (positive ? room : 2) + beyond];
    plot = {
      x: body.x + nameWidth + before,
      y: body.y,
      width: Math.max(8, body.width - nameWidth - before - after),
      height: body.height - gridRoom,
    };
  } else {
    pitch = body.width / rows.length;
    labels = fitAll(
      labelled,
      rows.map(() => pitch - 3),
      labelWanted,
      600,
    );
    const shortest = labelled.map((w) => w[w.length - 1] ?? "");
    if (!labels && shortest.some((t) => t !== "")) labels = { texts: shortest, size: SMALLEST };
    names = named ? namesUnder(rows, pitch, size, body.height * 0.27) : null;
    const below = names ? Math.max(...names.lines.map((l) => l.length)) * names.size * LINE_HEIGHT + 4 : 0;
    const beyond = wanted.beyond?.(pitch) ?? 0;
    const room = labels?.texts.some((t) => t !== "") ? labels.size * 1.35 : 2;
    const [top, bottom] = [
      (positive ? room : 2) + beyond,
      (negative ? room + beyond : baseRoom(beyond, body.height - below)) + below,
    ];
    plot = {
      x: body.x + (grid > 0 ? 4 : 0),
      y: body.y + top,
      width: body.width - (grid > 0 ? 4 : 0),
      height: Math.max(8, body.height - top - bottom),
    };
    pitch = plot.width / rows.length;
  }
  const at = (value: number) =>
    horizontal
      ? plot.x + (plot.width * (value - low)) / (high - low)
      : plot.y + plot.height - (plot.height * (value - low)) / (high - low);
  const centre = (i: number) => (horizontal ? plot.y : plot.x) + pitch * (i + 0.5);
  const base = at(Math.min(high, Math.max(low, wanted.start ?? 0)));
  const [start, end] = horizontal ? [plot.y, plot.y + plot.height] : [plot.x, plot.x + plot.width];
  const rule = (id: string, value: number, stroke: string, strokeWidth: number): Mark => ({
    type: "line",
    id,
    part: "axis",
    stroke,
    strokeWidth,
    points: horizontal
      ? [
          [value, start],
          [value, end],
        ]
      : [
          [start, value],
          [end, value],
        ],
  });
  if (grid > 0 && (horizontal ? plot.width : plot.height) > 60) {
    const step = niceAbove((high - low) / grid);
    let clear = Number.NEGATIVE_INFINITY;
    for (let k = Math.ceil(low / step - 1e-9); k * step <= high + step * 1e-6 && k - low / step <= 40; k++) {
      const value = Math.abs(k * step) < step * 1e-9 ? 0 : k * step;
      marks.push(rule(`grid:${k}`, at(value), theme.rule, 1));
      const text = gridText(value);
      const width = textWidth(text, SMALLEST, 400);
      if (!horizontal) continue;
      const x = Math.min(Math.max(at(value), whole.x + width / 2), whole.x + whole.width - width / 2);
      if (x - width / 2 < clear + 4) continue;
      clear = x + width / 2;
      marks.push(
        textMark(`gridvalue:${k}`, "axis", {
          x,
          y: plot.y + plot.height + SMALLEST,
          text,
          size: SMALLEST,
          weight: 400,
          fill: theme.muted,
          align: "middle",
        }),
      );
    }
  }
  if (horizontal && named)
    marks.push(...namesBeside(rows, { pitch, centre }, body.x + nameWidth, nameWidth, size, input));
  if (names) {
    const top =
      body.y + body.height - Math.max(...names.lines.map((l) => l.length)) * names.size * LINE_HEIGHT;
    for (const [i, row] of rows.entries()) {
      if (i % names.every !== Math.floor((names.every - 1) / 2)) continue;
      const x = centre(i);
      // In steps, a name may be wider than its band, but not than what is left to the edge.
      const room = 2 * Math.min(x - whole.x, whole.x + whole.width - x);
      const lines =
        names.every > 1
          ? wrap(row.label, Math.min(pitch * names.every - 4, room), names.size, 400, names.lines[i].length)
          : names.lines[i];
      for (const [k, line] of lines.entries())
        marks.push(
          textMark(`name${k}:${row.key}`, "axis", {
            x,
            y: top + names.size * LINE_HEIGHT * (k + 0.5),
            text: line,
            size: names.size,
            weight: 400,
            fill: theme.ink,
            align: "middle",
          }),
        );
    }
  }
  if (style.toggle("axis.line")) marks.push(rule("baseline", base, negative ? theme.muted : theme.rule, 1));
  const endLabels: Bands["endLabels"] = (ends, ink = theme.ink) => {
    if (!labels) return [];
    const found = labels;
    const made = ends.flatMap((e, i) => {
      const text = found.texts[i];
      if (!text) return [];
      const gap = e.reach + 4;
      const mark = horizontal
        ? textMark(`label:${rows[i].key}`, "labels", {
            x: e.at + (e.negative ? -gap : gap),
            y: centre(i),
            text,
            size: found.size,
            weight: 600,
            fill: ink,
            align: e.negative ? "end" : "start",
          })
        : textMark(`label:${rows[i].key}`, "labels", {
            x: centre(i),
            y: e.at + (e.negative ? 1 : -1) * (gap - 2 + found.size * 0.6),
            text,
            size: found.size,
            weight: 600,
            fill: ink,
            align: "middle",
          });
      return [{ mark, weight: Math.abs(rows[i].value ?? 0) }];
    });
    if (horizontal) return made.filter((m) => pitch >= m.mark.size * 0.8).map((m) => m.mark);
    const shapes = ends.map((e, i) => {
      const [top, bottom] = [
        Math.min(base, e.at - (e.negative ? 0 : e.reach)),
        Math.max(base, e.at + (e.negative ? e.reach : 0)),
      ];
      return { left: centre(i) - e.half, right: centre(i) + e.half, top, bottom };
    });
    return dropColliding(made, whole, shapes);
  };
  const band = Math.min(pitch, (horizontal ? plot.height : plot.width) / 4);
  return {
    horizontal,
    plot,
    rows,
    pitch,
    band,
    at,
    centre,
    base,
    marks,
    endLabels,
    low,
    high,
    left: data.rows.length > rows.length ? ` ${data.rows.length - rows.length} rows do not fit.` : "",
  };
}

interface Edges {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/**
 * Keeps the texts of the largest weight and leaves out those that would lie on one of them, on a shape, or
 * outside the box.
 */
export function dropColliding(
  texts: { mark: ReturnType<typeof textMark>; weight: number }[],
  within: Box,
  shapes: Edges[] = [],
): Mark[] {
  const apart = (a: Edges, b: Edges) =>
    a.right <= b.left || a.left >= b.right || a.bottom <= b.top || a.top >= b.bottom;
  const kept: (Edges & { mark: Mark })[] = [];
  for (const { mark } of texts.toSorted((a, b) => b.weight - a.weight)) {
    if (mark.type !== "text") continue;
    const half = textWidth(mark.text, mark.size, mark.weight) / 2;
    const middle = mark.align === "middle" ? mark.x : mark.align === "end" ? mark.x - half : mark.x + half;
    const box = {
      left: middle - half - 1,
      right: middle + half + 1,
      top: mark.y - mark.size * 0.5,
      bottom: mark.y + mark.size * 0.5,
      mark,
    };
    if (box.left < within.x - 1 || box.right > within.x + within.width + 1) continue;
    if (kept.every((k) => apart(k, box)) && shapes.every((k) => apart(k, box))) kept.push(box);
  }
  return kept.map((k) => k.mark);
}

/** A bar from the base to a value: its box, its far end, and which corners are at that end. */
export function barBox(
  bands: Bands,
  row: number,
  from: number,
  to: number,
  thickness: number,
  shift = 0,
): Box & { far: "left" | "right" | "top" | "bottom" } {
  const [a, b] = [bands.at(from), bands.at(to)];
  const middle = bands.centre(row) + shift;
  const low = Math.min(a, b);
  const length = Math.abs(b - a);
  return bands.horizontal
    ? { x: low, y: middle - thickness / 2, width: length, height: thickness, far: b >= a ? "right" : "left" }
    : { x: middle - thickness / 2, y: low, width: thickness, height: length, far: b <= a ? "top" : "bottom" };
}

/** Corner radii with only those of the named end rounded, or all. */
export function endRadii(
  far: "left" | "right" | "top" | "bottom",
  radius: number,
  both: boolean,
): [number, number, number, number] {
  if (both) return [radius, radius, radius, radius];
  return {
    top: [radius, radius, 0, 0],
    right: [0, radius, radius, 0],
    bottom: [0, 0, radius, radius],
    left: [radius, 0, 0, radius],
  }[far] as [number, number, number, number];
}

/** The edge that a shape with this far end grows from. */
export const growthFrom = (far: "left" | "right" | "top" | "bottom"): "left" | "right" | "top" | "bottom" =>
  ({ left: "right", right: "left", top: "bottom", bottom: "top" })[far] as "left";

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
