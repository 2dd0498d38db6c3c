import { aggregateEntry } from "../formula/aggregates";
import { checkFormula } from "../formula/check";
import { type AddsUp, type Expr, measuresUnder } from "../formula/expr";
import { type Named, scopeOf } from "./names";
import type { Measure } from "./schema";

/** How an expression changes from part to part: not at all, or so that its parts make up its whole or not. */
type Parts = "same" | AddsUp;

const isSum = (parts: Parts): boolean => parts === "yes" || parts === "rounded";
/** An expression as a text, in which measures stand by their names: written out they could be endless. */
const written = (e: Expr): string =>
  JSON.stringify(e, (_, part) => (part?.op === "measure" ? { measure: part.name } : part));
const isEqual = (a: Expr, b: Expr): boolean => written(a) === written(b);
/** Whether an expression is zero, or nothing, whatever the rows are. */
function isZero(e: Expr): boolean {
  if (e.op === "constant") return e.value === 0 || e.value === null;
  if (e.op === "total") return isZero(e.arg);
  if (e.op !== "call") return false;
  const [a, b] = e.args;
  switch (e.fn) {
    case "*":
    case "/":
      return isZero(a) || isZero(b);
    case "-":
      return isEqual(a, b) || (isZero(a) && isZero(b));
    case "+":
    case "negate":
      return e.args.every(isZero);
    default:
      return false;
  }
}

/** Sums and differences: their parts make a whole where those of all terms do, and nothing is added to each. */
function ofTerms(terms: Parts[], args: Expr[]): Parts {
  const changing = terms.filter((_, i) => !isZero(args[i]));
  if (changing.every((t) => t === "same")) return "same";
  if (changing.every((t) => t === "yes")) return "yes";
  if (changing.every(isSum)) return "rounded";
  // A number added to each part stands in the whole once.
  const isOneOff = changing.filter((t) => t === "no" || t === "same").length === 1;
  return changing.every((t) => t !== "by values") && isOneOff ? "no" : "by values";
}

/** What a call makes of its arguments. */
function ofCall(call: Expr & { op: "call" }, of: (e: Expr) => Parts): Parts {
  const { fn, args } = call;
  const parts = args.map(of);
  const [a, b] = parts;
  if (isZero(call)) return "yes";
  if (parts.every((p) => p === "same")) return "same";
  switch (fn) {
    case "negate":
      return a;
    case "round":
      return a === "yes" ? "rounded" : a;
    case "+":
    case "-":
      return ofTerms(parts, args);
    case "*":
      return b === "same" ? a : a === "same" ? b : "by values";
    case "/":
      if (b === "same") return a;
      // A ratio makes no whole; one of ratios can be anything.
      return (isSum(a) || a === "same") && isSum(b) ? "no" : "by values";
    case "coalesce":
      // What is nothing adds nothing, as zero does.
      return args.slice(1).every(isZero) ? a : "by values";
    case "nullif":
      return isZero(args[1]) ? a : "by values";
    case "case":
      return ofCase(args, parts);
    default:
      return "by values";
  }
}

/** Conditions that hold for all parts alike choose one result for all of them. */
function ofCase(args: Expr[], parts: Parts[]): Parts {
  const isOtherwise = (i: number) => i % 2 === 0 && i === args.length - 1;
  const results = parts.flatMap((p, i) => (i % 2 === 1 || isOtherwise(i) ? [{ p, e: args[i] }] : []));
  const conditions = parts.filter((_, i) => i % 2 === 0 && !isOtherwise(i));
  const isShared = conditions.every((p) => p === "same");
  return isShared && results.every(({ p, e }) => p === "yes" || isZero(e)) ? "yes" : "by values";
}

/** How an expression changes from part to part; what the measures under it do stands in `known`. */
function partsOf(e: Expr, known: ReadonlyMap<Expr, Parts>): Parts {
  switch (e.op) {
    // A total is over all parts, whichever it stands beside.
    case "constant":
    case "input":
    case "today":
    case "total":
      return "same";
    case "measure":
      return known.get(e) ?? "by values";
    case "aggregate":
      return aggregateEntry(e.fn).addsUp === true && !e.distinct ? "yes" : "no";
    case "call":
      return ofCall(e, (arg) => partsOf(arg, known));
    default:
      return "no";
  }
}

/** Whether the parts of an expression make its whole, as its form tells. */
export function addsUpExpr(expr: Expr): AddsUp {
  const known = new Map<Expr, Parts>();
  for (const measure of measuresUnder(expr)) known.set(measure, partsOf(measure.expr, known));
  const parts = partsOf(expr, known);
  // One number for all parts is what they make together where it is zero.
  return parts === "same" ? "by values" : parts;
}

/** Whether the parts of a measure make its whole; a measure with a problem is given the benefit of it. */
export function addsUp(measure: Measure, project: Named): AddsUp {
  const { expr } = checkFormula(measure.formula, scopeOf(project), measure.table, "group", measure.name);
  return expr === null ? "yes" : addsUpExpr(expr);
}
