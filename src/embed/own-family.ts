import { bringFamily } from "@/core/scene/families";
import { type BroughtWidths, bringWidths } from "@/core/scene/text";
import { EmbedError } from "./embed-error";

const known = new Map<string, string>();

const isRange = (r: unknown): boolean =>
  Array.isArray(r) && r.length === 2 && r.every((n) => Number.isInteger(n) && n >= 0 && n < 0x10000);

const isWidthList = (list: unknown): boolean =>
  Array.isArray(list) && list.every((n) => Number.isInteger(n) && n >= 0);

function isWidths(given: unknown): given is { name: string } & BroughtWidths {
  const { name, ranges, widths } = (given ?? {}) as Record<string, unknown>;
  return (
    typeof name === "string" &&
    name !== "" &&
    Array.isArray(ranges) &&
    ranges.every(isRange) &&
    typeof widths === "object" &&
    widths !== null &&
    Object.values(widths).length > 0 &&
    Object.values(widths).every(isWidthList)
  );
}

/**
 * Makes a type family of the page's own known, by the widths that scripts/make-widths.mjs wrote of it, so
 * that pictures are laid out in it; its fonts are loaded by the page. Throws a TypeError where
 * these are no widths.
 */
export function registerFamily(widths: unknown): string {
  if (!isWidths(widths))
    throw new TypeError("These are no widths of a family. Give what scripts/make-widths.mjs writes.");
  const id = bringFamily(widths.name);
  bringWidths(id, widths);
  known.set(widths.name, id);
  return widths.name;
}

/** The id of a family that was registered; undefined where none is asked for. Throws an EmbedError. */
export function familyIdOf(name: string): string | undefined {
  if (name === "") return undefined;
  const id = known.get(name);
  if (id !== undefined) return id;
  const advice = "Call registerFamily with its widths first.";
  throw new EmbedError("not-there", `The family ${name} is not known here. ${advice}`);
}
