import type { Value } from "../base/value";
import { columnRange } from "../data/column-range";
import { type Aggregate, aggregateKey } from "../plan/aggregates";
import type { PlacedFilter, PlacedSplit } from "../plan/plan";
import { QueryError } from "../plan/query";
import { Count } from "./accumulators/count";
import { Sum } from "./accumulators/sum";
import { BLOCK, type Block, Readers, wholeBlock } from "./block";
import type { ScanTask, Share } from "./crew";
import { combined, type Gathered, type Grouping, stateOf } from "./gathered";
import { type Grouper, grouperOf, MAX_GROUPS } from "./grouper";
import { selectorOf } from "./selection";
import { SharedKernels } from "./shared-kernels";
import type { TableSource } from "./table-source";
import { isFullColumn, type Vector } from "./vector";

/** Rows of a table, those from `from` up to `to`. */
interface Stretch {
  from: number;
  to: number;
}

/**
 * Visits the rows of a stretch that a selector keeps, block by block; all rows when it is null. The block is
 * the same object each time.
 */
function eachBlock(
  source: TableSource,
  select: ReturnType<typeof selectorOf>,
  { from, to }: Stretch,
  visit: (block: Block) => void,
): void {
  const block = wholeBlock();
  const all = block.offsets;
  const kept = new Int32Array(BLOCK + 1);
  for (let base = from; base < to; base += BLOCK) {
    source.checkStop();
    block.base = base;
    block.count = Math.min(BLOCK, to - base);
    block.length = select ? select(block, kept) : block.count;
    block.whole = block.length === block.count;
    block.offsets = block.whole ? all : kept;
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
  eachBlock(source, select, { from: 0, to: source.table.rows }, (block) => grouper.assign(block, groups));
  const most = MAX_GROUPS.toLocaleString("en");
  return new QueryError(
    "too_many_groups",
    `This split makes ${grouper.size.toLocaleString("en")} groups; at most ${most} can be answered. Split by a column with fewer values, by a longer stretch of time, or filter the rows first.`,
  );
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
function jobOf(
  source: TableSource,
  readers: Readers,
  { splits, aggregates }: Grouping,
  shared: SharedKernels,
) {
  const columns = splitColumns(source, splits);
  const rows = new Count();
  const parts = partsOf(source, aggregates, shared, rows);
  const gathering = parts.filter((p) => p.accumulator !== rows);
  const full = gathering.filter((p) => p.accumulator instanceof Sum && p.accumulator.isFull);
  // Two full sums and the count of the rows share a loop.
  const pair = full.length > 1 ? ([full[0], full[1]] as const) : null;
  const single = gathering.filter((p) => !pair?.includes(p));
  return {
    grouper: grouperOf(columns, readers, source.calendar),
    groups: new Int32Array(BLOCK),
    rows,
    parts,
    pair,
    single,
  };
}

/** Aggregates that come out the same in whatever order their rows are met. */
const ORDER_FREE = ["count", "min", "max", "median", "percentile_cont", "mode", "bool_and", "bool_or"];

/** Whether an aggregate is the same to the last bit in whatever order rows are met, as exact sums are. */
function isOrderFree({ fn, arg, distinct }: Aggregate, source: TableSource): boolean {
  if (distinct) return fn === "count";
  if (ORDER_FREE.includes(fn)) return true;
  if ((fn !== "sum" && fn !== "avg") || arg?.op !== "column" || arg.type !== "number") return false;
  return columnRange(source.column(arg.table, arg.column).data).exact;
}

/** Whether texts are told apart by codes that only one thread gives out. */
const needsOneDictionary = ({ distinct, arg }: Aggregate): boolean =>
  distinct && arg?.type === "text" && arg.op !== "column";

/** One pass over rows of a table: what it gathers of them, a stretch at a time. */
class Scanner {
  private readonly readers = new Readers();
  private readonly shared: SharedKernels;
  private readonly select: ReturnType<typeof selectorOf>;
  private jobs: ReturnType<typeof jobOf>[];
  private scanned = 0;

  constructor(
    private readonly source: TableSource,
    private readonly task: ScanTask,
  ) {
    this.select = selectorOf(source, task.filters, this.readers, task.today);
    this.shared = new SharedKernels(source, this.readers);
    this.jobs = this.freshJobs();
  }

  private freshJobs() {
    return this.task.groupings.map((g) => jobOf(this.source, this.readers, g, this.shared));
  }

  /** Gathers the rows of a stretch, which begins where a block does. */
  scan(stretch: Stretch): void {
    const { shared, jobs, select, source } = this;
    let scanned = 0;
    // The loop over the blocks stays in one function: split up, it took a twelfth longer.
    eachBlock(source, select, stretch, (block) => {
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
    this.scanned += scanned;
  }

  /** What was gathered since the last time, for each grouping. */
  take(): Gathered[] {
    const { jobs, scanned } = this;
    this.jobs = this.freshJobs();
    this.scanned = 0;
    return jobs.map(({ grouper, parts, rows }) => ({
      keys: grouper.keys,
      size: grouper.size,
      accumulators: new Map(parts.map((p) => [p.key, p.accumulator])),
      counts: rows,
      scanned,
    }));
  }
}

/** A share that is still this thread's own. */
interface OwnShare {
  first: number;
  parts: Gathered[];
}

const stateOfShare = ({ first, parts }: OwnShare): Share => ({ first, parts: parts.map(stateOf) });

/**
 * Scans chunks until `next` gives -1. What depends on the order of rows is kept apart for each chunk, so that
 * putting the chunks together in their order gives the same to the last bit, whoever scanned which.
 */
function scanShare(scanner: Scanner, task: ScanTask, source: TableSource, next: () => number): OwnShare[] {
  const { chunk: size } = source;
  const { rows } = source.table;
  const shares: OwnShare[] = [];
  let first = -1;
  for (let chunk = next(); chunk >= 0; chunk = next()) {
    scanner.scan({ from: chunk * size, to: Math.min(rows, (chunk + 1) * size) });
    if (task.inOrder) shares.push({ first: chunk, parts: scanner.take() });
    else if (first < 0) first = chunk;
  }
  if (first >= 0) shares.push({ first, parts: scanner.take() });
  return shares;
}

/** A helper's share of a scan that another began. */
export function helpScan(source: TableSource, task: ScanTask, next: () => number): Share[] {
  return scanShare(new Scanner(source, task), task, source, next).map(stateOfShare);
}

/**
 * Puts shares together: in the order of their rows where that shows, else the others' into one's own, which
 * are not copied.
 */
function together(task: ScanTask, own: OwnShare[], others: Share[]): Gathered[] {
  const base = task.inOrder ? undefined : own[0];
  const inOrder = base ? others : [...own.map(stateOfShare), ...others].sort((a, b) => a.first - b.first);
  return task.groupings.map((grouping, i) =>
    combined(
      grouping,
      inOrder.map((share) => share.parts[i]),
      base?.parts[i],
    ),
  );
}

/**
 * Runs the aggregates of several groupings over the rows of one table that the filters keep, in a single
 * pass, with the help of the source's crew where there is one. Arguments and filters that aggregates share
 * are evaluated once a block. `today` is in whole days.
 */
export function scanTable(
  source: TableSource,
  filters: PlacedFilter[],
  groupings: Grouping[],
  today: Value,
): Gathered[] {
  const inOrder = groupings.some((g) => g.aggregates.some((a) => !isOrderFree(a, source)));
  const task: ScanTask = { filters, groupings, today, inOrder };
  const scanner = new Scanner(source, task);
  const { rows } = source.table;
  const chunks = Math.ceil(rows / source.chunk);
  const { crew } = source;
  if (crew && chunks > 1 && !groupings.some((g) => g.aggregates.some(needsOneDictionary))) {
    const work = crew.begin(source.table.name, task, chunks, source.chunk);
    let others: Share[] | null = null;
    let own: OwnShare[] = [];
    try {
      own = scanShare(scanner, task, source, work.next);
    } finally {
      others = work.finish();
    }
    const all = others && together(task, own, others);
    // A helper that fell away, or too many groups in all: said by a scan of one's own.
    if (all?.every((g) => g.size <= MAX_GROUPS)) return all;
    return scanTable(source.alone(), filters, groupings, today);
  }
  if (!inOrder || chunks < 2) {
    scanner.scan({ from: 0, to: rows });
    return scanner.take();
  }
  let at = 0;
  const own = scanShare(scanner, task, source, () => (at < chunks ? at++ : -1));
  return together(task, own, []);
}
