import { bucketStart, type Calendar, DAY_MS, type DateBucket } from "../base/calendar";
import { compareValues, type Value } from "../base/value";
import { type CellData, type ColumnData, cellValue, outward, type TextData } from "../data/column";
import { columnRange } from "../data/column-range";
import { type Block, placesIn, placesOf, type Readers } from "./block";
import { BLOCK } from "./loops/loops";
import { bucketAfter } from "./relative";
import type { SourceColumn } from "./source-column";

/** The most groups that an answer can have. */
export const MAX_GROUPS = 50_000;

/** The key of rows that a link finds no match for; no text of a file is this. */
export const NO_MATCH = "\u0000no match";

/** Gives each row of a block the number of its group; groups are numbered as they are first met. */
export interface Grouper {
  assign(block: Block, groups: Int32Array): void;
  /**
   * For each split, one key a group: dates as days, timestamps as milliseconds. Without a split there
   * is one group.
   */
  readonly keys: Value[][];
  readonly size: number;
}

/** Gives each row of a block the number of its key. */
interface Keying {
  assign(block: Block, groups: Int32Array): void;
  readonly keys: Value[];
}

/** A grouper over any number of splits. */
export function grouperOf(
  splits: { column: SourceColumn; by: DateBucket | undefined }[],
  readers: Readers,
  calendar?: Calendar,
): Grouper {
  const keyings = splits.map(({ column, by }) => {
    const keying = columnKeying(column.data, readers, by, calendar);
    return column.rows ? matched(keying, column.rows, readers) : keying;
  });
  if (keyings.length === 0)
    return { keys: [], size: 1, assign: ({ length }, groups) => void groups.fill(0, 0, length) };
  return keyings.slice(1).reduce((first, then) => crossed(first, then, readers), single(keyings[0]));
}

/** A grouper over one split. */
function single({ keys, assign }: Keying): Grouper {
  return {
    keys: [keys],
    get size() {
      return keys.length;
    },
    assign,
  };
}

/** Puts rows without a match under a key of their own. */
function matched(inner: Keying, rowsIn: Int32Array, { loops }: Readers): Keying {
  const kept = placesIn(loops);
  const keptGroups = loops.ints(BLOCK);
  let none = -1;
  return {
    keys: inner.keys,
    assign: ({ base, count, offsets, length, whole }, groups) => {
      let matches = 0;
      for (let i = 0; i < length; i++) if (rowsIn[base + offsets[i]] >= 0) kept[matches++] = offsets[i];
      const all = matches === length;
      inner.assign({ base, count, offsets: kept, length: matches, whole: whole && all }, keptGroups);
      if (!all && none < 0) none = inner.keys.push(NO_MATCH) - 1;
      for (let i = 0, k = 0; i < length; i++)
        groups[i] = rowsIn[base + offsets[i]] >= 0 ? keptGroups[k++] : none;
    },
  };
}

const DENSE = 1 << 22;
const NEAR = 1 << 20;

/** Groups that are split once more. A table of all pairs while that is small, a map past it. */
function crossed(first: Grouper, second: Keying, { loops }: Readers): Grouper {
  const keys: Value[][] = [...first.keys.map(() => []), []];
  const other = loops.ints(BLOCK);
  let [height, width] = [0, 0];
  let dense: Int32Array = new Int32Array(0);
  let sparse: Map<number, number> | null = null;
  const reserve = () => {
    const [h, w] = [
      Math.max(height, 2 ** Math.ceil(Math.log2(first.size + 1))),
      Math.max(width, 2 ** Math.ceil(Math.log2(second.keys.length + 1))),
    ];
    if (h * w > DENSE) {
      sparse = new Map();
      for (let a = 0; a < height; a++)
        for (let b = 0; b < width; b++)
          if (dense[a * width + b] >= 0) sparse.set(a * 2 ** 26 + b, dense[a * width + b]);
      return;
    }
    const next = loops.ints(h * w).fill(-1);
    for (let a = 0; a < height; a++) next.set(dense.subarray(a * width, (a + 1) * width), a * w);
    [height, width, dense] = [h, w, next];
  };
  const make = (a: number, b: number) => {
    for (const [i, column] of first.keys.entries()) keys[i].push(column[a]);
    return keys[first.keys.length].push(second.keys[b]) - 1;
  };
  return {
    keys,
    get size() {
      return keys[0].length;
    },
    assign: (block, groups) => {
      first.assign(block, groups);
      second.assign(block, other);
      if (!sparse && (first.size > height || second.keys.length > width)) reserve();
      const pairs = sparse as Map<number, number> | null;
      if (!pairs && !loops.groupPairs(dense, width, other, block.length, groups)) return;
      for (let i = 0; i < block.length; i++) {
        if (!pairs && groups[i] >= 0) continue;
        // Where the group of a pair is not known yet, the first of it was left as its complement.
        const a = pairs ? groups[i] : ~groups[i];
        const b = other[i];
        const at = pairs ? a * 2 ** 26 + b : a * width + b;
        let group = pairs ? (pairs.get(at) ?? -1) : dense[at];
        if (group < 0) {
          group = make(a, b);
          if (pairs) pairs.set(at, group);
          else dense[at] = group;
        }
        groups[i] = group;
      }
    },
  };
}

/** Keys by the texts of a column, by their code in its dictionary. */
function textKeying(data: TextData, readers: Readers): Keying {
  const { dictionary } = data;
  const reader = readers.codes(data);
  const keys: Value[] = [];
  const { loops } = readers;
  const groupOfCode = loops.ints(dictionary.length + 1).fill(-1);
  const groupOf = (code: number): number => {
    if (groupOfCode[code + 1] < 0) groupOfCode[code + 1] = keys.push(code < 0 ? null : dictionary[code]) - 1;
    return groupOfCode[code + 1];
  };
  return {
    keys,
    assign: (block, groups) => {
      const codes = reader.codesOf(block);
      // A group that is not known yet is left at -1 and looked at again, so that the loop over all rows
      // stays bare.
      if (!loops.groupCodes(codes, groupOfCode, placesOf(block), block.length, groups)) return;
      for (let i = 0; i < block.length; i++) if (groups[i] < 0) groups[i] = groupOf(codes[block.offsets[i]]);
    },
  };
}

/** Keys by the values of a column; dates and timestamps by the bucket when one is given. */
function columnKeying(
  data: ColumnData,
  readers: Readers,
  bucket: DateBucket | undefined,
  calendar?: Calendar,
): Keying {
  if (data.type === "text") return textKeying(data, readers);
  return cellKeying(data, readers, bucket, calendar);
}

function cellKeying(
  data: CellData,
  readers: Readers,
  bucket: DateBucket | undefined,
  calendar?: Calendar,
): Keying {
  const { loops } = readers;
  const reader = readers.cells(data);
  const keys: Value[] = [];
  const groupOfRaw = new Map<number, number>();
  const groupOfKey = new Map<Value, number>();
  const { within, full } = columnRange(data);
  // Values that lie close together find their group by their place in a table, others by their value
  // in a map.
  const near =
    within && within.span <= NEAR
      ? { low: within.low, table: loops.ints(within.span).fill(-1), isWhole: full }
      : null;
  const keyOf = (row: number): Value => {
    const value = cellValue(data, row);
    if (typeof value !== "number" || !bucket) return value === 0 ? 0 : value;
    if (data.type === "date") return bucketStart(value, bucket, calendar);
    return data.type === "timestamp" ? bucketStart(Math.floor(value / DAY_MS), bucket, calendar) : value;
  };
  const begin = (row: number, raw: number): number => {
    const key = keyOf(row);
    const group = groupOfKey.get(key) ?? keys.push(key) - 1;
    groupOfKey.set(key, group);
    if (!near || !(raw - near.low in near.table)) groupOfRaw.set(raw, group);
    else if (bucket && data.type === "date" && typeof key === "number")
      // All days of a stretch have its key.
      near.table.fill(group, Math.max(key - near.low, 0), bucketAfter(key, bucket, 1, calendar) - near.low);
    else near.table[raw - near.low] = group;
    return group;
  };
  const known = (raw: number): number =>
    (near && raw - near.low in near.table ? near.table[raw - near.low] : groupOfRaw.get(raw)) ?? -1;
  return {
    keys,
    assign: (block, groups) => {
      const { base, offsets, length } = block;
      const values = reader.storedOf(block);
      if (near && !loops.groupNear(values, near, placesOf(block), length, groups)) return;
      for (let i = 0; i < length; i++) {
        if (near && groups[i] >= 0) continue;
        const raw = values[offsets[i]];
        const group = known(raw);
        groups[i] = group < 0 ? begin(base + offsets[i], raw) : group;
      }
    },
  };
}

/** A key as it leaves the engine; rows without a match stand under null. */
export function outwardKey(key: Value, type: ColumnData["type"]): Value {
  return key === NO_MATCH ? null : outward(key, type);
}

/** The order of keys by their value, null after them, and rows without a match last. */
export function compareKeys(a: Value, b: Value): number {
  if (a === NO_MATCH || b === NO_MATCH) return a === b ? 0 : a === NO_MATCH ? 1 : -1;
  return compareValues(a, b);
}
