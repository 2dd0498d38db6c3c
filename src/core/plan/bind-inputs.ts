import type { Value } from "../base/value";
import { type Expr, measuresUnder } from "../formula/expr";
import { scalarOf } from "../formula/scalars";
import { QueryError } from "./query-error";

/** Under this name the day of the query stands among the inputs' values; no input can be called so. */
export const TODAY = "\u0000today";

/**
 * The expression with every input replaced by its value, and what then hangs on constants alone computed.
 * Throws a QueryError where a value is missing. `bound` keeps the measures that were bound with the same
 * inputs, so that each is bound once.
 */
export function bindInputs(
  expr: Expr,
  inputs: ReadonlyMap<string, Value>,
  bound = new Map<Expr, Expr>(),
): Expr {
  for (const m of measuresUnder(expr))
    if (!bound.has(m)) bound.set(m, { ...m, expr: bindOwn(m.expr, inputs, bound) });
  return bindOwn(expr, inputs, bound);
}

function bindOwn(expr: Expr, inputs: ReadonlyMap<string, Value>, bound: ReadonlyMap<Expr, Expr>): Expr {
  const bind = (e: Expr) => bindOwn(e, inputs, bound);
  switch (expr.op) {
    case "input": {
      const value = inputs.get(expr.name.toLowerCase());
      if (value === undefined)
        throw new QueryError("missing_input", `The input “${expr.name}” has no value.`);
      return { op: "constant", type: expr.type, value };
    }
    case "call": {
      const args = expr.args.map(bind);
      const values = args.map((a) => (a.op === "constant" ? a.value : undefined));
      if (values.every((v) => v !== undefined))
        return { op: "constant", type: expr.type, value: scalarOf(expr.fn)(values as Value[]) };
      return { ...expr, args };
    }
    case "aggregate": {
      const { arg, by, fraction, filter } = expr;
      return {
        ...expr,
        arg: arg && bind(arg),
        by: by && bind(by),
        fraction: fraction && bind(fraction),
        filter: filter && bind(filter),
      };
    }
    case "measure": {
      const made = bound.get(expr);
      if (!made) throw new Error("a measure was not bound");
      return made;
    }
    case "today":
      return { op: "constant", type: "date", value: inputs.get(TODAY) ?? null };
    case "total":
      return { ...expr, arg: bind(expr.arg) };
    default:
      return expr;
  }
}
