import type { Value } from "../base/value";
import { columnFor, placesOf } from "../formula/meeting";
import type { ListFilter } from "../plan/query";
import { homeTableOfVisual } from "../project/home-table";
import { type Named, scopeOf } from "../project/names";
import type { Visual } from "../project/schema";
import { keyLabel, type Wording, wordingOf } from "../rows/key-labels";
import { type RowKey, rowKey, type Side, subjectOf } from "../rows/row-key";

/** What a reader picked on a visual: categories of one of its splits. */
export interface Picked {
  visual: string;
  side: Side;
  keys: readonly RowKey[];
  /** What stood beside Other where that is among the keys: it is all but these. */
  but?: readonly RowKey[];
  /** Whether the others keep their whole and light up its part, in the place of keeping only it. */
  part?: true;
}

const OTHER = rowKey({ type: "other" });

/** Whether what a key stands for can be picked: a category, or what stands for some of them. */
export const isPickable = (key: RowKey): boolean => !["measure", "whole"].includes(subjectOf(key).type);

/** A click on a category: it alone, or none where it was alone; `more`: it joins the others or leaves them. */
export interface PickOf {
  visual: string;
  side: Side;
  key: RowKey;
  more: boolean;
  /** The categories that the visual shows of that split. */
  shown: readonly RowKey[];
}

/** What is picked on all visuals after a click. What is picked on others stays. */
export function pickedAfter(picks: readonly Picked[], { visual, side, key, more, shown }: PickOf): Picked[] {
  const isSame = (p: Picked) => p.visual === visual && p.side === side;
  const before = picks.find(isSame)?.keys ?? [];
  const without = before.filter((k) => k !== key);
  const wasPicked = without.length < before.length;
  const alone = wasPicked && before.length === 1 ? [] : [key];
  const keys = more ? (wasPicked ? without : [...before, key]) : alone;
  const next: Picked = { visual, side, keys, ...(picks.find(isSame)?.part ? { part: true } : {}) };
  if (keys.includes(OTHER)) next.but = shown.filter((k) => k !== OTHER);
  if (keys.length === 0) return picks.filter((p) => !isSame(p));
  return before.length > 0 ? picks.map((p) => (isSame(p) ? next : p)) : [...picks, next];
}

/** The split that a pick is of, as filters name its column; null where the visual has no such split any more. */
export function columnOfPick(
  visual: Visual,
  side: Side,
  project: Named,
): { table: string; column: string; by: ListFilter["by"] } | null {
  const split = visual[side];
  const table = homeTableOfVisual(visual, project);
  if (!split || table === null) return null;
  const [place] = placesOf(scopeOf(project), table, split.column);
  return place ? { ...place, by: split.by } : null;
}

/** The filter that keeps just what is picked; null where the visual has no such split any more. */
export function filterOfPick({ side, keys, but }: Picked, visual: Visual, project: Named): ListFilter | null {
  const place = columnOfPick(visual, side, project);
  return place && keysFilter({ column: `${place.table}.${place.column}`, by: place.by }, keys, but);
}

/**
 * The filter that keeps just some categories of a column: values with their types, rows without a match apart
 * from empty ones, and Other as all that did not stand beside it (`but`).
 */
export function keysFilter(
  { column, by }: { column: string; by?: ListFilter["by"] },
  keys: readonly RowKey[],
  but: readonly RowKey[] = [],
): ListFilter {
  const isOther = keys.includes(OTHER);
  const listed = (isOther ? but.filter((k) => !keys.includes(k)) : keys).map(subjectOf);
  const values = listed.flatMap((s) => (s.type === "category" ? [s.value] : []));
  const noMatch = listed.some((s) => s.type === "no match");
  return {
    column,
    ...(by ? { by } : {}),
    ...(isOther ? { not: values } : { in: values }),
    // Said only where it makes a difference: else a missing match counts as empty, and nothing here is.
    ...(noMatch || values.includes(null) ? { noMatch } : {}),
  };
}

/** Whether a visual's rows can be told apart by a column (`table.column`), or by one that means the same. */
export function answersTo(visual: Pick<Visual, "value">, column: string, project: Named): boolean {
  const table = homeTableOfVisual(visual, project);
  return table !== null && tableKnows(table, column, project);
}

/** Whether a column (`table.column`) is one of a table's own, or means one that it reaches or meets. */
export function tableKnows(table: string, column: string, project: Named): boolean {
  const scope = scopeOf(project);
  const places = placesOf(scope, table, column);
  return places.length === 1 && columnFor(scope, table, places[0]) !== null;
}

const MOST_NAMED = 3;

const labelOf = (key: RowKey, by: ListFilter["by"], wording: Wording): string => {
  const subject = subjectOf(key);
  if (subject.type === "other") return wording.words.other;
  if (subject.type === "no match") return wording.words.noMatch;
  return subject.type === "category" ? keyLabel(subject.value, by, wording) : "";
};

/** The names of what is picked: "North Quay, Old Pier". */
export function pickedNames(
  { side, keys }: Picked,
  visual: Visual,
  project: Pick<Named, "conventions">,
): string {
  const wording = wordingOf(project);
  const named = keys.slice(0, MOST_NAMED).map((key) => labelOf(key, visual[side]?.by, wording));
  const more = keys.length - named.length;
  return [...named, ...(more > 0 ? [`${more} more`] : [])].join(", ");
}

/** What a pick is in words, as "route: North Quay". */
export function pickText(picked: Picked, visual: Visual, project: Pick<Named, "conventions">): string {
  const split = visual[picked.side];
  const of = split?.by ?? split?.column.replaceAll("_", " ") ?? "";
  return `${of}: ${pickedNames(picked, visual, project)}`;
}

/**
 * A pick without the categories that its column has no more, and those; null where it has all of them. `values`
 * are all that the column has, as filters name them.
 */
export function withoutGone(
  picked: Picked,
  values: readonly Value[],
): { left: Picked | null; gone: Picked } | null {
  const there = new Set(values.map((value) => rowKey({ type: "category", value })));
  const isGone = (key: RowKey) => subjectOf(key).type === "category" && !there.has(key);
  const gone = picked.keys.filter(isGone);
  const left = picked.keys.filter((key) => !isGone(key));
  if (gone.length === 0) return null;
  return { gone: { ...picked, keys: gone }, left: left.length > 0 ? { ...picked, keys: left } : null };
}
