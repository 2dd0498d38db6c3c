import { covers } from "../../scene/hit";
import type { Mark, Text } from "../../scene/marks";
import { textWidth } from "../../scene/text";

interface Edges {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** The edges of a line of text, with its capitals and figures. */
function edgesOf(text: Text): Edges {
  const width = textWidth(text.text, text.size, text.weight);
  const left = text.align === "start" ? text.x : text.align === "end" ? text.x - width : text.x - width / 2;
  return { left, right: left + width, top: text.y - text.size * 0.4, bottom: text.y + text.size * 0.4 };
}

const meet = (a: Edges, b: Edges) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/** Whether a text lies on a shape, looked at in nine points. */
function liesOn(box: Edges, shape: Mark): boolean {
  return [0.02, 0.5, 0.98].some((fx) =>
    [0.05, 0.5, 0.95].some((fy) =>
      covers(shape, box.left + (box.right - box.left) * fx, box.top + (box.bottom - box.top) * fy),
    ),
  );
}

/**
 * The marks without those texts that would lie on others of them, or on texts and shapes that stand already.
 */
export function clearOf(marks: Mark[], standing: Mark[]): Mark[] {
  const texts = standing.filter((m): m is Text => m.type === "text").map(edgesOf);
  const shapes = standing.filter((m) => m.type !== "text");
  return marks.filter((mark) => {
    if (mark.type !== "text") return true;
    const box = edgesOf(mark);
    if (texts.some((t) => meet(t, box)) || shapes.some((s) => liesOn(box, s))) return false;
    texts.push(box);
    return true;
  });
}
