/** How a number is written. Percent takes 0.864 as 86.4 %; a duration is in minutes. */
export interface NumberFormat {
  style: "number" | "percent" | "currency" | "duration";
  /**
   * Digits after the decimal mark, 0 to 10; "automatic" takes as many as a number of its size is read with, and
   * in a visual as many more as tell its values apart (see `withDigits`).
   */
  decimals: number | "automatic";
  /** What numbers are divided by: "automatic" takes the unit that suits each. */
  units: "none" | "thousand" | "million" | "billion" | "automatic";
  /** Three capitals of ISO 4217. */
  currency: string;
  prefix: string;
  suffix: string;
  /** What was chosen for one visual, so that no shorter form changes it; never stored. */
  holds?: { units: boolean; decimals: boolean };
  /** A BCP 47 language tag, or "plain": thin spaces between groups and a point. */
  locale: string;
  /** How the days of a measure of dates are written, by the date letters of Unicode; without: 2025-12-31. */
  dates?: string;
}

/** The format of a number of which nothing else is said. */
export const PLAIN_FORMAT: NumberFormat = {
  style: "number",
  decimals: 0,
  units: "none",
  currency: "EUR",
  prefix: "",
  suffix: "",
  locale: "plain",
};
/** The format of a new measure or input, until somebody settles it. */
export const NEW_FORMAT: NumberFormat = { ...PLAIN_FORMAT, decimals: "automatic" };
/** A share in whole percents. */
export const PERCENT_FORMAT: NumberFormat = { ...PLAIN_FORMAT, style: "percent" };
/** What stands where there is no value. */
export const NO_VALUE = "—";

/** Digits that a number is read with from its first on: 0.0583 as 0.058, 5.83, 58.3. */
const SIZED = 3;

/**
 * The digits after the mark that numbers up to a size are read with, where nobody fixed them: none for whole
 * numbers and those of three digits and more, one for percents.
 *
 * @param values As they are written: percents times a hundred, in the unit that they are divided by.
 */
export function decimalsFor(values: readonly number[], style: NumberFormat["style"] = "number"): number {
  const most = Math.max(0, ...values.map(Math.abs));
  if (most === 0 || values.every(Number.isInteger)) return 0;
  if (style === "percent" && most >= 1) return 1;
  // Amounts of money have their hundredths or none.
  if (style === "currency" && most >= 1) return most >= 100 ? 0 : 2;
  const whole = Math.floor(Math.log10(most)) + 1;
  return Math.min(10, Math.max(0, whole > 0 ? SIZED - whole : SIZED - 1 - whole));
}

/** The digits of a format after the mark, those of one number where they are automatic. */
const digitsFor = (format: NumberFormat, written: number): number =>
  format.decimals === "automatic" ? decimalsFor([written], format.style) : format.decimals;

/** A format whose digits are fixed, at least so many where they were not. */
export const fixedDecimals = ({ decimals }: NumberFormat, automatic = 1): number =>
  decimals === "automatic" ? automatic : decimals;

const UNITS = { thousand: [1e3, "k"], million: [1e6, "M"], billion: [1e9, "bn"] } as const;
const THIN = "\u2009";
const NO_BREAK = "\u00a0";
const cache = new Map<string, Intl.NumberFormat>();

function formatter(locale: string, options: Intl.NumberFormatOptions): Intl.NumberFormat {
  const { minimumFractionDigits: least, maximumFractionDigits: most, currency = "" } = options;
  const key = `${locale} ${least} ${most} ${currency}`;
  let found = cache.get(key);
  if (!found) {
    try {
      found = new Intl.NumberFormat(locale === "plain" ? "en-GB" : locale, options);
    } catch {
      found = new Intl.NumberFormat("en-GB", options);
    }
    cache.set(key, found);
  }
  return found;
}

/**
 * Shorter ways to write some values together, in one unit; none in which a value below one of its last digits
 * would round up to it: 0.7 M is not written as 1 M.
 */
export function shortFormatsFor(format: NumberFormat, values: readonly (number | null)[]): NumberFormat[] {
  return shortFormats(format)
    .map((short) => inOneUnit(short, values))
    .filter(({ units, decimals }) => {
      if (units === "none" || units === "automatic") return true;
      const least = UNITS[units][0] * 10 ** -fixedDecimals({ ...format, decimals });
      return !values.some((v) => v !== null && Math.abs(v) < least && Math.abs(v) >= least / 2);
    });
}

function unitOf(value: number, format: NumberFormat): readonly [number, string] {
  if (format.units === "none" || format.style === "percent" || format.style === "duration") return [1, ""];
  // A value that would vanish in the unit is written without it.
  if (format.units !== "automatic")
    return value === 0 || Math.abs(value) / UNITS[format.units][0] >= 0.5 * 10 ** -fixedDecimals(format, 2)
      ? UNITS[format.units]
      : [1, ""];
  // Rounding may carry a number into the next unit: 999 960 with one decimal is 1.0 M.
  const size = Math.abs(value) * (1 + 0.5 * 10 ** -(fixedDecimals(format) + 3));
  if (size >= 1e9) return UNITS.billion;
  if (size >= 1e6) return UNITS.million;
  return size >= 1e3 ? UNITS.thousand : [1, ""];
}

/** A number as a format writes its digits: percents times a hundred, others in their unit. */
export function inUnit(value: number, format: NumberFormat): number {
  return (format.style === "percent" ? value * 100 : value) / unitOf(value, format)[0];
}

function duration(minutes: number): string {
  const total = Math.round(Math.abs(minutes));
  const [days, hours, rest] = [Math.floor(total / 1440), Math.floor(total / 60) % 24, total % 60];
  const parts = [
    days && `${days}${THIN}d`,
    hours && `${hours}${THIN}h`,
    (rest || total === 0) && `${rest}${THIN}min`,
  ].filter(Boolean);
  return (minutes < 0 && total > 0 ? "−" : "") + parts.join(NO_BREAK);
}

/**
 * Writes a number. Percent takes 0.864 as 86.4 %; a duration is in minutes. The locale "plain" groups digits
 * with thin spaces and keeps the point. Null and what is no finite number are written as a dash.
 */
export function formatNumber(value: number | null, format: NumberFormat): string {
  if (value === null || !Number.isFinite(value)) return NO_VALUE;
  let known = written.get(format);
  if (!known || known.size > 5000) {
    known = new Map();
    written.set(format, known);
  }
  let text = known.get(value);
  if (text === undefined) {
    text = writeNumber(value, format);
    known.set(value, text);
  }
  return text;
}

/**
 * What each format (by identity: formats are never changed in place) has written; a dial drag writes the same
 * numbers again.
 */
const written = new WeakMap<NumberFormat, Map<number, string>>();

const isSigned = (value: number): boolean => value < 0 || Object.is(value, -0);

function writeNumber(value: number, format: NumberFormat): string {
  const [prefix, suffix] = [format.prefix.replace(/ $/, NO_BREAK), format.suffix.replace(/^ /, NO_BREAK)];
  if (format.style === "duration") return prefix + duration(value) + suffix;
  const [unit, letter] = unitOf(value, format);
  const percent = format.style === "percent";
  const scaled = (percent ? value * 100 : value) / unit;
  // A tiny value must not read as nothing: 0.00042 without decimals gets the digits it needs.
  const wanted = digitsFor(format, scaled);
  const vanishes = scaled !== 0 && Math.abs(scaled) < 0.5 * 10 ** -wanted;
  const digits = vanishes ? Math.min(10, Math.ceil(-Math.log10(Math.abs(scaled))) + 1) : wanted;
  const options: Intl.NumberFormatOptions = {
    minimumFractionDigits: vanishes ? 0 : digits,
    maximumFractionDigits: digits,
    useGrouping: true,
  };
  if (format.style === "currency")
    Object.assign(options, { style: "currency", currency: format.currency, currencyDisplay: "narrowSymbol" });
  const digitsOf = formatter(format.locale, options);
  const plain = format.locale === "plain";
  // Telling the parts of a number apart takes thrice as long as writing it, and only its minus needs it.
  const text = isSigned(scaled)
    ? digitsOf
        .formatToParts(scaled)
        .map((p) => (plain && p.type === "group" ? THIN : p.type === "minusSign" ? "−" : p.value))
        .join("")
    : plain
      ? digitsOf.format(scaled).replaceAll(",", THIN)
      : digitsOf.format(scaled);
  const unitText = letter ? (letter === "k" ? "k" : `${THIN}${letter}`) : "";
  return prefix + text + unitText + (percent ? `${THIN}%` : "") + suffix;
}

/** A difference of two numbers of a format: that of two percents in points, the word for which is given. */
export function formatGap(gap: number, format: NumberFormat, points: string): string {
  if (format.style !== "percent") return formatNumber(gap, format);
  let plain = inPoints.get(format);
  if (!plain) {
    plain = { ...format, style: "number", units: "none", prefix: "", suffix: "" };
    inPoints.set(format, plain);
  }
  return `${formatNumber(Number((gap * 100).toPrecision(12)), plain)}${NO_BREAK}${points}`;
}
const inPoints = new WeakMap<NumberFormat, NumberFormat>();

/** An exact number has at most so many digits behind its mark: further ones are of the arithmetic. */
const MOST_EXACT = 6;
const exactly = new WeakMap<NumberFormat, Map<number, NumberFormat>>();

/** A number in full, with all digits that it has; none where a format writes it so already. */
export function exactNumber(value: number | null, format: NumberFormat): string | undefined {
  if (value === null || !Number.isFinite(value) || format.style === "duration") return undefined;
  const shown = Number((format.style === "percent" ? value * 100 : value).toPrecision(12));
  const places = Array.from({ length: MOST_EXACT }, (_, d) => d);
  const decimals = places.find((d) => Number(shown.toFixed(d)) === shown) ?? MOST_EXACT;
  const least = format.style === "currency" && decimals > 0 ? Math.max(2, decimals) : decimals;
  const known = exactly.get(format) ?? new Map<number, NumberFormat>();
  exactly.set(format, known);
  const full = known.get(least) ?? { ...format, units: "none" as const, decimals: least };
  known.set(least, full);
  const text = formatNumber(value, full);
  const own = formatNumber(value, format);
  return text === own || Number(text.replace(/[^\d.]/g, "")) === Number(own.replace(/[^\d.]/g, ""))
    ? undefined
    : text;
}

/** The words of formats inside templates, each with the decimals that are offered for it. */
const TEMPLATE_FORMATS = {
  number: ["0", "1", "2"],
  percent: ["0", "1"],
  currency: ["0", "2"],
  automatic: ["0", "1"],
  thousand: ["0", "1"],
  million: ["0", "1", "2"],
  billion: ["1", "2"],
  duration: [],
} as const;

/** The formats that a template offers for a number: number.0, percent.1, million.1, … */
export const OFFERED_FORMATS: readonly string[] = Object.entries(TEMPLATE_FORMATS).flatMap(
  ([word, decimals]) => (decimals.length === 0 ? word : decimals.map((d) => `${word}.${d}`)),
);

/**
 * Reads formats inside templates: percent.1, number.0, currency.2, thousand.1, million.1, billion.1,
 * automatic.1. Null when it is none of them.
 */
export function formatFromText(text: string, base: NumberFormat): NumberFormat | null {
  const m = /^([a-z]+)(?:\.(\d{1,2}))?$/.exec(text.trim());
  if (!m || !Object.hasOwn(TEMPLATE_FORMATS, m[1]) || Number(m[2] ?? 0) > 10) return null;
  const decimals = m[2] === undefined ? base.decimals : Number(m[2]);
  const word = m[1];
  if (word === "number" || word === "percent" || word === "currency" || word === "duration")
    return { ...base, style: word, decimals, units: word === base.style ? base.units : "none" };
  return {
    ...base,
    style: base.style === "currency" ? "currency" : "number",
    units: word as NumberFormat["units"],
    decimals,
  };
}

/** The number that a text in a format says: rounded as it is written. Durations are in whole minutes. */
function asWritten(value: number, format: NumberFormat): number {
  if (format.style === "duration") return Math.round(value);
  const [unit] = unitOf(value, format);
  const scale = (format.style === "percent" ? 0.01 : 1) * unit;
  const digits = 10 ** digitsFor(format, value / scale);
  return (Math.round((value / scale) * digits) / digits) * scale;
}

/**
 * Whether a number, written so, reads as lying on another side of a line than it does: 99.6 % as "100 %" of a
 * goal that is not reached.
 */
export function crossesLine(value: number, line: number, format: NumberFormat): boolean {
  const near = 1e-12 * Math.max(1, Math.abs(line));
  const side = (x: number) => (Math.abs(x - line) <= near ? 0 : Math.sign(x - line));
  return side(asWritten(value, format)) !== side(value);
}

/**
 * Shorter ways to write the same number, for places where the format's own does not fit: in k, M or bn, or in
 * the unit that was chosen, then without decimals; units and decimals that were chosen for a visual stay.
 */
export function shortFormats(format: NumberFormat): NumberFormat[] {
  let known = shorter.get(format);
  if (!known) {
    const isFixed = format.style === "percent" || format.style === "duration";
    const units = format.units === "none" && !format.holds?.units ? "automatic" : format.units;
    const decimals = format.holds?.decimals ? [format.decimals] : isFixed ? [0] : [1, 0];
    known = decimals.map((d) => ({ ...format, units: isFixed ? format.units : units, decimals: d }));
    shorter.set(format, known);
  }
  return known;
}

/**
 * The shorter formats of each format, the same objects every time, so that what they have
 * written is remembered.
 */
const shorter = new WeakMap<NumberFormat, NumberFormat[]>();

const settled = new WeakMap<NumberFormat, Map<string, NumberFormat>>();

/**
 * A format "by size" in the one unit that suits all of some values: the largest in which the smallest of them
 * still has a digit. Other formats stay as they are. The same object each time, so that what it has written
 * is remembered.
 */
export function inOneUnit(format: NumberFormat, values: readonly (number | null)[]): NumberFormat {
  if (format.units !== "automatic") return format;
  const sizes = values.flatMap((v) => (v === null || v === 0 || !Number.isFinite(v) ? [] : Math.abs(v)));
  const [least, most] = [Math.min(...sizes), Math.max(...sizes)];
  const fits = (unit: keyof typeof UNITS) =>
    most >= UNITS[unit][0] && least / UNITS[unit][0] >= 10 ** -fixedDecimals(format);
  const units = (["billion", "million", "thousand"] as const).find(fits) ?? "none";
  const known = settled.get(format) ?? new Map<string, NumberFormat>();
  settled.set(format, known);
  const found = known.get(units) ?? { ...format, units };
  known.set(units, found);
  return found;
}
