import type { Box } from "../../scene/box";
import { boundsOf, covers } from "../../scene/hit";
import type { Mark, Sector, Text } from "../../scene/marks";
import { textWidth } from "../../scene/text";

/** The edges of what stands on a picture, in pixels. */
export interface Edges {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/**
 * The edges of a line of text with its capitals and figures; `beside` and `half` are the room it asks for: at
 * each side in pixels, above and below its middle as a share of its size.
 */
function edgesOf(text: Text, beside: number, half: number): Edges {
  const width = textWidth(text.text, text.size, text.weight);
  const before = { start: 0, middle: width / 2, end: width }[text.align];
  const left = text.x - before;
  return {
    left: left - beside,
    right: left + width + beside,
    top: text.y - text.size * half,
    bottom: text.y + text.size * half,
  };
}

const meet = (a: Edges, b: Edges) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/** Whether any of a box is as far from the centre of a ring as the ring is. */
function reaches({ left, right, top, bottom }: Edges, { cx, cy, inner, outer }: Sector): boolean {
  const away = (low: number, high: number, at: number) => Math.max(low - at, 0, at - high);
  const nearest = Math.hypot(away(left, right, cx), away(top, bottom, cy));
  const farthest = Math.hypot(
    Math.max(Math.abs(left - cx), Math.abs(right - cx)),
    Math.max(Math.abs(top - cy), Math.abs(bottom - cy)),
  );
  return nearest < outer && farthest > inner;
}

/** Points from one edge to another, at most so many pixels apart. */
function pointsBetween(from: number, to: number, apart: number): number[] {
  const steps = Math.max(1, Math.ceil((to - from) / apart));
  return Array.from({ length: steps + 1 }, (_, i) => from + ((to - from) * i) / steps);
}

/** Whether a text lies on a shape, looked at in points; polygons have thin tips. */
function liesOn(box: Edges, shape: Mark): boolean {
  if (!meet(box, boundsOf(shape)) || (shape.type === "sector" && !reaches(box, shape))) return false;
  const { left, right, top, bottom } = box;
  const apart = shape.type === "polygon" ? 1 : 3;
  const rows = pointsBetween(top, bottom, apart);
  return pointsBetween(left, right, apart).some((x) => rows.some((y) => covers(shape, x, y)));
}

/**
 * The marks without those texts that would lie on others of them, or on texts and shapes that stand already.
 */
export function clearOf(marks: Mark[], standing: Mark[]): Mark[] {
  const texts = standing.filter((m): m is Text => m.type === "text").map((t) => edgesOf(t, 0, 0.4));
  const shapes = standing.filter((m) => m.type !== "text");
  return marks.filter((mark) => {
    if (mark.type !== "text") return true;
    const box = edgesOf(mark, 0, 0.4);
    if (texts.some((t) => meet(t, box)) || shapes.some((s) => liesOn(box, s))) return false;
    texts.push(box);
    return true;
  });
}

/**
 * Keeps the texts of the largest weight and leaves out those that would lie on one of them, on a shape, or
 * outside the box.
 */
export function dropColliding(
  texts: { mark: Text; weight: number }[],
  within: Box,
  shapes: Edges[] = [],
): Mark[] {
  const kept: Mark[] = [];
  const taken = [...shapes];
  for (const { mark } of texts.toSorted((a, b) => b.weight - a.weight)) {
    const box = edgesOf(mark, 1, 0.5);
    if (box.left < within.x - 1 || box.right > within.x + within.width + 1) continue;
    if (taken.some((t) => meet(t, box))) continue;
    kept.push(mark);
    taken.push(box);
  }
  return kept;
}
