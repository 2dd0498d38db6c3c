import type { Project } from "./schema";

/** A record with its names in one order, whenever they were written. */
const inOrder = <T>(record: Record<string, T>): Record<string, T> =>
  Object.fromEntries(Object.entries(record).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0)));

/**
 * The document with all that has names of somebody's making in one order, so that the files of two states
 * differ only where the states do. Lists keep theirs, and fields have that of the schema.
 */
export const inStableOrder = (project: Project): Project => ({
  ...project,
  conventions: { ...project.conventions, words: inOrder(project.conventions.words) },
  finishes: project.finishes.map((f) => ({ ...f, dials: inOrder(f.dials) })),
  visuals: project.visuals.map((v) => ({
    ...v,
    dials: inOrder(v.dials),
    categoryColours: inOrder(v.categoryColours),
    pictures: inOrder(v.pictures),
    leftFindings: inOrder(v.leftFindings),
  })),
});
