import { doNotFit } from "../../base/more";
import { formatNumber } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Mark } from "../../scene/marks";
import { SMALLEST, shorten, textWidth } from "../../scene/text";
import { Colours } from "../anatomy/colours";
import { leadingRows } from "../anatomy/datum";
import { drawing } from "../anatomy/drawing";
import { footNote, layFrame, titleOf } from "../anatomy/frame";
import { type Goal, goalOf } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter } from "../anatomy/labels";
import { legendFor, rowEntries } from "../anatomy/legend";
import { progressArcs } from "../anatomy/progress-arcs";
import { type Centre, layCentre, layRings, ringHandles } from "../anatomy/rings";
import { textMark } from "../anatomy/text-mark";
import { namesFor, roundReading } from "../anatomy/visual-reading";
import type { RadialBarsPart } from "./parts";

type Input = SceneInput<RadialBarsPart>;

interface Laid {
  marks: Mark[];
  /** Legend and foot, over the bars. */
  over: Mark[];
  colours: Colours;
  body: Box;
  goal: Goal;
  rows: VisualRow[];
  centre: Centre;
  rings: { inner: number; outer: number }[];
  left: string;
}

function lay(input: Input): Laid {
  const { data, style, theme } = input;
  const { marks, body: whole } = layFrame(input);
  const colours = new Colours(input);
  const hole = style.number("ring.hole") / 100;
  const most = Math.max(1, Math.floor(((Math.min(whole.width, whole.height) / 2) * (1 - hole)) / 5));
  const rows = data.rows.slice(0, most);
  const negative = rows.filter((r) => (r.value ?? 0) < 0).length;
  const below = negative ? `${negative} below zero: an empty track` : "";
  const left = [doNotFit(data.rows.length - rows.length), below].filter(Boolean).join("; ");
  const goal = goalOf(input, style.choice("ring.past"));
  const end = goal.whole === null ? `A full sweep is ${formatNumber(goal.end, data.format)}` : "";
  const noted = footNote(whole, theme, [end, left].filter(Boolean).join("; "));
  const coloured = rows.map((row, i) => ({ row, color: colours.of(row, i) }));
  const legend = legendFor(input, colours, rowEntries(input, coloured), noted.body);
  const { body } = legend;
  const centre = layCentre(body, style.number("ring.start"), style.number("ring.sweep"), 2, 2);
  const [thickness, gap] = [style.number("ring.thickness"), style.number("ring.gap")];
  return {
    marks,
    over: [...legend.marks, ...noted.marks],
    colours,
    body,
    // One bar on a scale that is said is a picture of its value all the same.
    goal: { ...goal, missing: "" },
    rows,
    centre,
    rings: layRings(centre.r, rows.length, thickness, gap, hole),
    left,
  };
}

/** Names stand before the start, in the opening that the sweep leaves there. */
function labelMarks(input: Input, { rows, rings, centre, body }: Laid): Mark[] {
  const { style, data, theme } = input;
  const { cx, cy } = centre;
  const [first, second] = rings;
  const pitch = second ? first.outer - second.outer : first.outer - first.inner + 4;
  const size = Math.min(style.number("labels.size"), pitch * 0.98);
  const isOpen = style.number("ring.start") === 0 && style.number("ring.sweep") <= 300;
  if (!isOpen || size < SMALLEST) return [];
  const write = labelWriter(input, style.choice("labels.content"));
  const room = cx - body.x - 8;
  return rows.flatMap((row, i) => {
    const [wording] = write(row, data.total);
    const text = wording && onOneLine(wording, room, size);
    if (!text || textWidth(text, size, 500) > room) return [];
    const y = cy - (rings[i].inner + rings[i].outer) / 2;
    const look = { size, weight: 500, fill: theme.ink, align: "end" } as const;
    return [textMark(`label:${row.key}`, "labels", { x: cx - 8, y, text: text.trim(), ...look })];
  });
}

/** A name and what is said of it; a long name is cut before its value is. */
function onOneLine([name, said]: string[], room: number, size: number): string {
  const tail = said ? `  ${said}` : "";
  if (textWidth(name + tail, size, 500) <= room) return name + tail;
  return shorten(name, room - textWidth(tail, size, 500), size, 500) + tail;
}

function reading(input: Input, { rows, rings, centre, body }: Laid): Mark[] {
  const { data, style } = input;
  const focused = rows.find((row) => row.key === input.focus);
  const now = { value: focused ? focused.value : data.total, format: data.format };
  const names = namesFor(input, { total: now, value: now });
  const caption = focused ? focused.label : fillTemplate(style.template("reading.caption"), names[0]);
  const room = rings[rings.length - 1].inner;
  return roundReading(input, { x: centre.cx, y: centre.cy, room, within: body }, { names, caption });
}

function say(input: Input, { goal, left }: Laid): string {
  const { data } = input;
  return `${titleOf(input)}: radial bars of ${data.valueLabel}, a full sweep is ${formatNumber(goal.end, data.format)}, ${leadingRows(input)}${left ? `. ${left}` : ""}.`;
}

/** Bars bent around a centre, a track each, with their names at the start. */
export const radialBarsScene = drawing<Input, Laid>({
  lay,
  draw: (input, laid) => [
    ...laid.marks,
    ...progressArcs(input, laid, laid.colours),
    ...laid.over,
    ...labelMarks(input, laid),
    ...reading(input, laid),
  ],
  handles: (input, { centre, rings }) => ringHandles(input, centre, rings[0].inner),
  say,
});
