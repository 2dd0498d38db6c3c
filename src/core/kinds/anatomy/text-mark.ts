import type { Text } from "../../scene/marks";
import type { Weight } from "../../scene/text";

/** A line of text of a part; `y` is the middle of its height. */
export function textMark(
  id: string,
  part: string,
  x: number,
  y: number,
  text: string,
  size: number,
  weight: Weight,
  fill: string,
  align: Text["align"] = "start",
): Text {
  return { type: "text", id, part, x, y, text, size, weight, fill, align };
}
