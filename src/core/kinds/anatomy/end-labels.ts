import type { Mark, Text } from "../../scene/marks";
import type { Bands } from "./axis";
import { dropColliding, type Edges } from "./clear-of";
import { textMark } from "./text-mark";

/** The end of a row's shape. */
export interface BandEnd {
  /** Its pixel along the scale. */
  at: number;
  negative: boolean;
  /** How far the shape goes beyond its value, in pixels. */
  reach: number;
  /** Half of its thickness. */
  half: number;
}

/** The label at the end of a shape: beside it, or above or below. */
function labelAt({ horizontal, centre, rows }: Bands, i: number, end: BandEnd, line: EndLine): Text {
  const gap = end.reach + 4;
  const sign = end.negative ? -1 : 1;
  const id = `label:${rows[i].key}`;
  if (horizontal)
    return textMark(id, "labels", {
      ...line,
      // A dash can begin a little past the value that it ends with.
      x: end.at + sign * (gap + 1.5),
      y: centre(i),
      align: end.negative ? "end" : "start",
    });
  return textMark(id, "labels", {
    ...line,
    x: centre(i),
    y: end.at - sign * (gap - 2 + line.size * 0.6),
    align: "middle",
  });
}
type EndLine = Pick<Text, "text" | "size" | "weight" | "fill">;

/** The box that a standing shape takes, from the base line to beyond its end. */
function standingBox({ base, centre }: Bands, i: number, { at, negative, reach, half }: BandEnd): Edges {
  return {
    left: centre(i) - half,
    right: centre(i) + half,
    top: Math.min(base, at - (negative ? 0 : reach)),
    bottom: Math.max(base, at + (negative ? reach : 0)),
  };
}

/**
 * The labels at the ends of rows, as many as have room, the largest values first; where no ink reads for a
 * row, it has none.
 */
export function endLabelMarks(
  bands: Bands,
  ends: BandEnd[],
  ink: string | ((row: number) => string | null),
): Mark[] {
  const { labels, horizontal, pitch, rows } = bands;
  if (!labels) return [];
  const { size } = labels;
  const made = ends.flatMap((end, i) => {
    const text = labels.texts[i];
    const fill = typeof ink === "string" ? ink : ink(i);
    if (!text || !fill) return [];
    const mark = labelAt(bands, i, end, { text, size, weight: 600, fill });
    return [{ mark, weight: Math.abs(rows[i].value ?? 0) }];
  });
  if (horizontal) return pitch >= size * 0.8 ? made.map((m) => m.mark) : [];
  return dropColliding(
    made,
    bands.whole,
    ends.map((end, i) => standingBox(bands, i, end)),
  );
}
