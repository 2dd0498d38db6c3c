/**
 * The value that a record has under a key of somebody's making: `constructor` and `__proto__` are keys like
 * any other.
 */
export function own<T>(record: Readonly<Record<string, T>>, key: string): T | undefined {
  return Object.hasOwn(record, key) ? record[key] : undefined;
}

/** The record with another value under a key, or without it where the value is null. */
export function withOwn<T>(
  record: Readonly<Record<string, T>>,
  key: string,
  value: T | null,
): Record<string, T> {
  const others = Object.entries(record).filter(([k]) => k !== key);
  return Object.fromEntries(value === null ? others : [...others, [key, value]]);
}
