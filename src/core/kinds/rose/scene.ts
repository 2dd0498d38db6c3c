import { formatNumber } from "../../base/number-format";
import type { Handle, Scene } from "../../scene/marks";
import { LINE_HEIGHT, SMALLEST, textWidth } from "../../scene/text";
import { polar } from "../anatomy/angles";
import { Colours } from "../anatomy/colours";
import { leadingRows, rowDatum, strength } from "../anatomy/datum";
import { blankScene, footNote, frameScene, layFrame, titleOf } from "../anatomy/frame";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter, shareText } from "../anatomy/labels";
import { layLegend } from "../anatomy/legend";
import { layCentre, startPlace } from "../anatomy/rings";
import { niceAbove } from "../anatomy/scale";
import { textMark } from "../anatomy/text-mark";
import { type LabelledPetal, outsideLabels } from "./outside-labels";
import type { RosePart } from "./parts";

type Input = SceneInput<RosePart>;

/** More labels than this have no room around a rose. */
const MOST_LABELS = 24;

/**
 * The outer radius of a petal: from the hole outwards its area, or its length, is in proportion to the share
 * of the largest.
 */
export function petalRadius(share: number, hole: number, r: number, by: string): number {
  return by === "area" ? Math.sqrt(hole * hole + share * (r * r - hole * hole)) : hole + share * (r - hole);
}

/** Petals of one angle around a centre; the value is their area, or their length. */
export function roseScene(input: Input): Scene {
  const blank = blankScene(input);
  if (blank) return blank;
  const { data, style, theme, surface } = input;
  const { marks, body: whole } = layFrame(input);
  const colours = new Colours(input);
  const negative = data.rows.filter((r) => r.value !== null && r.value < 0).length;
  const left = negative ? `${negative} below zero left out` : "";
  const noted = footNote(whole, theme, left);
  const rows = data.rows
    .map((row, index) => ({ row, index }))
    .filter(({ row }) => row.value === null || row.value >= 0);
  const entries = colours.ruleLegend().length
    ? colours.ruleLegend()
    : rows.map(({ row, index }) => ({
        key: row.key,
        color: colours.of(row, index),
        label: row.label,
        value: style.toggle("legend.values") ? formatNumber(row.value, data.format) : "",
      }));
  const legend = layLegend(style.choice("legend.place"), entries, noted.body, theme);
  const body = legend.body;
  const write = labelWriter(input, input.style.choice("labels.content"));
  const sum = rows.reduce((total, { row }) => total + (row.value ?? 0), 0);
  const size = Math.max(
    SMALLEST,
    Math.min(style.number("labels.size"), Math.min(body.width, body.height) / 12),
  );
  const wordings = rows.map(({ row }) => write(row, sum));
  const outside =
    style.choice("labels.place") === "outside" &&
    wordings.some((w) => w.length) &&
    body.width >= 150 &&
    body.height >= 110;
  const angle = 360 / rows.length;
  const start = style.number("petal.start");
  const largest = Math.max(0, ...rows.map(({ row }) => row.value ?? 0));
  const labelled = new Set(
    rows
      .toSorted((a, b) => (b.row.value ?? 0) - (a.row.value ?? 0))
      .slice(0, MOST_LABELS)
      .map(({ row }) => row.key),
  );
  const petalsFor = (hole: number, r: number): LabelledPetal[] =>
    rows.map(({ row }, i) => ({
      key: row.key,
      value: row.value ?? 0,
      from: start + angle * i,
      to: start + angle * (i + 1),
      outer: largest > 0 ? petalRadius((row.value ?? 0) / largest, hole, r, by) : 0,
      wordings: labelled.has(row.key) ? wordings[i] : [],
    }));
  const by = style.choice("petal.by");
  const holeOf = (r: number) => (r * style.number("petal.hole")) / 100;
  const whole360 = layCentre(body, 0, 360, 2, 2);
  // The largest rose whose labels all find their place around it; labels that would leave it too small go.
  const around = outside
    ? outsideLabels((r) => petalsFor(holeOf(r), r), whole360, holeOf, body, size, theme)
    : { r: whole360.r, marks: [] };
  const centre = { ...whole360, r: around.r };
  const { cx, cy, r } = centre;
  const hole = holeOf(r);
  const count = style.number("rings.count");
  const step = count > 0 && largest > 0 ? niceAbove(largest / count) : 0;
  for (let k = 1; step > 0 && k * step <= largest * (1 + 1e-9); k++) {
    const radius = petalRadius((k * step) / largest, hole, r, by);
    marks.push({
      type: "circle",
      id: `ring:${k}`,
      part: "rings",
      cx,
      cy,
      r: radius,
      stroke: theme.rule,
      strokeWidth: 1,
    });
  }
  if (largest === 0)
    marks.push({
      type: "circle",
      id: "empty",
      part: "petal",
      cx,
      cy,
      r: Math.max(2, r * 0.6),
      stroke: theme.rule,
      strokeWidth: 1.5,
    });
  const petals = petalsFor(hole, r);
  for (const [i, { row, index }] of rows.entries()) {
    const value = row.value ?? 0;
    const { outer, from, to } = petals[i];
    const color = colours.of(row, index);
    const opacity = strength(input, row.key);
    const corner = style.number("petal.corner");
    if (value > 0) {
      marks.push({
        type: "sector",
        id: `petal:${row.key}`,
        part: "petal",
        cx,
        cy,
        inner: hole,
        outer,
        start: from,
        end: to,
        inset: rows.length > 1 ? style.number("petal.gap") / 2 : 0,
        corners: [corner, corner, 0, 0],
        fill: color,
        opacity,
        shows: { row: row.key, value, channel: by },
        surface: "data",
        // Dashes stripe each petal alike, so that areas keep their proportion.
        whole: { from, to, axis: "angle", cells: Math.max(3, Math.round(48 / rows.length)) },
        grow: "middle",
        datum: rowDatum(input, row, [{ label: "Share", value: shareText(value / sum) }]),
      });
    }
    const middle = (from + to) / 2;
    for (const wording of around.marks.length ? [] : petals[i].wordings) {
      const width = Math.max(...wording.map((l) => textWidth(l, size, 600)));
      const height = wording.length * size * LINE_HEIGHT;
      if (!surface.carriesText || opacity < 1 || value <= 0) break;
      const at = hole + (outer - hole) * 0.66;
      const chord =
        2 * (at - height / 2) * Math.sin((Math.min(180, angle) * Math.PI) / 360) - style.number("petal.gap");
      if (width + 4 > chord || height > (outer - hole) * 0.62) continue;
      const p = polar(cx, cy, middle, at);
      for (const [k, line] of wording.entries())
        marks.push(
          textMark(`label${k}:${row.key}`, "labels", {
            x: p.x,
            y: p.y + (k - (wording.length - 1) / 2) * size * LINE_HEIGHT,
            text: line,
            size,
            weight: 600,
            fill: surface.inkOn(color),
            align: "middle",
          }),
        );
      break;
    }
  }
  marks.push(...legend.marks, ...noted.marks, ...around.marks);
  const description = `${titleOf(input)}: rose of ${data.valueLabel}, the value is the ${by === "area" ? "area" : "length"} of a petal, ${leadingRows(input)}${left ? `. ${left}` : ""}.`;
  return frameScene(input, marks, handlesOf(input, centre, hole), description);
}

function handlesOf(
  { style }: Input,
  { cx, cy, r }: { cx: number; cy: number; r: number },
  hole: number,
): Handle[] {
  const start = style.number("petal.start");
  return [
    style.handle("petal.start", startPlace(start, { cx, cy, r })),
    style.handle("petal.hole", {
      ...polar(cx, cy, start + 180, hole),
      track: (from, to) => ({
        type: "radial",
        cx,
        cy,
        angle: start + 180,
        r0: (r * from) / 100,
        r1: (r * to) / 100,
      }),
    }),
  ];
}
