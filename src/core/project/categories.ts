import { sameName } from "../base/names";
import type { Value } from "../base/value";
import { type ColumnPlace, homeOf, placesOf } from "../formula/meeting";
import type { Split } from "../plan/query";
import { type Named, scopeOf } from "./names";
import type { ColumnCategories, Project } from "./schema";

/** What names are read against, with what the project says of categories. */
export type Categorized = Named & Pick<Project, "categories">;

/**
 * Where the categories of a split are at home, for measures of a table: columns that hold the same things
 * share one home. Null where the column is unknown or could be several.
 */
export function homeOfSplit(project: Named, table: string | null, split: Split | null): ColumnPlace | null {
  if (!split || table === null) return null;
  const scope = scopeOf(project);
  const places = placesOf(scope, table, split.column);
  return places.length === 1 ? homeOf(scope, places[0]) : null;
}

/** What the project says of the categories of a split; null where it says nothing. */
export function categoriesOfSplit(
  project: Categorized,
  table: string | null,
  split: Split | null,
): ColumnCategories | null {
  const home = project.categories.length ? homeOfSplit(project, table, split) : null;
  return home ? categoriesAt(project.categories, home, split?.by) : null;
}

/** What is said of the categories of a column, a date's by their stretch; null where nothing is. */
export function categoriesAt(
  said: readonly ColumnCategories[],
  { table, column }: ColumnPlace,
  by: Split["by"],
): ColumnCategories | null {
  return said.find((c) => sameName(c.table, table) && sameName(c.column, column) && c.by === by) ?? null;
}

/** The colour that a category has of its own in the whole project, or null. */
export const colourOfCategory = (said: ColumnCategories | null, value: Value): string | null =>
  said?.colours.find((c) => c.value === value)?.color ?? null;
