import { type Expr, visitOwn, withMeasures } from "../formula/expr";

/** An expression that is an aggregate over rows. */
export type Aggregate = Expr & { op: "aggregate" };

const keys = new WeakMap<Expr, string>();

/** Names an aggregate by what it computes, so that equal ones share one accumulator. */
export function aggregateKey(expr: Aggregate): string {
  let key = keys.get(expr);
  if (key === undefined) {
    key = JSON.stringify([expr.table, expr.fn, expr.distinct, expr.arg, expr.by, expr.fraction, expr.filter]);
    keys.set(expr, key);
  }
  return key;
}

/**
 * Lists the aggregates of an expression, those inside total() and of the measures that it uses
 * too, each once.
 */
export function aggregatesOf(expr: Expr): Aggregate[] {
  const found = new Map<string, Aggregate>();
  for (const own of withMeasures(expr))
    visitOwn(own, (e) => {
      if (e.op === "aggregate") found.set(aggregateKey(e), e);
    });
  return [...found.values()];
}
