import { nanoid } from "nanoid";
import { cutText } from "@/core/base/cut-text";
import { sameName } from "@/core/base/names";
import { LONGEST } from "@/core/project/most";

/** A fresh id for a part of the document. */
export const newId = () => nanoid(10);

/** A label that is not taken yet, and not too long: "New measure", "New measure 2", … */
export function freeLabel(label: string, taken: string[]): string {
  let candidate = cutText(label, LONGEST.name).trimEnd();
  for (let n = 2; taken.some((t) => sameName(t, candidate)); n++)
    candidate = `${cutText(label, LONGEST.name - ` ${n}`.length).trimEnd()} ${n}`;
  return candidate;
}
