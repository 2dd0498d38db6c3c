/**
 * Whether two names are one: names of tables, columns, measures and inputs are told apart without
 * regard to case.
 */
export const sameName = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

/** The first of a list that has a name, or undefined; no name finds nothing. */
export function findNamed<T extends { name: string }>(
  list: readonly T[],
  name: string | null | undefined,
): T | undefined {
  return name == null ? undefined : list.find((item) => sameName(item.name, name));
}
