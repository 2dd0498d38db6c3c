import { LimitError } from "../base/limit-error";

/**
 * The longest text that a formula makes, in UTF-16 units: texts that are joined to themselves would
 * fill any memory.
 */
const LONGEST_TEXT = 100_000;

/** Makes a text of so many units, unless that is too long. Throws a LimitError then. */
export function textOf(length: number, make: () => string): string {
  if (length > LONGEST_TEXT)
    throw new LimitError(
      `A formula makes a text of more than ${LONGEST_TEXT.toLocaleString("en")} characters. Shorten it, for example with substring(text from 1 for 100).`,
    );
  return make();
}

/** A text with every `from` replaced. Throws a LimitError where that is too long. */
export function replaced(text: string, from: string, to: string): string {
  if (from === "") return text;
  const parts = text.split(from);
  return textOf(text.length + (parts.length - 1) * (to.length - from.length), () => parts.join(to));
}

/** The first characters (code points) of a text; none below 1. */
export const firstOf = (text: string, n: number): string =>
  [...text].slice(0, Math.max(0, Math.trunc(n))).join("");

/** The last characters (code points) of a text; none below 1. */
export function lastOf(text: string, n: number): string {
  const characters = [...text];
  return characters.slice(Math.max(0, characters.length - Math.max(0, Math.trunc(n)))).join("");
}

/** Where a part begins in a text, in characters from 1; 0 where it does not stand in it. */
export function placeOf(part: string, text: string): number {
  const at = text.indexOf(part);
  return at < 0 ? 0 : [...text.slice(0, at)].length + 1;
}

/**
 * The n-th piece of a text between separators, from 1; empty where there is none. Without a separator the
 * text is one piece.
 */
export function pieceOf(text: string, separator: string, n: number): string {
  const pieces = separator === "" ? [text] : text.split(separator);
  return pieces[Math.trunc(n) - 1] ?? "";
}

/**
 * A text brought to so many characters: filled at its start or its end, or cut at its end. An empty filling
 * fills nothing. Throws a LimitError where it would be too long.
 */
export function padded(side: "start" | "end", text: string, length: number, fill = " "): string {
  const characters = [...text];
  const missing = Math.trunc(length) - characters.length;
  if (missing <= 0) return firstOf(text, length);
  const signs = [...fill];
  if (signs.length === 0) return text;
  return textOf(text.length + missing, () => {
    const filling = Array.from({ length: missing }, (_, i) => signs[i % signs.length]).join("");
    return side === "start" ? filling + text : text + filling;
  });
}

/**
 * Matches SQL's like: % any run, _ one character (code point). A trailing or misplaced escape matches itself.
 */
export function likeMatches(text: string, pattern: string, escapeSign: string | null): boolean {
  const input = [...text];
  const parts: { any: boolean; one: boolean; char: string }[] = [];
  const chars = [...pattern];
  for (let i = 0; i < chars.length; i++) {
    const escaped = escapeSign !== null && chars[i] === escapeSign && i + 1 < chars.length;
    if (escaped) i++;
    parts.push({ any: !escaped && chars[i] === "%", one: !escaped && chars[i] === "_", char: chars[i] });
  }
  let [at, part, starPart, starAt] = [0, 0, -1, 0];
  while (at < input.length) {
    const p = parts[part];
    if (p?.any) {
      starPart = part++;
      starAt = at;
    } else if (p && (p.one || p.char === input[at])) {
      at++;
      part++;
    } else if (starPart >= 0) {
      part = starPart + 1;
      at = ++starAt;
    } else return false;
  }
  while (parts[part]?.any) part++;
  return part === parts.length;
}
