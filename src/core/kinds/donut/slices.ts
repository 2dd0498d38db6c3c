import type { NumberFormat } from "../../base/number-format";
import type { RowKey } from "../../rows/row-key";
import type { VisualRow } from "../../rows/visual-data";
import type { Colours } from "../anatomy/colours";
import type { SceneInput } from "../anatomy/kind";
import { haveShares, restBeside } from "../anatomy/rest";
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
  /** Whether its slices are shares of a whole. */
  hasShares: boolean;
  all: Slice[];
  /** The stretch of what is part of the whole and has no row; null where the slices are all of it. */
  open: OpenStretch | null;
  inner: number;
}

/** A stretch of a ring that no row fills: its share of the whole, and its angles in degrees. */
export type OpenStretch = Pick<Slice, "share" | "start" | "end">;

/** Where a ring is swept from, and whether clockwise (1) or against it (-1), in degrees. */
export function sweepOf(style: Input["style"]) {
  const [start, sweep] = [style.number("arc.start"), style.number("arc.sweep")];
  const sign = style.choice("arc.direction") === "counter" ? -1 : 1;
  const from = sign < 0 ? start - sweep : start;
  return { start, sweep, sign, from, to: from + sweep };
}

/** The slices of a ring, and the stretch that they leave open. */
type Sliced = Pick<Ring, "all" | "open">;

/**
 * Shares of the positive values around a ring, of `total` where only the first rows are there: what they leave
 * of it stays open. Values at or below zero have no place in a whole; the caller says so.
 */
export function slicesOf(
  { data, style }: Input,
  colours: Colours,
  readOf: (row: VisualRow) => number | null,
  total: number | null,
): Sliced {
  const rest = restBeside(data, { readOf, whole: total });
  const parts = data.rows.flatMap((row, index) => {
    const value = readOf(row);
    return value !== null && value > 0 ? [{ row, index, value }] : [];
  });
  // The largest part scales the others first, so that a sum of huge values cannot overflow.
  const largest = Math.max(...parts.map((p) => p.value));
  const whole = parts.reduce((sum, p) => sum + p.value / largest, rest / largest);
  const { start, sweep, sign } = sweepOf(style);
  let at = start;
  let before = 0;
  const next = (share: number, isLast: boolean): OpenStretch => {
    before += share;
    const to = start + sign * sweep * (isLast ? 1 : before);
    const stretch = { share, start: Math.min(at, to), end: Math.max(at, to) };
    at = to;
    return stretch;
  };
  const all = parts.map(({ row, index, value }, i) => ({
    row,
    value,
    ...next(value / largest / whole, rest === 0 && i === parts.length - 1),
    color: colours.of(row, index),
  }));
  return { all, open: rest > 0 && all.length > 0 ? next(rest / largest / whole, true) : null };
}

/** The rings from the outside in: one for each of the series, or one for the value. */
export function ringsOf(input: Input, colours: Colours, centre: Centre): Ring[] {
  const { data, style } = input;
  const { r } = centre;
  const hole = (r * style.number("arc.hole")) / 100;
  const wanted: Omit<Ring, keyof Centre | "inner">[] = data.series.length
    ? data.series.map(({ key, label, format, total, addsUp = data.addsUp }, k) => ({
        key,
        label,
        ...(format ? { format } : {}),
        hasShares: addsUp && data.rows.every((row) => (row.cells[k] ?? 0) >= 0),
        ...slicesOf(input, colours, (row) => row.cells[k] ?? null, total),
      }))
    : [
        {
          key: null,
          label: "",
          hasShares: haveShares(data),
          ...slicesOf(input, colours, (row) => row.value, data.total),
        },
      ];
  const gap = Math.min(style.number("arc.ringGap"), (r - hole) / (wanted.length * 1.6));
  const each = (r - hole - gap * (wanted.length - 1)) / wanted.length;
  return wanted.map((ring, k) => {
    const outer = r - k * (each + gap);
    return { ...ring, ...centre, r: outer, inner: Math.max(0, outer - each) };
  });
}
