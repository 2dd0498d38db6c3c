import { type ColumnData, cellValue, outward } from "../data/column";
import { bucketStart, DAY_MS, type DateBucket } from "../formula/calendar";
import type { Value } from "../formula/value";
import type { Block } from "./vector";

export const MAX_GROUPS = 50_000;

/** Gives each row of a block the number of its group; groups are numbered as they are first met. */
export interface Grouper {
  assign(block: Block, groups: Int32Array): void;
  /** One key a group: dates as days, timestamps as milliseconds. */
  keys: Value[];
}

/** Everything in one group. */
export function wholeGrouper(): Grouper {
  return { keys: [null], assign: ({ length }, groups) => void groups.fill(0, 0, length) };
}

/** Groups by the values of a column; dates and timestamps by the bucket when one is given. */
export function columnGrouper(data: ColumnData, bucket: DateBucket | undefined): Grouper {
  const keys: Value[] = [];
  if (data.type === "text") {
    const groupOfCode = new Int32Array(data.dictionary.length + 1).fill(-1);
    return {
      keys,
      assign: ({ rows, length }, groups) => {
        for (let i = 0; i < length; i++) {
          const code = data.codes[rows[i]];
          let group = groupOfCode[code + 1];
          if (group < 0) {
            group = keys.push(code < 0 ? null : data.dictionary[code]) - 1;
            groupOfCode[code + 1] = group;
          }
          groups[i] = group;
        }
      },
    };
  }
  const groupOfRaw = new Map<number, number>();
  const groupOfKey = new Map<Value, number>();
  const keyOf = (row: number): Value => {
    const value = cellValue(data, row);
    if (typeof value !== "number" || !bucket) return value === 0 ? 0 : value;
    if (data.type === "date") return bucketStart(value, bucket);
    return data.type === "timestamp" ? bucketStart(Math.floor(value / DAY_MS), bucket) : value;
  };
  return {
    keys,
    assign: ({ rows, length }, groups) => {
      for (let i = 0; i < length; i++) {
        const raw = data.values[rows[i]];
        let group = groupOfRaw.get(raw);
        if (group === undefined) {
          const key = keyOf(rows[i]);
          group = groupOfKey.get(key);
          if (group === undefined) {
            group = keys.push(key) - 1;
            groupOfKey.set(key, group);
          }
          groupOfRaw.set(raw, group);
        }
        groups[i] = group;
      }
    },
  };
}

/** The type of a column's keys once bucketed: a timestamp in buckets is a date. */
export function keyType(data: ColumnData, bucket: DateBucket | undefined): ColumnData["type"] {
  return data.type === "timestamp" && bucket ? "date" : data.type;
}

/** A key as it leaves the engine. */
export function outwardKey(key: Value, data: ColumnData, bucket: DateBucket | undefined): Value {
  return outward(key, keyType(data, bucket));
}
