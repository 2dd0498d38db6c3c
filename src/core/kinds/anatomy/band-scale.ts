import { formatNumber, inOneUnit } from "../../base/number-format";
import type { Box } from "../../scene/box";
import type { Mark } from "../../scene/marks";
import { SMALLEST, textWidth } from "../../scene/text";
import type { Bands, BandsInput, Domain } from "./axis";
import { niceAbove } from "./scale";
import { textMark } from "./text-mark";

/** A scale of more lines than this would be a grey sheet. */
const MOST_LINES = 40;

/**
 * The scale that holds all values and where bars start: at `start`, else at zero. With grid lines it ends on
 * one.
 */
export function domainOf(reach: number[][], grid: number, start: number | undefined): Domain {
  const all = reach.flat().filter(Number.isFinite);
  let low = Math.min(start ?? 0, ...all);
  let high = Math.max(start ?? 0, ...all);
  if (start !== undefined && start > Math.min(...all)) low = Math.min(...all);
  if (!(high > low)) high = low + Math.max(1, Math.abs(low));
  if (grid > 0 && start === undefined) {
    const step = niceAbove((high - low) / grid);
    low = Math.floor(low / step - 1e-9) * step;
    high = Math.ceil(high / step - 1e-9) * step;
  }
  return { low, high };
}

/** A line across the whole plot, at a pixel of the scale. */
export function rule({ horizontal, plot }: Bands, id: string, at: number, stroke: string): Mark {
  const [start, end] = horizontal ? [plot.y, plot.y + plot.height] : [plot.x, plot.x + plot.width];
  const point = (across: number): [number, number] => (horizontal ? [at, across] : [across, at]);
  return { type: "line", id, part: "axis", stroke, strokeWidth: 1, points: [point(start), point(end)] };
}

/** Grid lines at round values, and under those of a horizontal scale their numbers, as far as they have room. */
export function gridMarks(input: BandsInput, whole: Box, bands: Bands): Mark[] {
  const { style, theme, data } = input;
  const { horizontal, plot, low, high } = bands;
  const grid = style.number("axis.grid");
  if (grid === 0 || (horizontal ? plot.width : plot.height) <= 60) return [];
  const large = Math.max(Math.abs(low), Math.abs(high)) >= 1e4;
  const step = niceAbove((high - low) / grid);
  const bySize = { ...data.format, units: large ? ("automatic" as const) : data.format.units };
  const format = inOneUnit(bySize, [low, high, step]);
  const marks: Mark[] = [];
  let clear = Number.NEGATIVE_INFINITY;
  const first = Math.ceil(low / step - 1e-9);
  for (let k = first; k * step <= high + step * 1e-6 && k - low / step <= MOST_LINES; k++) {
    const value = Math.abs(k * step) < step * 1e-9 ? 0 : k * step;
    marks.push(rule(bands, `grid:${k}`, bands.at(value), theme.rule));
    if (!horizontal) continue;
    const text = formatNumber(value, format);
    const half = textWidth(text, SMALLEST, 400) / 2;
    const x = Math.min(Math.max(bands.at(value), whole.x + half), whole.x + whole.width - half);
    if (x - half < clear + 4) continue;
    clear = x + half;
    const y = plot.y + plot.height + SMALLEST;
    const line = { x, y, text, size: SMALLEST, weight: 400, fill: theme.muted, align: "middle" } as const;
    marks.push(textMark(`gridvalue:${k}`, "axis", line));
  }
  return marks;
}
