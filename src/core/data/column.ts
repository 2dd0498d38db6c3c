import { isoDate, isoTimestamp } from "../base/calendar";
import type { Value, ValueType } from "../base/value";

/** The types that a column can have: every type of a value but null's. */
export type ColumnType = Exclude<ValueType, "null">;

/**
 * Null in a column of whole days, and in a column of booleans. Numbers and timestamps use NaN, which no cell
 * holds.
 */
export const NULL_DAY = -0x80000000;
/** What stands for null among the bytes 0 and 1 of a column of true and false. */
export const NULL_BOOLEAN = 2;

/**
 * The values of one column, one entry a row. Text is kept as codes into a dictionary of distinct texts (-1 is
 * null), numbers and timestamps (ms) as doubles, dates as whole days, booleans as 0, 1 or 2 for null.
 */
export type ColumnData =
  | { type: "number" | "timestamp"; values: Float64Array }
  | { type: "date"; values: Int32Array }
  | { type: "boolean"; values: Uint8Array }
  | { type: "text"; codes: Int32Array; dictionary: string[] };

/** A column of a table as the engine reads it: its cells by their type. */
export interface Column {
  name: string;
  data: ColumnData;
}

/** A table in memory. `version` changes whenever its rows or the reading of its columns do. */
export interface Table {
  name: string;
  version: string;
  rows: number;
  columns: Column[];
  /**
   * Columns that were computed from others, and the rows that links lead to, by name; each with the version
   * of what it was computed from.
   */
  computed?: Map<string, { version: string; data: ColumnData | null; rows: Int32Array | null }>;
}

/** The value of a row: dates as days, timestamps as milliseconds. */
export function cellValue(data: ColumnData, row: number): Value {
  switch (data.type) {
    case "text":
      return data.codes[row] < 0 ? null : data.dictionary[data.codes[row]];
    case "date":
      return data.values[row] === NULL_DAY ? null : data.values[row];
    case "boolean":
      return data.values[row] === NULL_BOOLEAN ? null : data.values[row] === 1;
    default:
      return Number.isNaN(data.values[row]) ? null : data.values[row];
  }
}

/** A value as it leaves the core: dates and timestamps as ISO 8601 text. */
export function outward(value: Value, type: ValueType): Value {
  if (typeof value !== "number") return value;
  return type === "date" ? isoDate(value) : type === "timestamp" ? isoTimestamp(value) : value;
}

function dataBytes(data: ColumnData): number {
  return data.type === "text"
    ? data.codes.byteLength + data.dictionary.reduce((sum, t) => sum + 2 * t.length + 16, 0)
    : data.values.byteLength;
}

/**
 * Bytes held by a table's arrays and dictionaries, computed columns too (a text is counted at two bytes a
 * character plus its header).
 */
export function tableBytes(table: Pick<Table, "columns" | "computed">): number {
  let bytes = 0;
  for (const { data } of table.columns) bytes += dataBytes(data);
  for (const { data, rows } of table.computed?.values() ?? [])
    bytes += (data ? dataBytes(data) : 0) + (rows?.byteLength ?? 0);
  return bytes;
}

/** A table's column by its name, whatever its case. */
export function findColumn(table: Table, name: string): Column | undefined {
  const wanted = name.toLowerCase();
  return table.columns.find((c) => c.name.toLowerCase() === wanted);
}

/** Collects cells of one type and gives them as packed column data. */
export class ColumnBuilder {
  private numbers: Float64Array;
  private codes: Int32Array;
  private readonly dictionary: string[] = [];
  private readonly known = new Map<string, number>();
  private count = 0;

  constructor(
    readonly type: ColumnType,
    capacity = 1024,
  ) {
    this.numbers = new Float64Array(type === "text" ? 0 : capacity);
    this.codes = new Int32Array(type === "text" ? capacity : 0);
  }

  add(value: Value): void {
    if (this.type === "text") {
      if (this.count === this.codes.length) {
        const grown = new Int32Array(Math.max(1024, this.codes.length * 2));
        grown.set(this.codes);
        this.codes = grown;
      }
      this.codes[this.count++] = value === null ? -1 : this.code(String(value));
      return;
    }
    if (this.count === this.numbers.length) {
      const grown = new Float64Array(Math.max(1024, this.numbers.length * 2));
      grown.set(this.numbers);
      this.numbers = grown;
    }
    this.numbers[this.count++] = value === null ? Number.NaN : Number(value);
  }

  private code(text: string): number {
    let code = this.known.get(text);
    if (code === undefined) {
      code = this.dictionary.length;
      this.dictionary.push(text);
      this.known.set(text, code);
    }
    return code;
  }

  finish(): ColumnData {
    const { type, count } = this;
    if (type === "text") return { type, codes: this.codes.slice(0, count), dictionary: this.dictionary };
    const values = this.numbers.subarray(0, count);
    if (type === "date")
      return { type, values: Int32Array.from(values, (x) => (Number.isNaN(x) ? NULL_DAY : x)) };
    if (type === "boolean")
      return { type, values: Uint8Array.from(values, (x) => (Number.isNaN(x) ? NULL_BOOLEAN : x)) };
    return { type, values: values.slice() };
  }
}
