import type { Split } from "../plan/query";
import type { Named } from "../project/names";
import type { Visual } from "../project/schema";
import { orderAfter } from "../project/split-change";
import { keyLabel, wordingOf } from "../rows/key-labels";
import { type RowKey, subjectOf } from "../rows/row-key";
import { keysFilter } from "./picks";

/** The splits of a visual from its own downwards. */
const levelsOf = ({ split, steps }: Pick<Visual, "split" | "steps">): Split[] =>
  split ? [split, ...steps] : [];

/**
 * Whether a reader can step down from a category: where a split is below the one that is shown, and the
 * category is of the data. `path` are the categories that the reader has stepped down from.
 */
export const canStepDown = (visual: Visual, path: readonly RowKey[], key: RowKey): boolean =>
  path.length + 1 < levelsOf(visual).length && ["category", "no match"].includes(subjectOf(key).type);

/** What stands below the categories that are shown; null where nothing does. */
export const splitBelow = (visual: Visual, path: readonly RowKey[]): Split | null =>
  levelsOf(visual)[path.length + 1] ?? null;

/** A visual as a reader sees it who has stepped down: split by what stands below, for those categories alone. */
export function steppedVisual(visual: Visual, path: readonly RowKey[]): Visual {
  const levels = levelsOf(visual);
  const steps = path.slice(0, Math.max(0, levels.length - 1));
  if (steps.length === 0) return visual;
  const within = steps.map((key, i) => keysFilter(levels[i], [key]));
  const split = levels[steps.length];
  const order = orderAfter(visual, split);
  return { ...visual, split, order, filters: [...visual.filters, ...within] };
}

/** The categories that a reader has stepped down from, in words. */
export function trailOf(
  visual: Visual,
  path: readonly RowKey[],
  project: Pick<Named, "conventions">,
): string[] {
  const wording = wordingOf(project);
  return path.slice(0, levelsOf(visual).length - 1).map((key, i) => {
    const subject = subjectOf(key);
    return subject.type === "category"
      ? keyLabel(subject.value, levelsOf(visual)[i].by, wording)
      : wording.words.noMatch;
  });
}
