import { filledIn } from "../../project/fixed-words";
import { restOf } from "../../rows/parts-and-whole";
import type { VisualData, VisualRow } from "../../rows/visual-data";
import { shareText } from "./goal";

/**
 * What is left of a whole beside its rows, where only the first of them are there and nothing stands for the
 * others; else zero. A picture of parts leaves it open, so that its shares are those of the whole.
 */
export const restBeside = (
  { isCut, addsUp, rows, total }: VisualData,
  { readOf = (row: VisualRow) => row.value, whole = total } = {},
): number => (isCut && addsUp ? restOf(rows.map(readOf), whole) : 0);

/**
 * Whether rows are shares of the whole that they make: they add up to it, and none lies below zero. Without a
 * split they are measures, whose sum is the whole.
 */
export const haveShares = ({ addsUp, rows }: VisualData): boolean =>
  (addsUp || rows.every((r) => r.format)) && rows.every((r) => (r.value ?? 0) >= 0);

/** "28 % not shown": what the foot says of the stretch that is left open; empty where none is. */
export const openWords = ({ words, format }: VisualData, share: number): string =>
  share > 0 ? filledIn(words.notShown, { share: shareText(share, format) }) : "";
