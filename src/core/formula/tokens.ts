import type { Problem, Span } from "../base/problem";

/** What a piece of a formula's text is. */
export type TokenKind = "word" | "quoted" | "number" | "string" | "input" | "symbol" | "end";

/** One token. `text` is the decoded content: a word as written, a string without its quotes. */
export interface Token extends Span {
  kind: TokenKind;
  text: string;
}

/** Signs that other languages write, with what stands for them here. */
const FOREIGN: Record<string, string> = { "==": "=", "&&": "and" };
const SYMBOLS = [
  ...Object.keys(FOREIGN),
  "<=",
  ">=",
  "<>",
  "!=",
  "||",
  "=",
  "<",
  ">",
  "+",
  "-",
  "*",
  "/",
  "%",
  "(",
  ")",
  ",",
  ".",
];
const WORD = /[\p{L}_][\p{L}\p{M}\p{N}_$]*/uy;
const NUMBER = /(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?/y;

/**
 * Reads text enclosed in `quote`, where a doubled quote stands for one. Returns the content and where it
 * ends.
 */
function readQuoted(
  source: string,
  start: number,
  quote: string,
): { text: string; end: number; closed: boolean } {
  let text = "";
  let at = start + 1;
  for (;;) {
    const next = source.indexOf(quote, at);
    if (next < 0) return { text: text + source.slice(at), end: source.length, closed: false };
    text += source.slice(at, next);
    if (source[next + 1] !== quote) return { text, end: next + 1, closed: true };
    text += quote;
    at = next + 2;
  }
}

function skipBlank(source: string, from: number): number {
  let at = from;
  for (;;) {
    while (at < source.length && /\s/.test(source[at])) at++;
    if (source.startsWith("--", at)) {
      const line = source.indexOf("\n", at);
      at = line < 0 ? source.length : line + 1;
    } else if (source.startsWith("/*", at)) {
      const close = source.indexOf("*/", at + 2);
      at = close < 0 ? source.length : close + 2;
    } else return at;
  }
}

/** Splits a formula into tokens. Characters that belong to none are reported and passed over. */
export function tokenize(source: string): { tokens: Token[]; problems: Problem[] } {
  const tokens: Token[] = [];
  const problems: Problem[] = [];
  const match = (pattern: RegExp, at: number) => {
    pattern.lastIndex = at;
    return pattern.exec(source)?.[0] ?? null;
  };
  let at = skipBlank(source, 0);
  while (at < source.length) {
    const char = source[at];
    const start = at;
    if (char === "'" || char === '"') {
      const read = readQuoted(source, at, char);
      at = read.end;
      tokens.push({ kind: char === "'" ? "string" : "quoted", text: read.text, start, end: at });
      if (!read.closed) {
        const what = char === "'" ? "text" : "name";
        problems.push({
          code: "syntax",
          start,
          end: at,
          message: `This ${what} has no closing ${char}. Add one where it ends.`,
        });
      }
    } else if (source.startsWith("::", at)) {
      at += 2;
      problems.push({
        code: "foreign",
        start,
        end: at,
        message: "Formulas have no “::”. A value is read as another type by cast: cast(x as number).",
      });
    } else if (char === ":") {
      const word = match(WORD, at + 1);
      at += 1 + (word?.length ?? 0);
      if (word) tokens.push({ kind: "input", text: word, start, end: at });
      else
        problems.push({
          code: "syntax",
          start,
          end: at,
          message: "A colon starts the name of an input, for example :goal.",
        });
    } else {
      const word = match(WORD, at);
      const number = word ? null : match(NUMBER, at);
      const symbol = word || number ? null : SYMBOLS.find((s) => source.startsWith(s, at));
      if (word) {
        tokens.push({ kind: "word", text: word, start, end: start + word.length });
      } else if (number) {
        tokens.push({ kind: "number", text: number, start, end: start + number.length });
      } else if (symbol && FOREIGN[symbol]) {
        const text = FOREIGN[symbol];
        const span = { start, end: start + symbol.length };
        const mends = [{ ...span, label: `Use ${text}`, text }];
        problems.push({ code: "syntax", ...span, message: `“${symbol}” is written ${text}.`, mends });
        tokens.push({ kind: text === "and" ? "word" : "symbol", text, ...span });
      } else if (symbol) {
        tokens.push({
          kind: "symbol",
          text: symbol === "!=" ? "<>" : symbol,
          start,
          end: start + symbol.length,
        });
      } else {
        const odd = String.fromCodePoint(source.codePointAt(at) as number);
        problems.push({
          code: "syntax",
          start,
          end: start + odd.length,
          message: `“${odd}” has no meaning in a formula. Remove it.`,
        });
        at += odd.length;
      }
      at += (word ?? number ?? symbol ?? "").length;
    }
    at = skipBlank(source, at);
  }
  tokens.push({ kind: "end", text: "", start: source.length, end: source.length });
  return { tokens, problems };
}
