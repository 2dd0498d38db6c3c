import { bucketStart, type Calendar, civil, DAY_MS, type DateBucket, parseIsoDate } from "../base/calendar";
import { compareText, type Value } from "../base/value";
import { cellCounts } from "../data/cell-counts";
import { type CellData, type ColumnData, cellValue, outward, storedValue } from "../data/column";
import { columnRange } from "../data/column-range";
import { inArray, isNone } from "../data/stored";
import type { CategoryPlaces } from "../plan/query";

/**
 * Up to this many categories, which every palette has colours of its own for, stand in their own order; of
 * more, the most frequent come first, so that those that are seen the most are told apart the best.
 */
export const FEW_CATEGORIES = 8;
/** Categories past this many have no places: nobody tells them apart by a colour. */
const MOST_CATEGORIES = 20_000;

/**
 * The categories of a column in their places, whatever a query keeps of them, as plain data: their values as
 * they leave the engine (none: too many to tell), or stretches of time one after the other from the first.
 */
export type Categories =
  | { values: Value[] }
  | { by: DateBucket; calendar: Calendar | undefined; first: number; of: number };

/** How often each value of a column stands in it; null where there are more than have places. */
function countsOf(data: ColumnData): Map<Value, number> | null {
  if (data.type === "text") {
    if (data.dictionary.length > MOST_CATEGORIES) return null;
    const counts = new Int32Array(data.dictionary.length);
    for (const code of data.codes) if (code >= 0) counts[code]++;
    return new Map(data.dictionary.flatMap((text, code) => (counts[code] ? [[text, counts[code]]] : [])));
  }
  const counts = new Map<Value, number>();
  const near = cellCounts(data);
  if (near) {
    for (const [i, count] of near.counts.entries())
      if (count > 0) counts.set(storedValue(data, near.low + i), count);
    return counts.size > MOST_CATEGORIES ? null : counts;
  }
  for (let row = 0; row < data.values.length; row++) {
    const value = cellValue(data, row);
    if (value === null) continue;
    const key = value === 0 ? 0 : value;
    counts.set(key, (counts.get(key) ?? 0) + 1);
    if (counts.size > MOST_CATEGORIES) return null;
  }
  return counts;
}

const inOwnOrder = (a: Value, b: Value) =>
  typeof a === "string" && typeof b === "string" ? compareText(a, b) : Number(a) - Number(b);

function byValue(data: ColumnData): Categories {
  const counts = countsOf(data);
  if (!counts) return { values: [] };
  const values = [...counts.keys()].sort(inOwnOrder);
  if (values.length > FEW_CATEGORIES)
    values.sort((a, b) => (counts.get(b) as number) - (counts.get(a) as number));
  return { values: values.map((value) => outward(value, data.type)) };
}

/** The number of the stretch of time that a day lies in, counted from any fixed one. */
function stretchOf(day: number, by: DateBucket, calendar?: Calendar): number {
  const start = bucketStart(day, by, calendar);
  if (by === "day") return start;
  if (by === "week") return Math.floor(start / 7);
  const { year, month } = civil(start);
  return Math.floor((year * 12 + month) / MONTHS[by]);
}
const MONTHS = { year: 12, quarter: 3, month: 1 } as const;

/** The least and the largest value of a column of dates or moments; null where it has none. */
function endsOf(data: CellData): { low: number; high: number } | null {
  const { within } = columnRange(data);
  const { none, scale } = data;
  if (within) return { low: within.low / scale, high: (within.low + within.span - 1) / scale };
  const values = inArray(data.values);
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let row = 0; row < values.length; row++) {
    const stored = values[row];
    if (isNone(stored, none)) continue;
    if (stored < low) low = stored;
    if (stored > high) high = stored;
  }
  return low > high ? null : { low: low / scale, high: high / scale };
}

/** Stretches of time stand one after the other from the first one of the column, without gaps. */
function byStretch(data: CellData, by: DateBucket, calendar?: Calendar): Categories {
  const ends = endsOf(data);
  if (!ends) return { values: [] };
  const dayOf = (value: number) => (data.type === "date" ? value : Math.floor(value / DAY_MS));
  const first = stretchOf(dayOf(ends.low), by, calendar);
  return { by, calendar, first, of: stretchOf(dayOf(ends.high), by, calendar) - first + 1 };
}

const known = new WeakMap<ColumnData, Map<string, Categories>>();

/** The categories of a column, found once; of dates, by the stretch that is given. */
export function categoriesOf(data: ColumnData, by?: DateBucket, calendar?: Calendar): Categories {
  const ofColumn = known.get(data) ?? new Map<string, Categories>();
  known.set(data, ofColumn);
  const name = JSON.stringify([by, calendar]);
  let categories = ofColumn.get(name);
  if (!categories) {
    categories =
      by && (data.type === "date" || data.type === "timestamp")
        ? byStretch(data, by, calendar)
        : byValue(data);
    ofColumn.set(name, categories);
  }
  return categories;
}

const ranked = new WeakMap<Categories, ReadonlyMap<Value, number> | null>();

/** The place of each text of a column in the order of texts, found once; null where it has none. */
export function textRanks(categories: Categories): ReadonlyMap<Value, number> | null {
  let ranks = ranked.get(categories);
  if (ranks === undefined) {
    const texts = "values" in categories ? categories.values.filter((v) => typeof v === "string") : [];
    ranks = texts.length ? new Map(texts.sort(compareText).map((text, rank) => [text, rank])) : null;
    ranked.set(categories, ranks);
  }
  return ranks;
}

const numbered = new WeakMap<Categories, Map<Value, number>>();

/**
 * The places of an answer's keys among all categories of the column that they come from: the same category
 * has the same place whatever is filtered, sorted or left out. `keys` are as they leave the engine; what is no
 * category of the column (null, Other) has none.
 */
export function placesAmong(categories: Categories, keys: readonly Value[]): CategoryPlaces {
  if ("values" in categories) {
    const { values } = categories;
    const places = numbered.get(categories) ?? new Map(values.map((value, i) => [value, i]));
    numbered.set(categories, places);
    return { of: values.length, at: keys.map((key) => places.get(key) ?? null) };
  }
  const { by, calendar, first, of } = categories;
  const at = keys.map((key) => {
    const day = typeof key === "string" ? parseIsoDate(key) : null;
    return day === null ? null : stretchOf(day, by, calendar) - first;
  });
  return { of, at };
}
