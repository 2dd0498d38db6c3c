import type { Value } from "../base/value";
import { type Column, cellValue, outward } from "./column";
import { type Codes, inArray, isNone } from "./stored";

/**
 * What a column holds at a glance. `bars` are counts: a histogram of up to 16 equal ranges, or of the most
 * frequent texts.
 */
export interface Profile {
  nulls: number;
  distinct: number;
  min: Value;
  max: Value;
  /** Whether all are whole numbers. */
  whole: boolean;
  bars: { label: string; count: number }[];
}

const BINS = 16;
const TOP = 8;

function profileText(codes: Codes, dictionary: string[]): Profile {
  const counts = new Float64Array(dictionary.length);
  let nulls = 0;
  for (let i = 0; i < codes.length; i++) {
    if (codes[i] < 0) nulls++;
    else counts[codes[i]]++;
  }
  const present = dictionary.map((label, i) => ({ label, count: counts[i] })).filter((b) => b.count > 0);
  const bars = present.toSorted((a, b) => b.count - a.count).slice(0, TOP);
  const sorted = present.map((b) => b.label).sort();
  return {
    nulls,
    distinct: present.length,
    min: sorted[0] ?? null,
    max: sorted.at(-1) ?? null,
    whole: false,
    bars,
  };
}

/** Counts nulls and distinct values of a column, its smallest and largest, and its distribution. */
export function profileColumn(column: Column): Profile {
  const { data } = column;
  if (data.type === "text") return profileText(data.codes, data.dictionary);
  let [min, max, nulls] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY, 0];
  const distinct = new Set<number>();
  let whole = data.type === "number";
  const { none, scale } = data;
  const values = inArray(data.values);
  for (let i = 0; i < values.length; i++) {
    if (isNone(values[i], none)) {
      nulls++;
      continue;
    }
    const x = values[i] / scale;
    if (x < min) min = x;
    if (x > max) max = x;
    distinct.add(x);
    whole &&= Number.isInteger(x);
  }
  if (nulls === values.length) return { nulls, distinct: 0, min: null, max: null, whole: false, bars: [] };
  const bins = data.type === "boolean" ? 2 : Math.min(BINS, distinct.size);
  const low = data.type === "boolean" ? 0 : min;
  const width = data.type === "boolean" ? 1 : (max - min) / bins || 1;
  const counts = new Array<number>(bins).fill(0);
  for (let i = 0; i < values.length; i++)
    if (!isNone(values[i], none)) counts[Math.min(bins - 1, Math.floor((values[i] / scale - low) / width))]++;
  const label = (x: number) =>
    data.type === "boolean"
      ? x
        ? "true"
        : "false"
      : String(outward(data.type === "number" ? Number(x.toPrecision(6)) : Math.floor(x), data.type));
  return {
    nulls,
    distinct: distinct.size,
    min: outward(data.type === "boolean" ? min === 1 : min, data.type),
    max: outward(data.type === "boolean" ? max === 1 : max, data.type),
    whole,
    bars: counts.map((count, i) => ({ label: label(low + i * width), count })),
  };
}

/** A cell as text for finding and for showing: dates in ISO form, null as an empty text. */
export function cellText(column: Column, row: number): string {
  const value = outward(cellValue(column.data, row), column.data.type);
  return value === null ? "" : String(value);
}
