import type { Reading } from "./reading-schema";

const ORDER_WORDS = { ymd: "", dmy: ", day first", mdy: ", month first" } as const;

/** What a reading is called on screen. */
export function readingLabel({ type, decimal, dateOrder, pattern, epoch, kept }: Reading): string {
  if (type === "number") return decimal === "," ? "number, decimal comma" : "number";
  if (type === "boolean") return "true or false";
  if (type === "text") return kept?.length ? `text, ${kept.map((w) => `“${w}”`).join(", ")} kept` : "text";
  if (pattern) return `${type} as ${pattern}`;
  if (epoch) return `timestamp, ${epoch === "s" ? "seconds" : "milliseconds"} since 1970`;
  return `${type}${ORDER_WORDS[dateOrder ?? "ymd"]}`;
}

/** Names a reading by what it makes of cells, so that equal ones are told as equal. */
export function readingKey({ type, decimal, dateOrder, pattern, epoch, kept }: Reading): string {
  if (type === "number") return `number ${decimal ?? "."}`;
  if (type === "text" && kept?.length) return `text ${JSON.stringify(kept.toSorted())}`;
  if (type !== "date" && type !== "timestamp") return type;
  return `${type} ${pattern ? `pattern ${pattern}` : (epoch ?? dateOrder ?? "ymd")}`;
}
