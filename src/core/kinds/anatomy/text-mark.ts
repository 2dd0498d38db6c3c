import type { Text } from "../../scene/marks";

/** Between a name and what is said of it: SVG would draw two plain spaces as one. */
export const APART = "\u00a0 ";

type Line = Pick<Text, "x" | "y" | "text" | "size" | "weight" | "fill"> & Partial<Pick<Text, "align">>;

/** A line of text of a part; `y` is the middle of its height. */
export const textMark = (id: string, part: string, { align = "start", ...line }: Line): Text => ({
  type: "text",
  id,
  part,
  align,
  ...line,
});
