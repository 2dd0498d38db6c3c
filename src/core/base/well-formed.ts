/**
 * Whether no text in plain data, names included, holds half of a surrogate pair: such a text cannot be
 * written as UTF-8.
 */
export function isWellFormedData(value: unknown): boolean {
  if (typeof value === "string") return value.isWellFormed();
  if (Array.isArray(value)) return value.every(isWellFormedData);
  if (typeof value !== "object" || value === null) return true;
  return Object.entries(value).every(([name, inner]) => name.isWellFormed() && isWellFormedData(inner));
}
