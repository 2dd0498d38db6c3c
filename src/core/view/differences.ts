import { type Edit, edited } from "../project/edits";
import { LISTS, type ListItem, type ListName } from "../project/item-edits";
import type { Project, Visual } from "../project/schema";
import { wordsOf } from "./edit-words";

/** One difference between two documents: the edit that makes it, and what it says. */
export interface Difference {
  edit: Edit;
  words: string;
}

const isSame = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);

/** The dials that two states of a visual have set differently, one edit each. */
function dialEdits(a: Visual, b: Visual): Edit[] {
  const keys = [...new Set([...Object.keys(a.dials), ...Object.keys(b.dials)])];
  return keys
    .filter((key) => a.dials[key] !== b.dials[key])
    .map((dial) => ({ type: "set dial", id: b.id, dial, value: b.dials[dial] ?? null }));
}

/** The edits that make one member of a list what it is in the other document. */
function itemEdits(list: ListName, was: ListItem | undefined, item: ListItem): Edit[] {
  const put: Edit = { type: "put item", list, item };
  if (was === undefined) return [put];
  if (isSame(was, item)) return [];
  // Dials are told one by one where the kind, which knows them by name, is the same.
  if (list !== "visuals" || (was as Visual).kind !== (item as Visual).kind) return [put];
  const dials = dialEdits(was as Visual, item as Visual);
  const others = !isSame({ ...was, dials: null }, { ...item, dials: null });
  return others ? [...dials, put] : dials;
}

/**
 * What makes document `b` of document `a`, as edits that are applied one after the other, each with its
 * words. Equal documents have none.
 */
export function differences(a: Project, b: Project): Difference[] {
  const found: Difference[] = [];
  let now = a;
  const add = (edit: Edit) => {
    const next = edited(now, edit);
    if (isSame(now, next)) return;
    found.push({ edit, words: wordsOf(edit, now, next) });
    now = next;
  };
  if (a.name !== b.name) add({ type: "rename project", name: b.name });
  if (!isSame(a.conventions, b.conventions)) add({ type: "change conventions", change: b.conventions });
  for (const list of LISTS) {
    const [before, after] = [a[list] as ListItem[], b[list] as ListItem[]];
    const kept = new Set(after.map((item) => item.id));
    for (const { id } of before) if (!kept.has(id)) add({ type: "take item", list, id });
    for (const item of after) {
      const was = before.find((one) => one.id === item.id);
      for (const edit of itemEdits(list, was, item)) add(edit);
    }
    add({ type: "order items", list, ids: after.map((item) => item.id) });
  }
  return found;
}
