import { aggregateEntry } from "../formula/aggregates";
import { checkFormula } from "../formula/check";
import type { Expr } from "../formula/expr";
import { type Named, scopeOf } from "./names";
import type { Measure } from "./schema";

const isConstant = (e: Expr): boolean => e.op === "constant" || e.op === "input";

/**
 * Whether the value of an expression over several groups is the sum of its values over each: sums and counts
 * do, and what adds, subtracts or scales them.
 */
function addsUpExpr(e: Expr): boolean {
  if (e.op === "aggregate") return aggregateEntry(e.fn).addsUp === true && !e.distinct;
  if (e.op === "measure") return addsUpExpr(e.expr);
  if (e.op !== "call") return false;
  const [a, b] = e.args;
  switch (e.fn) {
    case "+":
    case "-":
      return e.args.every(addsUpExpr);
    case "*":
      return (addsUpExpr(a) && isConstant(b)) || (isConstant(a) && addsUpExpr(b));
    case "/":
      return addsUpExpr(a) && isConstant(b);
    case "coalesce":
      return addsUpExpr(a) && e.args.slice(1).every(isConstant);
    case "round":
      return addsUpExpr(a);
    default:
      return false;
  }
}

/** Whether the parts of a measure make its whole; a measure with a problem is given the benefit of it. */
export function addsUp(measure: Measure, project: Named): boolean {
  const { expr } = checkFormula(measure.formula, scopeOf(project), measure.table, "group", measure.name);
  return expr === null || addsUpExpr(expr);
}
