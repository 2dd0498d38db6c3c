import { readFileSync } from "node:fs";
import { join } from "node:path";
import { furtherFamilies } from "@/core/scene/families";

/** A file with some signs of a family: which ones, by their code points from and to. */
interface Slice {
  name: string;
  family: string;
  spans: [number, number][];
}
let known: Slice[] | null = null;

/**
 * The slices, of the scripts that the shipped families lack, with the signs of these texts; those of the
 * family that is tried first come first. `folder` holds slices.json.
 */
export function slicesFor(texts: string[], folder: string): Slice[] {
  const families = furtherFamilies(texts);
  if (families.length === 0) return [];
  known ??= JSON.parse(readFileSync(join(folder, "slices.json"), "utf8")) as Slice[];
  let missing = new Set<number>();
  for (const text of texts)
    for (const char of text) {
      const code = char.codePointAt(0) as number;
      if (code >= 0x250) missing.add(code);
    }
  const holds = (slice: Slice, code: number) => slice.spans.some(([from, to]) => code >= from && code <= to);
  const wanted: Slice[] = [];
  // What an earlier family writes is not asked of a later one.
  for (const family of families) {
    const own = known.filter((s) => s.family === family && [...missing].some((code) => holds(s, code)));
    missing = new Set([...missing].filter((code) => !own.some((s) => holds(s, code))));
    wanted.push(...own);
  }
  return wanted;
}
