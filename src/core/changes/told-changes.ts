import { withFollowedNames } from "../project/made-names";
import type { Project } from "../project/schema";
import { withToldTables } from "../project/told-tables";
import { type Change, changesBetween } from "./changes";

/** What is told again from the rest of a document, and is nobody's decision: names and tables that follow. */
function isFollowing({ path, isOrder }: Change, before: Project, after: Project): boolean {
  const [list, id, field] = path;
  if (isOrder || path.length !== 3) return false;
  if (list === "measures" && field === "table")
    return [before, after].every((p) => p.measures.find((m) => m.id === id)?.tableSet === false);
  if (list !== "visuals" || field !== "name") return false;
  const was = before.visuals.find((v) => v.id === id);
  const is = after.visuals.find((v) => v.id === id);
  if (!was || !is) return false;
  // It would have come to this name by itself.
  const visuals = after.visuals.map((v) => (v === is ? { ...is, name: was.name } : v));
  const followed = withFollowedNames({ ...after, visuals }, before);
  return followed.visuals.find((v) => v.id === id)?.name === is.name;
}

/** What made one document of another, with what follows marked. */
export const toldChanges = (before: Project, after: Project): Change[] =>
  changesBetween(before, after).map((change) =>
    isFollowing(change, before, after) ? { ...change, follows: true } : change,
  );

/** The document with what follows from the rest of it told again. */
export const settled = (document: Project, before: Project): Project =>
  withFollowedNames(withToldTables(document, before), before);
