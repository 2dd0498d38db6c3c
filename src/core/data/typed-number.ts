import { readNumber } from "@/core/base/read-number";

/** The most digits that a typed number keeps when it is divided by 100. */
const DIGITS = 15;

/**
 * The numbers that a text can mean as a person types it, the likeliest first; none where it is no number.
 * Where a percent is meant, 92 % is 0.92; but 0.7 without a sign can be a share, 70 %, or seven tenths of a
 * percent, and 70 can be 70 % or the number 70, which nobody can tell but who typed it.
 */
export function meaningsOf(text: string, percent: boolean): number[] {
  const value = readNumber(text, ".") ?? readNumber(text, ",");
  if (value === null) return [];
  if (!percent || text.includes("%")) return [value];
  const asPercent = Number((value / 100).toPrecision(DIGITS));
  if (value === 0) return [0];
  return Math.abs(value) <= 1 ? [value, asPercent] : [asPercent, value];
}

/** Why a text will not do where there is no room to ask which number it means; null where it means one. */
export function unclear(text: string, percent: boolean): string | null {
  const means = meaningsOf(text, percent);
  if (means.length < 2) return null;
  return `“${text}” can be ${means.map((n) => writeTyped(n, true)).join(" or ")}. Write it with its %.`;
}

/** Whether a text is a number as a person types it. */
export const isTyped = (text: string, percent: boolean): boolean => meaningsOf(text, percent).length > 0;

/** A number as it is typed: a percent with its sign. */
export const writeTyped = (value: number, percent: boolean): string =>
  percent ? `${Number((value * 100).toPrecision(12))} %` : String(value);
