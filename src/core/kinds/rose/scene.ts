import { counted } from "../../project/fixed-words";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Handle, Mark } from "../../scene/marks";
import { LINE_HEIGHT, SMALLEST, textWidth } from "../../scene/text";
import { arcExtent, boxInSector, polar } from "../anatomy/angles";
import { Colours } from "../anatomy/colours";
import { leadingRows, rowDatum, strength } from "../anatomy/datum";
import { drawing } from "../anatomy/drawing";
import { footNote, layFrame } from "../anatomy/frame";
import { shareText } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter } from "../anatomy/labels";
import { legendFor, rowEntries } from "../anatomy/legend";
import { haveShares, openWords, restBeside } from "../anatomy/rest";
import { startPlace } from "../anatomy/rings";
import { niceAbove } from "../anatomy/scale";
import { textMark } from "../anatomy/text-mark";
import { titleOf } from "../anatomy/titles";
import { outsideLabels, type RoseShape } from "./outside-labels";
import type { RosePart } from "./parts";

type Input = SceneInput<RosePart>;

/** More labels than this have no room around a rose. */
const MOST_LABELS = 24;

/** A row with its colour; values below zero have no petal. */
interface Petal {
  row: VisualRow;
  color: string;
}

interface Laid {
  marks: Mark[];
  /** Legend, foot and the labels around, over the petals. */
  over: Mark[];
  petals: Petal[];
  shape: RoseShape;
  /** Whether labels stand within the petals, and their size. */
  inside: boolean;
  labelSize: number;
  largest: number;
  sum: number;
  left: string;
}

/**
 * The outer radius of a petal: from the hole outwards its area, or its length, is in proportion to the share
 * of the largest.
 */
export function petalRadius(share: number, hole: number, r: number, by: string): number {
  return by === "area" ? Math.sqrt(hole * hole + share * (r * r - hole * hole)) : hole + share * (r - hole);
}

/**
 * The largest radius of a rose, by what its petals truly reach, and its shape at a radius; only the largest
 * petals are named.
 */
function shaper(
  input: Input,
  petals: Petal[],
  body: Box,
  wordings: string[][][],
  isOpen: boolean,
): { most: number; at: (r: number) => RoseShape } {
  const { style } = input;
  const [start, by] = [style.number("petal.start"), style.choice("petal.by")];
  const largest = largestOf(petals);
  const named = new Set(
    petals
      .toSorted((a, b) => (b.row.value ?? 0) - (a.row.value ?? 0))
      .slice(0, MOST_LABELS)
      .map(({ row }) => row.key),
  );
  // What has no petal leaves the place of one open.
  const angle = 360 / (petals.length + (isOpen ? 1 : 0));
  const outerAt = (row: VisualRow, hole: number, r: number) =>
    largest > 0 ? petalRadius((row.value ?? 0) / largest, hole, r, by) : 0;
  const share = style.number("petal.hole") / 100;
  const reach = style.number("rings.count") > 0 || largest === 0 ? FULL : reachOf();
  /** How far the petals reach to each side, at radius 1. */
  function reachOf() {
    const all = petals.map(({ row }, i) => {
      const outer = outerAt(row, share, 1);
      const { left, right, top, bottom } = arcExtent(start + angle * i, angle);
      return { left: left * outer, right: right * outer, top: top * outer, bottom: bottom * outer };
    });
    const most = (side: keyof typeof FULL) => Math.max(share, ...all.map((one) => one[side]));
    return { left: most("left"), right: most("right"), top: most("top"), bottom: most("bottom") };
  }
  const { left, right, top, bottom } = reach;
  const most = Math.max(4, Math.min((body.width - 4) / (left + right), (body.height - 4) / (top + bottom)));
  const at = (r: number): RoseShape => {
    const hole = r * share;
    return {
      centre: {
        cx: body.x + body.width / 2 + ((left - right) * r) / 2,
        cy: body.y + body.height / 2 + ((top - bottom) * r) / 2,
        r,
      },
      hole,
      petals: petals.map(({ row }, i) => ({
        key: row.key,
        value: row.value ?? 0,
        from: start + angle * i,
        to: start + angle * (i + 1),
        outer: outerAt(row, hole, r),
        wordings: named.has(row.key) ? wordings[i] : [],
      })),
    };
  };
  return { most, at };
}
const FULL = { left: 1, right: 1, top: 1, bottom: 1 };
const largestOf = (petals: Petal[]) => Math.max(0, ...petals.map(({ row }) => row.value ?? 0));

function lay(input: Input): Laid {
  const { data, theme } = input;
  const { marks, body: whole } = layFrame(input);
  const colours = new Colours(input);
  const negative = data.rows.filter((r) => r.value !== null && r.value < 0).length;
  const petals = data.rows
    .map((row, i) => ({ row, color: colours.of(row, i) }))
    .filter(({ row }) => row.value === null || row.value >= 0);
  const shown = petals.reduce((total, { row }) => total + (row.value ?? 0), 0);
  const rest = restBeside(data);
  const sum = shown + rest;
  const left = [counted(data.words.belowLeftOut, negative), openWords(data, rest / sum)]
    .filter(Boolean)
    .join("; ");
  const noted = footNote(whole, theme, left);
  const { over, ...laid } = layLabelled(input, petals, { sum, rest }, colours, noted.body);
  return { marks, over: [...over, ...noted.marks], petals, largest: largestOf(petals), sum, left, ...laid };
}

/** A rose is not made smaller than this share of what a legend leaves it, for the sake of labels around it. */
const LEAST_BESIDE_LEGEND = 0.8;

/**
 * The largest rose whose labels all find their place around it. Where they leave it too small, or some of
 * them do not, all go, and a legend names the petals.
 */
function layLabelled(
  input: Input,
  petals: Petal[],
  { sum, rest }: { sum: number; rest: number },
  colours: Colours,
  whole: Box,
): Pick<Laid, "over" | "shape" | "inside" | "labelSize"> {
  const { style, theme } = input;
  const content = style.choice("labels.content");
  const write = labelWriter(input, content);
  // Of values that make no whole, none is a share.
  const wordings = petals.map(({ row }) => write(row, haveShares(input.data) ? sum : null));
  const place = style.choice("legend.place");
  const isOutside = style.choice("labels.place") === "outside" && wordings.some((w) => w.length);
  const within = (legendPlace: string, isAround: boolean, least = 0) => {
    const legend = legendFor(input, colours, rowEntries(input, petals), whole, { place: legendPlace });
    const { body } = legend;
    const tallest = Math.min(body.width, body.height) / 12;
    const labelSize = Math.max(SMALLEST, Math.min(style.number("labels.size"), tallest));
    const { most: r, at: shapeOf } = shaper(input, petals, body, wordings, rest > 0);
    const hasRoom = body.width >= 150 && body.height >= 110;
    const around =
      isAround && hasRoom
        ? outsideLabels(shapeOf, r, body, labelSize, theme, least)
        : { r, marks: [], all: false };
    return { legend, labelSize, around, shape: shapeOf(around.r) };
  };
  // Labels around a rose that a legend would leave larger by far are not worth looking for.
  const instead = place === "auto" ? within("auto", false) : null;
  const hasLegend = instead !== null && instead.legend.marks.length > 0;
  const least = hasLegend ? instead.around.r * LEAST_BESIDE_LEGEND : 0;
  const isHopeless = hasLegend && (!isOutside || petals.length > MOST_LABELS);
  const labelled = isHopeless ? instead : within(place === "auto" ? "rules" : place, isOutside, least);
  const isNamed = labelled.around.all && content.includes("category");
  const chosen = hasLegend && !isNamed ? instead : labelled;
  return {
    over: [...chosen.legend.marks, ...chosen.around.marks],
    shape: chosen.shape,
    inside: chosen.around.marks.length === 0,
    labelSize: chosen.labelSize,
  };
}

/** Rings at round values; an empty rose is a circle. */
function ringMarks({ style, theme }: Input, { shape, largest }: Laid): Mark[] {
  const { centre, hole } = shape;
  const { cx, cy, r } = centre;
  const circle = (id: string, part: string, radius: number, strokeWidth: number): Mark => ({
    type: "circle",
    id,
    part,
    cx,
    cy,
    r: radius,
    stroke: theme.rule,
    strokeWidth,
  });
  if (largest === 0) return [circle("empty", "petal", Math.max(2, r * 0.6), 1.5)];
  const count = style.number("rings.count");
  const step = niceAbove(largest / count);
  const rings = count > 0 ? Math.floor((largest * (1 + 1e-9)) / step) : 0;
  return Array.from({ length: rings }, (_, k) =>
    circle(
      `ring:${k + 1}`,
      "rings",
      petalRadius(((k + 1) * step) / largest, hole, r, style.choice("petal.by")),
      1,
    ),
  );
}

function petalMark(input: Input, { shape, petals, sum }: Laid, i: number): Mark {
  const { style } = input;
  const { row, color } = petals[i];
  const { outer, from, to, value } = shape.petals[i];
  const corner = style.number("petal.corner");
  return {
    type: "sector",
    id: `petal:${row.key}`,
    part: "petal",
    cx: shape.centre.cx,
    cy: shape.centre.cy,
    inner: shape.hole,
    outer,
    start: from,
    end: to,
    inset: petals.length > 1 ? style.number("petal.gap") / 2 : 0,
    corners: [corner, corner, 0, 0],
    fill: color,
    opacity: strength(input, row.key),
    shows: { row: row.key, value, channel: style.choice("petal.by") },
    surface: "data",
    // Dashes stripe each petal alike, so that areas keep their proportion.
    whole: { from, to, axis: "angle", cells: Math.max(3, Math.round(48 / petals.length)) },
    grow: "middle",
    datum: rowDatum(
      input,
      row,
      haveShares(input.data)
        ? [{ label: input.data.words.share, value: shareText(value / sum, input.data.format) }]
        : [],
    ),
  };
}

/** How far out the label within a petal stands, as a share of the petal's depth. */
const LABEL_AT = 0.66;

/** The fullest wording that a petal has room for within it; null where none fits. */
function insideWording({ style }: Input, { shape, labelSize: size }: Laid, i: number): string[] | null {
  const { outer, from, to, wordings } = shape.petals[i];
  const around = 2 + style.number("petal.gap");
  const petal = { start: from, end: to, inner: shape.hole, outer };
  const at = shape.hole + (outer - shape.hole) * LABEL_AT;
  const fits = (wording: string[]) =>
    boxInSector(petal, at, {
      width: Math.max(...wording.map((l) => textWidth(l, size, 600))) + around,
      height: wording.length * size * LINE_HEIGHT + around,
    });
  return wordings.find(fits) ?? null;
}

/** What is written within each petal: the largest first, up to one that has no room. */
function insideWordings(input: Input, laid: Laid): Map<number, string[]> {
  const found = new Map<number, string[]>();
  if (!laid.inside || !input.surface.carriesText) return found;
  const value = (i: number) => laid.petals[i].row.value ?? 0;
  for (const i of [...laid.petals.keys()].toSorted((a, b) => value(b) - value(a))) {
    const wording = value(i) > 0 ? insideWording(input, laid, i) : null;
    if (!wording) break;
    found.set(i, wording);
  }
  // One label among silent peers says less than none.
  if (found.size === 1 && laid.petals.filter((_, i) => value(i) > 0).length > 2) found.clear();
  return found;
}

function insideLabel(input: Input, { shape, petals, labelSize: size }: Laid, i: number, wording: string[]) {
  const { row, color } = petals[i];
  const { outer, from, to } = shape.petals[i];
  if (strength(input, row.key) < 1) return [];
  const at = shape.hole + (outer - shape.hole) * LABEL_AT;
  const { x, y } = polar(shape.centre.cx, shape.centre.cy, (from + to) / 2, at);
  const look = { size, weight: 600, fill: input.surface.inkOn(color), align: "middle" } as const;
  return wording.map((text, k) => {
    const line = { x, y: y + (k - (wording.length - 1) / 2) * size * LINE_HEIGHT, text, ...look };
    return textMark(`label${k}:${row.key}`, "labels", line);
  });
}

function draw(input: Input, laid: Laid): Mark[] {
  const written = insideWordings(input, laid);
  const petals = laid.petals.flatMap(({ row }, i) => {
    if ((row.value ?? 0) <= 0) return [];
    return [petalMark(input, laid, i), ...insideLabel(input, laid, i, written.get(i) ?? [])];
  });
  return [...laid.marks, ...ringMarks(input, laid), ...petals, ...laid.over];
}

function handles({ style }: Input, { shape: { centre, hole } }: Laid): Handle[] {
  const start = style.number("petal.start");
  const { cx, cy, r } = centre;
  const angle = start + 180;
  return [
    style.handle("petal.start", startPlace(start, centre)),
    style.handle("petal.hole", {
      ...polar(cx, cy, angle, hole),
      track: (from, to) => ({ type: "radial", cx, cy, angle, r0: (r * from) / 100, r1: (r * to) / 100 }),
    }),
  ];
}

function say(input: Input, { left }: Laid): string {
  const by = input.style.choice("petal.by") === "area" ? "area" : "length";
  return `${titleOf(input)}: rose of ${input.data.valueLabel}, the value is the ${by} of a petal, ${leadingRows(input)}${left ? `. ${left}` : ""}.`;
}

/** Petals of one angle around a centre; the value is their area, or their length. */
export const roseScene = drawing<Input, Laid>({ lay, draw, handles, say });
