import { findNamed, sameName } from "../base/names";
import type { Scope } from "./expr";
import { reachedFrom } from "./links";
import { type Token, tokenize } from "./tokens";

/** A text in a formula that is compared with a column: the column, and where the text begins after its quote. */
export interface ValuePlace {
  table: string;
  column: string;
  from: number;
  /** The stretch of the whole text, with its quotes as far as they are written. */
  start: number;
  end: number;
}

const isName = (token: Token | undefined) => token?.kind === "word" || token?.kind === "quoted";
const isSign = (token: Token | undefined, ...signs: string[]) =>
  token?.kind === "symbol" && signs.includes(token.text);
const isWord = (token: Token | undefined, word: string) =>
  token?.kind === "word" && token.text.toLowerCase() === word;

/** The tokens of the name that a text is compared with, before its place: `a = '…'`, `a in ('…', '…')`. */
function nameBefore(tokens: Token[], at: number): Token[] {
  let i = at - 1;
  while (isSign(tokens[i], ",") && tokens[i - 1]?.kind === "string") i -= 2;
  if (isSign(tokens[i], "(") && isWord(tokens[i - 1], "in")) i -= isWord(tokens[i - 2], "not") ? 3 : 2;
  else if (i === at - 1 && isSign(tokens[i], "=", "<>")) i--;
  else return [];
  if (!isName(tokens[i])) return [];
  return isSign(tokens[i - 1], ".") && isName(tokens[i - 2]) ? [tokens[i - 2], tokens[i]] : [tokens[i]];
}

/** The text column that a name is, of the formula's own table or of one that links lead to; null for none. */
function columnNamed(
  scope: Scope,
  table: string | null,
  name: Token[],
): Pick<ValuePlace, "table" | "column"> | null {
  const last = name[name.length - 1].text;
  const own = table === null ? [] : [table, ...reachedFrom(scope.links ?? [], table)];
  const tables = name.length === 2 ? own.filter((t) => sameName(t, name[0].text)) : own;
  for (const of of tables) {
    const found = findNamed(scope.tables, of);
    const column = found && findNamed(found.columns, last);
    if (found && column) return column.type === "text" ? { table: found.name, column: column.name } : null;
  }
  return null;
}

/** The text at a place of a formula that stands for a value of a column; null where there is none. */
export function valuePlaceAt(
  formula: string,
  at: number,
  scope: Scope,
  table: string | null,
): ValuePlace | null {
  const { tokens } = tokenize(formula);
  const i = tokens.findIndex((t) => t.kind === "string" && t.start < at && at <= t.end);
  if (i < 0) return null;
  const name = nameBefore(tokens, i);
  const column = name.length ? columnNamed(scope, table, name) : null;
  const { start, end } = tokens[i];
  return column && { ...column, from: start + 1, start, end };
}
