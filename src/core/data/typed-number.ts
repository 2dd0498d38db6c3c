import { readNumber } from "@/core/base/read-number";

/** The most digits that a typed number keeps when it is divided by 100. */
const DIGITS = 15;

/**
 * The numbers that a text can mean as a person types it, the likeliest first; none where it is no number.
 * Where a percent is meant, 92 and 92 % are both 0.92; but 0.7 can be a share, 70 %, or seven tenths of a
 * percent, which nobody can tell but who typed it.
 */
export function meaningsOf(text: string, percent: boolean): number[] {
  const value = readNumber(text, ".") ?? readNumber(text, ",");
  if (value === null) return [];
  if (!percent || text.includes("%")) return [value];
  const asPercent = Number((value / 100).toPrecision(DIGITS));
  return value !== 0 && Math.abs(value) <= 1 ? [value, asPercent] : [asPercent];
}

/** Whether a text is a number as a person types it. */
export const isTyped = (text: string, percent: boolean): boolean => meaningsOf(text, percent).length > 0;

/** A number as it is typed: a percent with its sign. */
export const writeTyped = (value: number, percent: boolean): string =>
  percent ? `${Number((value * 100).toPrecision(12))} %` : String(value);
