import { fillTemplate } from "../../base/template";
import { counted } from "../../project/fixed-words";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Mark } from "../../scene/marks";
import { liftOf } from "../anatomy/angles";
import { Colours } from "../anatomy/colours";
import { drawing } from "../anatomy/drawing";
import { footNote, layFrame } from "../anatomy/frame";
import {
  beyondGoal,
  chosenEnd,
  type Goals,
  goalFor,
  goalOf,
  shareFormat,
  shareOfGoal,
  textAgainst,
} from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { legendFor, rowEntries } from "../anatomy/legend";
import { progressArcs } from "../anatomy/progress-arcs";
import { progressWords } from "../anatomy/progress-words";
import { namesAtStart } from "../anatomy/ring-names";
import { type Centre, layCentre, layRings, ringHandles } from "../anatomy/rings";
import { namesInTrack } from "../anatomy/track-names";
import { captionsOf, namesFor, roundReading } from "../anatomy/visual-reading";
import type { ProgressRingPart } from "./parts";

type Input = SceneInput<ProgressRingPart>;

/** More rings than this cannot be told apart. */
const MOST_RINGS = 8;

interface Laid {
  marks: Mark[];
  /** What stands at the foot. */
  foot: Mark[];
  body: Box;
  goal: Goals;
  rows: VisualRow[];
  centre: Centre;
  rings: { inner: number; outer: number }[];
  colours: Colours;
  /** Names at the start of the rings, or a legend. */
  names: Mark[];
}

/** Rings of the rows within a body. */
function ringsIn({ style }: Input, rows: VisualRow[], body: Box): Pick<Laid, "body" | "centre" | "rings"> {
  const centre = layCentre(body, style.number("ring.start"), style.number("ring.sweep"), 2, 2);
  const thickness = Math.min(style.number("ring.thickness"), centre.r * (centre.r < 44 ? 0.26 : 0.5));
  const least = rows.length > 1 ? 0.3 : 0.4;
  const rings = layRings(centre.r, rows.length, thickness, style.number("ring.gap"), least);
  return { body, centre, rings };
}

/**
 * Several rings with their names: at the start where that leaves them whole, or in the track where that was
 * chosen, else in a legend; cut at the start where there is no room for that either.
 */
function layNamed(input: Input, rows: VisualRow[], goal: Goals, colours: Colours, whole: Box) {
  const { style } = input;
  const place = style.choice("labels.place");
  // What rules mean stands in the legend, wherever the names stand.
  const { marks: ruled, body } = legendFor(input, colours, [], whole);
  const alone = ringsIn(input, rows, body);
  const isSplit = rows.length > 1 || input.data.splitLabel !== null;
  if (!isSplit || place === "none") return { ...alone, names: ruled };
  const [start, sweep] = [style.number("ring.start"), style.number("ring.sweep")];
  const placed = { rows, ...alone, start, sweep, goal };
  const size = style.number("labels.size");
  const write = (row: VisualRow) => [row.label];
  const inTrack =
    place === "track" ? namesInTrack(input, placed, colours, size, (row) => [write(row)]) : null;
  if (inTrack) return { ...alone, names: [...ruled, ...inTrack.marks] };
  const atStart = place === "legend" ? null : namesAtStart(input, placed, size, write);
  if (atStart && (place === "start" || atStart.isWhole || ruled.length > 0))
    return { ...alone, names: [...ruled, ...atStart.marks] };
  const entries = rows.map((row, i) => ({ row, color: colours.of(row, i) }));
  const legend = legendFor(input, colours, rowEntries(input, entries), body);
  if (legend.marks.length === 0) return { ...alone, names: atStart?.marks ?? [] };
  return { ...ringsIn(input, rows, legend.body), names: legend.marks };
}

function lay(input: Input): Laid {
  const { data, style, theme } = input;
  const { marks, body: whole } = layFrame(input);
  const fitting = Math.max(1, Math.min(MOST_RINGS, Math.floor(Math.min(whole.width, whole.height) / 14)));
  const rows = data.rows.slice(0, fitting);
  const goal = goalOf(input, style.choice("ring.past"), style.choice("ring.against"));
  const unfit = counted(data.words.unfit, data.rows.length - rows.length);
  const noted = footNote(whole, theme, [chosenEnd(data, goal), unfit].filter(Boolean).join("; "));
  const colours = new Colours(input);
  return {
    marks,
    foot: noted.marks,
    goal,
    rows,
    colours,
    ...layNamed(input, rows, goal, colours, noted.body),
  };
}

/** Several rings have no one share: only the ring under the pointer has its own. */
function reading(input: Input, { rows, rings, centre, goal: goals, body }: Laid): Mark[] {
  const { data, style, theme } = input;
  const several = rows.length > 1;
  const focused = rows.find((row) => row.key === input.focus?.row);
  if (several && !focused) return [];
  const shown = focused ?? rows[0];
  const { value } = shown;
  const goal = goalFor(data, goals, shown);
  const share = shareOfGoal(goal, value);
  const state = beyondGoal(data, value, goal.whole);
  const format = shown.format ?? data.format;
  const names = namesFor(input, {
    value: { value, format },
    total: { value, format },
    target: { value: goal.whole, format },
  }).map((n) => ({
    ...n,
    share: { value: share, format: shareFormat(share, format) },
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
      row: shown,
      names,
      text: textAgainst(style.template("reading.text"), goal),
      captions: captionsOf(several ? [shown.label, goals.each ? caption : ""] : [caption]),
      tone: state ? theme.signal : undefined,
    },
  );
}

/** A ring that fills towards a goal; several rows or measures give rings within each other. */
export const progressRingScene = drawing<Input, Laid>({
  crowded: () => false,
  lay,
  draw: (input, laid) => [
    ...laid.marks,
    ...progressArcs(input, laid, laid.colours),
    ...laid.names,
    ...laid.foot,
    ...reading(input, laid),
  ],
  handles: (input, { centre, rings }) => ringHandles(input, centre, rings[0].inner),
  say: (input, { goal }) => progressWords(input, goal, "progress ring"),
});
