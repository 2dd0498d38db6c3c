import { formatNumber } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import { counted } from "../../project/fixed-words";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Mark } from "../../scene/marks";
import { Colours } from "../anatomy/colours";
import { leadingRows } from "../anatomy/datum";
import { drawing } from "../anatomy/drawing";
import { footNote, layFrame } from "../anatomy/frame";
import { chosenEnd, type Goals, goalFor, goalOf } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter } from "../anatomy/labels";
import { legendFor, rowEntries } from "../anatomy/legend";
import { progressArcs, type RowsOnRings } from "../anatomy/progress-arcs";
import { progressWords } from "../anatomy/progress-words";
import { namesAtStart, type RingNames } from "../anatomy/ring-names";
import { type Centre, layCentre, layRings, ringHandles } from "../anatomy/rings";
import { titleOf } from "../anatomy/titles";
import { namesInTrack } from "../anatomy/track-names";
import { namesFor, roundReading } from "../anatomy/visual-reading";
import type { RadialBarsPart } from "./parts";

type Input = SceneInput<RadialBarsPart>;

interface Laid {
  marks: Mark[];
  /** Names, legend and foot, over the bars. */
  over: Mark[];
  colours: Colours;
  body: Box;
  goal: Goals;
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
  const below = counted(data.words.emptyTracks, negative);
  const left = [counted(data.words.unfit, data.rows.length - rows.length), below].filter(Boolean).join("; ");
  // One bar on a scale that is said is a picture of its value all the same.
  const goal = { ...goalOf(input, style.choice("ring.past"), style.choice("ring.against")), missing: "" };
  const end = chosenEnd(data, goal);
  const noted = footNote(whole, theme, [end, left].filter(Boolean).join("; "));
  return {
    marks,
    colours,
    goal,
    rows,
    left,
    ...layNamed(input, rows, goal, colours, noted),
  };
}

/** Bars of the rows within a body. */
function barsIn({ style }: Input, rows: VisualRow[], body: Box): Pick<Laid, "body" | "centre" | "rings"> {
  const centre = layCentre(body, style.number("ring.start"), style.number("ring.sweep"), 2, 2);
  const [thickness, gap] = [style.number("ring.thickness"), style.number("ring.gap")];
  const rings = layRings(centre.r, rows.length, thickness, gap, style.number("ring.hole") / 100);
  return { body, centre, rings };
}

/** The labels of bars where they were asked for: in the track, else at the start; null where neither has room. */
function labelsOf(input: Input, laid: RowsOnRings & { body: Box }, colours: Colours): RingNames | null {
  const { style, data } = input;
  const place = style.choice("labels.place");
  if (place === "legend") return null;
  const size = style.number("labels.size");
  const writer = labelWriter(input, style.choice("labels.content"));
  const write = (row: VisualRow) =>
    writer(row, laid.goal.each ? goalFor(data, laid.goal, row).whole : data.total);
  // In a track that is too short for its value, the name goes first.
  const named = style.choice("labels.content").includes("category");
  const bent = (row: VisualRow) => [...write(row), ...(named ? [[row.label]] : [])];
  const inTrack = place === "track" ? namesInTrack(input, laid, colours, size, bent) : null;
  const [start, sweep] = [style.number("ring.start"), style.number("ring.sweep")];
  return inTrack ?? namesAtStart(input, { ...laid, start, sweep }, size, (row) => write(row)[0] ?? []);
}

/**
 * Bars with their labels in their place; where the sweep, or the frame, leaves no room for all of them there,
 * a legend says the names.
 */
function layNamed(
  input: Input,
  rows: VisualRow[],
  goal: Goals,
  colours: Colours,
  noted: { marks: Mark[]; body: Box },
) {
  const { style } = input;
  const entries = rowEntries(
    input,
    rows.map((row, i) => ({ row, color: colours.of(row, i) })),
  );
  const place = style.choice("legend.place");
  const legend = legendFor(input, colours, entries, noted.body, {
    place: place === "auto" ? "rules" : place,
  });
  const bars = barsIn(input, rows, legend.body);
  const labels = labelsOf(input, { rows, ...bars, goal }, colours);
  const over = [...legend.marks, ...noted.marks];
  const labelled = { ...bars, over: [...over, ...(labels?.marks ?? [])] };
  const hasNames = style.choice("labels.content").includes("category");
  if (place !== "auto" || (hasNames && labels?.isWhole)) return labelled;
  const instead = legendFor(input, colours, entries, noted.body, { place: "auto" });
  const isCut = instead.marks.some((mark) => mark.type === "text" && mark.text.endsWith("…"));
  // A legend that cuts names is no better than labels that do.
  if (instead.marks.length === 0 || (isCut && hasNames && labels?.marks.length === rows.length))
    return labelled;
  return { ...barsIn(input, rows, instead.body), over: [...instead.marks, ...noted.marks] };
}

function reading(input: Input, { rows, rings, centre, body }: Laid): Mark[] {
  const { data, style } = input;
  const focused = rows.find((row) => row.key === input.focus?.row);
  const now = { value: focused ? focused.value : data.total, format: data.format };
  const names = namesFor(input, { total: now, value: now });
  const caption = focused ? focused.label : fillTemplate(style.template("reading.caption"), names[0]);
  const room = rings[rings.length - 1].inner;
  return roundReading(
    input,
    { x: centre.cx, y: centre.cy, room, within: body },
    { row: focused, names, captions: [caption] },
  );
}

function say(input: Input, { goal, left }: Laid): string {
  const { data } = input;
  if (goal.each) return progressWords(input, goal, "radial bars");
  return `${titleOf(input)}: radial bars of ${data.valueLabel}, a full sweep is ${formatNumber(goal.end, data.format)}, ${leadingRows(input)}${left ? `. ${left}` : ""}.`;
}

/** Bars bent around a centre, a track each, with their names at the start. */
export const radialBarsScene = drawing<Input, Laid>({
  crowded: () => false,
  lay,
  draw: (input, laid) => [
    ...laid.marks,
    ...progressArcs(input, laid, laid.colours),
    ...laid.over,
    ...reading(input, laid),
  ],
  handles: (input, { centre, rings }) => ringHandles(input, centre, rings[0].inner),
  say,
});
