import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Mark } from "../../scene/marks";
import { LINE_HEIGHT, SMALLEST, wrap } from "../../scene/text";
import { textMark } from "./text-mark";

/** What names beside rows are written with. */
interface NamesBeside {
  part: string;
  ink: string;
  /** The right edge of the names, and the room they have. */
  right: number;
  width: number;
  size: number;
  pitch: number;
  /** The pixel of a row's middle. */
  centre: (row: number) => number;
}

/** Names at the left of their rows, on at most two lines each. */
export function namesBeside(rows: VisualRow[], wanted: NamesBeside): Mark[] {
  const { part, ink, right, width, size, pitch, centre } = wanted;
  const most = pitch >= size * 2.5 ? 2 : 1;
  return rows.flatMap((row, i) => {
    const lines = wrap(row.label, width - 8, size, 400, most);
    return lines.map((text, k) => {
      const y = centre(i) + (k - (lines.length - 1) / 2) * size * LINE_HEIGHT;
      const line = { x: right - 8, y, text, size, weight: 400, fill: ink, align: "end" } as const;
      return { ...textMark(`name${k}:${row.key}`, part, line), names: row.key };
    });
  });
}

/** How names under bands are written: how many bands apart, how large, on how many lines. */
export interface NamesUnder {
  every: number;
  size: number;
  lines: string[][];
}

/** The pixels that names under bands take. */
export const namesHeight = (names: NamesUnder): number =>
  Math.max(...names.lines.map((l) => l.length)) * names.size * LINE_HEIGHT;

/** How the names of bands of a pitch are written in a room of a height; null where they cannot be. */
export function namesUnder(rows: VisualRow[], pitch: number, size: number, room: number): NamesUnder | null {
  const most = room >= size * 2.6 ? 2 : 1;
  const isWhole = (label: string, lines: string[]) =>
    lines.join("").replace(/\s/g, "") === label.replace(/\s/g, "");
  const written = (row: VisualRow, at: number, every: number) =>
    wrap(row.label, pitch * every - 4, at, 400, most);
  /** All names at a size, or null as soon as one of them does not do. */
  const writes = (at: number, does: (label: string, lines: string[]) => boolean): string[][] | null => {
    const all: string[][] = [];
    for (const row of rows) {
      const lines = written(row, at, 1);
      if (!does(row.label, lines)) return null;
      all.push(lines);
    }
    return all;
  };
  for (const at of [size, SMALLEST]) {
    const lines = at > size ? null : writes(at, isWhole);
    if (lines) return { every: 1, size: at, lines };
  }
  // What is cut must still be told apart: bands too narrow for that are named in steps.
  const isLegible = (label: string, lines: string[]) =>
    (pitch >= 30 && lines.join("").length > 5) || isWhole(label, lines);
  const cut = writes(SMALLEST, isLegible);
  if (cut && new Set(cut.map((l) => l.join(" "))).size === new Set(rows.map((r) => r.label)).size)
    return { every: 1, size: SMALLEST, lines: cut };
  const every = Math.max(1, Math.ceil(38 / pitch));
  if (every > rows.length && rows.length > 1) return null;
  return { every, size: SMALLEST, lines: rows.map((row) => written(row, SMALLEST, every)) };
}

/** Where names under bands stand. */
interface UnderPlace {
  ink: string;
  /** The edges that no name leaves, and the foot that the last line stands on. */
  whole: Box;
  foot: number;
  pitch: number;
  centre: (row: number) => number;
}

/** The marks of names under bands; in steps, a name may be wider than its band, but not than what is left. */
export function underMarks(rows: VisualRow[], names: NamesUnder, place: UnderPlace): Mark[] {
  const { ink, whole, pitch, centre } = place;
  const { every, size } = names;
  const top = place.foot - namesHeight(names);
  return rows.flatMap((row, i) => {
    if (i % every !== Math.floor((every - 1) / 2)) return [];
    const x = centre(i);
    const room = 2 * Math.min(x - whole.x, whole.x + whole.width - x);
    const lines =
      every > 1
        ? wrap(row.label, Math.min(pitch * every - 4, room), size, 400, names.lines[i].length)
        : names.lines[i];
    return lines.map((text, k) => {
      const y = top + size * LINE_HEIGHT * (k + 0.5);
      return textMark(`name${k}:${row.key}`, "axis", {
        x,
        y,
        text,
        size,
        weight: 400,
        fill: ink,
        align: "middle",
      });
    });
  });
}
