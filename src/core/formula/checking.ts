import type { Mend, Problem, Span } from "../base/problem";
import type { ValueType } from "../base/value";
import type { Expr, Level, ScopeTable } from "./expr";
import type { ScalarName } from "./functions";
import type { Node } from "./tree";

/** How a message names a type. */
export const TYPE_WORDS: Record<ValueType, string> = {
  number: "a number",
  text: "a text",
  boolean: "true or false",
  date: "a date",
  timestamp: "a timestamp",
  null: "null",
};

/** What the parts of the checker ask of the check that is under way. */
export interface Checking {
  /** The formula's own table, or null when it has none. */
  readonly table: ScopeTable | null;
  /** Whether it is the formula of a derived column. */
  readonly isDerived: boolean;
  /** The measure that a name means where rows are looked at, which have none of that name. */
  measureIn(node: Node): string | null;
  expr(node: Node, level: Level, inTotal?: boolean): Expr;
  /** Reports a problem and gives a stand-in, so that the check goes on. */
  fail(code: Problem["code"], span: Span, message: string, mends?: Mend[]): Expr;
  /** Reports unless the expression has this type (or is null). Gives true so that it chains. */
  typed(span: Span, expr: Expr, wanted: ValueType, what: string): true;
  /** A stretch of the formula as it is written. */
  written(span: Span): string;
  wrapMend(span: Span, before: string, after: string, label: string): Mend;
}

/** A call of a function whose arguments were checked. */
export function call(fn: ScalarName, type: ValueType, args: Expr[]): Expr {
  return { op: "call", type, fn, args };
}
