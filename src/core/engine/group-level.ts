import type { Expr } from "../formula/expr";
import type { Value } from "../formula/value";
import type { Accumulator } from "./accumulators";
import { scalarOf } from "./vector";

/** Where the aggregates of a group-level expression stand, by their key (see `aggregateKey`). */
export type AccumulatorSet = ReadonlyMap<string, Accumulator>;

/** Names an aggregate by what it computes, so that equal ones share one accumulator. */
export function aggregateKey(expr: Expr & { op: "aggregate" }): string {
  return JSON.stringify([expr.table, expr.fn, expr.distinct, expr.arg, expr.by, expr.fraction, expr.filter]);
}

/** Lists the aggregates of an expression, those inside total() too. */
export function aggregatesOf(expr: Expr): (Expr & { op: "aggregate" })[] {
  if (expr.op === "aggregate") return [expr];
  if (expr.op === "call") return expr.args.flatMap(aggregatesOf);
  return expr.op === "total" ? aggregatesOf(expr.arg) : [];
}

/** Compiles a bound group-level expression into a function of the group number. `whole` holds the one group of all rows. */
export function compileGroup(expr: Expr, split: AccumulatorSet, whole: AccumulatorSet): (group: number) => Value {
  switch (expr.op) {
    case "constant":
      return () => expr.value;
    case "aggregate": {
      const accumulator = split.get(aggregateKey(expr));
      if (!accumulator) throw new Error("an aggregate was not gathered");
      return (group) => accumulator.result(group);
    }
    case "total": {
      const value = compileGroup(expr.arg, whole, whole)(0);
      return () => value;
    }
    case "call": {
      const args = expr.args.map((a) => compileGroup(a, split, whole));
      const evaluate = scalarOf(expr.fn);
      return (group) => evaluate(args.map((a) => a(group)));
    }
    default:
      throw new Error(`${expr.op} cannot stand at group level`);
  }
}
