/** The types a formula can have. `null` is the type of the bare word null, which fits anywhere. */
export type ValueType = "number" | "text" | "boolean" | "date" | "timestamp" | "null";

/**
 * A single value. Dates are whole days since 1970-01-01, timestamps are milliseconds since then (UTC);
 * the static type says which of the three a number is.
 */
export type Value = number | string | boolean | null;

/** Compares two texts by code point, as formulas do (UTF-16 order differs past U+FFFF). */
export function compareText(a: string, b: string): number {
  const shared = Math.min(a.length, b.length);
  for (let i = 0; i < shared; i++) {
    const x = a.charCodeAt(i);
    const y = b.charCodeAt(i);
    if (x !== y) {
      const xSurrogate = x >= 0xd800 && x <= 0xdfff;
      const ySurrogate = y >= 0xd800 && y <= 0xdfff;
      if (xSurrogate !== ySurrogate) return xSurrogate ? 1 : -1;
      return x - y;
    }
  }
  return a.length - b.length;
}

/** Orders two values of one type; nulls come last. */
export function compareValues(a: Value, b: Value): number {
  if (a === null || b === null) return a === b ? 0 : a === null ? 1 : -1;
  if (typeof a === "string" && typeof b === "string") return compareText(a, b);
  const x = Number(a);
  const y = Number(b);
  return x < y ? -1 : x > y ? 1 : 0;
}
