import {
  decimalsFor,
  fixedDecimals,
  formatNumber,
  inOneUnit,
  inUnit,
  type NumberFormat,
  shortFormatsFor,
} from "../base/number-format";

/** So many digits more than a number of its size is read with tell values apart, and no more. */
const MOST_MORE = 3;

const settled = new WeakMap<NumberFormat, Map<number, NumberFormat>>();

/** A format with so many digits: the same object each time, so that what it has written is remembered. */
function withDecimals(format: NumberFormat, decimals: number): NumberFormat {
  const known = settled.get(format) ?? new Map<number, NumberFormat>();
  settled.set(format, known);
  const found = known.get(decimals) ?? { ...format, decimals };
  known.set(decimals, found);
  return found;
}

/**
 * Whether two values are written alike whose shapes can be told apart.
 *
 * @param extent How many pixels the largest value is drawn with.
 */
export function writtenAlike(values: readonly number[], format: NumberFormat, extent: number): boolean {
  const most = Math.max(0, ...values.map(Math.abs));
  const pixel = most / Math.max(1, extent);
  const spans = new Map<string, { low: number; high: number }>();
  for (const value of values) {
    const text = formatNumber(value, format);
    const span = spans.get(text);
    if (!span) spans.set(text, { low: value, high: value });
    else [span.low, span.high] = [Math.min(span.low, value), Math.max(span.high, value)];
  }
  return [...spans.values()].some(({ low, high }) => high - low > pixel);
}

/** Short forms have so many digits more at most. */
const MOST_MORE_SHORT = 2;

/**
 * Shorter ways to write some values together, each with the digits that tell apart what the full form does;
 * one that cannot is none. Digits that were chosen stay.
 *
 * @param extent How many pixels the largest value is drawn with.
 */
export function shortApart(
  format: NumberFormat,
  values: readonly (number | null)[],
  extent: number,
): NumberFormat[] {
  const known = values.filter((v): v is number => v !== null && Number.isFinite(v));
  const short = shortFormatsFor(format, values);
  if (format.holds?.decimals || writtenAlike(known, inOneUnit(format, known), extent)) return short;
  return short.flatMap((form) => {
    const least = fixedDecimals(form);
    const more = Array.from({ length: MOST_MORE_SHORT + 1 }, (_, d) => withDecimals(form, least + d));
    return more.find((tried) => !writtenAlike(known, tried, extent)) ?? [];
  });
}

/**
 * The format of the values of one picture, with as many digits as it takes that two of them whose shapes
 * differ by more than a pixel are not written alike, where nobody fixed them; see `decimalsFor`.
 *
 * @param extent How many pixels the largest value is drawn with.
 */
export function withDigits(
  format: NumberFormat,
  values: readonly (number | null)[],
  extent: number,
): NumberFormat {
  if (format.decimals !== "automatic") return format;
  const known = values.filter((v): v is number => v !== null && Number.isFinite(v));
  const unit = inOneUnit(format, known);
  const least = decimalsFor(
    known.map((v) => inUnit(v, unit)),
    format.style,
  );
  for (let more = 0; more < MOST_MORE; more++) {
    const tried = withDecimals(format, least + more);
    if (!writtenAlike(known, inOneUnit(tried, known), extent)) return tried;
  }
  return withDecimals(format, least + MOST_MORE);
}
