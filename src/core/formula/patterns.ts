import { RE2JS } from "re2js";
import { cutText } from "../base/cut-text";
import { patternProblem, readByPattern } from "../base/date-pattern";
import { LimitError } from "../base/limit-error";
import { textOf } from "./texts";

/**
 * What was made of a pattern, or the sentence that says why it cannot be used; the last ones are remembered.
 */
function remembering<T>(make: (pattern: string) => T): (pattern: string) => T {
  const known = new Map<string, T | LimitError>();
  return (pattern) => {
    let found = known.get(pattern);
    if (found === undefined) {
      try {
        found = make(pattern);
      } catch (error) {
        if (!(error instanceof LimitError)) throw error;
        found = error;
      }
      if (known.size >= 200) known.clear();
      known.set(pattern, found);
    }
    if (found instanceof LimitError) throw found;
    return found;
  };
}

const LONGEST_PATTERN = 1000;

/**
 * A regular expression that is matched in time that grows with the text alone (R. Cox, Regular Expression
 * Matching Can Be Simple And Fast, 2007).
 */
const compiled = remembering((pattern) => {
  if (pattern.length > LONGEST_PATTERN)
    throw new LimitError(`A regular expression has at most ${LONGEST_PATTERN} characters. Shorten it.`);
  try {
    return RE2JS.compile(pattern);
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    throw new LimitError(
      `“${cutText(pattern, 80)}” is no regular expression: ${why}. Mend it where it stands.`,
    );
  }
});

/** Whether a regular expression is found in a text. Throws a LimitError where it is none. */
export const isMatch = (text: string, pattern: string): boolean => compiled(pattern).matcher(text).find();

/**
 * A text with every match of a regular expression replaced; in the replacement, $1 is the first group and $0
 * the match, and $$ a dollar sign. Throws a LimitError where the result would be too long.
 */
export function replacedByPattern(text: string, pattern: string, to: string): string {
  const matcher = compiled(pattern).matcher(text);
  const groups = matcher.groupCount();
  let out = "";
  let at = 0;
  while (matcher.find()) {
    const filled = to.replace(/\$(\$|\d)/g, (whole, what) => {
      if (what === "$") return "$";
      return Number(what) <= groups ? (matcher.group(Number(what)) ?? "") : whole;
    });
    const before = text.slice(at, matcher.start());
    out = textOf(out.length + before.length + filled.length, () => out + before + filled);
    at = matcher.end();
  }
  return out + text.slice(at);
}

const dated = remembering((pattern) => {
  const problem = patternProblem(pattern);
  if (problem !== null) throw new LimitError(`“${cutText(pattern, 60)}”: ${problem}`);
  return (text: string) => readByPattern(text, pattern);
});

/**
 * The moment that a text says by a pattern in the date letters of Unicode, in milliseconds, or null. Throws a
 * LimitError where the pattern is none.
 */
export const momentBy = (text: string, pattern: string): number | null => dated(pattern)(text);

/** A decimal mark. Throws a LimitError where it is another sign. */
export function decimalMark(mark: string): "." | "," {
  if (mark === "." || mark === ",") return mark;
  throw new LimitError(`A decimal mark is '.' or ',', and “${cutText(mark, 10)}” is neither.`);
}
