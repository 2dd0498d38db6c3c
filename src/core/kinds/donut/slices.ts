import type { NumberFormat } from "../../base/number-format";
import type { RowKey } from "../../rows/row-key";
import type { VisualRow } from "../../rows/visual-data";
import type { Colours } from "../anatomy/colours";
import type { SceneInput } from "../anatomy/kind";
import type { Centre } from "../anatomy/rings";
import type { DonutPart } from "./parts";

type Input = SceneInput<DonutPart>;

/** A row's part of a ring: its share of the whole, and its angles in degrees. */
export interface Slice {
  row: VisualRow;
  value: number;
  share: number;
  start: number;
  end: number;
  color: string;
}

/** One of the concentric rings: what it stands for, its slices, and its radii. */
export interface Ring extends Centre {
  /** The series, or null where the ring is the only one. */
  key: RowKey | null;
  label: string;
  /** The format of the measure that the ring stands for; the value's where it is a series. */
  format?: NumberFormat;
  all: Slice[];
  inner: number;
}

/** Where a ring is swept from, and whether clockwise (1) or against it (-1), in degrees. */
export function sweepOf(style: Input["style"]) {
  const [start, sweep] = [style.number("arc.start"), style.number("arc.sweep")];
  const sign = style.choice("arc.direction") === "counter" ? -1 : 1;
  const from = sign < 0 ? start - sweep : start;
  return { start, sweep, sign, from, to: from + sweep };
}

/**
 * Shares of the positive values around a ring. Values at or below zero have no place in a whole; the caller
 * says so.
 */
export function slicesOf(
  { data, style }: Input,
  colours: Colours,
  readOf: (row: VisualRow) => number | null,
): Slice[] {
  const parts = data.rows.flatMap((row, index) => {
    const value = readOf(row);
    return value !== null && value > 0 ? [{ row, index, value }] : [];
  });
  // The largest part scales the others first, so that a sum of huge values cannot overflow.
  const largest = Math.max(...parts.map((p) => p.value));
  const whole = parts.reduce((sum, p) => sum + p.value / largest, 0);
  const { start, sweep, sign } = sweepOf(style);
  let at = start;
  let before = 0;
  return parts.map(({ row, index, value }, i) => {
    const share = value / largest / whole;
    before += share;
    const to = start + sign * sweep * (i === parts.length - 1 ? 1 : before);
    const [from, until] = [Math.min(at, to), Math.max(at, to)];
    at = to;
    return { row, value, share, start: from, end: until, color: colours.of(row, index) };
  });
}

/** The rings from the outside in: one for each of the series, or one for the value. */
export function ringsOf(input: Input, colours: Colours, centre: Centre): Ring[] {
  const { data, style } = input;
  const { r } = centre;
  const hole = (r * style.number("arc.hole")) / 100;
  const wanted: Pick<Ring, "key" | "label" | "format" | "all">[] = data.series.length
    ? data.series.map(({ key, label, format }, k) => ({
        key,
        label,
        format,
        all: slicesOf(input, colours, (row) => row.cells[k] ?? null),
      }))
    : [{ key: null, label: "", all: slicesOf(input, colours, (row) => row.value) }];
  const gap = Math.min(style.number("arc.ringGap"), (r - hole) / (wanted.length * 1.6));
  const each = (r - hole - gap * (wanted.length - 1)) / wanted.length;
  return wanted.map((ring, k) => {
    const outer = r - k * (each + gap);
    return { ...ring, ...centre, r: outer, inner: Math.max(0, outer - each) };
  });
}
