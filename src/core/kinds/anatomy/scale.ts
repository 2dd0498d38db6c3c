import type { NumberFormat } from "../../base/number-format";

/** What a kind does with a value past the end of its scale. */
export type PastEnd = "hold" | "lap" | "extend";

/** A scale from minimum to maximum, and where a value stands on it. */
export interface Scale {
  minimum: number;
  maximum: number;
}

/** The next number of the form 1, 2, 2.5 or 5 times a power of ten at or above x. */
export function niceAbove(x: number): number {
  if (!(x > 0) || !Number.isFinite(x)) return 1;
  const power = 10 ** Math.floor(Math.log10(x));
  const step = [1, 2, 2.5, 5, 10].find((s) => s * power >= x * (1 - 1e-9)) ?? 10;
  return step * power;
}

/** What an end of a scale is that nobody set: a round number at or a little above x. */
export function roundAbove(x: number): number {
  if (!(x > 0) || !Number.isFinite(x)) return 1;
  const power = 10 ** Math.floor(Math.log10(x));
  const step = ROUND.find((s) => s * power >= x * (1 - 1e-9)) ?? 10;
  return Number((step * power).toPrecision(12));
}
const ROUND = [1, 1.1, 1.2, 1.25, 1.5, 1.75, 2, 2.5, 3, 3.5, 4, 5, 6, 7, 8, 9, 10];

/**
 * The scale's ends where the sentence names them, else what suits the value, its target and the edges of its
 * zones: a percent runs to 1, all else to a round number above.
 */
export function scaleOf(ends: {
  minimum: number | null;
  maximum: number | null;
  target: number | null;
  value: number | null;
  /** What the value is before anything is filtered, where it is now: the scale stands still. */
  still?: number | null;
  edges?: readonly number[];
  format: NumberFormat;
  past: PastEnd;
}): Scale {
  const { value, still = null, target, format, edges = [] } = ends;
  const minimum = ends.minimum ?? 0;
  const reach = Math.max(target ?? 0, still ?? value ?? 0, ...edges);
  let maximum = ends.maximum ?? (format.style === "percent" ? 1 : niceAbove(reach * 1.1));
  if (!(maximum > minimum)) maximum = minimum + 1;
  if (ends.past === "extend" && value !== null && value > maximum)
    maximum = format.style === "percent" ? Math.ceil(value * 10) / 10 : minimum + niceAbove(value - minimum);
  return { minimum, maximum };
}

/** The share of the scale that a value covers; below 0 and above 1 past the ends. */
export function shareOf(value: number, { minimum, maximum }: Scale): number {
  return (value - minimum) / (maximum - minimum);
}

/** `x`, held between two bounds. */
export const clamp = (x: number, low = 0, high = 1) => Math.min(high, Math.max(low, x));
