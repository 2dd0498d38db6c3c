import { subjectOf } from "./row-key";
import type { VisualRow } from "./visual-data";

/** What a visual has a picture of: the key that it is kept under, and how it is called. */
export interface Pictured {
  key: string;
  label: string;
}

/**
 * The key that the picture of a row is kept under: a category by its label, a measure by its id, the whole by
 * an empty text. Nothing but categories have rows beside it, so that none of them meet.
 */
export function pictureKey({ key, label }: Pick<VisualRow, "key" | "label">): string {
  const subject = subjectOf(key);
  if (subject.type === "whole") return "";
  return subject.type === "measure" ? subject.id : label;
}

/** What a visual of these rows can have pictures of. */
export const picturedIn = (rows: readonly Pick<VisualRow, "key" | "label">[]): Pictured[] =>
  rows.map((row) => ({
    key: pictureKey(row),
    label: subjectOf(row.key).type === "whole" ? "the whole" : row.label,
  }));
