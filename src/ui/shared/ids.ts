import { nanoid } from "nanoid";
import { cutText } from "@/core/base/cut-text";
import { sameName } from "@/core/base/names";

/** A fresh id for a part of the document. */
export const newId = () => nanoid(10);

/** So many characters has a name at most, as documents are checked. */
const LONGEST = 120;

/** A label that is not taken yet, and not too long: "New measure", "New measure 2", … */
export function freeLabel(label: string, taken: string[]): string {
  let candidate = cutText(label, LONGEST).trimEnd();
  for (let n = 2; taken.some((t) => sameName(t, candidate)); n++)
    candidate = `${cutText(label, LONGEST - ` ${n}`.length).trimEnd()} ${n}`;
  return candidate;
}
