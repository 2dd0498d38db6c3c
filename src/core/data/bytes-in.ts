const POINTER = 8;
const OBJECT = 48;

/**
 * About how many bytes plain data holds: buffers exactly, texts at two bytes a character, everything else by
 * the number of its entries. What is met twice counts once.
 */
export function bytesIn(value: unknown, seen = new Set<unknown>()): number {
  if (typeof value === "string") return POINTER + 16 + 2 * value.length;
  if (typeof value !== "object" || value === null) return POINTER;
  if (seen.has(value)) return POINTER;
  seen.add(value);
  if (ArrayBuffer.isView(value)) return OBJECT + value.byteLength;
  if (value instanceof Map) {
    let bytes = OBJECT;
    for (const [key, inner] of value) bytes += 2 * POINTER + bytesIn(key, seen) + bytesIn(inner, seen);
    return bytes;
  }
  if (value instanceof Set) return OBJECT + value.size * 4 * POINTER;
  if (Array.isArray(value)) {
    let bytes = OBJECT;
    for (const inner of value) bytes += bytesIn(inner, seen);
    return bytes;
  }
  let bytes = OBJECT;
  for (const inner of Object.values(value)) bytes += bytesIn(inner, seen);
  return bytes;
}
