import { formatNumber, inOneUnit, type NumberFormat } from "../../base/number-format";
import { filledIn } from "../../project/fixed-words";
import { shortApart } from "../../rows/digits";
import type { VisualRow } from "../../rows/visual-data";
import { mix } from "../../scene/colour";
import type { Mark } from "../../scene/marks";
import type { Bands } from "../anatomy/axis";
import { barBox, growthFrom, layBands, sideOf, widthPlace } from "../anatomy/bands";
import { Colours } from "../anatomy/colours";
import { leadingRows, rowDatum, strength } from "../anatomy/datum";
import { drawing } from "../anatomy/drawing";
import { type BandEnd, endLabelMarks } from "../anatomy/end-labels";
import { footNote, layFrame } from "../anatomy/frame";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter, oneLine } from "../anatomy/labels";
import { legendFor } from "../anatomy/legend";
import { niceAbove } from "../anatomy/scale";
import { measuresNamed, titleOf } from "../anatomy/titles";
import type { NestedBarsPart } from "./parts";

type Input = SceneInput<NestedBarsPart>;

interface Laid {
  marks: Mark[];
  /** What stands at the foot, over all else. */
  foot: Mark[];
  colours: Colours;
  bands: Bands;
  /** What brings inner values onto the outer scale, and the sentence that tells of two scales. */
  factor: number;
  told: string;
}

const outerColour = ({ style, theme }: Input, color: string) =>
  style.colour("bar.colour", mix(color, theme.sheet, 0.72));
const writeSecond = ({ data }: Input, n: number | null) =>
  formatNumber(n, data.second?.format ?? data.format);

/** The ends of the two scales, where the inner bars have one of their own; both are said. */
function twoScales({ data, style }: Input): { outer: number; inner: number } | null {
  if (style.choice("scale.of") !== "two" || data.second === null) return null;
  const most = (side: "value" | "second") =>
    Math.max(0, ...[...data.rows.map((r) => r[side] ?? 0), ...stillOf(data, side)].map(Math.abs));
  const { outer, inner } = sidesOf({ style, data });
  return { outer: niceAbove(most(outer)), inner: niceAbove(most(inner)) };
}

/** What a side was before a reader filtered anything. */
const stillOf = ({ atRest }: Input["data"], side: "value" | "second"): readonly number[] =>
  (side === "value" ? atRest?.values : atRest?.second) ?? [];

/** Which of a row's two values each bar holds: the inner one, which is the stronger, the value as a rule. */
const sidesOf = ({ style, data }: Pick<Input, "style" | "data">) =>
  style.choice("bar.holds") === "value" || data.second === null
    ? ({ outer: "value", inner: "second" } as const)
    : ({ outer: "second", inner: "value" } as const);

function lay(input: Input): Laid {
  const { data, style, theme } = input;
  const { marks, body } = layFrame(input);
  const colours = new Colours(input);
  const scales = twoScales(input);
  const factor = scales ? scales.outer / scales.inner : 1;
  const { outer, inner } = sidesOf(input);
  const labels = { value: data.valueLabel, second: data.second?.label ?? "" };
  const writeOf = {
    value: (n: number) => formatNumber(n, data.format),
    second: (n: number) => writeSecond(input, n),
  };
  const told = scales
    ? filledIn(data.words.twoScales, {
        outer: labels[outer],
        outerEnd: writeOf[outer](scales.outer),
        inner: labels[inner],
        innerEnd: writeOf[inner](scales.inner),
      })
    : "";
  const noted = footNote(body, theme, told);
  const colourOf = { [outer]: outerColour(input, colours.one), [inner]: colours.one };
  const totals = {
    value: formatNumber(data.total, data.format),
    second: writeSecond(input, data.second?.total ?? null),
  };
  // As the title and the labels have them: the value first, whichever bar holds it. The totals of all rows
  // are none of the first few.
  const isValued = style.toggle("legend.values") && !data.isCut;
  const entries = (data.second ? (["value", "second"] as const) : []).map((side) => ({
    key: side === outer ? "outer" : "inner",
    color: colourOf[side],
    label: labels[side],
    value: isValued ? totals[side] : "",
  }));
  const legend = legendFor(input, colours, entries, noted.body, { wide: true });
  const write = labelWriter(input, style.choice("labels.content"));
  const total = data.rows.reduce((sum, r) => sum + Math.abs(r.value ?? 0), 0);
  const reach = (r: VisualRow) =>
    [r[outer], innerOf(input, r, factor), scales?.outer ?? null].filter((v) => v !== null);
  const seconds = secondFormats(input);
  const bands = layBands(input, legend.body, {
    horizontal: style.choice("bar.direction") === "right",
    reach: data.rows.map(reach),
    still: scales ? undefined : [...stillOf(data, "value"), ...stillOf(data, "second")],
    labels: data.rows.map((r) => labelled(input, r, oneLine(write(r, total)), seconds)),
    before: data.rows.map(isBelow),
    labelSize: style.number("labels.size"),
  });
  marks.push(...legend.marks, ...bands.marks);
  return { marks, foot: noted.marks, colours, bands, factor, told };
}

/** The value of the inner bar on the outer scale. */
function innerOf(input: Input, row: VisualRow, factor: number): number | null {
  const value = row[sidesOf(input).inner];
  return value === null ? null : value * factor;
}

/** How the second values are written, in full and shortened, all in one unit. */
function secondFormats({ data, frame }: Input): NumberFormat[] {
  if (!data.second) return [];
  const seconds = data.rows.map((r) => r.second);
  const { format } = data.second;
  return [inOneUnit(format, seconds), ...shortApart(format, seconds, Math.max(frame.width, frame.height))];
}

/** What the label at the end of a row says: of its value, of its second value, or of both. */
function labelled(
  input: Input,
  { second }: VisualRow,
  wordings: string[],
  formats: NumberFormat[],
): string[] {
  const of = input.style.choice("labels.of");
  const { second: measure, format } = input.data;
  if (of === "value" || measure === null || wordings.length === 0) return wordings;
  const others = [...new Set(formats.map((f) => formatNumber(second, f)))];
  if (of === "second") return others;
  // Both are as long or as short: one number in full beside another in thousands cannot be compared.
  const isAlike = measure.format.style === format.style;
  return wordings.map((said, i) => `${said} · ${others[isAlike ? Math.min(i, others.length - 1) : 0]}`);
}

/** One of a row's two bars: which, its value on the outer scale, how thick and how round it is, its colour. */
interface NestedBar {
  id: "outer" | "inner";
  part: "bar" | "inner";
  value: number | null;
  thickness: number;
  corner: number;
  fill: string;
}

function barsOf(input: Input, { bands, colours, factor }: Laid, row: VisualRow, i: number): NestedBar[] {
  const { style } = input;
  const color = colours.of(row, i);
  const thick = (bands.band * style.number("bar.width")) / 100;
  const thin = (bands.band * style.number("inner.width")) / 100;
  return [
    {
      id: "outer",
      part: "bar",
      value: row[sidesOf(input).outer],
      thickness: thick,
      corner: style.number("bar.corner"),
      fill: outerColour(input, color),
    },
    {
      id: "inner",
      part: "inner",
      value: innerOf(input, row, factor),
      thickness: Math.min(thin, thick),
      corner: style.number("inner.corner"),
      fill: color,
    },
  ];
}

function rowMarks(input: Input, laid: Laid, row: VisualRow, i: number): Mark[] {
  const { second } = input.data;
  const { bands } = laid;
  const opacity = strength(input, row.key);
  const more = second ? [{ label: second.label, value: writeSecond(input, row.second) }] : [];
  const datum = rowDatum(input, row, more);
  return barsOf(input, laid, row, i).flatMap(({ id, part, value, thickness, corner, fill }): Mark[] => {
    if (value === null || value === 0) return [];
    const { box, far } = barBox(bands, { row: i, from: 0, to: value, thickness: Math.max(1, thickness) });
    const radius = ((thickness / 2) * corner) / 100;
    return [
      {
        type: "rect",
        id: `${id}:${row.key}`,
        part,
        ...box,
        radii: [radius, radius, radius, radius],
        fill,
        opacity,
        datum,
        shows: { row: row.key, series: id, value, channel: "length" },
        surface: "data",
        whole: sideOf(bands, value),
        grow: growthFrom(far),
      },
    ];
  });
}

/** Whether both bars of a row lie below zero: with one above it, the label stands at that one's end. */
const isBelow = ({ value, second }: VisualRow): boolean =>
  Math.max(value ?? 0, second ?? 0) <= 0 && Math.min(value ?? 0, second ?? 0) < 0;

/** Where the longer of a row's two bars ends. */
function endOf(input: Input, { bands, factor }: Laid, row: VisualRow): BandEnd {
  const [outer, inner] = [row[sidesOf(input).outer] ?? 0, innerOf(input, row, factor) ?? 0];
  const negative = isBelow(row);
  const at = bands.at(negative ? Math.min(outer, inner) : Math.max(outer, inner));
  return { at, negative, reach: 0, half: (bands.band * input.style.number("bar.width")) / 200 };
}

function draw(input: Input, laid: Laid): Mark[] {
  const { bands } = laid;
  const ends = bands.rows.map((row) => endOf(input, laid, row));
  return [
    ...laid.marks,
    ...bands.rows.flatMap((row, i) => rowMarks(input, laid, row, i)),
    ...endLabelMarks(bands, ends, input.theme.ink),
    ...laid.foot,
  ];
}

function say(input: Input, { bands, told }: Laid): string {
  const { data } = input;
  const second = (r: VisualRow) => (data.second ? ` with ${writeSecond(input, r.second)}` : "");
  const said = leadingRows(input, (r) => `${formatNumber(r.value, data.format)}${second(r)}`);
  return `${titleOf(input)}: nested bars of ${measuresNamed(data)}, ${said}${told ? `. ${told}` : ""}.${bands.left}`;
}

/**
 * A thin bar within a thick one: two measures of each row, on one scale or, where the picture says
 * so, on two.
 */
export const nestedBarsScene = drawing<Input, Laid>({
  crowded: () => false,
  lay,
  draw,
  handles: ({ style }, { bands }) => [
    style.handle("bar.width", widthPlace(bands, style.number("bar.width"))),
  ],
  say,
});
