import { produce } from "immer";
import type { Project } from "./schema";

/** Edits are pure: each takes a project and gives the changed one, leaving the first as it was. */
export type Edit = (project: Project) => Project;

/** An edit out of a recipe that changes a draft of the project. */
export const edit =
  (recipe: (draft: Project) => void): Edit =>
  (project) =>
    produce(project, recipe);
