import { readingLabel } from "@/core/data/reading";
import type { Reading } from "@/core/data/reading-schema";

/** The ways to read a column, as a list to choose from. */
export const READINGS: { value: string; label: string; reading: Reading }[] = (
  [
    { type: "number", decimal: "." },
    { type: "number", decimal: "," },
    { type: "text" },
    { type: "boolean" },
    { type: "date", dateOrder: "ymd" },
    { type: "date", dateOrder: "dmy" },
    { type: "date", dateOrder: "mdy" },
    { type: "timestamp" },
  ] satisfies Reading[]
).map((reading) => ({ reading, value: readingKey(reading), label: readingLabel(reading) }));

export function readingKey(reading: Reading): string {
  if (reading.type === "number") return `number ${reading.decimal ?? "."}`;
  return reading.type === "date" ? `date ${reading.dateOrder ?? "ymd"}` : reading.type;
}
