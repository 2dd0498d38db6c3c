import type { RowKey } from "../../rows/row-key";
import type { Box } from "../../scene/box";
import type { Theme } from "../../scene/colour";
import type { Mark } from "../../scene/marks";
import { LINE_HEIGHT, shorten, textWidth, whole } from "../../scene/text";
import { polar } from "../anatomy/angles";
import type { Centre } from "../anatomy/rings";
import { textMark } from "../anatomy/text-mark";

/** What is said of a slice beside the ring. */
export interface OutsideLabel {
  key: RowKey;
  lines: string[];
  /** How many of the lines are the name. */
  names: number;
  share: number;
  /** Degrees, 0 at twelve o'clock. */
  angle: number;
}

const ELBOW = 8;
const GAP = 4;

/** Pushes labels of one side apart, then back into the box. `y` are wanted middles, in rising order. */
function spread(wanted: number[], heights: number[], top: number, bottom: number): number[] {
  const y = wanted.slice();
  for (let i = 0; i < y.length; i++) {
    const least = i === 0 ? top + heights[0] / 2 : y[i - 1] + (heights[i - 1] + heights[i]) / 2 + 1;
    y[i] = Math.max(y[i], least);
  }
  for (let i = y.length - 1; i >= 0; i--) {
    const most =
      i === y.length - 1 ? bottom - heights[i] / 2 : y[i + 1] - (heights[i + 1] + heights[i]) / 2 - 1;
    y[i] = Math.min(y[i], most);
  }
  return y;
}

/** What labels beside a ring are written with. */
interface Beside {
  box: Box;
  size: number;
  theme: Theme;
  leaders: boolean;
}

interface PlacedLabel extends OutsideLabel {
  height: number;
  /** The pixel of its wanted middle. */
  at: number;
}

/** The labels of one side that have room there, in the order of their height: the smallest shares give way. */
function labelsOf(labels: OutsideLabel[], side: 1 | -1, ring: Centre, { box, size }: Beside): PlacedLabel[] {
  const mine = labels
    .filter((l) => (Math.sin((l.angle * Math.PI) / 180) >= 0 ? 1 : -1) === side)
    .map((l) => ({
      ...l,
      height: l.lines.length * size * LINE_HEIGHT,
      at: polar(ring.cx, ring.cy, l.angle, ring.r + ELBOW).y,
    }));
  while (mine.length > 0 && mine.reduce((sum, l) => sum + l.height + 1, 0) > box.height) {
    const smallest = mine.reduce((a, b) => (b.share < a.share ? b : a));
    mine.splice(mine.indexOf(smallest), 1);
  }
  return mine.sort((a, b) => a.at - b.at);
}

/** A label at a height beside the ring, with its leader; one wider than its room ends in an ellipsis. */
function labelMarks(label: PlacedLabel, side: 1 | -1, y: number, ring: Centre, beside: Beside): Mark[] {
  const { box, size, theme, leaders } = beside;
  const { cx, cy, r } = ring;
  const from = polar(cx, cy, label.angle, r + 2);
  const elbow = polar(cx, cy, label.angle, r + ELBOW);
  // The label stands clear of the ring at its own height.
  const dy = Math.min(Math.abs(y - cy) - label.height / 2, r + ELBOW);
  const clear = dy > 0 ? Math.sqrt(Math.max(0, (r + ELBOW) ** 2 - dy * dy)) : r + ELBOW;
  const x = cx + side * Math.max(clear, side * (elbow.x - cx)) + side * GAP;
  const room = side > 0 ? box.x + box.width - x - GAP : x - box.x - GAP;
  const looks = label.lines.map((_, k) =>
    k < label.names
      ? ({ weight: 500, fill: theme.ink } as const)
      : ({ weight: 400, fill: theme.muted } as const),
  );
  const texts = label.lines.map((line, k) =>
    (k < label.names ? shorten : whole)(line, room, size, looks[k].weight),
  );
  if (room < size * 2 || texts[0] === "") return [];
  const leader: Mark = {
    type: "line",
    id: `leader:${label.key}`,
    part: "labels",
    stroke: theme.muted,
    strokeWidth: 0.75,
    opacity: 0.7,
    points: [
      [from.x, from.y],
      [elbow.x, elbow.y],
      [x - side, y],
    ],
  };
  const lines = texts.map((text, k) => {
    const lineY = y + (k - (texts.length - 1) / 2) * size * LINE_HEIGHT;
    const align = side > 0 ? "start" : "end";
    const line = { x: x + side * 2, y: lineY, text, size, ...looks[k], align } as const;
    return textMark(`label${k}:${label.key}`, "labels", line);
  });
  return leaders ? [leader, ...lines] : lines;
}

/**
 * Places labels beside a ring with leader lines. Labels that collide move; when a side is too crowded the
 * smallest shares lose theirs.
 */
export function outsideLabels(labels: OutsideLabel[], ring: Centre, beside: Beside): Mark[] {
  const { y, height } = beside.box;
  return ([1, -1] as const).flatMap((side) => {
    const mine = labelsOf(labels, side, ring, beside);
    const wanted = mine.map((l) => l.at);
    const heights = mine.map((l) => l.height);
    const middles = spread(wanted, heights, y, y + height);
    return mine.flatMap((label, i) => labelMarks(label, side, middles[i], ring, beside));
  });
}

/** The room to leave beside the ring: the widest label, at most a share of the box. */
export function outsideRoom(labels: OutsideLabel[], box: Box, size: number): number {
  const widest = Math.max(
    0,
    ...labels.flatMap((l) => l.lines.map((line, k) => textWidth(line, size, k < l.names ? 500 : 400))),
  );
  return Math.min(widest, box.width * 0.24) + ELBOW + 2 * GAP + 2;
}
