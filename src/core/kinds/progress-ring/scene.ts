import { doNotFit } from "../../base/more";
import { fillTemplate } from "../../base/template";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Mark } from "../../scene/marks";
import { SMALLEST, shorten } from "../../scene/text";
import { liftOf } from "../anatomy/angles";
import { Colours } from "../anatomy/colours";
import { drawing } from "../anatomy/drawing";
import { footNote, layFrame } from "../anatomy/frame";
import {
  beyondGoal,
  chosenEnd,
  type Goal,
  goalOf,
  shareFormat,
  shareOfGoal,
  textAgainst,
} from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { progressArcs } from "../anatomy/progress-arcs";
import { progressWords } from "../anatomy/progress-words";
import { type Centre, layCentre, layRings, ringHandles } from "../anatomy/rings";
import { textMark } from "../anatomy/text-mark";
import { namesFor, roundReading } from "../anatomy/visual-reading";
import type { ProgressRingPart } from "./parts";

type Input = SceneInput<ProgressRingPart>;

/** More rings than this cannot be told apart. */
const MOST_RINGS = 8;

interface Laid {
  marks: Mark[];
  /** What stands at the foot. */
  foot: Mark[];
  body: Box;
  goal: Goal;
  rows: VisualRow[];
  centre: Centre;
  rings: { inner: number; outer: number }[];
}

function lay(input: Input): Laid {
  const { data, style, theme } = input;
  const { marks, body: whole } = layFrame(input);
  const fitting = Math.max(1, Math.min(MOST_RINGS, Math.floor(Math.min(whole.width, whole.height) / 14)));
  const rows = data.rows.slice(0, fitting);
  const goal = goalOf(input, style.choice("ring.past"));
  const unfit = doNotFit(data.rows.length - rows.length);
  const noted = footNote(
    whole,
    theme,
    [chosenEnd(goal, "ring", data.format), unfit].filter(Boolean).join("; "),
  );
  const centre = layCentre(noted.body, style.number("ring.start"), style.number("ring.sweep"), 2, 2);
  const thickness = Math.min(style.number("ring.thickness"), centre.r * (centre.r < 44 ? 0.26 : 0.5));
  const least = rows.length > 1 ? 0.3 : 0.4;
  return {
    marks,
    foot: noted.marks,
    body: noted.body,
    goal,
    rows,
    centre,
    rings: layRings(centre.r, rows.length, thickness, style.number("ring.gap"), least),
  };
}

/** Names stand in the opening of the rings, at their start, where the sweep leaves one. */
function nameMarks({ style, theme }: Input, { rows, rings, centre, body }: Laid): Mark[] {
  if (rows.length < 2 || !style.toggle("labels.names")) return [];
  const { cx, cy, r } = centre;
  const size = Math.min(style.number("labels.size"), (rings[0].outer - rings[1].outer) * 0.98);
  const isOpen = style.number("ring.sweep") <= 300 && style.number("ring.start") === 0;
  if (size < SMALLEST || !isOpen) return [];
  const room = Math.min(cx - body.x - 6, r * 0.9);
  return rows.flatMap((row, i) => {
    const text = shorten(row.label, room, size, 500);
    if (!text) return [];
    const y = cy - (rings[i].inner + rings[i].outer) / 2;
    const line = { x: cx - 6, y, text, size, weight: 500, fill: theme.ink, align: "end" } as const;
    return [textMark(`name:${row.key}`, "labels", line)];
  });
}

/** Several rings have no one share: only the ring under the pointer has its own. */
function reading(input: Input, { rows, rings, centre, goal, body }: Laid): Mark[] {
  const { data, style, theme } = input;
  const several = rows.length > 1;
  const focused = rows.find((row) => row.key === input.focus);
  if (several && !focused) return [];
  const shown = focused ?? rows[0];
  const { value } = shown;
  const share = shareOfGoal(goal, value);
  const state = beyondGoal(value, goal.whole);
  const format = shown.format ?? data.format;
  const names = namesFor(input, {
    value: { value, format },
    total: { value, format },
    target: { value: goal.whole, format },
  }).map((n) => ({
    ...n,
    share: { value: share, format: shareFormat(share) },
    category: shown.label,
  }));
  const template = style.template("reading.caption");
  const isTold = goal.isTarget || !template.includes("{target}");
  const untold = goal.missing || data.valueLabel;
  const caption = state || (isTold ? fillTemplate(template, names[0]) : untold);
  const { cx, cy } = centre;
  const lift = liftOf(style.number("ring.start"), style.number("ring.sweep"));
  const room = rings[rings.length - 1].inner;
  return roundReading(
    input,
    { x: cx, y: cy, room, within: body, lift },
    {
      names,
      text: textAgainst(style.template("reading.text"), goal),
      caption: several ? shown.label : caption,
      tone: state ? theme.signal : undefined,
    },
  );
}

/** A ring that fills towards a goal; several rows or measures give rings within each other. */
export const progressRingScene = drawing<Input, Laid>({
  lay,
  draw: (input, laid) => [
    ...laid.marks,
    ...progressArcs(input, laid, new Colours(input)),
    ...nameMarks(input, laid),
    ...laid.foot,
    ...reading(input, laid),
  ],
  handles: (input, { centre, rings }) => ringHandles(input, centre, rings[0].inner),
  say: (input, { goal }) => progressWords(input, goal, "progress ring"),
});
