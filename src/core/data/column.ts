import { isoDate, isoTimestamp } from "../base/calendar";
import { TextMap } from "../base/text-map";
import type { Value, ValueType } from "../base/value";
import {
  type Codes,
  inArray,
  isNone,
  packCodes,
  packNumbers,
  restingAt,
  type Stored,
  type StoredCells,
} from "./stored";
import { isTwoBits, toTwoBits } from "./two-bits";

/** The types that a column can have: every type of a value but null's. */
export type ColumnType = Exclude<ValueType, "null">;

/** Cells of whole days, of milliseconds, of 0 and 1, or of numbers. */
export type CellData = { type: Exclude<ColumnType, "text"> } & StoredCells;
/** Texts as codes into a dictionary of distinct texts; -1 is null. */
export interface TextData {
  type: "text";
  codes: Codes;
  dictionary: string[];
}

/** The values of one column, one entry a row, as narrow as they are. */
export type ColumnData = CellData | TextData;

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
  if (data.type === "text") return data.codes[row] < 0 ? null : data.dictionary[data.codes[row]];
  const stored = restingAt(data.values, row);
  return isNone(stored, data.none) ? null : storedValue(data, stored);
}

/** The value that a stored cell stands for, which is not null. */
export const storedValue = ({ type, scale }: Pick<CellData, "type" | "scale">, stored: number): Value =>
  type === "boolean" ? stored === 1 : stored / scale;

/** A value as it leaves the core: dates and timestamps as ISO 8601 text. */
export function outward(value: Value, type: ValueType): Value {
  if (typeof value !== "number") return value;
  return type === "date" ? isoDate(value) : type === "timestamp" ? isoTimestamp(value) : value;
}

/** The cells or codes of a column in an array, one a row. */
export const cellsOf = (data: ColumnData): Stored =>
  data.type === "text" ? data.codes : inArray(data.values);

/** A column as it rests in memory and in files: true and false take two bits. */
export function resting(data: ColumnData): ColumnData {
  if (data.type !== "boolean" || !(data.values instanceof Int8Array)) return data;
  return { ...data, values: toTwoBits(data.values) };
}

/** The memory that the cells or codes of a column take. */
export const restingBytes = (data: ColumnData): Stored | Uint8Array =>
  data.type === "text" ? data.codes : isTwoBits(data.values) ? data.values.bits : data.values;

function dataBytes(data: ColumnData): number {
  const { byteLength } = restingBytes(data);
  return data.type === "text"
    ? byteLength + data.dictionary.reduce((sum, t) => sum + 2 * t.length + 16, 0)
    : byteLength;
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
  private readonly known = new TextMap<number>();
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
    if (type === "text")
      return {
        type,
        codes: packCodes(this.codes.subarray(0, count), this.dictionary.length),
        dictionary: this.dictionary,
      };
    return { type, ...packNumbers(this.numbers.subarray(0, count)) };
  }
}
