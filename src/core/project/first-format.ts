import type { NumberFormat } from "../base/number-format";
import { checkFormula } from "../formula/check";
import type { Expr } from "../formula/expr";
import { type Named, scopeOf } from "./names";
import type { Measure } from "./schema";

const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** What stands in `nullif(x, 0)`, which only keeps a division from failing. */
const unwrapped = (e: Expr): Expr =>
  e.op === "call" && (e.fn === "nullif" || e.fn === "coalesce") ? unwrapped(e.args[0]) : e;

/**
 * Whether a formula is a share: of its own total, or of the rows that a filter keeps among all. Other ratios
 * can be anything.
 */
function isShare(expr: Expr): boolean {
  if (expr.op === "measure") return isShare(expr.expr);
  if (expr.op !== "call") return false;
  if (expr.fn === "round" || expr.fn === "coalesce") return isShare(expr.args[0]);
  if (expr.fn !== "/") return false;
  const [part, whole] = expr.args.map(unwrapped);
  if (whole.op === "total") return isSame(part, whole.arg);
  if (part.op !== "aggregate" || whole.op !== "aggregate" || part.filter === null) return false;
  return (
    part.fn === whole.fn &&
    part.distinct === whole.distinct &&
    (isSame(part.arg, whole.arg) || (part.fn === "count" && part.arg === null))
  );
}

const isUntouched = ({ units, prefix, suffix, decimals }: NumberFormat) =>
  decimals === "automatic" && units === "none" && prefix === "" && suffix === "";

/**
 * The format of a measure after its formula changes: a share begins as percent, and goes back where it is one
 * no more; a format that somebody has touched stays.
 */
export function formatAfter(measure: Measure, formula: string, project: Named): NumberFormat {
  const { format } = measure;
  const told = (text: string) => {
    const { expr } = checkFormula(text, scopeOf(project), measure.table, "group");
    return expr !== null && isShare(expr);
  };
  if (!isUntouched(format)) return format;
  if (format.style === "number" && told(formula)) return { ...format, style: "percent" };
  return format.style === "percent" && told(measure.formula) && !told(formula)
    ? { ...format, style: "number" }
    : format;
}
