import { checkFormula } from "../formula/check";
import { scopeOf } from "../project/names";
import type { ReviewRule } from "./finding";

const SHARE = /(rate|share|percent|pct|ratio|quota)/i;

/** A sum of shares, which grows with the number of rows. */
export const summedShare: ReviewRule = {
  id: "summed share",
  look: ({ measure, project }) => {
    const { expr } = checkFormula(measure.formula, scopeOf(project), measure.table, "group", measure.name);
    if (expr?.op !== "aggregate" || expr.fn !== "sum" || expr.arg?.op !== "column") return null;
    if (measure.format.style !== "percent" && !SHARE.test(expr.arg.column)) return null;
    const formula = measure.formula.replace(/^\s*sum\b/i, "avg");
    return {
      text: `${measure.label} adds up shares: ${measure.formula.trim()}.`,
      why: "A sum of shares grows with the number of rows, and is no share of anything.",
      measure,
      mend:
        formula === measure.formula
          ? undefined
          : {
              label: "Take their mean",
              edit: { type: "change measure", id: measure.id, change: { formula } },
            },
    };
  },
};
