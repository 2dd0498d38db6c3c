import type { Value } from "@/core/formula/value";

/**
 * A cell for CSV. A text that a spreadsheet would run as a formula gets an apostrophe before it; numbers stay numbers.
 */
export function csvCell(value: Value): string {
  if (value === null) return "";
  if (typeof value !== "string") return String(value);
  const guarded = /^[\s]*[=+\-@\t\r]/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(guarded) ? `"${guarded.replaceAll('"', '""')}"` : guarded;
}
