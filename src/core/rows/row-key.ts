import type { Value } from "../base/value";

/**
 * What a row stands for: a category of the data by its value (dates as ISO 8601 text), a measure, what was
 * put together, what a link finds no match for, or all rows of a visual without a split.
 */
export type RowSubject =
  | { type: "category"; value: Value }
  | { type: "measure"; id: string }
  | { type: "other" }
  | { type: "no match" }
  | { type: "whole" };

/** Which of a visual's two splits a category is of. */
export type Side = "split" | "series";

declare const rowKeyBrand: unique symbol;
/**
 * Names a row by what it stands for, and keeps the type of its category: true, "true" and null are three
 * keys. It is a text, so that it can name marks, order maps and stand in an address; only `rowKey` makes one.
 */
export type RowKey = string & { readonly [rowKeyBrand]: true };

/** The key of what a row stands for; two of the same have the same key, and no others. */
export function rowKey(subject: RowSubject): RowKey {
  const { type } = subject;
  if (type === "category") return `${type}:${JSON.stringify(subject.value)}` as RowKey;
  return (type === "measure" ? `${type}:${subject.id}` : type) as RowKey;
}

/** What the row of a key stands for, its category with its type. */
export function subjectOf(key: RowKey): RowSubject {
  const end = key.indexOf(":");
  if (end < 0) return { type: key as string as "other" | "no match" | "whole" };
  const rest = key.slice(end + 1);
  return key.startsWith("measure:")
    ? { type: "measure", id: rest }
    : { type: "category", value: JSON.parse(rest) };
}

/** The key of a category by its value in the data. */
export const categoryKey = (value: Value): RowKey => rowKey({ type: "category", value });
