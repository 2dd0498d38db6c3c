import type { Value } from "../base/value";
import { aggregateKey } from "../plan/aggregates";
import type { PlacedFilter, PlacedSplit } from "../plan/plan";
import { QueryError } from "../plan/query-error";
import type { Accumulator } from "./accumulators/accumulator";
import { type Block, placesIn, Readers, wholeBlock } from "./block";
import type { ScanTask, Selection, Share } from "./crew";
import {
  combined,
  type Gathered,
  type GatheredPart,
  type Grouping,
  isRowCount,
  type Ordered,
  stateOf,
} from "./gathered";
import { type Grouper, grouperOf, MAX_GROUPS } from "./grouper";
import { JointLanes, type Side } from "./joint-lanes";
import { Lanes, type Shelf } from "./lanes";
import { takeLoops } from "./loops/current-loops";
import { BLOCK, type Loops } from "./loops/loops";
import type { Mask } from "./mask";
import { isOrderFree, needsOneDictionary } from "./order-free";
import type { ScanSource } from "./scan-source";
import { chained, type Narrowing, narrowingOf } from "./selection";
import { SharedKernels } from "./shared-kernels";
import type { Kernel } from "./vector";

/** Rows of a table, those from `from` up to `to`. */
export interface Stretch {
  from: number;
  to: number;
}

/**
 * Visits the rows of a stretch that are kept, block by block; all rows when it is null. The block is
 * the same object each time, its places stand in `kept`.
 */
function eachBlock(
  source: ScanSource,
  narrow: Narrowing | null,
  { from, to }: Stretch,
  kept: Int32Array,
  visit: (block: Block) => void,
): void {
  const block = wholeBlock();
  const all = block.offsets;
  for (let base = from; base < to; base += BLOCK) {
    source.checkStop();
    block.base = base;
    block.count = Math.min(BLOCK, to - base);
    block.length = narrow ? narrow(block, null, block.count, kept) : block.count;
    block.whole = block.length === block.count;
    block.offsets = block.whole ? all : kept;
    if (block.length > 0) visit(block);
  }
}

/** Counts all groups of a grouping that has too many, so that the refusal can say how many there are. */
function tooManyGroups(
  grouper: Grouper,
  source: ScanSource,
  narrow: Narrowing | null,
  kept: Int32Array,
): QueryError {
  const groups = new Int32Array(BLOCK);
  const all = { from: 0, to: source.table.rows };
  eachBlock(source, narrow, all, kept, (block) => grouper.assign(block, groups));
  const most = MAX_GROUPS.toLocaleString("en");
  return new QueryError(
    "too_many_groups",
    `This split makes ${grouper.size.toLocaleString("en")} groups; at most ${most} can be answered. Split by a column with fewer values, by a longer stretch of time, or filter the rows first.`,
  );
}

/** The columns of a grouping's splits, dates with their bucket. Throws where a bucket is asked of no date. */
function splitColumns(source: ScanSource, splits: PlacedSplit[]) {
  return splits.map(({ place, by }) => {
    const column = source.column(place.table, place.column);
    if (by && column.data.type !== "date" && column.data.type !== "timestamp")
      throw new QueryError("bad_split", `${place.column} is no date, so it has no ${by}.`);
    return { column, by };
  });
}

/** An aggregate of a pass: what gathers it, and what it is given of a block. */
interface JobPart {
  key: string;
  accumulator: Accumulator;
  argument: Kernel | null;
  by: Kernel | null;
  filter: Mask | null;
  isOrderFree: boolean;
}

/** What one grouping gathers, block by block: by lanes where these tell an aggregate, else one by one. */
function jobOf(
  source: ScanSource,
  readers: Readers,
  { splits, aggregates, most = MAX_GROUPS }: Grouping,
  shared: SharedKernels,
  shelves: Map<string, Shelf>,
) {
  const columns = splitColumns(source, splits);
  const unique = new Map(aggregates.map((a) => [aggregateKey(a), a]));
  const rowCounts = [...unique].filter(([, a]) => isRowCount(a)).map(([key]) => key);
  for (const key of rowCounts) unique.delete(key);
  const lanes = new Lanes(unique.values(), source, readers, shared, shelves);
  for (const key of lanes.keys) unique.delete(key);
  const parts = [...unique].map(
    ([key, a]): JobPart => ({
      key,
      ...shared.gathering(a),
      by: a.by && shared.kernel(a.by),
      filter: a.filter && shared.mask(a.filter),
      isOrderFree: isOrderFree(a, source),
    }),
  );
  return {
    grouper: grouperOf(columns, readers, source.calendar),
    most,
    groups: readers.loops.ints(BLOCK),
    rowCounts,
    lanes,
    parts,
  };
}

/** The rows of a block that are kept, written to another. */
function narrowed(all: Block, narrow: Narrowing, into: Block): Block {
  into.base = all.base;
  into.count = all.count;
  into.length = narrow(all, all.whole ? null : all.offsets, all.length, into.offsets);
  into.whole = into.length === all.count;
  return into;
}

/** One selection of a pass: how its rows are told from those that all have in common, and its jobs. */
interface SelectionJobs {
  narrow: Narrowing | null;
  shared: SharedKernels;
  jobs: ReturnType<typeof jobOf>[];
  /** Folds the lanes of its jobs. */
  joint: JointLanes;
  /** Where its rows of a block are written, if it has filters of its own. */
  block: Block;
  scanned: number;
}

/** One pass over rows of a table: what it gathers of them, a stretch at a time. */
class Scanner {
  /** Where the places of the rows of a block are written. */
  private readonly kept: Int32Array;
  /** Keeps the rows that all selections have in common. */
  private readonly common: Narrowing | null;
  private readonly selections: SelectionJobs[];
  private readonly ordered: Ordered[][];

  constructor(
    private readonly source: ScanSource,
    { filters, selections, today }: ScanTask,
    readonly loops: Loops,
  ) {
    const readers = new Readers(loops);
    this.kept = placesIn(loops);
    this.common = narrowingOf(source, filters, readers, today);
    this.selections = selections.map(({ filters: own, groupings }) => {
      const shared = new SharedKernels(source, readers);
      const shelves = new Map<string, Shelf>();
      const jobs = groupings.map((g) => jobOf(source, readers, g, shared, shelves));
      const sides = jobs.map(({ lanes, groups, grouper }): Side => {
        return {
          lanes,
          groups,
          get size() {
            return grouper.size;
          },
        };
      });
      return {
        narrow: narrowingOf(source, own, readers, today),
        shared,
        jobs,
        joint: new JointLanes(sides, loops),
        block: { ...wholeBlock(), offsets: placesIn(loops) },
        scanned: 0,
      };
    });
    this.ordered = this.jobs.map(() => []);
  }

  private get jobs() {
    return this.selections.flatMap((s) => s.jobs);
  }

  /** Gathers the rows of a stretch, which begins where a block does. */
  scan(stretch: Stretch): void {
    const { selections, common, source, loops } = this;
    // The loop over the blocks stays in one function: split up, it took a twelfth longer.
    eachBlock(source, common, stretch, this.kept, (all) => {
      for (const selection of selections) {
        const { narrow, shared, jobs, joint } = selection;
        const block = narrow ? narrowed(all, narrow, selection.block) : all;
        if (block.length === 0) continue;
        selection.scanned += block.length;
        shared.next();
        for (const job of jobs) {
          job.grouper.assign(block, job.groups);
          if (job.grouper.size > job.most)
            throw tooManyGroups(
              job.grouper,
              source,
              common && narrow ? chained(common, narrow) : (common ?? narrow),
              this.kept,
            );
          const grouped = { groups: job.groups, length: block.length, size: job.grouper.size, loops };
          for (const { accumulator, argument, by, filter } of job.parts)
            accumulator.add(grouped, argument?.(block) ?? null, filter?.(block) ?? null, by?.(block) ?? null);
        }
        joint.add(block);
      }
    });
  }

  /** Puts what depends on the order of rows aside, as that of a chunk, and begins it anew. */
  cut(chunk: number): void {
    for (const [i, job] of this.jobs.entries()) {
      const states: [string, unknown][] = [];
      for (const part of job.parts) {
        if (part.isOrderFree) continue;
        part.accumulator.settle?.(this.loops);
        states.push([part.key, part.accumulator.state()]);
        part.accumulator = part.accumulator.empty();
      }
      if (states.length > 0) this.ordered[i].push({ chunk, states });
    }
  }

  /** Takes what was gathered out of the memory of the loops: nothing more can be. */
  settle(): void {
    for (const { parts } of this.jobs) for (const { accumulator } of parts) accumulator.settle?.(this.loops);
  }

  /** What was gathered, for each grouping of each selection; it may still be added to, until it is settled. */
  take(): GatheredPart[] {
    for (const { joint } of this.selections) joint.settle();
    const scanned = this.selections.flatMap((s) => s.jobs.map(() => s.scanned));
    return this.jobs.map(({ grouper, lanes, rowCounts, parts }, i) => {
      const ordered = this.ordered[i];
      const { size } = grouper;
      const counts = lanes.counts(size);
      const kept = parts.filter((p) => p.isOrderFree || ordered.length === 0);
      const accumulators = new Map<string, Accumulator>([
        ...rowCounts.map((key): [string, Accumulator] => [key, counts]),
        ...lanes.accumulators(size),
        ...kept.map((p): [string, Accumulator] => [p.key, p.accumulator]),
      ]);
      return {
        gathered: { keys: grouper.keys, size, accumulators, counts, scanned: scanned[i] },
        ordered,
      };
    });
  }
}

/** Has work done by a scanner whose loops are others' when it is done, whatever becomes of it. */
function scanning<T>(source: ScanSource, task: ScanTask, work: (scanner: Scanner) => T): T {
  const loops = takeLoops();
  try {
    return work(new Scanner(source, task, loops));
  } finally {
    loops.end();
  }
}

/**
 * Scans chunks until `next` gives -1; null where there was none. What depends on the order of rows is kept
 * apart for each chunk, so that putting the chunks together in their order gives the same to the last bit,
 * whoever scanned which.
 */
function scanShare(
  scanner: Scanner,
  { rows, size }: { rows: number; size: number },
  next: () => number,
): GatheredPart[] | null {
  let some = false;
  for (let chunk = next(); chunk >= 0; chunk = next()) {
    scanner.scan({ from: chunk * size, to: Math.min(rows, (chunk + 1) * size) });
    scanner.cut(chunk);
    some = true;
  }
  return some ? scanner.take() : null;
}

/**
 * Gathers one grouping over the rows of some stretches that filters keep. Only for aggregates that are put
 * together exactly: what depends on the order of rows is not put in that of chunks.
 */
export function scanStretches(
  source: ScanSource,
  stretches: Stretch[],
  filters: PlacedFilter[],
  grouping: Grouping,
  today: Value,
): Gathered {
  const selections = [{ filters: [], groupings: [grouping] }];
  return scanning(source, { filters, selections, today }, (scanner) => {
    for (const stretch of stretches) scanner.scan(stretch);
    scanner.settle();
    return scanner.take()[0].gathered;
  });
}

/** A helper's share of a scan that another began; null where nothing was left to do. */
export function helpScan(source: ScanSource, task: ScanTask, next: () => number): Share | null {
  return scanning(source, task, (scanner) => {
    const parts = scanShare(scanner, { rows: source.table.rows, size: source.chunk }, next);
    scanner.settle();
    return parts?.map(stateOf) ?? null;
  });
}

/**
 * Runs the aggregates of several groupings over the rows of one table that the filters of each selection
 * keep, in a single pass, with the help of the source's crew where there is one. What selections have in
 * common is filtered once; arguments and filters that aggregates share are evaluated once a block. Gives what
 * was gathered for each grouping of each selection. `today` is in whole days.
 */
export function scanTable(source: ScanSource, asked: Selection[], today: Value): Gathered[] {
  const names = asked.map((s) => new Set(s.filters.map((f) => JSON.stringify(f))));
  const isCommon = (f: PlacedFilter) => names.every((of) => of.has(JSON.stringify(f)));
  const selections = asked.map((s) => ({ ...s, filters: s.filters.filter((f) => !isCommon(f)) }));
  const task: ScanTask = { filters: (asked[0]?.filters ?? []).filter(isCommon), selections, today };
  return scanning(
    source,
    task,
    (scanner) => scanned(scanner, source, task) ?? scanTable(source.alone(), asked, today),
  );
}

/**
 * Where nothing is kept apart for each chunk, smaller ones are handed out: whoever is done first
 * waits for less.
 */
const pieceOf = (chunk: number): number => BLOCK * Math.ceil(chunk / BLOCK / 4);

/** What a scan of all rows gathers; null where others who were to help failed, or what they met is too much. */
function scanned(scanner: Scanner, source: ScanSource, task: ScanTask): Gathered[] | null {
  const groupings = task.selections.flatMap((s) => s.groupings);
  const { rows } = source.table;
  const { crew } = source;
  const isInOrder = groupings.some((g) => g.aggregates.some((a) => !isOrderFree(a, source)));
  const size = isInOrder ? source.chunk : pieceOf(source.chunk);
  const chunks = Math.ceil(rows / size);
  const together = (own: GatheredPart[] | null, others: Share[]) => {
    const all = groupings.map((grouping, i) => {
      const shares = others.map((share) => share[i]);
      return combined(grouping, shares, own?.[i], scanner.loops);
    });
    scanner.settle();
    return all;
  };
  if (crew && rows > source.chunk && !groupings.some((g) => g.aggregates.some(needsOneDictionary))) {
    const work = crew.begin(source.table.name, task, chunks, size);
    let others: Share[] | null = null;
    let own: GatheredPart[] | null = null;
    try {
      own = scanShare(scanner, { rows, size }, work.next);
    } finally {
      others = work.finish();
    }
    const all = others && together(own, others);
    // A helper that fell away, or too many groups in all: said by a scan of one's own.
    return all?.every((g, i) => g.size <= (groupings[i].most ?? MAX_GROUPS)) ? all : null;
  }
  if (chunks > 1 && isInOrder) {
    let at = 0;
    return together(
      scanShare(scanner, { rows, size }, () => (at < chunks ? at++ : -1)),
      [],
    );
  }
  scanner.scan({ from: 0, to: rows });
  scanner.settle();
  return scanner.take().map((part) => part.gathered);
}
