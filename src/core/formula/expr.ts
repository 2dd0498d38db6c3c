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

export interface ScopeTable {
  name: string;
  columns: { name: string; type: ValueType }[];
}

/** What names can mean. Names are matched without regard to case. */
export interface Scope {
  tables: ScopeTable[];
  measures: { name: string; formula: string; table: string | null }[];
  inputs: { name: string; type: ValueType }[];
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

/** The table whose rows a checked formula reads, or null when it reads none. */
export function tableOf(expr: Expr): string | null {
  switch (expr.op) {
    case "aggregate":
    case "column":
      return expr.table;
    case "call":
      for (const arg of expr.args) {
        const found = tableOf(arg);
        if (found) return found;
      }
      return null;
    case "total":
      return tableOf(expr.arg);
    default:
      return null;
  }
}
