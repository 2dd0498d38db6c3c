import { readingKey, readingLabel } from "@/core/data/reading-label";
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
    { type: "timestamp", dateOrder: "ymd" },
    { type: "timestamp", dateOrder: "dmy" },
    { type: "timestamp", dateOrder: "mdy" },
    { type: "timestamp", epoch: "s" },
    { type: "timestamp", epoch: "ms" },
  ] satisfies Reading[]
).map((reading) => ({ reading, value: readingKey(reading), label: readingLabel(reading) }));
