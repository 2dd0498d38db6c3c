import { readNumber } from "@/core/base/read-number";

/**
 * Reads a number as a person types it. Where a percent is meant, 92 and 92 % are both 0.92, so that 70 typed
 * for 0.7 is not taken as seven thousand percent.
 */
export function readTyped(text: string, percent: boolean): number | null {
  const value = readNumber(text, ".") ?? readNumber(text, ",");
  if (value === null) return null;
  return percent && !text.includes("%") ? Number((value / 100).toPrecision(15)) : value;
}
