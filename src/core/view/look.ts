import { kindOf } from "../kinds";
import type { OwnFinish, Visual } from "../project/schema";

/** The fields of a visual that say how it looks; what stands in all others is its sentence. */
const LOOK_FIELDS: ReadonlySet<keyof Visual> = new Set(["dials", "size", "finish", "categoryColours"]);

/**
 * The dials of a visual's own that are a matter of look: not its texts, and not what is tied to its numbers.
 */
export function lookOf(visual: Pick<Visual, "kind" | "dials">): Visual["dials"] {
  const parts = kindOf(visual.kind).parts.filter((part) => !part.says);
  const looks = new Set(
    parts.flatMap((part) =>
      part.dials.filter((dial) => dial.type !== "template").map((dial) => `${part.id}.${dial.id}`),
    ),
  );
  return Object.fromEntries(Object.entries(visual.dials).filter(([key]) => looks.has(key)));
}

const texts = (dials: Visual["dials"]) =>
  Object.entries(dials).filter(([, value]) => typeof value === "string");

/**
 * Whether two states of a visual say the same sentence. Numbers and toggles of dials, and the size, are not
 * part of it; texts are, since they may name measures.
 */
export function saysTheSame(a: Visual, b: Visual): boolean {
  if (a === b) return true;
  const keys = Object.keys(a) as (keyof Visual)[];
  if (!keys.every((key) => LOOK_FIELDS.has(key) || a[key] === b[key])) return false;
  return a.dials === b.dials || JSON.stringify(texts(a.dials)) === JSON.stringify(texts(b.dials));
}

/**
 * The parts of a visual on which its data depend, besides the answer to its query; a picture of a
 * category is none.
 */
export function dataFieldsOf(visual: Visual): unknown[] {
  return (Object.keys(visual) as (keyof Visual)[])
    .filter((key) => !LOOK_FIELDS.has(key) && key !== "pictures")
    .map((key) => visual[key]);
}

/** Whether a finish sets a dial that a kind has; else only the finish that it is made from shows there. */
export const changesKind = (finish: Pick<OwnFinish, "dials">, kind: string): boolean =>
  kindOf(kind).parts.some((part) =>
    part.dials.some((dial) => Object.hasOwn(finish.dials, `${part.id}.${dial.id}`)),
  );
