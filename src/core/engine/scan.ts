import type { DateBucket } from "../formula/calendar";
import type { Expr } from "../formula/expr";
import type { ColumnPlace } from "../formula/meeting";
import type { Value } from "../formula/value";
import { type Accumulator, accumulatorOf } from "./accumulators";
import { aggregateKey } from "./group-level";
import { type Grouper, grouperOf, MAX_GROUPS } from "./grouper";
import { QueryError } from "./query";
import { type PlacedFilter, selectRows } from "./selection";
import type { Source } from "./source";
import { BLOCK, type Block, compileRow, type Kernel, type Vector } from "./vector";

export type Aggregate = Expr & { op: "aggregate" };

/** A split with the column that it means for one table. */
export interface PlacedSplit {
  place: ColumnPlace;
  by: DateBucket | undefined;
}

/** What one pass over the rows gathered for one grouping. */
export interface Gathered {
  /** For each split, one key a group. */
  keys: Value[][];
  size: number;
  accumulators: Map<string, Accumulator>;
  /** Rows in each group. */
  counts: Accumulator;
  scanned: number;
}

const ROW_COUNT: Aggregate = { op: "aggregate", type: "number", fn: "count", table: "", arg: null, by: null, fraction: null, distinct: false, filter: null };

/** Row numbers of a table or of a selection, block by block. */
function* blocksOf(selected: Int32Array | null, count: number): Generator<Block> {
  const rows = new Int32Array(BLOCK);
  for (let start = 0; start < count; start += BLOCK) {
    const length = Math.min(BLOCK, count - start);
    if (selected) rows.set(selected.subarray(start, start + length));
    else for (let i = 0; i < length; i++) rows[i] = start + i;
    yield { rows, length, start: selected ? -1 : start };
  }
}

/** Counts all groups of a grouping that has too many, so that the refusal can say how many there are. */
function tooManyGroups(splits: { grouper: Grouper }, selected: Int32Array | null, count: number): QueryError {
  const groups = new Int32Array(BLOCK);
  for (const block of blocksOf(selected, count)) splits.grouper.assign(block, groups);
  const most = MAX_GROUPS.toLocaleString("en");
  return new QueryError(
    "too_many_groups",
    `This split makes ${splits.grouper.size.toLocaleString("en")} groups; at most ${most} can be answered. Split by a column with fewer values, by a longer stretch of time, or filter the rows first.`,
  );
}

/**
 * Runs the aggregates of several groupings over the rows of one table that the filters keep, in a single pass.
 * Arguments and filters that aggregates share are evaluated once a block. `today` is in whole days.
 */
export function scanTable(source: Source, filters: PlacedFilter[], groupings: { splits: PlacedSplit[]; aggregates: Aggregate[] }[], today: Value): Gathered[] {
  const selected = selectRows(source, filters, today);
  const scanned = selected ? selected.length : source.table.rows;
  const kernels = new Map<string, Kernel>();
  const kernelOf = (expr: Expr): string => {
    const key = JSON.stringify(expr);
    if (!kernels.has(key)) kernels.set(key, compileRow(expr, source));
    return key;
  };
  const jobs = groupings.map(({ splits, aggregates }) => {
    const columns = splits.map(({ place, by }) => {
      const column = source.column(place.table, place.column);
      if (by && column.data.type !== "date" && column.data.type !== "timestamp") throw new QueryError("bad_split", `${place.column} is no date, so it has no ${by}.`);
      return { column, by };
    });
    const unique = new Map([ROW_COUNT, ...aggregates].map((a) => [aggregateKey(a), a]));
    return {
      grouper: grouperOf(columns),
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
  for (const block of blocksOf(selected, scanned)) {
    const vectors = new Map<string, Vector>();
    for (const [key, kernel] of kernels) vectors.set(key, kernel(block));
    for (const job of jobs) {
      job.grouper.assign(block, job.groups);
      if (job.grouper.size > MAX_GROUPS) throw tooManyGroups(job, selected, scanned);
      const grouped = { groups: job.groups, length: block.length, size: job.grouper.size };
      for (const { accumulator, argument, by, filter } of job.parts) {
        const where = filter === null ? null : (vectors.get(filter) as { numbers: Float64Array }).numbers;
        accumulator.add(grouped, argument === null ? null : (vectors.get(argument) as Vector), where, by === null ? null : (vectors.get(by) as Vector));
      }
    }
  }
  return jobs.map(({ grouper, parts }) => ({
    keys: grouper.keys,
    size: grouper.size,
    accumulators: new Map(parts.map((p) => [p.key, p.accumulator])),
    counts: parts[0].accumulator,
    scanned,
  }));
}
