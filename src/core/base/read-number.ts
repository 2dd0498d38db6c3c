const CURRENCY =
  /^(?:[€$£¥₹]|eur|usd|gbp|chf|dkk|sek|nok|kr\.?)\s*|\s*(?:[€$£¥₹]|eur|usd|gbp|chf|dkk|sek|nok|kr\.?)$/giu;
const SPACES = "\\u0020\\u00a0\\u2009\\u202f'’";
const WHOLE_NUMBER = /^[+-]?\d{1,300}$/;
const PLAIN_NUMBER = /^[+-]?\d{1,300}(?:\.\d*)?$/;

/**
 * A number with the one decimal mark or the other: what it looks like, and the grouping marks to take out of
 * it. Groups never begin with a zero: 0,912 is no 912.
 */
function numberForm(mark: string, group: string) {
  return {
    pattern: new RegExp(
      `^(?:\\d+|[1-9]\\d{0,2}(?:[${group}${SPACES}]\\d{3})+)?(?:${mark}\\d*)?(?:[eE][+-]?\\d+)?$`,
      "u",
    ),
    marks: new RegExp(`[${group}${SPACES}]`, "gu"),
  };
}
const NUMBER_FORMS = { ".": numberForm("\\.", ","), ",": numberForm(",", ".") };

/**
 * Reads a number with its decimal mark; grouping marks, a currency sign, a percent sign and (brackets) for
 * minus are understood. Null where it is none.
 */
export function readNumber(cell: string, decimal: "." | ","): number | null {
  let text = cell.trim();
  if (decimal === "." ? PLAIN_NUMBER.test(text) : WHOLE_NUMBER.test(text)) return Number(text);
  let sign = 1;
  if (text.startsWith("(") && text.endsWith(")")) {
    sign = -1;
    text = text.slice(1, -1).trim();
  }
  const minus = /^([+\-−])\s*/u.exec(text);
  if (minus) {
    if (minus[1] !== "+") sign = -sign;
    text = text.slice(minus[0].length);
  }
  text = text.replace(CURRENCY, "");
  if (text.startsWith("-") || text.startsWith("−")) {
    sign = -sign;
    text = text.slice(1);
  }
  let scale = 1;
  if (text.endsWith("%")) {
    scale = 100;
    text = text.slice(0, -1).trim();
  }
  const { pattern, marks } = NUMBER_FORMS[decimal];
  if (text === "" || !/\d/.test(text) || !pattern.test(text)) return null;
  const plain = text.replace(marks, "").replace(",", ".");
  // Fifteen digits: 86.4 % is 0.864, not the quotient's nearest double.
  const value = sign * (scale === 1 ? Number(plain) : Number((Number(plain) / scale).toPrecision(15)));
  return Number.isFinite(value) ? value : null;
}

const LEADING_ZERO = /^[+-]?0\d/;
const LONG_DIGITS = /^[+-]?\d{16,}$/;

/**
 * Whether a cell's digits are a name and not an amount: a leading zero, or more digits than a number keeps
 * (beyond 2^53).
 */
export function isDigitName(cell: string): boolean {
  const text = cell.trim();
  return LEADING_ZERO.test(text) || (LONG_DIGITS.test(text) && !Number.isSafeInteger(Number(text)));
}
