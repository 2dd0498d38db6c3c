import type { Value } from "@/core/base/value";

/** Signs with which a formula begins in a spreadsheet, the full-width ones of East Asian keyboards too. */
const BEGINS_FORMULA = /^(\s*)([=+\-@\t\r＝＋－＠﹦﹢﹣﹫])/u;
/** The same after a sign that some spreadsheets take for the end of a cell, in whatever quotes it stands. */
const AFTER_SEPARATOR = /([;,|\t\r\n"])(\s*[=+@＝＋＠﹦﹢﹫])/gu;

/**
 * A cell for CSV (RFC 4180). A text that a spreadsheet would run as a formula, from its beginning or after a
 * separator inside, gets an apostrophe there; numbers stay numbers.
 */
export function csvCell(value: Value): string {
  if (value === null) return "";
  if (typeof value !== "string") return String(value);
  const guarded = value.replace(BEGINS_FORMULA, "'$1$2").replace(AFTER_SEPARATOR, "$1'$2");
  return /[",;|\t\r\n]/.test(guarded) ? `"${guarded.replaceAll('"', '""')}"` : guarded;
}
