import { beyondWords, MOST, type Owner } from "./most";
import type { Project } from "./schema";

/** Why a list that has grown is too long; null where none is. Lists that were too long before may stay so. */
function beyond(owner: Owner, before: object | undefined, after: object): string | null {
  const lengthIn = (of: object | undefined, list: string) =>
    (of as Record<string, unknown[]> | undefined)?.[list]?.length ?? 0;
  for (const [list, most] of Object.entries(MOST[owner])) {
    const now = lengthIn(after, list);
    if (now > most && now > lengthIn(before, list)) return beyondWords(owner, list);
  }
  return null;
}

/**
 * Why an edit makes more of something than a document holds, so that it could not be saved; null where it
 * does not.
 */
export function tooMany(before: Project, after: Project): string | null {
  const lists = {
    table: [before.tables, after.tables],
    measure: [before.measures, after.measures],
    input: [before.inputs, after.inputs],
    palette: [before.palettes, after.palettes],
    categories: [before.categories, after.categories],
    visual: [before.visuals, after.visuals],
    board: [before.boards, after.boards],
  } as const;
  const own = beyond("project", before, after);
  if (own) return own;
  for (const [owner, [old, now]] of Object.entries(lists)) {
    if (old === now) continue;
    const known = new Map(old.map((one) => [one.id, one]));
    for (const one of now) {
      const found = known.get(one.id) !== one && beyond(owner as keyof typeof lists, known.get(one.id), one);
      if (found) return found;
    }
  }
  return null;
}
