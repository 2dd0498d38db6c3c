import type { Project } from "./schema";

/** The lists of a document whose members have an id. */
export const LISTS = [
  "tables",
  "links",
  "measures",
  "inputs",
  "palettes",
  "finishes",
  "pictures",
  "categories",
  "visuals",
  "boards",
] as const satisfies readonly (keyof Project)[];

/** The lists of a document that edits add to and take from. */
export type ListName = (typeof LISTS)[number];
/** What stands in one of those lists. */
export type ListItem = Project[ListName][number];

const members = (p: Project, list: ListName) => p[list] as ListItem[];

/**
 * Edits that put members of a list exactly as they are given, and change nothing else: differences are made
 * of them.
 */
export const ITEM_EDITS = {
  /** Adds a member at the end of its list, or puts it in the place of the one with its id. */
  "put item": (p: Project, { list, item }: { list: ListName; item: ListItem }) => {
    const at = members(p, list).findIndex((one) => one.id === item.id);
    if (at >= 0) members(p, list)[at] = item;
    else members(p, list).push(item);
  },

  "take item": (p: Project, { list, id }: { list: ListName; id: string }) => {
    const at = members(p, list).findIndex((one) => one.id === id);
    if (at >= 0) members(p, list).splice(at, 1);
  },

  /** Puts the members of a list into the order of these ids; others stay after them. */
  "order items": (p: Project, { list, ids }: { list: ListName; ids: string[] }) => {
    const place = (one: ListItem) => (ids.includes(one.id) ? ids.indexOf(one.id) : ids.length);
    members(p, list).sort((a, b) => place(a) - place(b));
  },
};
