import { z } from "zod";
import { DATE_BUCKETS, type DateBucket } from "../base/calendar";
import type { Value, ValueType } from "../base/value";
import { namedValues } from "./named-values";

/** One value: a number, a text, true or false, or null. */
export const valueSchema = z.union([z.number(), z.string().max(10_000), z.boolean(), z.null()]);

/** A column of the query's table or one that links lead to, as `column` or `table.column`. */
const columnName = z.string().min(1).max(320);
const bucket = z.enum(DATE_BUCKETS);
const stretch = z.int().min(-10_000).max(10_000);

const values = z.array(valueSchema).max(1000);

/** A stretch of whole years, months …, counted from the one that holds today or the newest date of a column. */
export const relativeSchema = z.strictObject({
  unit: bucket,
  from: stretch,
  to: stretch,
  anchor: z.enum(["today", "newest"]).default("today"),
});
/** A stretch of time counted from another day. */
export type Relative = z.infer<typeof relativeSchema>;

/**
 * Keeps rows by one column: one of a list of values (null is one of them) or none of a list, a text that is
 * contained (without regard to case), null or not, a stretch of whole years, months … counted from today or
 * from the newest date of the column, or a range with both ends included. Dates are ISO 8601 text. Rows that
 * a link finds no match for count as null, but where `noMatch` says of a list whether they are among it.
 */
export const filterSchema = z.xor([
  z.strictObject({ column: columnName, by: bucket.optional(), in: values, noMatch: z.boolean().optional() }),
  z.strictObject({ column: columnName, by: bucket.optional(), not: values, noMatch: z.boolean().optional() }),
  z.strictObject({ column: columnName, contains: z.string().min(1).max(200) }),
  z.strictObject({ column: columnName, isNull: z.boolean() }),
  z.strictObject({ column: columnName, relative: relativeSchema }),
  z.strictObject({ column: columnName, from: valueSchema.optional(), to: valueSchema.optional() }),
]);
/** Which rows are kept, by one column. */
export type Filter = z.infer<typeof filterSchema>;
/** A filter by a list of values: those that are kept, or those that are not. */
export type ListFilter = Extract<Filter, { in: Value[] } | { not: Value[] }>;

const order = z.enum(["asc", "desc"]);
/** How many groups are kept, and whether the others are added up as one. */
const keepSchema = z.strictObject({
  first: z.int().min(1).max(10_000),
  others: z.boolean().default(true),
});
/**
 * What groups are sorted by: a measure of the query, "split" for their own order, or the smallest value of
 * another column within each. `values` go before all others in their own order.
 */
const sortSchema = z.strictObject({
  by: z.union([z.string().min(1).max(320), z.strictObject({ column: columnName })]),
  order: order.default("desc"),
  values: z.array(valueSchema).max(1000).optional(),
});

/** A column that makes the groups; a date by year, quarter, month, week or day. */
export const splitSchema = z.strictObject({ column: columnName, by: bucket.optional() });
/** What makes the groups. */
export type Split = z.infer<typeof splitSchema>;

/** A measure of the project by its name, or a formula of the query's own. */
const queryMeasureSchema = z.union([
  z.strictObject({ id: z.string().min(1).max(200), as: z.string().min(1).max(200).optional() }),
  z.strictObject({ formula: z.string().min(1), as: z.string().min(1).max(200) }),
]);

/**
 * What to compute. `id` is the name of a measure; `table` is needed where a query holds only formulas. `sort`
 * and `keep` are those of the first split, `series` those of the second.
 */
export const querySchema = z.strictObject({
  table: z.string().max(200).optional(),
  measures: z.array(queryMeasureSchema).min(1).max(50),
  /**
   * Measures of which only the value over all rows is asked for: they need not be of tables that meet in the
   * splits. One that cannot be computed has no total, and spoils nothing else.
   */
  totals: z.array(queryMeasureSchema).max(50).default([]),
  /**
   * Measures that are asked for each group besides: one that cannot be computed so has no column, and spoils
   * nothing else.
   */
  besides: z.array(queryMeasureSchema).max(50).default([]),
  splits: z.array(splitSchema).max(2).default([]),
  filters: z.array(filterSchema).max(50).default([]),
  /**
   * The filters that stay whatever a reader of a board picks: the answer says besides what its measures are
   * under these alone, so that scales and digits stand still.
   */
  atRest: z.array(filterSchema).max(50).optional(),
  inputs: namedValues(valueSchema, 200).default({}),
  sort: sortSchema.optional(),
  keep: keepSchema.optional(),
  series: z.strictObject({ sort: sortSchema.optional(), keep: keepSchema.optional() }).optional(),
});
/** A question, complete. */
export type Query = z.infer<typeof querySchema>;
/** A question as it may be written: what has a default can be left out. */
export type QueryInput = z.input<typeof querySchema>;

/** One column of an answer: a split's keys or a measure's values, one for each group. */
export interface ResultColumn {
  name: string;
  type: ValueType;
  values: Value[];
}

/**
 * Where the keys of a split stand among all categories of its column, whatever the query keeps: colours go by
 * it. `of` is how many there are (0: too many to tell); a key that is none of them has null.
 */
export interface CategoryPlaces {
  of: number;
  at: (number | null)[];
}

/** The keys of one of two splits in their order, and each measure over all rows of a key. */
export interface SplitTotals {
  column: string;
  type: ValueType;
  keys: Value[];
  /** The key that stands for this many others, or null. */
  others: { at: number; groups: number } | null;
  /** The key under which rows stand that a link finds no match for, or null. */
  noMatch: { at: number; rows: number } | null;
  totals: Record<string, Value[]>;
}

/** What a measure is before a reader picks or filters anything. */
export interface MeasureAtRest {
  total: Value;
  /** Its values over the rows that are shown, and over those of each of the series; the first of very many. */
  values: Value[];
}

/** The answer to a query: one row a group. Dates are ISO 8601 text. */
export interface Result {
  columns: ResultColumn[];
  rows: number;
  /** Each measure over all rows that the filters keep. */
  totals: Record<string, Value>;
  /** The last row stands for this many groups that were put together, or null. */
  others: { row: number; groups: number } | null;
  /**
   * The row of those that a link finds no match for, and how many rows of the table they are; null when every
   * row has one.
   */
  noMatch: { row: number; rows: number } | null;
  /** With two splits: the keys of each, and for each row of the answer the positions of its two keys. */
  crossed: { splits: [SplitTotals, SplitTotals]; at: [number, number][] } | null;
  /** For each split, the places of its keys in their order. */
  places: CategoryPlaces[];
  /** Date columns that are split more finely than their dates stand for: a plan by month, split by week. */
  coarse: { table: string; column: string; grain: DateBucket; by: DateBucket }[];
  /**
   * Filters that do not apply to a table, since nothing leads from it to their column, or since its column of
   * that name cannot be computed.
   */
  unfiltered: { table: string; column: string; fails?: true }[];
  /**
   * Measures that a filter leaves whole, or of which it leaves one side whole, with the filter's column and
   * the table that has nothing like it; see `leftWholeOf`.
   */
  leftWhole: (Result["unfiltered"][number] & { measure: string; as: "alone" | "mixed" | "allowed" })[];
  /** What each measure is under the filters that stay, where the query names them; else null. */
  atRest: Record<string, MeasureAtRest> | null;
  /** Why totals and measures that were asked for besides cannot be computed. */
  unanswered: string[];
  scanned: number;
  ms: number;
}
