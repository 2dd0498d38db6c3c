import { formatNumber } from "../../base/number-format";
import type { Box } from "../../scene/box";
import type { Mark, Rect, Scene } from "../../scene/marks";
import { fittingSize } from "../../scene/text";
import { type Bands, barBox, growthFrom, layBands, widthPlace } from "../anatomy/bands";
import { Colours } from "../anatomy/colours";
import { leadingRows, rowDatum, strength } from "../anatomy/datum";
import { blankScene, frameScene, layFrame, titleOf } from "../anatomy/frame";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter, shareText } from "../anatomy/labels";
import { layLegend } from "../anatomy/legend";
import { textMark } from "../anatomy/text-mark";
import type { CapsuleStackPart } from "./parts";
import { type Segment, stackOf } from "./stack";

type Input = SceneInput<CapsuleStackPart>;

/** The corners of a segment: those at the ends of the whole stack. */
function cornersOf(
  { outermost }: Segment,
  far: "left" | "right" | "top" | "bottom",
  radius: number,
): Rect["radii"] {
  const at = (side: string) => ((side === far ? outermost.far : outermost.near) ? radius : 0);
  if (far === "top" || far === "bottom") return [at("top"), at("top"), at("bottom"), at("bottom")];
  return [at("left"), at("right"), at("right"), at("left")];
}

/**
 * Segments on each other with the rounding at the ends of the whole, above and below zero, as values or as
 * shares.
 */
export function capsuleStackScene(input: Input): Scene {
  const blank = blankScene(input);
  if (blank) return blank;
  const { data, style, theme, surface } = input;
  const { marks, body: whole } = layFrame(input);
  const horizontal = style.choice("bar.direction") === "right";
  const asShares = style.choice("bar.as") === "shares";
  const colours = new Colours(input);
  const single = data.series.length === 0;
  const entries = data.series.map((s, k) => ({
    key: s.key,
    color: colours.series(k),
    label: s.label,
    value: style.toggle("legend.values") ? formatNumber(s.total, data.format) : "",
  }));
  const legend = layLegend(
    style.choice("legend.place"),
    colours.ruleLegend().length ? colours.ruleLegend() : entries,
    whole,
    theme,
    true,
  );
  const write = labelWriter(input, input.style.choice("labels.content"));
  const stacks = data.rows.map((row) => stackOf(single ? [row.value] : row.cells, asShares));
  const totals = data.rows.map((row) =>
    style.toggle("labels.total") && row.value !== null
      ? [formatNumber(row.value, data.format), ...shortTotals(input, row.value)]
      : [],
  );
  const bands = layBands(input, legend.body, {
    horizontal,
    reach: stacks.map((s) => s.flatMap((g) => [g.from, g.to])),
    labels: totals,
    labelSize: style.number("labels.size"),
  });
  marks.push(...legend.marks, ...bands.marks);
  const thickness = Math.max(1, (bands.band * style.number("bar.width")) / 100);
  const radius = ((thickness / 2) * style.number("bar.corner")) / 100;
  const gap = style.number("bar.gap");
  // The box of a whole stack, where one of its outermost segments is too short for the cap.
  const clips = bands.rows.map((_, i): Box | null => {
    const stack = stacks[i];
    if (
      radius <= 0 ||
      !stack.some(
        (s) => (s.outermost.far || s.outermost.near) && Math.abs(bands.at(s.to) - bands.at(s.from)) < radius,
      )
    )
      return null;
    const ends = stack.flatMap((s) => [s.from, s.to]);
    const { far: _far, ...box } = barBox(bands, i, Math.min(...ends), Math.max(...ends), thickness);
    return box;
  });
  const ends: Parameters<Bands["endLabels"]>[0] = [];
  for (const [i, row] of bands.rows.entries()) {
    const opacity = strength(input, row.key);
    const absolute = stacks[i].reduce((sum, s) => sum + Math.abs(s.value), 0);
    for (const segment of stacks[i]) {
      const name = single ? row.label : data.series[segment.series].label;
      const key = single ? row.key : `${row.key}:${data.series[segment.series].key}`;
      const color = single ? colours.of(row, i) : colours.series(segment.series);
      const box = barBox(bands, i, segment.from, segment.to, thickness);
      const { far, ...place } = box;
      const shape = withGap(place, far, segment, gap);
      const length = horizontal ? place.width : place.height;
      // A cap that is longer than its segment goes on in the next one: the whole stack is cut to the capsule.
      const short = (segment.outermost.far || segment.outermost.near) && length < radius;
      const cut = clips[i] && (short || reachesCap(bands, place, clips[i] as Box, radius));
      const radii: Rect["radii"] = cut ? [0, 0, 0, 0] : cornersOf(segment, far, radius);
      const datum = rowDatum(
        input,
        { ...row, value: segment.value },
        single
          ? []
          : [
              { label: "Of", value: name },
              { label: "Share", value: shareText(Math.abs(segment.value) / absolute) },
            ],
      );
      marks.push({
        type: "rect",
        id: `segment:${key}`,
        part: "bar",
        ...shape,
        radii,
        ...(cut
          ? { clip: { ...(clips[i] as Box), radii: [radius, radius, radius, radius] as Rect["radii"] } }
          : {}),
        fill: color,
        opacity,
        datum,
        shows: {
          row: row.key,
          ...(single ? {} : { series: data.series[segment.series].key }),
          value: segment.value,
          channel: "length",
        },
        surface: "data",
        whole: wholeOf(bands),
        grow: growthFrom(far),
      });
      const wordings = write({ ...row, value: segment.value }, absolute).map((l) => l.join(" "));
      if (opacity === 1 && surface.carriesText)
        marks.push(...segmentLabel(input, shape, wordings, key, color));
    }
    const negative = stacks[i].length > 0 && stacks[i].every((s) => s.value < 0);
    const outer = negative
      ? Math.min(0, ...stacks[i].map((s) => s.to))
      : Math.max(0, ...stacks[i].map((s) => s.to));
    ends.push({ at: bands.at(outer), negative, reach: 0, half: thickness / 2 });
  }
  marks.push(...bands.endLabels(ends));
  const parts = single
    ? ""
    : `, stacked by ${data.series.map((s) => s.label).join(", ")}${asShares ? " as shares of 100 %" : ""}`;
  return frameScene(
    input,
    marks,
    [input.style.handle("bar.width", widthPlace(bands, input.style.number("bar.width")))],
    `${titleOf(input)}: capsule stack of ${data.valueLabel}${parts}, ${leadingRows(input)}.${bands.left}`,
  );
}

const wholeOf = (bands: Bands) => ({
  from: bands.at(bands.low),
  to: bands.at(bands.high),
  axis: bands.horizontal ? ("x" as const) : ("y" as const),
});

function shortTotals({ data }: Input, value: number): string[] {
  return [1, 0].map((decimals) =>
    formatNumber(value, {
      ...data.format,
      decimals,
      ...(data.format.style === "percent" ? {} : { units: "automatic" as const }),
    }),
  );
}

/** Whether a segment lies within the cap at either end of its stack. */
function reachesCap(bands: Bands, place: Box, stack: Box, radius: number): boolean {
  const [low, high, from, to] = bands.horizontal
    ? [place.x, place.x + place.width, stack.x, stack.x + stack.width]
    : [place.y, place.y + place.height, stack.y, stack.y + stack.height];
  return low < from + radius || high > to - radius;
}

/** A segment without the half gaps at its inner ends; a short one keeps at least half of its length. */
function withGap(
  place: { x: number; y: number; width: number; height: number },
  far: "left" | "right" | "top" | "bottom",
  { outermost }: Segment,
  gap: number,
) {
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

function segmentLabel(
  input: Input,
  box: { x: number; y: number; width: number; height: number },
  wordings: string[],
  key: string,
  color: string,
): Mark[] {
  const wanted = input.style.number("labels.size");
  for (const text of wordings) {
    const size = box.height >= wanted + 3 ? fittingSize(text, box.width - 4, wanted, 600) : null;
    if (size !== null)
      return [
        textMark(`segmentlabel:${key}`, "labels", {
          x: box.x + box.width / 2,
          y: box.y + box.height / 2,
          text,
          size,
          weight: 600,
          fill: input.surface.inkOn(color),
          align: "middle",
        }),
      ];
  }
  return [];
}
