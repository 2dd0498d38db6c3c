import { isNamedShare } from "../project/named-shares";

/** What is known of a column's numbers: how many there are, how many of them differ, and between which they lie. */
export interface NumberFacts {
  known: number;
  distinct: number;
  min: number;
  max: number;
  /** Whether all are whole. */
  whole: boolean;
}

/**
 * What the numbers of a column are: amounts, whose sum says something; levels, of which an average does
 * (temperatures, prices a unit, scores, coordinates); or names, that are only counted (ids, codes, years,
 * ranks).
 */
export type NumberSense = "amount" | "level" | "name";

/** The words of a column's name: "maxTemp_C" has max, temp and c. */
const wordsOf = (column: string): string[] =>
  column
    .replace(/(\p{Ll}|\d)(\p{Lu})/gu, "$1 $2")
    .toLowerCase()
    .split(/[^\p{L}\p{N}%°]+/u)
    .filter((word) => word !== "");

const words = (text: string): ReadonlySet<string> => new Set(text.split(/\s+/));

/** Words that tell names wherever they stand in the name of a column. */
const NAMES = words("id ids uuid code codes key isbn ean sku zip postcode postal plz phone fax");
/** Words that tell names as the last or only word: "House no", "Year", "Sales rank". */
const NAMES_AT_END = words(
  "no nr num number year years month week weekday day hour quarter rank ranking position pos place order index row",
);
/** Words that tell levels wherever they stand. */
const LEVELS = words(
  "temperature temp temps celsius fahrenheit kelvin °c °f price prices tariff rate rates ratio share percent percentage pct % quota average avg mean median score scores rating ratings grade grades age humidity pressure speed velocity altitude elevation latitude longitude lat lon lng coord coordinate coordinates density ph per voltage level min max minimum maximum",
);
/** A unit of something for each of something else: "km/h", "€/kg", "mg/l". */
const A_UNIT_EACH = /[\p{L}€$£%°]\s*\/\s*\p{L}/u;

/** So many numbers at least tell a run of numbers from a few amounts. */
const FEW = 8;
/** Whole numbers in this stretch are years, where most of them occur. */
const YEARS = { from: 1900, to: 2100 };

function toldByName(column: string): NumberSense | null {
  const said = wordsOf(column);
  if (said.some((word) => NAMES.has(word)) || NAMES_AT_END.has(said.at(-1) ?? "")) return "name";
  if (said.some((word) => LEVELS.has(word)) || isNamedShare(column) || A_UNIT_EACH.test(column))
    return "level";
  return null;
}

/**
 * What numbers without a gap and without a repeat tell: they count rows through, as ids and ranks do. Years
 * are told where whole numbers lie in their stretch and fill it.
 */
function toldByFacts({ known, distinct, min, max, whole }: NumberFacts): NumberSense | null {
  if (!whole || distinct < 2) return null;
  const isRun = max - min + 1 === distinct;
  if (isRun && distinct === known && known >= FEW) return "name";
  const isFilled = max - min + 1 <= 2 * distinct;
  return isFilled && min >= YEARS.from && max <= YEARS.to && known >= 2 * distinct ? "name" : null;
}

/** What the numbers of a column are, by its name and, where they are known, by its numbers. */
export const numberSense = (column: string, facts: NumberFacts | null): NumberSense =>
  toldByName(column) ?? (facts && toldByFacts(facts)) ?? "amount";
