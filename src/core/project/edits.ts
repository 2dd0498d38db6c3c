import { produce } from "immer";
import { BOARD_EDITS } from "./board-edits";
import { ITEM_EDITS } from "./item-edits";
import { LOOK_EDITS } from "./look-edits";
import { withFollowedNames } from "./made-names";
import { MEASURE_EDITS } from "./measure-edits";
import type { Conventions, Project } from "./schema";
import { TABLE_EDITS } from "./table-edits";
import { withToldTables } from "./told-tables";
import { VISUAL_EDITS } from "./visual-edits";

/** How each edit changes a draft of the project; some need the project as it was before. */
const REDUCERS = {
  "rename project": (p: Project, { name }: { name: string }) => void (p.name = name),
  "change conventions": (p: Project, { change }: { change: Partial<Conventions> }) =>
    void Object.assign(p.conventions, change),
  /** Puts another document in the place of this one. */
  "take document": (p: Project, { document }: { document: Project }) => void Object.assign(p, document),
  ...ITEM_EDITS,
  ...TABLE_EDITS,
  ...MEASURE_EDITS,
  ...VISUAL_EDITS,
  ...LOOK_EDITS,
  ...BOARD_EDITS,
};
type Reducers = typeof REDUCERS;

/** An edit as data: what it is, and what it needs. Undo, history and differences are made of edits. */
export type Edit = {
  [Type in keyof Reducers]: { type: Type } & Parameters<Reducers[Type]>[1];
}[keyof Reducers];

/** The edit of a type. */
export type EditOf<Type extends Edit["type"]> = Extract<Edit, { type: Type }>;

/**
 * The project after an edit, with the tables that its measures tell and the names that its visuals make. The
 * one before stays as it was, and is given back where nothing changes.
 */
export function edited(project: Project, edit: Edit): Project {
  const reduce = REDUCERS[edit.type] as (draft: Project, edit: Edit, before: Project) => void;
  const next = produce(project, (draft) => reduce(draft, edit, project));
  return withFollowedNames(withToldTables(next, project), project);
}
