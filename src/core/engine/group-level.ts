import type { Value } from "../base/value";
import { type Expr, measuresUnder } from "../formula/expr";
import { scalarOf } from "../formula/scalars";
import { aggregateKey } from "../plan/aggregates";
import type { Accumulator } from "./accumulators/accumulator";

/** Where the aggregates of a group-level expression stand, by their key (see `aggregateKey`). */
export type AccumulatorSet = ReadonlyMap<string, Accumulator>;

type GroupValue = (group: number) => Value;

/**
 * Compiles bound group-level expressions into functions of the group number. `whole` holds the one group of
 * all rows. A measure that several expressions use, or one uses several times, is compiled once and computed
 * once a group.
 */
export function groupCompiler(split: AccumulatorSet, whole: AccumulatorSet): (expr: Expr) => GroupValue {
  const measures = new Map<Expr, GroupValue>();
  const compile = (expr: Expr): GroupValue => {
    switch (expr.op) {
      case "constant":
        return () => expr.value;
      case "aggregate": {
        const accumulator = split.get(aggregateKey(expr));
        if (!accumulator) throw new Error("an aggregate was not gathered");
        return (group) => accumulator.result(group);
      }
      case "measure": {
        const made = measures.get(expr);
        if (!made) throw new Error("a measure was not compiled");
        return made;
      }
      case "total": {
        const value = compileWhole(expr.arg)(0);
        return () => value;
      }
      case "call": {
        const args = expr.args.map(compile);
        const evaluate = scalarOf(expr.fn);
        return (group) => evaluate(args.map((a) => a(group)));
      }
      default:
        throw new Error(`${expr.op} cannot stand at group level`);
    }
  };
  /**
   * Measures go before what uses them, in compiling and in computing, so that nothing calls itself deeper
   * than one formula is.
   */
  const withOrder = (expr: Expr): GroupValue => {
    const under = measuresUnder(expr).map((m) => {
      const made = measures.get(m) ?? rememberingLast(compile(m.expr));
      measures.set(m, made);
      return made;
    });
    const value = compile(expr);
    if (under.length === 0) return value;
    return (group) => {
      for (const measure of under) measure(group);
      return value(group);
    };
  };
  const compileWhole = split === whole ? withOrder : groupCompiler(whole, whole);
  return withOrder;
}

function rememberingLast(compute: GroupValue): GroupValue {
  let [at, value] = [-1, null as Value];
  return (group) => {
    if (group !== at) {
      value = compute(group);
      at = group;
    }
    return value;
  };
}
