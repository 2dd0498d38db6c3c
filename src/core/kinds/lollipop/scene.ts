import { fixedDecimals, formatNumber } from "../../base/number-format";
import { filledIn } from "../../project/fixed-words";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import { mix } from "../../scene/colour";
import type { Handle, Mark } from "../../scene/marks";
import { fittingSize, LINE_HEIGHT } from "../../scene/text";
import type { Bands } from "../anatomy/axis";
import { growthFrom, layBands, type Side, sideOf } from "../anatomy/bands";
import { Colours } from "../anatomy/colours";
import { leadingRows, rowDatum, strength } from "../anatomy/datum";
import { drawing } from "../anatomy/drawing";
import { type BandEnd, endLabelMarks } from "../anatomy/end-labels";
import { footNote, layFrame } from "../anatomy/frame";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter, oneLine } from "../anatomy/labels";
import { legendFor, rowEntries } from "../anatomy/legend";
import { pictureMark, pictureOf } from "../anatomy/pictures";
import { niceAbove } from "../anatomy/scale";
import { symbolMark } from "../anatomy/symbol";
import { textMark } from "../anatomy/text-mark";
import { titleOf } from "../anatomy/titles";
import type { LollipopPart } from "./parts";

type Input = SceneInput<LollipopPart>;

interface Laid {
  marks: Mark[];
  /** What stands at the foot, over all else. */
  foot: Mark[];
  colours: Colours;
  bands: Bands;
  heads: HeadRoom;
  wordings: string[][];
  labelSize: number;
  /** Labels go into the heads together, or all to the ends. */
  place: "heads" | "ends" | "nowhere";
  /** Where stems start, and the sentences of the foot. */
  start: number;
  sized: string;
  said: string;
}

/**
 * Where the scale starts: at the baseline that the sentence names, at zero, or at a round number below the
 * lowest value; where it is not zero, the picture says so.
 */
function startOf({ data, style }: Input): { start: number; said: string } {
  if (data.own.baseline !== null)
    return { start: 0, said: filledIn(data.words.stemOwn, { name: data.own.baseline }) };
  const baseline = data.baseline ?? 0;
  if (baseline !== 0 || style.choice("domain.start") === "zero")
    return {
      start: baseline,
      said:
        baseline === 0 ? "" : filledIn(data.words.stemStart, { value: formatNumber(baseline, data.format) }),
    };
  const values = data.rows.flatMap((r) => (r.value === null ? [] : [r.value]));
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const step = niceAbove((high - low || Math.abs(high) || 1) / 4);
  const start = low < 0 ? 0 : Math.max(0, Math.floor((low - (high - low) * 0.15) / step) * step);
  if (start === 0) return { start, said: "" };
  const format = { ...data.format, decimals: Math.max(fixedDecimals(data.format), 1) };
  return { start, said: filledIn(data.words.scaleStart, { value: formatNumber(start, format) }) };
}

/** Whether a value lies below where its stem starts, so that its label stands under its head. */
const isBelow = ({ value, baseline }: VisualRow, start: number): boolean =>
  value !== null && value < (baseline ?? start);

/** The widest head that bands of a pitch have room for. */
const mostHead = (body: Box, pitch: number) =>
  Math.max(3, Math.min(pitch * 0.86, Math.min(body.width, body.height) * 0.3));

/** The largest of the absolute head sizes; what all heads are measured by. */
const largestHead = ({ data }: Input) =>
  data.headSize === null ? 0 : Math.max(0, ...data.rows.map((r) => Math.abs(r.headSize ?? 0)));

/** The bounds of heads: the widest that there is room for, and the size that is drawn so. */
interface HeadRoom {
  most: number;
  largest: number;
}

/** The diameter of a row's head: one for all, or with an area in proportion to the absolute head size. */
function diameterOf({ data, style }: Input, row: VisualRow, { most, largest }: HeadRoom): number {
  const diameter = Math.min(style.number("head.diameter"), most);
  if (data.headSize === null || largest === 0) return diameter;
  const least = Math.min(style.number("head.least"), diameter);
  if (row.headSize === null) return least;
  return Math.max(least, diameter * Math.sqrt(Math.abs(row.headSize) / largest));
}

/** What is written in a head, within its border; null where nothing of it fits. */
function inHead(input: Input, row: VisualRow, room: HeadRoom, wordings: string[], size: number) {
  const whole = diameterOf(input, row, room);
  const diameter = whole - 2 * Math.min(input.style.number("head.border"), whole / 4);
  if (pictureOf(input, row)) return null;
  for (const text of wordings) {
    const fitting = fittingSize(text, diameter * 0.84, size, 600);
    if (fitting !== null && fitting * LINE_HEIGHT <= diameter * 0.8) return { text, size: fitting };
  }
  return null;
}

/** One label in a head beside another at the end would read as two things: all go to one place. */
function placeOf(input: Input, body: Box, wordings: string[][], size: number): Laid["place"] {
  const { data, style } = input;
  const place = style.choice("labels.place");
  const extent = style.choice("stem.direction") === "right" ? body.height : body.width;
  const room = { most: mostHead(body, (extent / data.rows.length) * 0.93), largest: largestHead(input) };
  const fits = (r: VisualRow, i: number) =>
    r.value === null || wordings[i].length === 0 || inHead(input, r, room, wordings[i], size) !== null;
  if (place !== "end" && data.rows.every(fits)) return "heads";
  return place === "head" ? "nowhere" : "ends";
}

function lay(input: Input): Laid {
  const { data, style, theme } = input;
  const { marks, body: whole } = layFrame(input);
  const { start, said } = startOf(input);
  const colours = new Colours(input);
  const sized = data.headSize ? filledIn(data.words.headArea, { name: data.headSize.label }) : "";
  const noted = footNote(whole, theme, [sized, said].filter(Boolean).join(". "));
  const rows = data.rows.map((row, i) => ({ row, color: colours.of(row, i) }));
  const legend = legendFor(input, colours, rowEntries(input, rows), noted.body, { wide: true });
  const { body } = legend;
  const write = labelWriter(input, style.choice("labels.content"));
  const total = data.rows.reduce((sum, r) => sum + Math.abs(r.value ?? 0), 0);
  const wordings = data.rows.map((r) => oneLine(write(r, total)));
  const labelSize = Math.min(style.number("labels.size"), Math.max(9, Math.min(body.width, body.height) / 9));
  const place = placeOf(input, body, wordings, labelSize);
  const widest = style.number("head.diameter") / 0.86;
  const bands = layBands(input, body, {
    horizontal: style.choice("stem.direction") === "right",
    reach: data.rows.map((r) => [r.value, r.baseline ?? null].filter((v) => v !== null)),
    still: data.atRest?.values,
    labels: place === "ends" ? wordings : data.rows.map(() => []),
    before: data.rows.map((r) => isBelow(r, start)),
    labelSize,
    beyond: (pitch) => mostHead(body, Math.min(pitch, widest)) / 2,
    ...(start === 0 ? {} : { start }),
  });
  marks.push(...legend.marks, ...bands.marks);
  const heads = { most: mostHead(body, bands.pitch), largest: largestHead(input) };
  return { marks, foot: noted.marks, colours, bands, heads, wordings, labelSize, place, start, sized, said };
}

/** Where a head stands, how wide it is, and how strongly its row is drawn. */
interface Head {
  x: number;
  y: number;
  diameter: number;
  ink: string;
  opacity: number;
}

/** The pixel that a row's stem starts from: the base line, or its own; null where its own is none. */
const stemStart = (bands: Bands, { baseline }: VisualRow): number | null =>
  baseline === undefined ? bands.base : baseline === null ? null : bands.at(baseline);

/** The stem from the base line to the value; none where it has no length. */
function stemMarks(input: Input, { bands }: Laid, row: VisualRow, i: number, diameter: number): Mark[] {
  const { style, theme } = input;
  const { horizontal } = bands;
  const base = stemStart(bands, row);
  // Without a start of its own a row has its head alone.
  if (base === null) return [];
  const to = bands.at(row.value ?? 0);
  const width = Math.min(style.number("stem.width"), diameter);
  const [low, length] = [Math.min(base, to), Math.abs(to - base)];
  if (length === 0) return [];
  const across = bands.centre(i) - width / 2;
  const far = farSide(horizontal, to, base);
  const isUp = far === "right" || far === "top";
  return [
    {
      type: "rect",
      id: `stem:${row.key}`,
      part: "stem",
      ...(horizontal
        ? { x: low, y: across, width: length, height: width }
        : { x: across, y: low, width, height: length }),
      radii: [0, 0, 0, 0],
      fill: style.colour("stem.colour", mix(theme.muted, theme.sheet, 0.45)),
      opacity: strength(input, row.key),
      grow: growthFrom(far),
      surface: "track",
      whole: sideOf(bands, isUp ? 1 : -1),
    },
  ];
}
function farSide(horizontal: boolean, to: number, base: number): Side {
  if (horizontal) return to >= base ? "right" : "left";
  return to <= base ? "top" : "bottom";
}

/** What a head says and stands for, whatever it is drawn as. */
function saidByHead(input: Input, row: VisualRow): Pick<Mark, "datum" | "shows"> {
  const { headSize } = input.data;
  const { own, format } = input.data;
  const size = headSize && { label: headSize.label, value: formatNumber(row.headSize, headSize.format) };
  const from =
    own.baseline === null ? [] : [{ label: own.baseline, value: formatNumber(row.baseline ?? null, format) }];
  return {
    datum: rowDatum(input, row, [...(size ? [size] : []), ...from]),
    shows: { row: row.key, value: row.value ?? 0, channel: "position" },
  };
}

/** The circle of a row's head. */
function headMark(input: Input, { colours }: Laid, row: VisualRow, i: number, head: Head): Mark {
  const { style, theme } = input;
  const { x, y, diameter, opacity } = head;
  const border = Math.min(style.number("head.border"), diameter / 4);
  return {
    type: "circle",
    id: `head:${row.key}`,
    part: "head",
    cx: x,
    cy: y,
    r: Math.max(1, diameter / 2 - border / 2),
    fill: colours.of(row, i),
    ...(border > 0 ? { stroke: style.colour("head.borderColour", theme.ink), strokeWidth: border } : {}),
    opacity,
    ...saidByHead(input, row),
    surface: "data",
    grow: "middle",
  };
}

/** The label in a head, else the symbol of the rule that colours it. */
function writtenIn(input: Input, laid: Laid, row: VisualRow, i: number, head: Head): Mark[] {
  const { colours, heads, wordings, labelSize, place } = laid;
  const { x, y, diameter, ink, opacity } = head;
  const label = place === "heads" && opacity === 1 ? inHead(input, row, heads, wordings[i], labelSize) : null;
  if (label) {
    const line = { x, y, ...label, weight: 600, fill: ink, align: "middle" } as const;
    return [textMark(`label:${row.key}`, "labels", line)];
  }
  const rule = colours.ruleOf(row);
  if (!rule || pictureOf(input, row) || diameter < 9) return [];
  const fill = input.surface.inkOn(colours.of(row, i));
  const symbol = symbolMark(`symbol:${row.key}`, "head", rule.symbol, { x, y, r: diameter * 0.24, fill });
  return symbol ? [{ ...symbol, opacity }] : [];
}

/** The picture of a row, so large and in such an ink; null where it has none, or its head is a dot. */
function headPicture(input: Input, row: VisualRow, head: Head, share: number, ink: string) {
  const { x, y, diameter, opacity } = head;
  const place = { id: `picture:${row.key}`, part: "head", x, y, size: diameter * share, ink, opacity };
  return diameter < 12 ? null : pictureMark(input, row, place);
}

/** A row's head with what stands in it, or the picture in its place, which then says what the head would. */
function headMarks(input: Input, laid: Laid, row: VisualRow, i: number, head: Head): Mark[] {
  const { style, theme } = input;
  const alone =
    style.choice("head.picture") === "above" ? headPicture(input, row, head, 0.93, theme.ink) : null;
  if (alone) return [{ ...alone, ...saidByHead(input, row) }];
  const within = headPicture(input, row, head, 0.62, head.ink);
  return [headMark(input, laid, row, i, head), ...(within ? [within] : writtenIn(input, laid, row, i, head))];
}

function rowMarks(input: Input, laid: Laid, row: VisualRow, i: number): Mark[] {
  if (row.value === null) return [];
  const { bands, heads, colours } = laid;
  const diameter = diameterOf(input, row, heads);
  const [along, across] = [bands.at(row.value), bands.centre(i)];
  const [x, y] = bands.horizontal ? [along, across] : [across, along];
  const ink = input.surface.inkOn(colours.of(row, i));
  const head = { x, y, diameter, ink, opacity: strength(input, row.key) };
  return [...stemMarks(input, laid, row, i, diameter), ...headMarks(input, laid, row, i, head)];
}

/** Where a row's head ends. */
function endOf(input: Input, { bands, heads, start }: Laid, row: VisualRow): BandEnd {
  if (row.value === null) return { at: bands.base, negative: false, reach: 0, half: 0 };
  const r = diameterOf(input, row, heads) / 2;
  return { at: bands.at(row.value), negative: isBelow(row, start), reach: r, half: r };
}

function draw(input: Input, laid: Laid): Mark[] {
  const { bands } = laid;
  const ends = laid.place === "ends" ? bands.rows.map((row) => endOf(input, laid, row)) : [];
  return [
    ...laid.marks,
    ...bands.rows.flatMap((row, i) => rowMarks(input, laid, row, i)),
    ...endLabelMarks(bands, ends, input.theme.ink),
    ...laid.foot,
  ];
}

function handles({ style }: Input, { bands }: Laid): Handle[] {
  const row = bands.rows.findIndex((r) => r.value !== null);
  if (row < 0) return [];
  const diameter = style.number("head.diameter");
  const [along, across] = [bands.at(bands.rows[row].value as number), bands.centre(row)];
  const edge = (wide: number) =>
    bands.horizontal ? { x: along, y: across + wide / 2 } : { x: across + wide / 2, y: along };
  return [
    style.handle("head.diameter", {
      ...edge(diameter),
      track: (from, to) => {
        const [a, b] = [edge(from), edge(to)];
        return { type: "straight", x0: a.x, y0: a.y, x1: b.x, y1: b.y };
      },
    }),
  ];
}

function say(input: Input, { bands, sized, said }: Laid): string {
  const { data } = input;
  const negative = data.rows.filter((r) => (r.value ?? 0) < 0).length;
  return `${titleOf(input)}: lollipops of ${data.valueLabel}, ${leadingRows(input)}${negative ? `; ${negative} below zero` : ""}${sized ? `. ${sized}` : ""}${said ? `. ${said}` : ""}.${bands.left}`;
}

/** Stems with heads at the values; heads may carry a size, a picture and their label. */
export const lollipopScene = drawing<Input, Laid>({ lay, draw, handles, say });
