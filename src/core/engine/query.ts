import { z } from "zod";
import { DATE_BUCKETS } from "../formula/calendar";
import type { Value, ValueType } from "../formula/value";

export const valueSchema = z.union([z.number(), z.string().max(10_000), z.boolean(), z.null()]);

/** Keeps rows by one column: one of a list of values, or a range with both ends included. Dates are ISO 8601 text. */
export const filterSchema = z.union([
  z.strictObject({ column: z.string().min(1).max(200), by: z.enum(DATE_BUCKETS).optional(), in: z.array(valueSchema).max(1000) }),
  z.strictObject({ column: z.string().min(1).max(200), from: valueSchema.optional(), to: valueSchema.optional() }),
]);
export type Filter = z.infer<typeof filterSchema>;

export const splitSchema = z.strictObject({ column: z.string().min(1).max(200), by: z.enum(DATE_BUCKETS).optional() });
export type Split = z.infer<typeof splitSchema>;

export const queryMeasureSchema = z.union([
  z.strictObject({ id: z.string().min(1).max(200), as: z.string().min(1).max(200).optional() }),
  z.strictObject({ formula: z.string().min(1), as: z.string().min(1).max(200) }),
]);

/** What to compute. `id` is the name of a measure; `table` is needed where a query holds only formulas. */
export const querySchema = z.strictObject({
  table: z.string().max(200).optional(),
  measures: z.array(queryMeasureSchema).min(1).max(50),
  splits: z.array(splitSchema).max(2).default([]),
  filters: z.array(filterSchema).max(50).default([]),
  inputs: z.record(z.string(), valueSchema).default({}),
  sort: z.strictObject({ by: z.string().min(1).max(200), order: z.enum(["asc", "desc"]).default("desc") }).optional(),
  keep: z.strictObject({ first: z.int().min(1).max(10_000), others: z.boolean().default(true) }).optional(),
});
export type Query = z.infer<typeof querySchema>;
export type QueryInput = z.input<typeof querySchema>;

export interface ResultColumn {
  name: string;
  type: ValueType;
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
  scanned: number;
  ms: number;
}

/** A query that cannot be answered, and why, in words for the person who asked. */
export class QueryError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly at?: { start: number; end: number },
  ) {
    super(message);
  }
}
