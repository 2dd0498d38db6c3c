import type { Letter } from "./marks";
import { textWidth, type Weight } from "./text";

/** A way around a centre: the radius of the middle of the letters, and the angle of the middle of the text. */
export interface Bend {
  cx: number;
  cy: number;
  r: number;
  /** Degrees, 0 at twelve o'clock, clockwise. */
  angle: number;
}

/** Scripts whose letters join, stack or run from the right: taken apart, they cannot be read. */
const JOINED = /[\u0590-\u109f\u1780-\u18af\ufb1d-\ufdff\ufe70-\ufeff]/;

/** Whether a text can be written letter by letter. */
export const isBendable = (text: string): boolean => !JOINED.test(text);

const clusters = new Intl.Segmenter(undefined, { granularity: "grapheme" });
const RAD = Math.PI / 180;

/**
 * The letters of a text around a centre, each with its middle and its turn (degrees, clockwise). In the lower
 * half they stand with their feet outwards and run the other way, so that no text is upside down.
 */
export function lettersAround(text: string, size: number, weight: Weight, bend: Bend): Letter[] {
  const { cx, cy, r, angle } = bend;
  const isBelow = Math.cos(angle * RAD) < 0;
  const way = isBelow ? -1 : 1;
  let at = -textWidth(text, size, weight) / 2;
  return [...clusters.segment(text)].flatMap(({ segment }) => {
    const width = textWidth(segment, size, weight);
    const turn = angle + (way * (at + width / 2)) / (r * RAD);
    at += width;
    if (segment.trim() === "") return [];
    const [x, y] = [cx + r * Math.sin(turn * RAD), cy - r * Math.cos(turn * RAD)];
    return [{ text: segment, x, y, turn: isBelow ? turn + 180 : turn }];
  });
}
