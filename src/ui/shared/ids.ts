import { nanoid } from "nanoid";
import { sameName } from "@/core/base/names";

/** A fresh id for a part of the document. */
export const newId = () => nanoid(10);

/** A label that is not taken yet: "New measure", "New measure 2", … */
export function freeLabel(label: string, taken: string[]): string {
  let candidate = label;
  for (let n = 2; taken.some((t) => sameName(t, candidate)); n++) candidate = `${label} ${n}`;
  return candidate;
}
