import type { Box } from "../../scene/box";
import type { Theme } from "../../scene/colour";
import type { Mark } from "../../scene/marks";
import { LINE_HEIGHT, shorten, textWidth } from "../../scene/text";
import { polar } from "../anatomy/angles";
import { textMark } from "../anatomy/text-mark";

/** What is said of a slice beside the ring. */
export interface OutsideLabel {
  key: string;
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

/**
 * Places labels beside a ring with leader lines. Labels that collide move; when a side is too crowded the
 * smallest shares lose theirs. Gives the marks; a label wider than its room ends in an ellipsis.
 */
export function outsideLabels(
  labels: OutsideLabel[],
  ring: { cx: number; cy: number; r: number },
  box: Box,
  size: number,
  theme: Theme,
  leaders: boolean,
): Mark[] {
  const marks: Mark[] = [];
  for (const side of [1, -1] as const) {
    let mine = labels
      .filter((l) => (Math.sin((l.angle * Math.PI) / 180) >= 0 ? 1 : -1) === side)
      .map((l) => ({
        ...l,
        height: l.lines.length * size * LINE_HEIGHT,
        at: polar(ring.cx, ring.cy, l.angle, ring.r + ELBOW).y,
      }));
    while (mine.length > 0 && mine.reduce((sum, l) => sum + l.height + 1, 0) > box.height) {
      const smallest = mine.reduce((a, b) => (b.share < a.share ? b : a));
      mine = mine.filter((l) => l !== smallest);
    }
    mine.sort((a, b) => a.at - b.at);
    const middles = spread(
      mine.map((l) => l.at),
      mine.map((l) => l.height),
      box.y,
      box.y + box.height,
    );
    for (const [i, label] of mine.entries()) {
      const y = middles[i];
      const from = polar(ring.cx, ring.cy, label.angle, ring.r + 2);
      const elbow = polar(ring.cx, ring.cy, label.angle, ring.r + ELBOW);
      // The label stands clear of the ring at its own height.
      const dy = Math.min(Math.abs(y - ring.cy) - label.height / 2, ring.r + ELBOW);
      const clear = dy > 0 ? Math.sqrt(Math.max(0, (ring.r + ELBOW) ** 2 - dy * dy)) : ring.r + ELBOW;
      const x = ring.cx + side * Math.max(clear, side * (elbow.x - ring.cx)) + side * GAP;
      const room = side > 0 ? box.x + box.width - x - GAP : x - box.x - GAP;
      const texts = label.lines.map((line, k) => shorten(line, room, size, k < label.names ? 500 : 400));
      if (room < size * 2 || texts[0] === "") continue;
      if (leaders)
        marks.push({
          type: "line",
          id: `leader:${label.key}`,
          part: "labels",
          stroke: theme.muted,
          strokeWidth: 0.75,
          opacity: 0.7,
          points: [
            [from.x, from.y],
            [elbow.x, elbow.y],
            [x - side * 1, y],
          ],
        });
      for (const [k, text] of texts.entries()) {
        const lineY = y + (k - (texts.length - 1) / 2) * size * LINE_HEIGHT;
        marks.push(
          textMark(`label${k}:${label.key}`, "labels", {
            x: x + side * 2,
            y: lineY,
            text,
            size,
            weight: k < label.names ? 500 : 400,
            fill: k < label.names ? theme.ink : theme.muted,
            align: side > 0 ? "start" : "end",
          }),
        );
      }
    }
  }
  return marks;
}

/** The room to leave beside the ring: the widest label, at most a share of the box. */
export function outsideRoom(labels: OutsideLabel[], box: Box, size: number): number {
  const widest = Math.max(
    0,
    ...labels.flatMap((l) => l.lines.map((line, k) => textWidth(line, size, k < l.names ? 500 : 400))),
  );
  return Math.min(widest, box.width * 0.24) + ELBOW + 2 * GAP + 2;
}
