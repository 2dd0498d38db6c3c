import { bucketStart, type Calendar, civil, DAY_MS, parseIsoDate, parseIsoTimestamp } from "../base/calendar";
import { compareText, type Value } from "../base/value";
import { type ColumnData, NULL_BOOLEAN, NULL_DAY } from "../data/column";
import type { PlacedFilter } from "../plan/plan";
import { type Filter, QueryError } from "../plan/query";
import { relativeDays } from "./relative";
import type { TableSource } from "./table-source";
import { BLOCK } from "./vector";

const TYPE_WORDS = {
  number: "a number",
  text: "a text",
  boolean: "true or false",
  date: "a date such as 2026-05-01",
  timestamp: "a timestamp such as 2026-05-01T08:30:00",
};

/** A filter's value as the column stores it; throws a QueryError where it does not fit the column's type. */
function stored(value: Value, data: ColumnData, column: string): number | string {
  const fits = () => {
    if (data.type === "text" && typeof value === "string") return value;
    if (data.type === "number" && typeof value === "number" && Number.isFinite(value)) return value;
    if (data.type === "boolean" && typeof value === "boolean") return value ? 1 : 0;
    if (data.type === "date" && typeof value === "string") return parseIsoDate(value);
    if (data.type === "timestamp" && typeof value === "string") return parseIsoTimestamp(value);
    return null;
  };
  const result = fits();
  if (result === null)
    throw new QueryError(
      "bad_filter",
      `The filter on ${column} needs ${TYPE_WORDS[data.type]}, not ${JSON.stringify(value)}.`,
    );
  return result;
}

const storedDay = (value: Value, column: string) =>
  stored(value, { type: "date", values: new Int32Array(0) }, column) as number;

function nullOf(data: Exclude<ColumnData, { type: "text" }>): (x: number) => boolean {
  if (data.type === "date") return (x) => x === NULL_DAY;
  return data.type === "boolean" ? (x) => x === NULL_BOOLEAN : Number.isNaN;
}

function bucketTest(
  filter: Extract<Filter, { in: Value[] }>,
  data: ColumnData,
  calendar?: Calendar,
): (row: number) => boolean {
  if (data.type !== "date" && data.type !== "timestamp")
    throw new QueryError("bad_filter", `${filter.column} is no date, so it has no ${filter.by}.`);
  const by = filter.by ?? "day";
  // A year is named by the one in which it begins.
  const keyOf = (day: number) =>
    by === "year" ? civil(bucketStart(day, by, calendar)).year : bucketStart(day, by, calendar);
  const wanted = new Set(
    filter.in.map((v) =>
      v === null || (by === "year" && typeof v === "number") ? v : keyOf(storedDay(v, filter.column)),
    ),
  );
  const none = nullOf(data);
  const known = new Map<number, boolean>();
  return (row) => {
    const raw = data.values[row];
    const day = none(raw) ? null : data.type === "date" ? raw : Math.floor(raw / DAY_MS);
    if (day === null) return wanted.has(null);
    let keeps = known.get(day);
    if (keeps === undefined) {
      keeps = wanted.has(keyOf(day));
      known.set(day, keeps);
    }
    return keeps;
  };
}

/**
 * Narrows row numbers: writes those of `rows[0 .. count)` that it keeps to the front of `out` and gives how
 * many they are. `rows` null stands for the run of rows from `start`.
 */
type Narrowing = (rows: Int32Array | null, start: number, count: number, out: Int32Array) => number;

type Stored = Float64Array | Int32Array | Uint8Array;

/** Both ends of a range, included. */
interface Limits {
  low: number;
  high: number;
}

/**
 * Each row is written, and counted only where it is kept: a branch that goes either way would cost more than
 * the writing.
 */
function pickRun(
  values: Stored,
  { low, high }: Limits,
  start: number,
  count: number,
  out: Int32Array,
): number {
  let kept = 0;
  for (let row = start; row < start + count; row++) {
    const x = values[row];
    out[kept] = row;
    kept += Number(x >= low) * Number(x <= high);
  }
  return kept;
}

function pickAmong(
  values: Stored,
  { low, high }: Limits,
  rows: Int32Array,
  count: number,
  out: Int32Array,
): number {
  let kept = 0;
  for (let i = 0; i < count; i++) {
    const row = rows[i];
    const x = values[row];
    out[kept] = row;
    kept += Number(x >= low) * Number(x <= high);
  }
  return kept;
}

/**
 * Keeps rows whose stored value lies within both limits. A null never does: NaN fails every comparison, and
 * the limits leave out what stands for null.
 */
function withinLimits(values: Stored, limits: Limits): Narrowing {
  return (rows, start, count, out) =>
    rows === null ? pickRun(values, limits, start, count, out) : pickAmong(values, limits, rows, count, out);
}

/** Keeps rows whose text is marked; the mark of null comes first. */
function withMarkedText(codes: Int32Array, marks: Uint8Array): Narrowing {
  return (rows, start, count, out) => {
    let kept = 0;
    for (let i = 0; i < count; i++) {
      const row = rows === null ? start + i : rows[i];
      out[kept] = row;
      kept += marks[codes[row] + 1];
    }
    return kept;
  };
}

function byTest(test: (row: number) => boolean): Narrowing {
  return (rows, start, count, out) => {
    let kept = 0;
    for (let i = 0; i < count; i++) {
      const row = rows === null ? start + i : rows[i];
      if (test(row)) out[kept++] = row;
    }
    return kept;
  };
}

/** Keeps rows whose text passes a test that is asked once for each distinct text. */
function byText(
  data: Extract<ColumnData, { type: "text" }>,
  test: (text: string | null) => boolean,
): Narrowing {
  return withMarkedText(
    data.codes,
    Uint8Array.from([null, ...data.dictionary], (text) => (test(text) ? 1 : 0)),
  );
}

/** The last instant of a day where a timestamp's upper limit is given as a date. */
function upperLimit(value: Value, data: ColumnData, name: string): number | string {
  const limit = stored(value, data, name);
  return data.type === "timestamp" && typeof value === "string" && parseIsoDate(value) !== null
    ? (limit as number) + DAY_MS - 1
    : limit;
}

function rangeNarrowing(
  filter: Extract<Filter, { from?: Value }>,
  data: ColumnData,
  name: string,
): Narrowing {
  const from = filter.from === undefined || filter.from === null ? null : stored(filter.from, data, name);
  const to = filter.to === undefined || filter.to === null ? null : upperLimit(filter.to, data, name);
  if (data.type === "text")
    return byText(
      data,
      (t) =>
        t !== null &&
        (from === null || compareText(t, from as string) >= 0) &&
        (to === null || compareText(t, to as string) <= 0),
    );
  const least = data.type === "date" ? NULL_DAY + 1 : Number.NEGATIVE_INFINITY;
  const most = data.type === "boolean" ? NULL_BOOLEAN - 1 : Number.POSITIVE_INFINITY;
  return withinLimits(data.values, {
    low: Math.max(least, (from as number | null) ?? least),
    high: Math.min(most, (to as number | null) ?? most),
  });
}

/** The largest value of a column of dates or timestamps, or null when it has none. */
function newest(values: Float64Array | Int32Array): number | null {
  let most = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < values.length; i++) if (values[i] > most) most = values[i];
  return most > NULL_DAY ? most : null;
}

function relativeNarrowing(
  { relative }: Extract<Filter, { relative: unknown }>,
  data: ColumnData,
  name: string,
  today: Value,
  calendar?: Calendar,
): Narrowing {
  if (data.type !== "date" && data.type !== "timestamp")
    throw new QueryError("bad_filter", `${name} is no date, so it has no ${relative.unit} to count from.`);
  const scale = data.type === "date" ? 1 : DAY_MS;
  const last = relative.anchor === "newest" ? newest(data.values) : null;
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
  return withinLimits(data.values, { low: days.first * scale, high: (days.last + 1) * scale - 1 });
}

function narrowing({ place, filter }: PlacedFilter, source: TableSource, today: Value): Narrowing {
  const { data } = source.column(place.table, place.column);
  const name = place.column;
  if ("relative" in filter) return relativeNarrowing(filter, data, name, today, source.calendar);
  if ("isNull" in filter) {
    if (data.type === "text") return byText(data, (text) => (text === null) === filter.isNull);
    const none = nullOf(data);
    const { values } = data;
    return byTest((row) => none(values[row]) === filter.isNull);
  }
  if ("contains" in filter) {
    if (data.type !== "text")
      throw new QueryError(
        "bad_filter",
        `${name} is ${TYPE_WORDS[data.type]}, so it contains no text. Filter it by values or by a range.`,
      );
    const wanted = filter.contains.toLowerCase();
    return byText(data, (text) => text?.toLowerCase().includes(wanted) ?? false);
  }
  if (!("in" in filter)) return rangeNarrowing(filter, data, name);
  if (filter.by) return byTest(bucketTest(filter, data, source.calendar));
  if (data.type === "text") {
    const wanted = new Set(filter.in.map((v) => (v === null ? null : stored(v, data, name))));
    return byText(data, (text) => wanted.has(text));
  }
  const withNull = filter.in.includes(null);
  const none = nullOf(data);
  const wanted = new Set(filter.in.filter((v) => v !== null).map((v) => stored(v, data, name)));
  const { values } = data;
  return byTest((row) => (none(values[row]) ? withNull : wanted.has(values[row])));
}

/**
 * Finds, for a run of rows, those that every filter keeps: writes them to `out`, which has room for the whole
 * run, and gives how many they are. Null when there is no filter. `today` is in whole days.
 */
export function selectorOf(
  source: TableSource,
  filters: PlacedFilter[],
  today: Value,
): ((start: number, count: number, out: Int32Array) => number) | null {
  if (filters.length === 0) return null;
  const [first, ...more] = filters.map((f) => narrowing(f, source, today));
  return (start, count, out) =>
    more.reduce((kept, narrow) => narrow(out, 0, kept, out), first(null, start, count, out));
}

/**
 * The rows of a source that every filter keeps, in table order; null when there is no filter and all rows
 * stay.
 */
export function selectRows(source: TableSource, filters: PlacedFilter[], today: Value): Int32Array | null {
  const select = selectorOf(source, filters, today);
  if (!select) return null;
  // One more than the rows, since a row is written before it is counted.
  const { rows } = source.table;
  const out = new Int32Array(rows + 1);
  let kept = 0;
  for (let start = 0; start < rows; start += BLOCK) {
    source.checkStop();
    kept += select(start, Math.min(BLOCK, rows - start), out.subarray(kept));
  }
  return out.subarray(0, kept);
}
