import type { Calendar } from "../base/calendar";
import type { Problem, Span } from "../base/problem";
import type { Value, ValueType } from "../base/value";
import type { AggregateName } from "./aggregates";
import type { ScalarName } from "./functions";
import type { Link } from "./links";

/**
 * A checked formula: every name bound, every type known. A measure that it uses is a node, the same one
 * wherever it stands: the tree is a graph, which grows with what is written and not with what is meant.
 */
export type Expr =
  | { op: "constant"; type: ValueType; value: Value }
  | { op: "column"; type: ValueType; table: string; column: string }
  | { op: "input"; type: ValueType; name: string }
  | { op: "call"; type: ValueType; fn: ScalarName; args: Expr[] }
  /** `by` is the row-level key of max_by and min_by, `fraction` the constant of percentile_cont. */
  | {
      op: "aggregate";
      type: ValueType;
      fn: AggregateName;
      table: string;
      arg: Expr | null;
      by: Expr | null;
      fraction: Expr | null;
      distinct: boolean;
      filter: Expr | null;
    }
  /** The day on which the query runs. */
  | { op: "today"; type: "date" }
  | { op: "total"; type: ValueType; arg: Expr }
  | MeasureNode;

/** A measure as others use it. */
export interface MeasureNode {
  op: "measure";
  type: ValueType;
  name: string;
  expr: Expr;
}

/**
 * A name in a formula's text, with what it means there. The span is that of the whole name, its table before
 * the point included.
 */
export type BoundName = Span & ({ measure: string } | { table: string; column: string });

/** A column that formulas can name; a derived one has the row-level formula that computes it. */
export interface ScopeColumn {
  name: string;
  type: ValueType;
  formula?: string;
}

/** A table that names can mean, with its columns. */
export interface ScopeTable {
  name: string;
  columns: ScopeColumn[];
}

/** What names can mean. Names are matched without regard to case. */
export interface Scope {
  tables: ScopeTable[];
  /** `standsWhole`: where a filter means nothing to its rows, it may stand beside what the filter narrows. */
  measures: { name: string; formula: string; table: string | null; standsWhole?: boolean }[];
  inputs: { name: string; type: ValueType }[];
  links?: Link[];
  /** How splits and filters count weeks and years; as ISO 8601 does where nothing is said. */
  calendar?: Calendar;
  /** The time zone of "today"; that of the machine where it is empty. */
  timeZone?: string;
  /** What its formulas mean, by their keys, where that travelled along: a page that computes nothing has no parser. */
  known?: ReadonlyMap<string, KnownFormula>;
}

/**
 * What a formula tells of its values over parts of some rows and over all of them. "yes": the parts make the
 * whole; "rounded": they do but for the rounding in it; "no": they do not, whatever they happen to be
 * (averages, ratios, distinct counts); "by values": that depends on them, as in `greatest(sum(gain), 0)`.
 */
export type AddsUp = "yes" | "rounded" | "no" | "by values";

/** What is known of a formula that was checked elsewhere. */
export interface KnownFormula {
  type: ValueType;
  /** Whether it has no problem. */
  isSound: boolean;
  uses: Checked["uses"];
  /** Whether its value over several groups is the sum of theirs; before version 0.2 only yes or no. */
  addsUp: AddsUp | boolean;
}

/** Names a formula with where it stands; see `checkFormula`. */
export const formulaKey = (formula: string, table: string | null, level: string, self?: string): string =>
  JSON.stringify([formula, table, level, self ?? null]);

/** Whether an expression has a value for each row, or one for each group of rows. */
export type Level = "row" | "group";

/** What the check of a formula found. */
export interface Checked {
  /** Null when there are problems. */
  expr: Expr | null;
  type: ValueType;
  problems: Problem[];
  /** The names the formula itself uses, each once, as they are declared. */
  uses: { columns: { table: string; column: string }[]; measures: string[]; inputs: string[] };
  /** Every name in the text that means a column or a measure, in the order of the text. */
  names: BoundName[];
}

/** Visits an expression and what is under it at group level, without going into the measures that it uses. */
export function visitOwn(expr: Expr, visit: (expr: Expr) => void): void {
  visit(expr);
  if (expr.op === "total") visitOwn(expr.arg, visit);
  else if (expr.op === "call") for (const arg of expr.args) visitOwn(arg, visit);
}

function measuresIn(expr: Expr): MeasureNode[] {
  const found: MeasureNode[] = [];
  visitOwn(expr, (e) => {
    if (e.op === "measure") found.push(e);
  });
  return found;
}

/**
 * The measures that an expression stands on, each once and after those that it uses itself. Without
 * recursion, so that a chain may have any length.
 */
export function measuresUnder(expr: Expr): MeasureNode[] {
  const ordered: MeasureNode[] = [];
  const state = new Map<MeasureNode, "open" | "done">();
  const waiting = measuresIn(expr);
  while (waiting.length > 0) {
    const next = waiting[waiting.length - 1];
    const known = state.get(next);
    if (known !== undefined) {
      waiting.pop();
      if (known === "open") ordered.push(next);
      state.set(next, "done");
      continue;
    }
    state.set(next, "open");
    waiting.push(...measuresIn(next.expr).filter((m) => !state.has(m)));
  }
  return ordered;
}

/** An expression and the measures that it stands on, each by its own expression. */
export function withMeasures(expr: Expr): Expr[] {
  return [...measuresUnder(expr).map((m) => m.expr), expr];
}

/** The tables whose rows a group-level expression reads. */
export function tablesOf(expr: Expr): string[] {
  const tables = new Set<string>();
  for (const own of withMeasures(expr))
    visitOwn(own, (e) => {
      if (e.op === "aggregate") tables.add(e.table);
    });
  return [...tables];
}
