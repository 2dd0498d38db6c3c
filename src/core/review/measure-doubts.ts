import { formatNumber } from "../base/number-format";
import { checkFormula } from "../formula/check";
import type { Expr } from "../formula/expr";
import { isNamedShare } from "../project/named-shares";
import { type Named, scopeOf } from "../project/names";
import type { Measure } from "../project/schema";
import type { Mend } from "./finding";

/** Something about a measure itself that makes it wrong wherever it stands. */
export interface MeasureDoubt {
  id: "summed share" | "hundredfold percent";
  text: string;
  why: string;
  mend?: Mend;
}

/** A mend that changes a measure. */
const changed = (label: string, { id }: Measure, change: Partial<Omit<Measure, "id">>): Mend => ({
  label,
  edit: { type: "change measure", id, change },
});

/** A sum of shares, which grows with the number of rows. */
function summedShare(measure: Measure, expr: Expr): MeasureDoubt | null {
  if (expr.op !== "aggregate" || expr.fn !== "sum" || expr.arg?.op !== "column") return null;
  if (measure.format.style !== "percent" && !isNamedShare(expr.arg.column)) return null;
  const formula = measure.formula.replace(/^\s*sum\b/i, "avg");
  return {
    id: "summed share",
    text: `${measure.label} adds up shares: ${measure.formula.trim()}.`,
    why: "A sum of shares grows with the number of rows, and is no share of anything.",
    ...(formula === measure.formula ? {} : { mend: changed("Take their mean", measure, { formula }) }),
  };
}

const isHundred = (e: Expr | undefined) => e?.op === "constant" && e.value === 100;
/** A percent above this many times the whole was counted in percents already. */
const MOST_PERCENT = 5;

/** A percent that was multiplied by a hundred, or counts in percents: it is written a hundred times too large. */
function hundredfold(measure: Measure, expr: Expr, value: number | null): MeasureDoubt | null {
  const { format, formula } = measure;
  if (format.style !== "percent" || value === null || Math.abs(value) <= MOST_PERCENT) return null;
  const isTimes = expr.op === "call" && expr.fn === "*" && expr.args.some(isHundred);
  const isCounted = expr.op === "aggregate" && expr.arg?.op === "column" && isNamedShare(expr.arg.column);
  if (!isTimes && !isCounted) return null;
  const without = formula.replace(/\s*\*\s*100(\.0+)?\s*$|^\s*100(\.0+)?\s*\*\s*/, "");
  const mend =
    isTimes && without !== formula
      ? changed("Leave out the 100", measure, { formula: without.trim() })
      : changed("Divide by 100", measure, { formula: `(${formula.trim()}) / 100` });
  return {
    id: "hundredfold percent",
    text: `${measure.label} is written as ${formatNumber(value, format)}: its format takes 0.7 as 70\u2009%.`,
    why: isTimes
      ? "The formula multiplies by 100, and the format does so again."
      : "The column counts in percents, and the format multiplies by 100.",
    mend,
  };
}

/**
 * What is wrong with a measure wherever it stands, each with its mend; nothing of one with a problem. `value`
 * is that over all rows, as far as it is known.
 */
export function measureDoubts(measure: Measure, project: Named, value: number | null): MeasureDoubt[] {
  const { expr } = checkFormula(measure.formula, scopeOf(project), measure.table, "group", measure.name);
  if (!expr) return [];
  const summed = summedShare(measure, expr);
  // A sum of percents is too large for two reasons, and mended by the first.
  return [summed ?? hundredfold(measure, expr, value)].filter((doubt) => doubt !== null);
}
