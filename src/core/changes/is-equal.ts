/** Whether two values of a document say the same, in whatever order the fields of objects stand. */
export function isEqual(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== "object" || typeof b !== "object" || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [keys, others] = [Object.keys(a), Object.keys(b)];
  return (
    keys.length === others.length &&
    keys.every(
      (key) =>
        Object.hasOwn(b, key) &&
        isEqual((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]),
    )
  );
}
