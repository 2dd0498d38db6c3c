import { formatNumber } from "../../base/number-format";
import { filledIn } from "../../project/fixed-words";
import { shortApart } from "../../rows/digits";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Mark, Rect } from "../../scene/marks";
import { fittingSize } from "../../scene/text";
import type { Bands } from "../anatomy/axis";
import { barBox, growthFrom, layBands, type PlacedBar, type Side, widthPlace } from "../anatomy/bands";
import { Colours } from "../anatomy/colours";
import { leadingRows, rowDatum, strength } from "../anatomy/datum";
import { drawing } from "../anatomy/drawing";
import { type BandEnd, endLabelMarks } from "../anatomy/end-labels";
import { footNote, layFrame } from "../anatomy/frame";
import { shareText } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { type LabelWriter, labelWriter, oneLine } from "../anatomy/labels";
import { legendFor, seriesEntries } from "../anatomy/legend";
import { textMark } from "../anatomy/text-mark";
import { titleOf } from "../anatomy/titles";
import type { CapsuleStackPart } from "./parts";
import { type Segment, stackOf } from "./stack";

type Input = SceneInput<CapsuleStackPart>;

interface Laid {
  marks: Mark[];
  colours: Colours;
  bands: Bands;
  stacks: Segment[][];
  write: LabelWriter;
  thickness: number;
  radius: number;
}

function lay(input: Input): Laid {
  const { data, style, theme } = input;
  const { marks, body } = layFrame(input);
  const colours = new Colours(input);
  const isApart = data.series.length > 1 && !data.addsUp;
  const noted = footNote(body, theme, isApart ? data.words.notAdditive : "");
  const legend = legendFor(input, colours, seriesEntries(input, colours), noted.body, { wide: true });
  marks.push(...noted.marks);
  const asShares = style.choice("bar.as") === "shares";
  const stacks = data.rows.map((row) => stackOf(row.cells.length ? row.cells : [row.value], asShares));
  const bands = layBands(input, legend.body, {
    horizontal: style.choice("bar.direction") === "right",
    reach: stacks.map((s) => s.flatMap((g) => [g.from, g.to])),
    still: asShares ? undefined : data.atRest?.values,
    labels: totalWordings(input, stacks),
    before: stacks.map(isBelow),
    labelSize: style.number("labels.size"),
  });
  marks.push(...legend.marks, ...bands.marks);
  const thickness = Math.max(1, (bands.band * style.number("bar.width")) / 100);
  const radius = ((thickness / 2) * style.number("bar.corner")) / 100;
  const write = labelWriter(input, style.choice("labels.content"));
  return { marks, colours, bands, stacks, write, thickness, radius };
}

/** The totals of the stacks as their ends say them, in full and shortened, all in one unit. */
function totalWordings({ data, style, frame }: Input, stacks: Segment[][]): string[][] {
  const totals = data.rows.map((r) => r.value);
  const short = shortApart(data.format, totals, Math.max(frame.width, frame.height));
  const isShown = style.toggle("labels.total");
  return totals.map((value, i) => {
    if (!isShown || value === null) return [];
    const said = [data.format, ...short].map((f) => formatNumber(value, f));
    return hasBothSides(stacks[i]) ? said.map((total) => filledIn(data.words.net, { value: total })) : said;
  });
}

/** Whether all of a stack lies below zero. */
const isBelow = (stack: Segment[]): boolean => stack.length > 0 && stack.every((s) => s.value < 0);

/** Whether a stack goes above and below zero: then its total lies at neither end. */
const hasBothSides = (stack: Segment[]): boolean =>
  stack.some((s) => s.value > 0) && stack.some((s) => s.value < 0);

/** A line across a stack where its total lies, which neither of its ends shows. */
function netMark(
  { style, theme }: Input,
  { bands, stacks, thickness }: Laid,
  row: VisualRow,
  i: number,
): Mark[] {
  if (row.value === null || style.choice("bar.as") === "shares" || !hasBothSides(stacks[i])) return [];
  const { box } = barBox(bands, { row: i, from: 0, to: row.value, thickness: thickness + 6 });
  const at = bands.at(row.value);
  const points: [number, number][] = bands.horizontal
    ? [
        [at, box.y],
        [at, box.y + box.height],
      ]
    : [
        [box.x, at],
        [box.x + box.width, at],
      ];
  return [{ type: "line", id: `net:${row.key}`, part: "bar", stroke: theme.ink, strokeWidth: 2, points }];
}

/** The box of a whole stack, where one of its outermost segments is too short for the cap; null elsewhere. */
function clipOf({ bands, stacks, thickness, radius }: Laid, row: number): Box | null {
  const isShort = (s: Segment) =>
    (s.outermost.far || s.outermost.near) && Math.abs(bands.at(s.to) - bands.at(s.from)) < radius;
  if (radius <= 0 || !stacks[row].some(isShort)) return null;
  const ends = stacks[row].flatMap((s) => [s.from, s.to]);
  const place = { row, from: Math.min(...ends), to: Math.max(...ends), thickness };
  return barBox(bands, place).box;
}

/** The corners of a segment: those at the ends of the whole stack. */
function cornersOf({ outermost }: Segment, far: Side, radius: number): Rect["radii"] {
  const at = (side: Side) => ((side === far ? outermost.far : outermost.near) ? radius : 0);
  if (far === "top" || far === "bottom") return [at("top"), at("top"), at("bottom"), at("bottom")];
  return [at("left"), at("right"), at("right"), at("left")];
}

/** Whether a segment lies within the cap at either end of its stack. */
function reachesCap({ horizontal }: Bands, place: Box, stack: Box, radius: number): boolean {
  const [low, high, from, to] = horizontal
    ? [place.x, place.x + place.width, stack.x, stack.x + stack.width]
    : [place.y, place.y + place.height, stack.y, stack.y + stack.height];
  return low < from + radius || high > to - radius;
}

/** A segment without the half gaps at its inner ends; a short one keeps at least half of its length. */
function withGap(place: Box, far: Side, { outermost }: Segment, gap: number): Box {
  const vertical = far === "top" || far === "bottom";
  const length = vertical ? place.height : place.width;
  const half = Math.min(gap / 2, length / 4);
  const atFar = outermost.far ? 0 : half;
  const atNear = outermost.near ? 0 : half;
  const low = far === "top" || far === "left" ? atFar : atNear;
  return vertical
    ? { ...place, y: place.y + low, height: length - atFar - atNear }
    : { ...place, x: place.x + low, width: length - atFar - atNear };
}

/**
 * How the ends of a segment are rounded. A cap that is longer than its segment goes on in the next one: the
 * whole stack is cut to the capsule.
 */
function rounding(
  { bands, radius }: Laid,
  segment: Segment,
  { box, far }: PlacedBar,
  clip: Box | null,
): Pick<Rect, "radii" | "clip"> {
  const { outermost } = segment;
  const length = bands.horizontal ? box.width : box.height;
  const isShort = (outermost.far || outermost.near) && length < radius;
  if (!clip || !(isShort || reachesCap(bands, box, clip, radius)))
    return { radii: cornersOf(segment, far, radius) };
  return { radii: [0, 0, 0, 0], clip: { ...clip, radii: [radius, radius, radius, radius] } };
}

/** The segments of a row, and what is written on them. */
function rowMarks(input: Input, laid: Laid, row: VisualRow, i: number): Mark[] {
  const { data, style, surface } = input;
  const { bands, stacks, colours, write, thickness } = laid;
  const absolute = stacks[i].reduce((sum, s) => sum + Math.abs(s.value), 0);
  const isWhole =
    data.addsUp && (style.choice("bar.as") === "shares" || stacks[i].every((s) => s.value >= 0));
  const clip = clipOf(laid, i);
  const length = {
    from: bands.at(bands.low),
    to: bands.at(bands.high),
    axis: bands.horizontal ? ("x" as const) : ("y" as const),
  };
  return stacks[i].flatMap((segment) => {
    const { value } = segment;
    const series = row.cells.length ? data.series[segment.series] : undefined;
    const opacity = strength(input, row.key, { series: series?.key });
    const id = series ? `${row.key}:${series.key}` : row.key;
    const color = series ? colours.series(segment.series) : colours.of(row, i);
    const { box, far } = barBox(bands, { row: i, from: segment.from, to: segment.to, thickness });
    const shape = withGap(box, far, segment, style.number("bar.gap"));
    const mark: Mark = {
      type: "rect",
      id: `segment:${id}`,
      part: "bar",
      ...shape,
      ...rounding(laid, segment, { box, far }, clip),
      fill: color,
      opacity,
      datum: rowDatum(
        input,
        { ...row, value },
        series && isWhole
          ? [{ label: data.words.share, value: shareText(Math.abs(value) / absolute, data.format) }]
          : [],
        series ? { series, whole: isWhole ? absolute : null } : {},
      ),
      shows: { row: row.key, ...(series ? { series: series.key } : {}), value, channel: "length" },
      surface: "data",
      whole: length,
      grow: growthFrom(far),
    };
    if (opacity < 1 || !surface.carriesText) return [mark];
    const wordings = oneLine(write({ ...row, value }, isWhole ? absolute : null));
    return [mark, ...segmentLabel(input, shape, wordings, id, color)];
  });
}

/** What is written on a segment, at the largest size that fits; nothing where it does not. */
function segmentLabel({ style, surface }: Input, box: Box, wordings: string[], id: string, color: string) {
  const wanted = style.number("labels.size");
  if (box.height < wanted + 3) return [];
  for (const text of wordings) {
    const size = fittingSize(text, box.width - 4, wanted, 600);
    if (size === null) continue;
    return [
      textMark(`segmentlabel:${id}`, "labels", {
        x: box.x + box.width / 2,
        y: box.y + box.height / 2,
        text,
        size,
        weight: 600,
        fill: surface.inkOn(color),
        align: "middle",
      }),
    ];
  }
  return [];
}

/** Where a stack ends, for its total: downwards where all of it lies below zero. */
function endOf({ bands, stacks, thickness }: Laid, row: number): BandEnd {
  const tops = stacks[row].map((s) => s.to);
  const negative = isBelow(stacks[row]);
  const outer = negative ? Math.min(0, ...tops) : Math.max(0, ...tops);
  return { at: bands.at(outer), negative, reach: 0, half: thickness / 2 };
}

function draw(input: Input, laid: Laid): Mark[] {
  const { bands } = laid;
  const ends = bands.rows.map((_, i) => endOf(laid, i));
  return [
    ...laid.marks,
    ...bands.rows.flatMap((row, i) => rowMarks(input, laid, row, i)),
    ...bands.rows.flatMap((row, i) => netMark(input, laid, row, i)),
    ...endLabelMarks(bands, ends, input.theme.ink),
  ];
}

function say(input: Input, { bands }: Laid): string {
  const { data, style } = input;
  const asShares = style.choice("bar.as") === "shares" ? " as shares of 100 %" : "";
  const parts = data.series.length
    ? `, stacked by ${data.series.map((s) => s.label).join(", ")}${asShares}`
    : "";
  return `${titleOf(input)}: capsule stack of ${data.valueLabel}${parts}, ${leadingRows(input)}.${bands.left}`;
}

/**
 * Segments on each other with the rounding at the ends of the whole, above and below zero, as values
 * or as shares.
 */
export const capsuleStackScene = drawing<Input, Laid>({
  lay,
  draw,
  handles: ({ style }, { bands }) => [
    style.handle("bar.width", widthPlace(bands, style.number("bar.width"))),
  ],
  say,
});
