import type { Link } from "./links";
import type { Problem } from "./problem";
import type { Value, ValueType } from "./value";

/** A checked formula: every name bound, every type known. Measures it used stand in it as their own trees. */
export type Expr =
  | { op: "constant"; type: ValueType; value: Value }
  | { op: "column"; type: ValueType; table: string; column: string }
  | { op: "input"; type: ValueType; name: string }
  | { op: "call"; type: ValueType; fn: string; args: Expr[] }
  /** `by` is the row-level key of max_by and min_by, `fraction` the constant of percentile_cont. */
  | { op: "aggregate"; type: ValueType; fn: string; table: string; arg: Expr | null; by: Expr | null; fraction: Expr | null; distinct: boolean; filter: Expr | null }
  /** The day on which the query runs. */
  | { op: "today"; type: "date" }
  | { op: "total"; type: ValueType; arg: Expr };

/** A column that formulas can name; a derived one has the row-level formula that computes it. */
export interface ScopeColumn {
  name: string;
  type: ValueType;
  formula?: string;
}

export interface ScopeTable {
  name: string;
  columns: ScopeColumn[];
}

/** What names can mean. Names are matched without regard to case. */
export interface Scope {
  tables: ScopeTable[];
  measures: { name: string; formula: string; table: string | null }[];
  inputs: { name: string; type: ValueType }[];
  links?: Link[];
}

export type Level = "row" | "group";

export interface Checked {
  /** Null when there are problems. */
  expr: Expr | null;
  type: ValueType;
  problems: Problem[];
  /** The names the formula itself uses, each once, as they are declared. */
  uses: { columns: { table: string; column: string }[]; measures: string[]; inputs: string[] };
}

/** The tables whose rows a group-level expression reads. */
export function tablesOf(expr: Expr): string[] {
  switch (expr.op) {
    case "aggregate":
      return [expr.table];
    case "call":
      return [...new Set(expr.args.flatMap(tablesOf))];
    case "total":
      return tablesOf(expr.arg);
    default:
      return [];
  }
}
