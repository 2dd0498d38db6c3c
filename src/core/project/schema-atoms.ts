import { z } from "zod";
import { beyondWords, LONGEST, MOST, type Owner } from "./most";

// What all parts of the document are written with.

/** What names a thing within its list, and never changes. */
export const id = z
  .string()
  .min(1)
  .max(40)
  .regex(/^[A-Za-z0-9_-]+$/, "An id has only letters, digits, - and _.");

/** What people call a thing. */
export const name = z
  .string()
  .trim()
  .min(1, "A name is needed.")
  .max(LONGEST.name, `A name has at most ${LONGEST.name} characters.`);

/** A colour without transparency. */
export const colourSchema = z.string().regex(/^#[0-9a-f]{6}$/i, "A colour is written as #rrggbb.");

/** A list that holds no more than a document does. */
export const listOf = <T extends z.ZodType, O extends Owner>(
  entry: T,
  owner: O,
  list: keyof (typeof MOST)[O] & string,
) => z.array(entry).max(Number(MOST[owner][list]), beyondWords(owner, list));
