import { writeDay } from "@/core/base/date-pattern";
import { formatNumber, NO_VALUE } from "@/core/base/number-format";
import type { Value } from "@/core/base/value";
import type { Measure } from "@/core/project/schema";

/** What of a measure's format is set aside for a count of rows. */
export const WHOLE = { style: "number", units: "none", decimals: 0, prefix: "", suffix: "" } as const;

/** A value of a measure as it is shown: a number or a day in its format, a text as it is. */
export function shownValue(value: Value, measure: Measure): string {
  if (value === null) return NO_VALUE;
  return typeof value === "number"
    ? formatNumber(value, measure.format)
    : writeDay(String(value), measure.format);
}
