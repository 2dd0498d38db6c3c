import type { Project } from "../project/schema";
import { type Change, inverse, withChanges } from "./changes";
import { settled, toldChanges } from "./told-changes";

/** An edit that was made: what it changed, and its words. It means the same in any later document. */
export interface Step {
  changes: readonly Change[];
  words: string;
}

/** The edits of a window that can be taken back, the newest last, and those that can be made again, the next first. */
export interface History {
  past: readonly Step[];
  future: readonly Step[];
}

/** Whether something in `next` names what is not there, and did not before. */
type Breaks = (document: Project, next: Project) => boolean;

/** The edit that made one document of another. */
export const stepBetween = (before: Project, after: Project, words: string): Step => ({
  changes: toldChanges(before, after),
  words,
});

/**
 * The document with an edit taken back (`back`) or made again (`forth`), whatever others changed since; null
 * where it does not apply any more. `breaks` is null where nobody else has changed the document since, so that
 * nothing of others can lean on it.
 */
function withStep(
  document: Project,
  { changes }: Step,
  way: "back" | "forth",
  breaks: Breaks | null,
): Project | null {
  const { document: next, missed } = withChanges(document, way === "back" ? inverse(changes) : changes);
  if (missed.some((change) => !change.follows)) return null;
  if (!breaks) return next;
  const told = missed.length > 0 ? settled(next, document) : next;
  return breaks(document, told) ? null : told;
}

/**
 * Takes the last edit back, or makes the next one again. What does not apply any more leaves the history, and
 * the document stays: `refused` are its words. Null where there is none.
 */
export function stepped(
  document: Project,
  { past, future }: History,
  way: "back" | "forth",
  breaks: Breaks | null,
): ({ document: Project; refused: string | null } & History) | null {
  const step = way === "back" ? past.at(-1) : future[0];
  if (!step) return null;
  const next = withStep(document, step, way, breaks);
  const left: History =
    way === "back" ? { past: past.slice(0, -1), future } : { past, future: future.slice(1) };
  if (!next) return { document, refused: step.words, ...left };
  return way === "back"
    ? { document: next, refused: null, past: left.past, future: [step, ...future] }
    : { document: next, refused: null, past: [...past, step], future: left.future };
}
