import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Mark } from "../../scene/marks";
import { SMALLEST, shorten, textWidth } from "../../scene/text";
import type { Centre } from "./rings";
import type { SharedInput } from "./shared-parts";
import { APART, textMark } from "./text-mark";

/** Rings with the rows they stand for, and where they stand. */
export interface NamedRings {
  rows: VisualRow[];
  rings: { inner: number; outer: number }[];
  centre: Centre;
  body: Box;
  start: number;
  sweep: number;
}

/** Rings that sweep farther leave no opening at their start. */
const MOST_SWEEP = 300;
/** Between a name and the start of its ring. */
const GAP = 7;

/** How names stand at the start of their rings, or in them. */
export interface RingNames {
  marks: Mark[];
  /** Whether every name stands there whole. */
  isWhole: boolean;
}

/** Where several rings can carry their names. */
export const RING_PLACES = [
  ["auto", "where they fit"],
  ["start", "at the start"],
  ["track", "in the track"],
  ["legend", "in the legend"],
] as const;

/** A name and what is said of it; a long name is cut before its value is. */
function onOneLine([name, said]: string[], room: number, size: number): string {
  const tail = said ? APART + said : "";
  if (textWidth(name + tail, size, 500) <= room) return name + tail;
  return shorten(name, room - textWidth(tail, size, 500), size, 500) + tail;
}

/**
 * The names of rings in the opening before their start, each at the height of its ring; what is said of a row
 * is its name and, after it, a value. Null where the sweep leaves no opening at the top, or rings are too
 * narrow for a text.
 */
export function namesAtStart(
  { theme }: SharedInput,
  { rows, rings, centre, body, start, sweep }: NamedRings,
  wanted: number,
  write: (row: VisualRow) => string[],
): RingNames | null {
  const { cx, cy, r } = centre;
  const [first, second] = rings;
  const pitch = second ? first.outer - second.outer : first.outer - first.inner + 4;
  const size = Math.min(wanted, pitch * 0.98);
  if (start !== 0 || sweep > MOST_SWEEP || size < SMALLEST) return null;
  // Over a part of the circle the arc may come round again.
  const room = Math.min(cx - body.x - GAP, sweep > 270 ? r * 0.9 : Number.POSITIVE_INFINITY);
  const texts = rows.map((row) => {
    const wording = write(row);
    return wording.length ? onOneLine(wording, room, size).trim() : "";
  });
  const fits = texts.every((text) => textWidth(text, size, 500) <= room);
  const isWhole = fits && texts.every((text) => !text.includes("…"));
  const marks = texts.flatMap((text, i) => {
    if (!text || textWidth(text, size, 500) > room) return [];
    const y = cy - (rings[i].inner + rings[i].outer) / 2;
    const look = { size, weight: 500, fill: theme.ink, align: "end" } as const;
    const mark = textMark(`name:${rows[i].key}`, "labels", { x: cx - GAP, y, text, ...look });
    return [{ ...mark, names: rows[i].key }];
  });
  return { marks, isWhole };
}
