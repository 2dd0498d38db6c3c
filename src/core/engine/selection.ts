import { bucketStart, type Calendar, civil, DAY_MS, parseIsoDate, parseIsoTimestamp } from "../base/calendar";
import { compareText, type Value } from "../base/value";
import type { CellData, ColumnData, ColumnType, TextData } from "../data/column";
import { columnRange } from "../data/column-range";
import { inArray, isNone } from "../data/stored";
import { isListFilter, listedIn } from "../plan/list-filter";
import type { PlacedFilter } from "../plan/plan";
import type { Filter, ListFilter } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { type CellReader, type CodeReader, placesIn, Readers, type Run } from "./block";
import type { Limits } from "./loops/loops";
import { BLOCK } from "./loops/loops";
import { relativeDays } from "./relative";
import type { FilterSource } from "./source-column";
import type { TableSource } from "./table-source";

const TYPE_WORDS = {
  number: "a number",
  text: "a text",
  boolean: "true or false",
  date: "a date such as 2026-05-01",
  timestamp: "a timestamp such as 2026-05-01T08:30:00",
};

/** A filter's value as values of the column's type are compared; throws a QueryError where it does not fit. */
function comparable(value: Value, type: ColumnType, column: string): number | string {
  const fits = () => {
    if (type === "text" && typeof value === "string") return value;
    if (type === "number" && typeof value === "number" && Number.isFinite(value)) return value;
    if (type === "boolean" && typeof value === "boolean") return value ? 1 : 0;
    if (type === "date" && typeof value === "string") return parseIsoDate(value);
    if (type === "timestamp" && typeof value === "string") return parseIsoTimestamp(value);
    return null;
  };
  const result = fits();
  if (result === null)
    throw new QueryError(
      "bad_filter",
      `The filter on ${column} needs ${TYPE_WORDS[type]}, not ${JSON.stringify(value)}.`,
    );
  return result;
}

/**
 * Narrows the rows of a run: writes those of its places `from[0 .. length)` that it keeps to the front of
 * `out`, which has room for a few more than the run (`placesIn`), and gives how many they are. `from` null stands for all
 * places of the run; it may be `out` itself.
 */
export type Narrowing = (run: Run, from: Int32Array | null, length: number, out: Int32Array) => number;

/** Beyond this no whole number is stored narrow, and a limit need not be exact. */
const FAR = 2 ** 40;

/** The least stored cell that stands for at least `value`, or, upwards, the largest for at most that. */
function storedLimit(value: number, scale: number, upwards: boolean): number {
  if (scale === 1 || !(Math.abs(value) * scale < FAR)) return value * scale;
  // Compared as the numbers that they stand for: a product can be rounded past the limit.
  if (upwards) {
    let k = Math.ceil(value * scale) + 1;
    while (k / scale > value) k--;
    return k;
  }
  let k = Math.floor(value * scale) - 1;
  while (k / scale < value) k++;
  return k;
}

/** Keeps rows whose value lies within both limits. A null never does. */
function withinLimits(reader: CellReader, { low, high }: Limits, { loops }: Readers): Narrowing {
  const { none, scale } = reader.data;
  const limits = {
    low: Math.max(Number.isNaN(none) ? Number.NEGATIVE_INFINITY : none + 1, storedLimit(low, scale, false)),
    high: storedLimit(high, scale, true),
  };
  return (run, from, length, out) => loops.pickRange(reader.storedOf(run), limits, from, length, out);
}

/** Marks in the memory of loops. */
function marksIn({ loops }: Readers, marks: number[]): Uint8Array {
  const made = loops.bytes(marks.length);
  made.set(marks);
  return made;
}

/** Keeps rows whose code is marked; the mark of null comes first. */
function withMarkedCode(reader: CodeReader, marks: Uint8Array, { loops }: Readers): Narrowing {
  return (run, from, length, out) => loops.pickCodes(reader.codesOf(run), marks, from, length, out);
}

/** Stored cells that lie within so many are marked in a table once, others are remembered as they are met. */
const NEAR = 1 << 16;

/** Keeps rows whose value (null too) passes a test that is asked once for each distinct one. */
function byValue(data: CellData, readers: Readers, test: (value: number | null) => boolean): Narrowing {
  const reader = readers.cells(data);
  const { within } = columnRange(data);
  const { none, scale } = data;
  if (within && within.span <= NEAR) {
    const { low, span } = within;
    const marks = Array.from({ length: span + 1 }, (_, i) =>
      Number(test(i === 0 ? null : (low + i - 1) / scale)),
    );
    const near = { low, table: marksIn(readers, marks) };
    const { loops } = readers;
    return (run, from, length, out) => loops.pickNear(reader.storedOf(run), near, from, length, out);
  }
  const known = new Map<number, boolean>();
  return (run, from, length, out) => {
    const cells = reader.storedOf(run);
    let kept = 0;
    for (let i = 0; i < length; i++) {
      const at = from === null ? i : from[i];
      const stored = cells[at];
      let keeps = known.get(stored);
      if (keeps === undefined) {
        keeps = test(isNone(stored, none) ? null : stored / scale);
        if (known.size < NEAR) known.set(stored, keeps);
      }
      if (keeps) out[kept++] = at;
    }
    return kept;
  };
}

/** Keeps rows whose text passes a test that is asked once for each distinct text. */
function byText(data: TextData, readers: Readers, test: (text: string | null) => boolean): Narrowing {
  const marks = [null, ...data.dictionary].map((text) => Number(test(text)));
  return withMarkedCode(readers.codes(data), marksIn(readers, marks), readers);
}

/** Whether a date lies in one of the stretches that a filter lists. */
function bucketTest(
  filter: ListFilter,
  { type }: CellData,
  calendar?: Calendar,
): (value: number | null) => boolean {
  if (type !== "date" && type !== "timestamp")
    throw new QueryError("bad_filter", `${filter.column} is no date, so it has no ${filter.by}.`);
  const by = filter.by ?? "day";
  // A year is named by the one in which it begins.
  const keyOf = (day: number) =>
    by === "year" ? civil(bucketStart(day, by, calendar)).year : bucketStart(day, by, calendar);
  const wanted = new Set(
    listedIn(filter).map((v) =>
      v === null || (by === "year" && typeof v === "number")
        ? v
        : keyOf(comparable(v, "date", filter.column) as number),
    ),
  );
  return (value) =>
    wanted.has(value === null ? null : keyOf(type === "date" ? value : Math.floor(value / DAY_MS)));
}

/** The last instant of a day where a timestamp's upper limit is given as a date. */
function upperLimit(value: Value, type: ColumnType, name: string): number | string {
  const limit = comparable(value, type, name);
  return type === "timestamp" && typeof value === "string" && parseIsoDate(value) !== null
    ? (limit as number) + DAY_MS - 1
    : limit;
}

function rangeNarrowing(
  filter: Extract<Filter, { from?: Value }>,
  data: ColumnData,
  name: string,
  readers: Readers,
): Narrowing {
  const { type } = data;
  const from = filter.from === undefined || filter.from === null ? null : comparable(filter.from, type, name);
  const to = filter.to === undefined || filter.to === null ? null : upperLimit(filter.to, type, name);
  if (data.type === "text")
    return byText(
      data,
      readers,
      (t) =>
        t !== null &&
        (from === null || compareText(t, from as string) >= 0) &&
        (to === null || compareText(t, to as string) <= 0),
    );
  const limits = {
    low: (from as number | null) ?? Number.NEGATIVE_INFINITY,
    high: (to as number | null) ?? Number.POSITIVE_INFINITY,
  };
  return withinLimits(readers.cells(data), limits, readers);
}

/** The largest value of a column of dates or timestamps, or null when it has none. */
function newest({ values: resting, none, scale }: CellData): number | null {
  const values = inArray(resting);
  let most = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < values.length; i++) if (values[i] > most && !isNone(values[i], none)) most = values[i];
  return most === Number.NEGATIVE_INFINITY ? null : most / scale;
}

function relativeNarrowing(
  { relative }: Extract<Filter, { relative: unknown }>,
  data: ColumnData,
  name: string,
  today: Value,
  readers: Readers,
  calendar?: Calendar,
): Narrowing {
  if (data.type !== "date" && data.type !== "timestamp")
    throw new QueryError("bad_filter", `${name} is no date, so it has no ${relative.unit} to count from.`);
  const scale = data.type === "date" ? 1 : DAY_MS;
  const last = relative.anchor === "newest" ? newest(data) : null;
  const anchor =
    relative.anchor === "today"
      ? typeof today === "number"
        ? today
        : null
      : last === null
        ? null
        : Math.floor(last / scale);
  if (anchor === null) return () => 0;
  const days = relativeDays(anchor, relative, calendar);
  const limits = { low: days.first * scale, high: (days.last + 1) * scale - 1 };
  return withinLimits(readers.cells(data), limits, readers);
}

function narrowing(
  { place, filter }: PlacedFilter,
  source: FilterSource,
  readers: Readers,
  today: Value,
): Narrowing {
  const { data, rows } = source.column(place.table, place.column);
  const name = place.column;
  if ("relative" in filter) return relativeNarrowing(filter, data, name, today, readers, source.calendar);
  if ("isNull" in filter) {
    const { isNull } = filter;
    if (data.type === "text") return byText(data, readers, (text) => (text === null) === isNull);
    return byValue(data, readers, (value) => (value === null) === isNull);
  }
  if ("contains" in filter) {
    if (data.type !== "text")
      throw new QueryError(
        "bad_filter",
        `${name} is ${TYPE_WORDS[data.type]}, so it contains no text. Filter it by values or by a range.`,
      );
    const wanted = filter.contains.toLowerCase();
    return byText(data, readers, (text) => text?.toLowerCase().includes(wanted) ?? false);
  }
  if (!isListFilter(filter)) return rangeNarrowing(filter, data, name, readers);
  const listed = byList(filter, data, readers, source.calendar);
  return filter.noMatch === undefined || rows === null
    ? listed
    : withUnmatched(listed, rows, filter.noMatch === "in" in filter, readers);
}

/** Keeps rows by a list of values: those whose value is among them, or those whose value is not. */
function byList(filter: ListFilter, data: ColumnData, readers: Readers, calendar?: Calendar): Narrowing {
  const isKept = "in" in filter;
  if (data.type === "text" && !filter.by) {
    const wanted = new Set(wantedIn(filter, data.type));
    return byText(data, readers, (text) => wanted.has(text) === isKept);
  }
  const cells = data as CellData;
  if (data.type === "text" || filter.by) {
    const test = bucketTest(filter, cells, calendar);
    return byValue(cells, readers, (value) => test(value) === isKept);
  }
  const wanted = new Set(wantedIn(filter, data.type));
  return byValue(cells, readers, (value) => wanted.has(value) === isKept);
}

const wantedIn = (filter: ListFilter, type: ColumnType) =>
  listedIn(filter).map((v) => (v === null ? null : comparable(v, type, filter.column)));

/** The same for rows with a match; of those without (-1 in `rows`) all are kept, or none. */
function withUnmatched(narrow: Narrowing, rows: Int32Array, areKept: boolean, { loops }: Readers): Narrowing {
  const kept = new Uint8Array(BLOCK);
  const among = placesIn(loops);
  return (run, from, length, out) => {
    const before = from === out ? among : from;
    if (from !== null && before === among) among.set(out.subarray(0, length));
    const passed = narrow(run, from, length, out);
    kept.fill(0, 0, run.count);
    for (let i = 0; i < passed; i++) kept[out[i]] = 1;
    let count = 0;
    for (let i = 0; i < length; i++) {
      const at = before === null ? i : before[i];
      const keeps = rows[run.base + at] < 0 ? areKept : kept[at] === 1;
      out[count] = at;
      count += Number(keeps);
    }
    return count;
  };
}

/**
 * Narrows rows to those that every filter keeps; null when there is no filter. `today` is in whole days.
 */
export function narrowingOf(
  source: FilterSource,
  filters: PlacedFilter[],
  readers: Readers,
  today: Value,
): Narrowing | null {
  if (filters.length === 0) return null;
  return filters.map((f) => narrowing(f, source, readers, today)).reduce(chained);
}

/** One after the other. */
export function chained(first: Narrowing, then: Narrowing): Narrowing {
  return (run, from, length, out) => then(run, out, first(run, from, length, out), out);
}

/**
 * The rows of a source that every filter keeps, in table order; null when there is no filter and
 * all rows stay.
 */
export function selectRows(source: TableSource, filters: PlacedFilter[], today: Value): Int32Array | null {
  const readers = new Readers();
  const narrow = narrowingOf(source, filters, readers, today);
  if (!narrow) return null;
  const { rows } = source.table;
  const found = new Int32Array(rows);
  const places = placesIn(readers.loops);
  let total = 0;
  for (let base = 0; base < rows; base += BLOCK) {
    source.checkStop();
    const run = { base, count: Math.min(BLOCK, rows - base) };
    const kept = narrow(run, null, run.count, places);
    for (let i = 0; i < kept; i++) found[total++] = base + places[i];
  }
  return found.subarray(0, total);
}
