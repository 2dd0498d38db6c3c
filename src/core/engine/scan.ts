import { findColumn, type Table } from "../data/column";
import type { Expr } from "../formula/expr";
import { type Accumulator, accumulatorOf } from "./accumulators";
import { aggregateKey } from "./group-level";
import { columnGrouper, type Grouper, MAX_GROUPS, wholeGrouper } from "./grouper";
import { type Filter, QueryError, type Split } from "./query";
import { selectRows } from "./selection";
import { BLOCK, compileRow, type Kernel, type Vector } from "./vector";

export type Aggregate = Expr & { op: "aggregate" };

/** What one pass over the rows gathered for one split. */
export interface Gathered {
  keys: Grouper["keys"];
  accumulators: Map<string, Accumulator>;
  /** Rows in each group. */
  counts: Accumulator;
  scanned: number;
}

export const ROW_COUNT: Aggregate = { op: "aggregate", type: "number", fn: "count", table: "", arg: null, by: null, fraction: null, distinct: false, filter: null };

/** Names a scan by the rows it reads and how it groups them. */
export function scanKey(table: Table, filters: Filter[], split: Split | null): string {
  return JSON.stringify([table.name, table.version, filters, split]);
}

/**
 * Runs the aggregates of several splits over the rows of one table that the filters keep, in a single pass.
 * Arguments and filters that aggregates share are evaluated once a block.
 */
export function scanTable(table: Table, filters: Filter[], splits: { split: Split | null; aggregates: Aggregate[] }[]): Gathered[] {
  const selected = selectRows(table, filters);
  const scanned = selected ? selected.length : table.rows;
  const kernels = new Map<string, Kernel>();
  const kernelOf = (expr: Expr): string => {
    const key = JSON.stringify(expr);
    if (!kernels.has(key)) kernels.set(key, compileRow(expr, table));
    return key;
  };
  const jobs = splits.map(({ split, aggregates }) => {
    const column = split ? findColumn(table, split.column) : null;
    if (split && !column) throw new QueryError("unknown_column", `The table ${table.name} has no column “${split.column}” to split by.`);
    if (split?.by && column && column.data.type !== "date" && column.data.type !== "timestamp")
      throw new QueryError("bad_split", `${split.column} is no date, so it has no ${split.by}.`);
    const unique = new Map([ROW_COUNT, ...aggregates].map((a) => [aggregateKey(a), a]));
    return {
      grouper: column ? columnGrouper(column.data, split?.by) : wholeGrouper(),
      groups: new Int32Array(BLOCK),
      parts: [...unique].map(([key, a]) => ({
        key,
        accumulator: accumulatorOf(a),
        argument: a.arg ? kernelOf(a.arg) : null,
        by: a.by ? kernelOf(a.by) : null,
        filter: a.filter ? kernelOf(a.filter) : null,
      })),
    };
  });
  const rows = new Int32Array(BLOCK);
  for (let start = 0; start < scanned; start += BLOCK) {
    const length = Math.min(BLOCK, scanned - start);
    if (selected) rows.set(selected.subarray(start, start + length));
    else for (let i = 0; i < length; i++) rows[i] = start + i;
    const block = { rows, length, start: selected ? -1 : start };
    const vectors = new Map<string, Vector>();
    for (const [key, kernel] of kernels) vectors.set(key, kernel(block));
    for (const job of jobs) {
      job.grouper.assign(block, job.groups);
      if (job.grouper.keys.length > MAX_GROUPS) {
        throw new QueryError(
          "too_many_groups",
          `This split makes more than ${MAX_GROUPS.toLocaleString("en")} groups. Split by a column with fewer values, or by a longer stretch of time.`,
        );
      }
      const grouped = { groups: job.groups, length, size: job.grouper.keys.length };
      for (const { accumulator, argument, by, filter } of job.parts) {
        const where = filter === null ? null : (vectors.get(filter) as { numbers: Float64Array }).numbers;
        accumulator.add(grouped, argument === null ? null : (vectors.get(argument) as Vector), where, by === null ? null : (vectors.get(by) as Vector));
      }
    }
  }
  return jobs.map(({ grouper, parts }) => ({
    keys: grouper.keys,
    accumulators: new Map(parts.map((p) => [p.key, p.accumulator])),
    counts: parts[0].accumulator,
    scanned,
  }));
}
