import type { Value } from "../base/value";
import type { Expr } from "../formula/expr";
import { type Aggregate, aggregateKey } from "../plan/aggregates";
import type { PlacedFilter, PlacedSplit } from "../plan/plan";
import { QueryError } from "../plan/query";
import type { Accumulator } from "./accumulators/accumulator";
import { accumulatorOf } from "./accumulators/accumulator-of";
import { Count } from "./accumulators/count";
import { Sum } from "./accumulators/sum";
import { type Grouper, grouperOf, MAX_GROUPS } from "./grouper";
import { compileMask, type Mask } from "./mask";
import { selectorOf } from "./selection";
import type { TableSource } from "./table-source";
import {
  BLOCK,
  type Block,
  compileRow,
  isFullColumn,
  type Kernel,
  placedKernel,
  type Vector,
} from "./vector";

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

/**
 * Visits the rows that a selector keeps, block by block; all rows when it is null. The block is the same
 * object each time.
 */
function eachBlock(
  source: TableSource,
  select: ReturnType<typeof selectorOf>,
  visit: (block: Block) => void,
): void {
  const { rows } = source.table;
  const block: Block = { rows: new Int32Array(BLOCK + 1), length: 0, start: -1 };
  for (let start = 0; start < rows; start += BLOCK) {
    source.checkStop();
    const count = Math.min(BLOCK, rows - start);
    if (select) block.length = select(start, count, block.rows);
    else {
      for (let i = 0; i < count; i++) block.rows[i] = start + i;
      block.length = count;
      block.start = start;
    }
    if (block.length > 0) visit(block);
  }
}

/** Counts all groups of a grouping that has too many, so that the refusal can say how many there are. */
function tooManyGroups(
  grouper: Grouper,
  source: TableSource,
  select: ReturnType<typeof selectorOf>,
): QueryError {
  const groups = new Int32Array(BLOCK);
  eachBlock(source, select, (block) => grouper.assign(block, groups));
  const most = MAX_GROUPS.toLocaleString("en");
  return new QueryError(
    "too_many_groups",
    `This split makes ${grouper.size.toLocaleString("en")} groups; at most ${most} can be answered. Split by a column with fewer values, by a longer stretch of time, or filter the rows first.`,
  );
}

/** Kernels and masks that are computed once a block, however many aggregates use them. */
class SharedKernels {
  private readonly kernels = new Map<string, Kernel>();
  private readonly masks = new Map<string, Mask>();
  /** How many aggregates of the pass want an argument. */
  private readonly wanted = new Map<string, number>();
  private block = 0;

  constructor(
    private readonly source: TableSource,
    aggregates: Aggregate[],
  ) {
    for (const { arg } of aggregates) {
      const key = JSON.stringify(arg);
      this.wanted.set(key, (this.wanted.get(key) ?? 0) + 1);
    }
  }

  /** Says that another block begins. */
  next(): void {
    this.block++;
  }

  private once<T>(compute: (block: Block) => T): (block: Block) => T {
    let [at, value] = [-1, null as T | null];
    return (block) => {
      if (at !== this.block) {
        value = compute(block);
        at = this.block;
      }
      return value as T;
    };
  }

  kernel = (expr: Expr): Kernel => {
    const key = JSON.stringify(expr);
    const known = this.kernels.get(key);
    if (known) return known;
    this.source.checkStop();
    const made = this.once(compileRow(expr, this.source, this.kernel));
    this.kernels.set(key, made);
    return made;
  };

  /**
   * An aggregate's accumulator with the kernel of its argument: a column's values where they lie, where the
   * accumulator can take them so and nothing else in the pass wants them.
   */
  gathering(a: Aggregate): { accumulator: Accumulator; argument: Kernel | null } {
    const accumulator = accumulatorOf(a);
    const inPlace =
      a.arg && accumulator.takesPlaces && !a.filter && this.wanted.get(JSON.stringify(a.arg)) === 1
        ? placedKernel(a.arg, this.source)
        : null;
    return { accumulator, argument: inPlace ?? (a.arg && this.kernel(a.arg)) };
  }

  mask(expr: Expr): Mask {
    const key = JSON.stringify(expr);
    const known = this.masks.get(key);
    if (known) return known;
    const made = this.once(compileMask(expr, this.kernel));
    this.masks.set(key, made);
    return made;
  }
}

/** One grouping of a pass: what it groups by, and the aggregates that it gathers. */
interface Grouping {
  splits: PlacedSplit[];
  aggregates: Aggregate[];
}

/** The columns of a grouping's splits, dates with their bucket. Throws where a bucket is asked of no date. */
function splitColumns(source: TableSource, splits: PlacedSplit[]) {
  return splits.map(({ place, by }) => {
    const column = source.column(place.table, place.column);
    if (by && column.data.type !== "date" && column.data.type !== "timestamp")
      throw new QueryError("bad_split", `${place.column} is no date, so it has no ${by}.`);
    return { column, by };
  });
}

/** The aggregates of a grouping with their accumulators; rows are counted once for all who need no more. */
function partsOf(source: TableSource, aggregates: Aggregate[], shared: SharedKernels, rows: Count) {
  const unique = new Map(aggregates.map((a) => [aggregateKey(a), a]));
  return [...unique].map(([key, a]) => {
    if (a.fn === "count" && !a.arg && !a.filter)
      return { key, accumulator: rows, argument: null, by: null, filter: null };
    const { accumulator, argument } = shared.gathering(a);
    if (accumulator instanceof Sum && a.arg && !a.filter && isFullColumn(a.arg, source))
      accumulator.countBy(rows);
    return {
      key,
      accumulator,
      argument,
      by: a.by && shared.kernel(a.by),
      filter: a.filter && shared.mask(a.filter),
    };
  });
}

/** What one grouping gathers, block by block. */
function jobOf(source: TableSource, { splits, aggregates }: Grouping, shared: SharedKernels) {
  const columns = splitColumns(source, splits);
  const rows = new Count();
  const parts = partsOf(source, aggregates, shared, rows);
  const gathering = parts.filter((p) => p.accumulator !== rows);
  const full = gathering.filter((p) => p.accumulator instanceof Sum && p.accumulator.isFull);
  // Two full sums and the count of the rows share a loop.
  const pair = full.length > 1 ? ([full[0], full[1]] as const) : null;
  const single = gathering.filter((p) => !pair?.includes(p));
  return {
    grouper: grouperOf(columns, source.calendar),
    groups: new Int32Array(BLOCK),
    rows,
    parts,
    pair,
    single,
  };
}

/**
 * Runs the aggregates of several groupings over the rows of one table that the filters keep, in a single
 * pass. Arguments and filters that aggregates share are evaluated once a block. `today` is in whole days.
 */
export function scanTable(
  source: TableSource,
  filters: PlacedFilter[],
  groupings: Grouping[],
  today: Value,
): Gathered[] {
  const select = selectorOf(source, filters, today);
  const shared = new SharedKernels(
    source,
    groupings.flatMap((g) => g.aggregates),
  );
  const jobs = groupings.map((grouping) => jobOf(source, grouping, shared));
  let scanned = 0;
  // The loop over the blocks stays in one function: split up, it took a twelfth longer.
  eachBlock(source, select, (block) => {
    scanned += block.length;
    shared.next();
    for (const job of jobs) {
      job.grouper.assign(block, job.groups);
      if (job.grouper.size > MAX_GROUPS) throw tooManyGroups(job.grouper, source, select);
      const grouped = { groups: job.groups, length: block.length, size: job.grouper.size };
      if (job.pair) {
        const [a, b] = job.pair;
        const [own, others] = [a.argument?.(block) as Vector, b.argument?.(block) as Vector];
        (a.accumulator as Sum).addWith(b.accumulator as Sum, job.rows, grouped, own, others);
      } else job.rows.add(grouped, null, null);
      for (const { accumulator, argument, by, filter } of job.single)
        accumulator.add(grouped, argument?.(block) ?? null, filter?.(block) ?? null, by?.(block) ?? null);
    }
  });
  return jobs.map(({ grouper, parts, rows }) => ({
    keys: grouper.keys,
    size: grouper.size,
    accumulators: new Map(parts.map((p) => [p.key, p.accumulator])),
    counts: rows,
    scanned,
  }));
}
