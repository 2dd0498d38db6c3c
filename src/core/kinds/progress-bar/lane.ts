import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import { mix } from "../../scene/colour";
import type { Mark, Rect } from "../../scene/marks";
import type { Colours } from "../anatomy/colours";
import { rowDatum, strength } from "../anatomy/datum";
import { type Goals, goalFor, goalLines } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import type { LabelWriter } from "../anatomy/labels";
import { clamp } from "../anatomy/scale";
import type { ProgressBarPart } from "./parts";

type Input = SceneInput<ProgressBarPart>;

/** What bars of one picture share. */
export interface Bars {
  goal: Goals;
  colours: Colours;
  write: LabelWriter;
}

/** The way of one bar: to the right, or upwards from its foot. */
export class Lane {
  constructor(
    readonly horizontal: boolean,
    readonly box: Box,
  ) {}

  /** The pixel that the bar starts from, along its way. */
  get start(): number {
    return this.horizontal ? this.box.x : this.box.y + this.box.height;
  }
  get length(): number {
    return this.horizontal ? this.box.width : this.box.height;
  }
  get thickness(): number {
    return this.horizontal ? this.box.height : this.box.width;
  }
  /** The pixel after a length of the way. */
  after(length: number): number {
    return this.horizontal ? this.start + length : this.start - length;
  }
  /** The point after a length, at a share of the thickness and so many pixels beyond it. */
  point(length: number, share: number, beyond = 0): [number, number] {
    const { x, y } = this.box;
    const off = this.thickness * share + beyond;
    return this.horizontal ? [this.after(length), y + off] : [x + off, this.after(length)];
  }
  /** The box of a bar of a length, thinner by an inset at both sides. */
  bar(length: number, inset = 0): Box {
    const [x, y] = this.horizontal
      ? [this.start, this.box.y + inset]
      : [this.box.x + inset, this.after(length)];
    const thin = this.thickness - 2 * inset;
    return this.horizontal ? { x, y, width: length, height: thin } : { x, y, width: thin, height: length };
  }
}

/** How a row's bar fills its lane. */
export interface Filled {
  /** The share of the way; may be below 0 and past 1. */
  share: number;
  isOver: boolean;
  /** The length of the scale in pixels: a bar that is held leaves room for its tip. */
  full: number;
}

/** How a row's bar fills its lane, by what it does past the goal. */
export function filledBy({ style, data }: Input, bars: Bars, lane: Lane, row: VisualRow): Filled {
  const goal = goalFor(data, bars.goal, row);
  const { value } = row;
  const share = value === null || goal.missing ? 0 : value / goal.end;
  const isOver = share > 1 + 1e-12;
  const tip = isOver && style.choice("bar.past") === "hold" ? lane.thickness * 0.6 + 4 : 0;
  return { share, isOver, full: Math.max(4, lane.length - tip) };
}

/** The tip of a bar that is held at the end of its scale. */
function tipMark(input: Input, lane: Lane, row: VisualRow, full: number, datum: Mark["datum"]): Mark {
  const [x, y] = lane.point(full + 4, 0.5);
  const half = lane.thickness / 2;
  const out: [number, number][] = [
    [0, -half],
    [lane.thickness * 0.55, 0],
    [0, half],
  ];
  const points = lane.horizontal ? out : out.map(([a, b]): [number, number] => [b, -a]);
  return {
    type: "polygon",
    id: `past:${row.key}`,
    part: "bar",
    x,
    y,
    rotate: 0,
    points,
    fill: input.theme.signal,
    datum,
  };
}

/** The shapes of one bar: its track, itself, a second lap or its tip, and the tick of the goal. */
export function barShapes(input: Input, bars: Bars, lane: Lane, row: VisualRow, index: number): Mark[] {
  const { style, theme } = input;
  const { colours } = bars;
  const goal = goalFor(input.data, bars.goal, row);
  const { share, isOver, full } = filledBy(input, bars, lane, row);
  const past = style.choice("bar.past");
  const datum = rowDatum(input, row, goalLines(input.data, goal, row));
  const color = colours.of(row, index);
  const radius = ((lane.thickness / 2) * style.number("bar.corner")) / 100;
  const whole = {
    from: lane.start,
    to: lane.after(full),
    axis: lane.horizontal ? ("x" as const) : ("y" as const),
  };
  const rect = (id: string, part: string, fill: string, box: Box): Rect => ({
    type: "rect",
    id: `${id}:${row.key}`,
    part,
    ...box,
    radii: [radius, radius, radius, radius],
    fill,
    datum,
    opacity: strength(input, row.key, { weak: 0.5 }),
  });
  const marks: Mark[] = [];
  if (style.toggle("track.shown")) {
    const track = rect("track", "track", style.colour("track.colour", theme.track), lane.bar(full));
    marks.push({ ...track, surface: "track", whole });
  }
  if (share > 0)
    marks.push({
      ...rect("bar", "bar", color, lane.bar(full * clamp(share))),
      shows: { row: row.key, value: row.value ?? 0, channel: "length" },
      surface: "data",
      whole,
      grow: lane.horizontal ? "left" : "bottom",
    });
  if (isOver && past === "lap") {
    const lap = lane.bar(full * clamp(share - 1), lane.thickness * 0.28);
    marks.push(rect("lap", "bar", lapColour(color, theme.ink), lap));
  }
  if (isOver && past === "hold") marks.push(tipMark(input, lane, row, full, datum));
  if (goal.isTarget && goal.isMarked && style.toggle("target.shown")) {
    const at = (full * goal.full) / goal.end;
    marks.push({
      type: "line",
      id: `target:${row.key}`,
      part: "target",
      stroke: theme.ink,
      strokeWidth: 2,
      points: [lane.point(at, 0, -3), lane.point(at, 1, 3)],
    });
  }
  return marks;
}

/** The colour of a second lap over a bar. */
export const lapColour = (color: string, ink: string) => mix(color, ink, 0.45);
