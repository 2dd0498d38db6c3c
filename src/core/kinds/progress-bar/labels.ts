import { formatNumber } from "../../base/number-format";
import { filledIn } from "../../project/fixed-words";
import type { VisualRow } from "../../rows/visual-data";
import type { Mark } from "../../scene/marks";
import { fitText, LINE_HEIGHT, SMALLEST, shorten, textWidth } from "../../scene/text";
import { type Goal, goalFor, shareOfGoal, shareText } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { clamp } from "../anatomy/scale";
import { textMark } from "../anatomy/text-mark";
import { type Bars, filledBy, type Lane, lapColour } from "./lane";
import type { ProgressBarPart } from "./parts";

type Input = SceneInput<ProgressBarPart>;

/** What a bar's label says, and what remains where that was chosen. */
function labelOf({ style, data }: Input, { goal: goals, write }: Bars, row: VisualRow): string {
  if (row.value === null) return "—";
  const goal = goalFor(data, goals, row);
  // Without a target of its own there is no share to say.
  if (goals.each && goal.missing)
    return `${formatNumber(row.value, row.format ?? data.format)} · ${goal.missing}`;
  const said = (write(row, goal.whole)[0] ?? []).join(" ");
  if (!style.toggle("labels.remaining") || goal.whole === null) return said;
  const rest = goal.whole - row.value;
  const remaining =
    rest > 0 ? filledIn(data.words.left, { value: formatNumber(rest, row.format ?? data.format) }) : "";
  return [said, remaining].filter(Boolean).join(" · ");
}

/** The label of a bar to the right: within it, or after it where the track has room. */
export function besideLabel(input: Input, bars: Bars, lane: Lane, row: VisualRow, index: number): Mark[] {
  const { style, theme, surface } = input;
  const { colours } = bars;
  const goal = goalFor(input.data, bars.goal, row);
  const { share, isOver, full } = filledBy(input, bars, lane, row);
  const text = labelOf(input, bars, row);
  if (text === "") return [];
  const { thickness } = lane;
  const size = Math.max(SMALLEST, Math.min(style.number("labels.size"), Math.max(SMALLEST, thickness + 2)));
  const width = textWidth(text, size, 600);
  const place = style.choice("labels.place");
  const tip = isOver && style.choice("bar.past") === "hold" ? thickness * 0.6 + 4 : 0;
  const hasRoom = thickness >= size + 1 && width + 14 <= clamp(share) * (lane.length - tip);
  const line = { y: lane.box.y + thickness / 2, text, size, weight: 600 } as const;
  const id = `label:${row.key}`;
  const end = lane.start + full * clamp(share);
  if (place !== "outside" && surface.carriesText && hasRoom) {
    const color = colours.of(row, index);
    const under = isOver && style.choice("bar.past") === "lap" && share - 1 > 0.7;
    const fill = surface.inkOn(under ? lapColour(color, theme.ink) : color);
    const radius = ((thickness / 2) * style.number("bar.corner")) / 100;
    const x = clearOfTick(goal, lane.start, full, end - Math.max(8, radius * 0.6), width);
    return [textMark(id, "labels", { x, ...line, fill, align: "end" })];
  }
  if (place === "inside" || end + 6 + width > lane.start + full - 2) return [];
  const track = style.toggle("track.shown") ? style.colour("track.colour", theme.track) : theme.sheet;
  const ink = surface.inkOnTrack(track, thickness < size);
  return ink ? [textMark(id, "labels", { x: end + 6, ...line, fill: ink })] : [];
}

/** The end of a label, moved before the goal's tick where the bar runs past it. */
function clearOfTick(goal: Goal, start: number, full: number, end: number, width: number): number {
  const tick = start + (full * goal.full) / goal.end;
  const crosses = goal.isMarked && end > tick - 4 && end - width < tick + 4;
  return crosses ? tick - 6 : end;
}

/** What standing bars are written with: the size, their distance, and the room over and under them. */
export interface Standing {
  size: number;
  pitch: number;
  head: number;
  foot: number;
}

/** The label over a standing bar and its name under it. */
export function standingTexts(
  input: Input,
  bars: Bars,
  lane: Lane,
  row: VisualRow,
  around: Standing,
): Mark[] {
  const { size, pitch, head, foot } = around;
  const { x, y, width, height } = lane.box;
  const look = { fill: input.theme.ink, align: "middle" } as const;
  const share = shareOfGoal(goalFor(input.data, bars.goal, row), row.value);
  const short = share === null ? [] : [shareText(share, row.format ?? input.data.format)];
  const said = fitText([labelOf(input, bars, row), ...short], pitch - 2, size, 600);
  const name = foot > 0 ? shorten(row.label, pitch - 4, size, 400) : "";
  const middle = x + width / 2;
  const over = { x: middle, y: y - size * 0.6 - 2, ...said, weight: 600, ...look } as const;
  const under = {
    x: middle,
    y: y + height + foot - size * 0.55,
    text: name,
    size,
    weight: 400,
    ...look,
  } as const;
  return [
    ...(head > 2 && said.text && !said.text.includes("…")
      ? [textMark(`label:${row.key}`, "labels", over)]
      : []),
    ...(name ? [textMark(`name:${row.key}`, "labels", under)] : []),
  ];
}

/** The pixels that a line of text takes over or under a standing bar. */
export const lineRoom = (size: number) => size * LINE_HEIGHT + 4;
