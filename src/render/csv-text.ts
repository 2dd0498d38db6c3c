import type { Result } from "@/core/engine/query";
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

/** A result as CSV with a head row (RFC 4180, UTF-8); the row of Other says so. */
export function csvText(result: Result): string {
  const rows = Array.from({ length: result.rows }, (_, i) => result.columns.map((c, k) => (k === 0 && result.others?.row === i ? "Other" : c.values[i])));
  return `${[result.columns.map((c) => c.name), ...rows].map((row) => row.map(csvCell).join(",")).join("\r\n")}\r\n`;
}
