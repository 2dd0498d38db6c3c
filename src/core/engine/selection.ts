import { type ColumnData, findColumn, NULL_BOOLEAN, NULL_DAY, type Table } from "../data/column";
import { bucketStart, civil, DAY_MS, parseIsoDate, parseIsoTimestamp } from "../formula/calendar";
import { compareText, type Value } from "../formula/value";
import { type Filter, QueryError } from "./query";

const TYPE_WORDS = { number: "a number", text: "a text", boolean: "true or false", date: "a date such as 2026-05-01", timestamp: "a timestamp such as 2026-05-01T08:30:00" };

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
  if (result === null) throw new QueryError("bad_filter", `The filter on ${column} needs ${TYPE_WORDS[data.type]}, not ${JSON.stringify(value)}.`);
  return result;
}

const storedDay = (value: Value, column: string) => stored(value, { type: "date", values: new Int32Array(0) }, column) as number;

function nullOf(data: Exclude<ColumnData, { type: "text" }>): (x: number) => boolean {
  if (data.type === "date") return (x) => x === NULL_DAY;
  return data.type === "boolean" ? (x) => x === NULL_BOOLEAN : Number.isNaN;
}

function bucketTest(filter: Extract<Filter, { in: Value[] }>, data: ColumnData): (row: number) => boolean {
  if (data.type !== "date" && data.type !== "timestamp") throw new QueryError("bad_filter", `${filter.column} is no date, so it has no ${filter.by}.`);
  const by = filter.by ?? "day";
  const keyOf = (day: number) => (by === "year" ? civil(day).year : bucketStart(day, by));
  const wanted = new Set(filter.in.map((v) => (v === null || (by === "year" && typeof v === "number") ? v : keyOf(storedDay(v, filter.column)))));
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

function rowTest(filter: Filter, table: Table): (row: number) => boolean {
  const column = findColumn(table, filter.column);
  if (!column) throw new QueryError("unknown_column", `The table ${table.name} has no column “${filter.column}” to filter by.`);
  const { data, name } = column;
  if ("in" in filter) {
    if (filter.by) return bucketTest(filter, data);
    if (data.type === "text") {
      const wanted = new Set(filter.in.map((v) => (v === null ? null : stored(v, data, name))));
      const keeps = Uint8Array.from([null, ...data.dictionary], (text) => (wanted.has(text) ? 1 : 0));
      return (row) => keeps[data.codes[row] + 1] === 1;
    }
    const withNull = filter.in.includes(null);
    const none = nullOf(data);
    const wanted = new Set(filter.in.filter((v) => v !== null).map((v) => stored(v, data, name)));
    return (row) => (none(data.values[row]) ? withNull : wanted.has(data.values[row]));
  }
  const from = filter.from === undefined || filter.from === null ? null : stored(filter.from, data, name);
  const to = filter.to === undefined || filter.to === null ? null : stored(filter.to, data, name);
  if (data.type === "text") {
    const keeps = Uint8Array.from(data.dictionary, (t) => ((from === null || compareText(t, from as string) >= 0) && (to === null || compareText(t, to as string) <= 0) ? 1 : 0));
    return (row) => data.codes[row] >= 0 && keeps[data.codes[row]] === 1;
  }
  const none = nullOf(data);
  const low = from === null ? Number.NEGATIVE_INFINITY : (from as number);
  const high = to === null ? Number.POSITIVE_INFINITY : (to as number);
  const { values } = data;
  return (row) => !none(values[row]) && values[row] >= low && values[row] <= high;
}

/** The rows that every filter keeps, in table order; null when there is no filter and all rows stay. */
export function selectRows(table: Table, filters: Filter[]): Int32Array | null {
  if (filters.length === 0) return null;
  const tests = filters.map((f) => rowTest(f, table));
  let rows = new Int32Array(table.rows);
  let count = 0;
  const [first, ...rest] = tests;
  for (let row = 0; row < table.rows; row++) if (first(row)) rows[count++] = row;
  for (const test of rest) {
    let kept = 0;
    for (let i = 0; i < count; i++) if (test(rows[i])) rows[kept++] = rows[i];
    count = kept;
  }
  rows = rows.slice(0, count);
  return rows;
}
