import type { RowKey } from "../../rows/row-key";
import type { VisualRow } from "../../rows/visual-data";
import type { Mark } from "../../scene/marks";
import { fittingSize, SMALLEST } from "../../scene/text";
import type { Bands } from "../anatomy/axis";
import { barBox, endRadii, growthFrom, layBands, type PlacedBar, sideOf, widthPlace } from "../anatomy/bands";
import { Colours } from "../anatomy/colours";
import { leadingRows, rowDatum, strength } from "../anatomy/datum";
import { drawing } from "../anatomy/drawing";
import { endLabelMarks } from "../anatomy/end-labels";
import { layFrame } from "../anatomy/frame";
import type { SceneInput } from "../anatomy/kind";
import { type LabelWriter, labelWriter, oneLine } from "../anatomy/labels";
import { legendFor, seriesEntries } from "../anatomy/legend";
import { textMark } from "../anatomy/text-mark";
import { titleOf } from "../anatomy/titles";
import type { RoundedBarsPart } from "./parts";

type Input = SceneInput<RoundedBarsPart>;

/** A bar of a row: the row's own, or one of a series. */
interface Bar {
  id: string;
  series?: RowKey;
  label: string;
  value: number | null;
  color: string;
}

interface Laid {
  marks: Mark[];
  colours: Colours;
  bands: Bands;
  write: LabelWriter;
  /** The sum that a share is of. */
  total: number;
  wordings: string[][];
  /** Whether labels stand beyond the ends. */
  outside: boolean;
  /** The bars of a row side by side: all of them, one, and from one to the next. */
  group: number;
  thickness: number;
  step: number;
}

function barsOf({ data }: Input, colours: Colours, row: VisualRow, index: number): Bar[] {
  if (row.cells.length === 0)
    return [{ id: row.key, label: row.label, value: row.value, color: colours.of(row, index) }];
  return data.series.map((s, k) => ({
    id: `${row.key}:${s.key}`,
    series: s.key,
    label: s.label,
    value: row.cells[k] ?? null,
    color: colours.series(k),
  }));
}

function lay(input: Input): Laid {
  const { data, style } = input;
  const { marks, body } = layFrame(input);
  const colours = new Colours(input);
  const legend = legendFor(input, colours, seriesEntries(input, colours), body, { wide: true });
  const single = data.series.length === 0;
  const total = data.rows.reduce((sum, r) => sum + Math.abs(r.value ?? 0), 0);
  const write = labelWriter(input, style.choice("labels.content"));
  const wordings = data.rows.map((r) => oneLine(write(r, total)));
  const outside = single && style.choice("labels.place") === "end";
  const bands = layBands(input, legend.body, {
    horizontal: style.choice("bar.direction") === "right",
    reach: data.rows.map((r) => (single ? [r.value] : r.cells).filter((v) => v !== null)),
    still: data.atRest?.values,
    labels: outside ? wordings : data.rows.map(() => []),
    labelSize: style.number("labels.size"),
  });
  marks.push(...legend.marks, ...bands.marks);
  const group = (bands.band * style.number("bar.width")) / 100;
  const count = Math.max(1, data.series.length);
  const gap = Math.min(style.number("bar.gap"), group / (count * 2));
  const thickness = Math.max(1, (group - gap * (count - 1)) / count);
  return { marks, colours, bands, write, total, wordings, outside, group, thickness, step: thickness + gap };
}

/** The whole scale behind a bar. */
function trackMark({ style, theme }: Input, { bands, thickness }: Laid, bar: Bar, place: BarPlace): Mark {
  const [low, high] = [Math.min(0, bands.low), Math.max(0, bands.high)];
  const { box } = barBox(bands, { row: place.row, shift: place.shift, from: low, to: high, thickness });
  const radius = radiusOf(style, thickness);
  return {
    type: "rect",
    id: `track:${bar.id}`,
    part: "track",
    ...box,
    radii: [radius, radius, radius, radius],
    fill: style.colour("track.colour", theme.track),
    surface: "track",
    whole: { from: bands.at(low), to: bands.at(high), axis: bands.horizontal ? "x" : "y" },
  };
}
interface BarPlace {
  row: number;
  shift: number;
}
const radiusOf = (style: Input["style"], thickness: number) =>
  ((thickness / 2) * style.number("bar.corner")) / 100;

/** A bar that has a length, and the label within it. */
function barMarks(input: Input, laid: Laid, row: VisualRow, bar: Bar, place: BarPlace): Mark[] {
  const { bands, thickness, outside, write, total } = laid;
  const { value, series } = bar;
  if (value === null || value === 0) return [];
  const at = barBox(bands, { row: place.row, shift: place.shift, from: 0, to: value, thickness });
  const { box, far } = at;
  const own = { ...row, value };
  const opacity = strength(input, row.key, { series });
  const shape: Mark = {
    type: "rect",
    id: `bar:${bar.id}`,
    part: "bar",
    ...box,
    radii: endRadii(far, radiusOf(input.style, thickness), input.style.choice("bar.ends") === "both"),
    fill: bar.color,
    opacity,
    datum: rowDatum(input, own, [], series ? { series: { key: series, label: bar.label } } : {}),
    shows: { row: row.key, ...(series ? { series } : {}), value, channel: "length" },
    surface: "data",
    whole: sideOf(bands, value),
    grow: growthFrom(far),
  };
  if (outside || opacity < 1) return [shape];
  const wordings = series ? oneLine(write(own, total)) : laid.wordings[place.row];
  return [shape, ...insideLabel(input, bands.horizontal, at, wordings, bar)];
}

/** A label within a bar, near its far end, at the largest size that fits; none where it does not. */
function insideLabel(
  { style, surface }: Input,
  horizontal: boolean,
  at: PlacedBar,
  wordings: string[],
  bar: Bar,
): Mark[] {
  if (!surface.carriesText) return [];
  const { box } = at;
  const wanted = style.number("labels.size");
  // A thin bar has a smaller label, down to the floor.
  const fitted = horizontal ? Math.max(SMALLEST, Math.min(wanted, box.height * 0.85)) : wanted;
  if (box.height < fitted + (horizontal ? 1 : 8)) return [];
  const room = horizontal ? box.width - 12 : box.width - 2;
  for (const text of wordings) {
    const size = fittingSize(text, room, fitted, 600);
    if (size === null) continue;
    const line = { text, size, weight: 600, fill: surface.inkOn(bar.color) } as const;
    return [textMark(`label:${bar.id}`, "labels", { ...line, ...insidePlace(at, size) })];
  }
  return [];
}

/** Where a label stands near the far end of a bar. */
function insidePlace({ box: { x, y, width, height }, far }: PlacedBar, size: number) {
  switch (far) {
    case "right":
      return { x: x + width - 6, y: y + height / 2, align: "end" as const };
    case "left":
      return { x: x + 6, y: y + height / 2, align: "start" as const };
    case "top":
      return { x: x + width / 2, y: y + size * 0.7 + 4, align: "middle" as const };
    case "bottom":
      return { x: x + width / 2, y: y + height - size * 0.7 - 4, align: "middle" as const };
  }
}

function draw(input: Input, laid: Laid): Mark[] {
  const { style, theme, surface } = input;
  const { bands, colours, thickness, group, step } = laid;
  const isTracked = style.toggle("track.shown");
  const marks = bands.rows.flatMap((row, i) => {
    const bars = barsOf(input, colours, row, i);
    return bars.flatMap((bar, k) => {
      const place = { row: i, shift: (k - (bars.length - 1) / 2) * step };
      const track = isTracked ? [trackMark(input, laid, bar, place)] : [];
      return [...track, ...barMarks(input, laid, row, bar, place)];
    });
  });
  const under = isTracked ? style.colour("track.colour", theme.track) : theme.sheet;
  const isThin = thickness < style.number("labels.size");
  const onTrack = surface.inkOnTrack(under, isThin);
  if (!laid.outside || !onTrack) return [...laid.marks, ...marks];
  // The label of the longest bar stands past the track, or half on it.
  const tall = (bands.labels?.size ?? 0) * 1.4 + 4;
  const inkOf = (i: number) => {
    const value = bands.rows[i].value ?? 0;
    const room = Math.abs(bands.at(value < 0 ? bands.low : bands.high) - bands.at(value));
    if (bands.horizontal || room >= tall) return onTrack;
    return room < 1 ? theme.ink : surface.inkOnTrack(under, true);
  };
  const ends = bands.rows.map(({ value }) => ({
    at: value === null ? bands.base : bands.at(value),
    negative: (value ?? 0) < 0,
    reach: 0,
    half: group / 2,
  }));
  return [...laid.marks, ...marks, ...endLabelMarks(bands, ends, inkOf)];
}

function say(input: Input, { bands }: Laid): string {
  const { data } = input;
  const negative = data.rows.filter((r) => (r.value ?? 0) < 0).length;
  const beside = data.series.length ? `, side by side for ${data.series.map((s) => s.label).join(", ")}` : "";
  return `${titleOf(input)}: rounded bars of ${data.valueLabel}${beside}, ${leadingRows(input)}${negative ? `; ${negative} below zero` : ""}.${bands.left}`;
}

/** Bars from a base line, rounded, alone or side by side. */
export const roundedBarsScene = drawing<Input, Laid>({
  lay,
  draw,
  handles: ({ style }, { bands }) => [
    style.handle("bar.width", widthPlace(bands, style.number("bar.width"))),
  ],
  say,
});
