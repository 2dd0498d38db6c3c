import { checkFormula } from "../formula/check";
import { scopeOf } from "../project/names";
import type { ReviewRule } from "./finding";

/** A column called by one of these words, alone or as a part of its name; "corporate" is none. */
const SHARE = /(^|[^\p{L}])(rate|share|percent|pct|ratio|quota)($|[^\p{L}])/iu;
const wordsOf = (column: string) => column.replace(/(\p{Ll})(\p{Lu})/gu, "$1 $2");

/** A sum of shares, which grows with the number of rows. */
export const summedShare: ReviewRule = {
  id: "summed share",
  look: ({ measure, project }) => {
    const { expr } = checkFormula(measure.formula, scopeOf(project), measure.table, "group", measure.name);
    if (expr?.op !== "aggregate" || expr.fn !== "sum" || expr.arg?.op !== "column") return null;
    if (measure.format.style !== "percent" && !SHARE.test(wordsOf(expr.arg.column))) return null;
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
