/** A value as code that fits its line, or over several; keys that are names stand bare. */
export function codeOf(value: unknown, indent = 0, width = 100): string {
  const flat = flatOf(value);
  if (flat.length + indent <= width || typeof value !== "object" || value === null) return flat;
  const pad = " ".repeat(indent + 2);
  const inner = Array.isArray(value)
    ? value.map((v) => codeOf(v, indent + 2, width))
    : Object.entries(value)
        .filter(([, v]) => v !== undefined)
        .map(([name, v]) => `${keyOf(name)}: ${codeOf(v, indent + 2, width)}`);
  const [open, close] = Array.isArray(value) ? "[]" : "{}";
  return `${open}\n${inner.map((line) => `${pad}${line},\n`).join("")}${" ".repeat(indent)}${close}`;
}

/** A name as the key of an object. */
export const keyOf = (name: string): string =>
  // As a bare or quoted key this one would set what the object inherits from.
  name === "__proto__" ? '["__proto__"]' : /^[A-Za-z_$][\w$]*$/.test(name) ? name : textCode(name);

/** A text as code; what would end a script in a page, or a line, is written out. */
export const textCode = (text: string): string =>
  JSON.stringify(text)
    .replaceAll("<", "\\u003c")
    .replaceAll("\u2028", "\\u2028")
    .replaceAll("\u2029", "\\u2029");

function flatOf(value: unknown): string {
  if (typeof value === "string") return textCode(value);
  if (Array.isArray(value)) return `[${value.map(flatOf).join(", ")}]`;
  if (typeof value === "object" && value !== null) {
    const entries = Object.entries(value).filter(([, v]) => v !== undefined);
    return entries.length === 0
      ? "{}"
      : `{ ${entries.map(([name, v]) => `${keyOf(name)}: ${flatOf(v)}`).join(", ")} }`;
  }
  return JSON.stringify(value) ?? "null";
}

/** A text as it stands in a comment that ends with its line. */
export const commentText = (text: string): string => textCode(text.replace(/\s+/g, " ")).slice(1, -1);
