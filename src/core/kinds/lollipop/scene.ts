import { formatNumber } from "../../base/number-format";
import { own } from "../../base/own";
import type { VisualRow } from "../../rows/visual-data";
import { mix } from "../../scene/colour";
import { ICONS } from "../../scene/icons";
import type { Handle, Mark, Scene } from "../../scene/marks";
import { fittingSize, LINE_HEIGHT } from "../../scene/text";
import { type Bands, layBands } from "../anatomy/bands";
import { Colours } from "../anatomy/colours";
import { leadingRows, rowDatum, strength } from "../anatomy/datum";
import { blankScene, footNote, frameScene, layFrame, titleOf } from "../anatomy/frame";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter } from "../anatomy/labels";
import { layLegend } from "../anatomy/legend";
import { niceAbove } from "../anatomy/scale";
import { symbolMark } from "../anatomy/symbol";
import { textMark } from "../anatomy/text-mark";
import type { LollipopPart } from "./parts";

type Input = SceneInput<LollipopPart>;

/**
 * Where the scale starts: at the baseline, or at a round number below the lowest value, which the picture
 * says.
 */
function startOf({ data, style }: Input): { start: number; said: string } {
  const baseline = style.number("domain.baseline");
  if (style.choice("domain.start") === "zero") return { start: baseline, said: "" };
  const values = data.rows.flatMap((r) => (r.value === null ? [] : [r.value]));
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const step = niceAbove((high - low || Math.abs(high) || 1) / 4);
  const start = low < 0 ? baseline : Math.max(0, Math.floor((low - (high - low) * 0.15) / step) * step);
  return {
    start,
    said:
      start === 0
        ? ""
        : `The scale starts at ${formatNumber(start, { ...data.format, decimals: Math.max(data.format.decimals, 1) })}`,
  };
}

/** The diameter of a row's head: one for all, or with an area in proportion to the absolute head size. */
function diameterOf(input: Input, row: VisualRow, most: number): number {
  const { data, style } = input;
  const largest = Math.max(...data.rows.map((r) => Math.abs(r.headSize ?? 0)));
  const diameter = Math.min(style.number("head.diameter"), most);
  if (data.headSize === null || largest === 0) return diameter;
  if (row.headSize === null) return Math.min(style.number("head.least"), diameter);
  const proportional = diameter * Math.sqrt(Math.abs(row.headSize) / largest);
  return Math.max(Math.min(style.number("head.least"), diameter), proportional);
}

/** A category's picture within a circle: an icon in strokes, or the uploaded one. */
function pictureMarks(
  input: Input,
  row: VisualRow,
  x: number,
  y: number,
  diameter: number,
  ink: string,
  opacity: number,
): Mark[] {
  const name = own(input.look.pictures, row.label);
  if (!name || diameter < 12) return [];
  const size = diameter * 0.62;
  const id = `picture:${row.key}`;
  if (name.startsWith("icon:")) {
    const d = own(ICONS, name.slice(5));
    return d
      ? [
          {
            type: "icon",
            id,
            part: "head",
            x: x - size / 2,
            y: y - size / 2,
            size,
            box: 24,
            d,
            stroke: ink,
            strokeWidth: Math.max(1, size / 13),
            opacity,
          },
        ]
      : [];
  }
  const uploaded = input.look.ownPictures.find((p) => p.id === name);
  return uploaded
    ? [
        {
          type: "picture",
          id,
          part: "head",
          x: x - size / 2,
          y: y - size / 2,
          width: size,
          height: size,
          href: uploaded.href,
          opacity,
        },
      ]
    : [];
}

/** The stem from the base line to the value. */
function stemMarks(input: Input, row: VisualRow, bands: Bands, i: number, to: number, width: number): Mark[] {
  const { style, theme } = input;
  const { base, horizontal } = bands;
  const across = bands.centre(i);
  const color = style.colour("stem.colour", mix(theme.muted, theme.sheet, 0.45));
  const [low, length, r] = [Math.min(base, to), Math.abs(to - base), width / 2];
  if (length === 0) return [];
  const place = horizontal
    ? { x: low, y: across - r, width: length, height: width }
    : { x: across - r, y: low, width, height: length };
  return [
    {
      type: "rect",
      id: `stem:${row.key}`,
      part: "stem",
      ...place,
      radii: [0, 0, 0, 0],
      fill: color,
      opacity: strength(input, row.key),
      grow: horizontal ? (to >= base ? "left" : "right") : to <= base ? "bottom" : "top",
      surface: "track",
      whole: {
        from: base,
        to: (horizontal ? to >= base : to <= base) ? bands.at(bands.high) : bands.at(bands.low),
        axis: horizontal ? "x" : "y",
      },
    },
  ];
}

/** Stems with heads at the values; heads may carry a size, a picture and their label. */
export function lollipopScene(input: Input): Scene {
  const blank = blankScene(input);
  if (blank) return blank;
  const { data, style, theme, surface } = input;
  const { marks, body: whole } = layFrame(input);
  const horizontal = style.choice("stem.direction") === "right";
  const { start, said } = startOf(input);
  const colours = new Colours(input);
  const sized = data.headSize ? `Head area: ${data.headSize.label}` : "";
  const noted = footNote(whole, theme, [sized, said].filter(Boolean).join(". "));
  const legend = layLegend(
    style.choice("legend.place"),
    colours.ruleLegend().length ? colours.ruleLegend() : entriesOf(input, colours),
    noted.body,
    theme,
    true,
  );
  const { body } = legend;
  const write = labelWriter(input, input.style.choice("labels.content"));
  const total = data.rows.reduce((sum, r) => sum + Math.abs(r.value ?? 0), 0);
  const wordings = data.rows.map((r) => write(r, total).map((lines) => lines.join(" ")));
  const place = style.choice("labels.place");
  const size = Math.min(style.number("labels.size"), Math.max(9, Math.min(body.width, body.height) / 9));
  const pitchGuess = (horizontal ? body.height : body.width) / data.rows.length;
  const mostHead = (pitch: number) =>
    Math.max(3, Math.min(pitch * 0.86, Math.min(body.width, body.height) * 0.3));
  const inHead = (
    row: VisualRow,
    wording: string[],
    pitch: number,
  ): { text: string; size: number } | null => {
    const whole = diameterOf(input, row, mostHead(pitch));
    // What is written stands within the border.
    const diameter = whole - 2 * Math.min(style.number("head.border"), whole / 4);
    if (place === "end" || own(input.look.pictures, row.label)) return null;
    for (const text of wording) {
      const fitting = fittingSize(text, diameter * 0.84, size, 600);
      if (fitting !== null && fitting * LINE_HEIGHT <= diameter * 0.8) return { text, size: fitting };
    }
    return null;
  };
  // Labels go into the heads together, or all to the ends: one beside the other would read as two things.
  const allInside =
    place !== "end" &&
    data.rows.every(
      (r, i) => r.value === null || wordings[i].length === 0 || inHead(r, wordings[i], pitchGuess * 0.93),
    );
  const outside = !allInside && place !== "head";
  const bands = layBands(input, body, {
    horizontal,
    reach: data.rows.map((r) => (r.value === null ? [] : [r.value])),
    labels: data.rows.map((_, i) => (outside ? wordings[i] : [])),
    labelSize: size,
    beyond: (pitch) => mostHead(Math.min(pitch, style.number("head.diameter") / 0.86)) / 2,
    ...(start === 0 ? {} : { start }),
  });
  marks.push(...legend.marks, ...bands.marks);
  const ends: Parameters<Bands["endLabels"]>[0] = [];
  for (const [i, row] of bands.rows.entries()) {
    if (row.value === null) {
      ends.push({ at: bands.base, negative: false, reach: 0, half: 0 });
      continue;
    }
    const at = bands.at(row.value);
    const diameter = diameterOf(input, row, mostHead(bands.pitch));
    const [x, y] = horizontal ? [at, bands.centre(i)] : [bands.centre(i), at];
    const color = colours.of(row, i);
    const opacity = strength(input, row.key);
    const datum = rowDatum(
      input,
      row,
      data.headSize
        ? [{ label: data.headSize.label, value: formatNumber(row.headSize, data.headSize.format) }]
        : [],
    );
    const replaced = style.choice("head.picture") === "above" && own(input.look.pictures, row.label);
    marks.push(...stemMarks(input, row, bands, i, at, Math.min(style.number("stem.width"), diameter)));
    if (!replaced) {
      const border = Math.min(style.number("head.border"), diameter / 4);
      marks.push({
        type: "circle",
        id: `head:${row.key}`,
        part: "head",
        cx: x,
        cy: y,
        r: Math.max(1, diameter / 2 - border / 2),
        fill: color,
        ...(border > 0 ? { stroke: theme.ink, strokeWidth: border } : {}),
        opacity,
        datum,
        shows: { row: row.key, value: row.value ?? 0, channel: "position" },
        surface: "data",
        grow: "middle",
      });
    }
    const ink = replaced ? theme.ink : surface.inkOn(color);
    marks.push(...pictureMarks(input, row, x, y, replaced ? diameter * 1.5 : diameter, ink, opacity));
    const label = allInside && opacity === 1 ? inHead(row, wordings[i], bands.pitch) : null;
    if (label)
      marks.push(
        textMark(`label:${row.key}`, "labels", {
          x,
          y,
          text: label.text,
          size: label.size,
          weight: 600,
          fill: ink,
          align: "middle",
        }),
      );
    const rule = colours.ruleOf(row);
    if (rule && !label && !own(input.look.pictures, row.label) && diameter >= 9) {
      const symbol = symbolMark(`symbol:${row.key}`, "head", rule.symbol, {
        x,
        y,
        r: diameter * 0.24,
        fill: surface.inkOn(color),
      });
      if (symbol) marks.push({ ...symbol, opacity });
    }
    ends.push({ at, negative: row.value < start, reach: diameter / 2, half: diameter / 2 });
  }
  if (outside) marks.push(...bands.endLabels(ends));
  marks.push(...noted.marks);
  const negative = data.rows.filter((r) => (r.value ?? 0) < 0).length;
  const description = `${titleOf(input)}: lollipops of ${data.valueLabel}, ${leadingRows(input)}${negative ? `; ${negative} below zero` : ""}${sized ? `. ${sized}` : ""}${said ? `. ${said}` : ""}.${bands.left}`;
  return frameScene(input, marks, handlesOf(input, bands), description);
}

function entriesOf(input: Input, colours: Colours) {
  return input.data.rows.map((r, i) => ({
    key: r.key,
    color: colours.of(r, i),
    label: r.label,
    value: input.style.toggle("legend.values") ? formatNumber(r.value, input.data.format) : "",
  }));
}

function handlesOf(input: Input, bands: Bands): Handle[] {
  const row = bands.rows.findIndex((r) => r.value !== null);
  if (row < 0) return [];
  const diameter = input.style.number("head.diameter");
  const at = bands.at(bands.rows[row].value as number);
  const across = bands.centre(row);
  const [x, y] = bands.horizontal ? [at, across] : [across, at];
  const edge = (wide: number) => (bands.horizontal ? { x, y: y + wide / 2 } : { x: x + wide / 2, y });
  return [
    input.style.handle("head.diameter", {
      ...edge(diameter),
      track: (from, to) => {
        const [a, b] = [edge(from), edge(to)];
        return { type: "straight", x0: a.x, y0: a.y, x1: b.x, y1: b.y };
      },
    }),
  ];
}
