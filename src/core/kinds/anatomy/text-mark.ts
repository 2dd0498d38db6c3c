import type { Text } from "../../scene/marks";

type Line = Pick<Text, "x" | "y" | "text" | "size" | "weight" | "fill"> & Partial<Pick<Text, "align">>;

/** A line of text of a part; `y` is the middle of its height. */
export const textMark = (id: string, part: string, { align = "start", ...line }: Line): Text => ({
  type: "text",
  id,
  part,
  align,
  ...line,
});
