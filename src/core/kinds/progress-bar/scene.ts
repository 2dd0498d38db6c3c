import { formatNumber } from "../../base/number-format";
import { subjectOf } from "../../rows/row-key";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Handle, Mark } from "../../scene/marks";
import { LINE_HEIGHT, SMALLEST, textWidth } from "../../scene/text";
import { namesBeside } from "../anatomy/band-names";
import { Colours } from "../anatomy/colours";
import { drawing } from "../anatomy/drawing";
import { footNote, layFrame, notedRows } from "../anatomy/frame";
import { chosenEnd, goalOf } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter } from "../anatomy/labels";
import { legendFor, rowEntries } from "../anatomy/legend";
import { progressWords } from "../anatomy/progress-words";
import { niceAbove } from "../anatomy/scale";
import { readingMarks } from "./bar-reading";
import { besideLabel, lineRoom, type Standing, standingTexts } from "./labels";
import { type Bars, barShapes, Lane } from "./lane";
import type { ProgressBarPart } from "./parts";

type Input = SceneInput<ProgressBarPart>;

/** The lanes of the rows that fit, and what stands around them. */
interface Lanes {
  rows: VisualRow[];
  lanes: Lane[];
  /** Names, reading and foot, under the bars. */
  under: Mark[];
  /** What standing bars are written with; null where bars run to the right. */
  standing: Standing | null;
  /** Whether bars that run to the right are labelled. */
  labelled: boolean;
}

interface Laid extends Lanes {
  marks: Mark[];
  bars: Bars;
}

/** Several bars to the right, one a row, as many as fit; what does not fit is counted at the foot. */
function layRows(input: Input, whole: Box): Lanes {
  const { data, style, theme } = input;
  const size = Math.max(SMALLEST, Math.min(style.number("labels.size"), whole.height / 6));
  const least = Math.max(size * 1.25, 12);
  const { body, shown, marks } = notedRows(input, whole, data.rows.length, (box) => box.height / least);
  const rows = data.rows.slice(0, shown);
  const pitch = body.height / shown;
  const top = body.y + (body.height - pitch * shown) / 2;
  const centre = (i: number) => top + pitch * (i + 0.5);
  const widest = Math.max(...rows.map((r) => textWidth(r.label, size, 400)));
  const width = body.width >= 100 ? Math.min(body.width * 0.36, widest + 10) : 0;
  const right = body.x + width;
  const beside = { part: "labels", ink: theme.ink, right, width, size, pitch, centre };
  const thickness = Math.min(style.number("bar.thickness"), pitch * 0.72);
  const lane = (i: number) =>
    new Lane(true, {
      x: right,
      y: centre(i) - thickness / 2,
      width: body.width - width,
      height: thickness,
    });
  return {
    rows,
    lanes: rows.map((_, i) => lane(i)),
    under: [...marks, ...(width > 0 ? namesBeside(rows, beside) : [])],
    standing: null,
    labelled: true,
  };
}

/** One bar with its reading above it. */
function laySingle(input: Input, bars: Bars, body: Box): Lanes {
  const { data, style } = input;
  const isRead = style.toggle("reading.shown");
  const size = isRead ? Math.max(SMALLEST, Math.min(style.number("reading.size"), body.height * 0.45)) : 0;
  const gap = isRead ? Math.min(12, body.height * 0.08) : 0;
  const over = size * LINE_HEIGHT + Math.min(12, body.height * 0.08);
  const thickness = Math.max(3, Math.min(style.number("bar.thickness"), body.height - over));
  const taken = size * LINE_HEIGHT + gap;
  const top = body.y + Math.max(0, (body.height - taken - thickness) / 2);
  const value = data.rows[0].value ?? 0;
  const lane = new Lane(true, { x: body.x, y: top + taken, width: body.width, height: thickness });
  return {
    rows: data.rows,
    lanes: [lane],
    under: isRead ? readingMarks(input, bars.goal, value, { ...body, y: top }, size) : [],
    standing: null,
    labelled: !isRead || style.toggle("labels.remaining"),
  };
}

/** Bars that stand and fill upwards, a column a row, named below. */
function layStanding(input: Input, whole: Box): Lanes {
  const { data, style } = input;
  const size = Math.max(SMALLEST, Math.min(style.number("labels.size"), whole.height / 8));
  const { body, shown, marks } = notedRows(input, whole, data.rows.length, (box) => box.width / 14);
  const rows = data.rows.slice(0, shown);
  const pitch = body.width / shown;
  const isNamed = body.height >= 70 && pitch >= 24 && rows.some((r) => subjectOf(r.key).type !== "whole");
  const foot = isNamed ? lineRoom(size) : 0;
  const head = style.choice("labels.content") === "none" ? 2 : lineRoom(size);
  const thickness = Math.min(style.number("bar.thickness"), pitch * 0.72);
  const lane = (i: number) =>
    new Lane(false, {
      x: body.x + pitch * (i + 0.5) - thickness / 2,
      y: body.y + head,
      width: thickness,
      height: Math.max(8, body.height - head - foot),
    });
  return {
    rows,
    lanes: rows.map((_, i) => lane(i)),
    under: marks,
    standing: { size, pitch, head, foot },
    labelled: false,
  };
}

function lay(input: Input): Laid {
  const { data, style, theme } = input;
  const { marks, body: whole } = layFrame(input);
  const goal = goalOf(input, style.choice("bar.past"), style.choice("bar.against"));
  const write = labelWriter(input, style.choice("labels.content"));
  const colours = new Colours(input);
  const bars: Bars = { goal, colours, write };
  const noted = footNote(whole, theme, chosenEnd(data, goal));
  const entries = data.rows.map((row, i) => ({ row, color: colours.of(row, i) }));
  const legend = legendFor(input, colours, rowEntries(input, entries), noted.body, { wide: true });
  const { body } = legend;
  marks.push(...noted.marks, ...legend.marks);
  if (style.choice("bar.direction") === "up") return { marks, bars, ...layStanding(input, body) };
  return data.rows.length === 1 && data.splitLabel === null
    ? { marks, bars, ...laySingle(input, bars, body) }
    : { marks, bars, ...layRows(input, body) };
}

function draw(input: Input, { marks, under, bars, rows, lanes, standing, labelled }: Laid): Mark[] {
  const drawn = rows.flatMap((row, i) => [
    ...barShapes(input, bars, lanes[i], row, i),
    ...(labelled ? besideLabel(input, bars, lanes[i], row, i) : []),
    ...(standing ? standingTexts(input, bars, lanes[i], row, standing) : []),
  ]);
  return [...marks, ...under, ...drawn];
}

/** One bar can be made thicker, and its target moved. */
function handles({ data, style }: Input, { bars: { goal }, lanes, standing }: Laid): Handle[] {
  if (standing || data.rows.length !== 1) return [];
  const { x, y, width, height } = lanes[0].box;
  const middle = x + width / 2;
  const thickness = style.handle("bar.thickness", {
    x: middle,
    y: y + height,
    track: (from, to) => ({ type: "straight", x0: middle, y0: y + from, x1: middle, y1: y + to }),
  });
  if (data.target === null || goal.end <= 0) return [thickness];
  return [
    thickness,
    {
      id: "target",
      edit: { type: "target" },
      label: "Target",
      value: data.target,
      from: 0,
      to: goal.end * 1.5,
      step: Math.max(niceAbove(goal.end) / 100, 1e-9),
      text: `target ${formatNumber(data.target, data.format)}`,
      x: x + (width * goal.full) / goal.end,
      y: y + height / 2,
      track: { type: "straight", x0: x, y0: y, x1: x + width * 1.5, y1: y },
    },
  ];
}

/** Bars that fill towards a goal, each past its end by the user's choice. */
export const progressBarScene = drawing<Input, Laid>({
  crowded: () => false,
  lay,
  draw,
  handles,
  say: (input, { bars }) => progressWords(input, bars.goal, "progress bar"),
});
