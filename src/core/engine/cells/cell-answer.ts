import type { Calendar, DateBucket } from "../../base/calendar";
import { sameName } from "../../base/names";
import type { Value } from "../../base/value";
import type { Scope } from "../../formula/expr";
import { aggregateKey } from "../../plan/aggregates";
import { type PlacedFilter, type PlacedSplit, planQuery, type TablePlan } from "../../plan/plan";
import { type Query, QueryError, type Result } from "../../plan/query";
import type { Accumulator } from "../accumulators/accumulator";
import { Count } from "../accumulators/count";
import { answerOf } from "../answer";
import { attempt } from "../attempt";
import { BLOCK, Readers, wholeBlock } from "../block";
import type { Gathered } from "../gathered";
import { grouperOf } from "../grouper";
import { chained, type Narrowing, narrowingOf } from "../selection";
import type { SourceColumn } from "../source-column";
import { coarseSplits, placesOfKeys, type SplitFacts } from "../split-facts";
import { answeredWithTotals } from "../total-queries";
import type { Cells } from "./cells";
import { isSamePlace, tells } from "./keys";

/** Whether keys of a column are enough to tell which of its rows a filter keeps. */
function answersFilter(key: PlacedSplit, { place, filter }: PlacedFilter, isWhole: boolean): boolean {
  if (!isSamePlace(key.place, place)) return false;
  const by = "in" in filter ? filter.by : undefined;
  // What the newest date of the column is, rows that are not among the cells can say.
  if ("relative" in filter && filter.relative.anchor === "newest" && !isWhole) return false;
  return tells(key.by, by);
}

/** The filters that are not among those that the cells passed; null where one of these is not asked for. */
function furtherFilters(cells: Cells, filters: PlacedFilter[]): PlacedFilter[] | null {
  const asked = filters.map((f) => JSON.stringify(f));
  for (const filter of cells.filters) {
    const at = asked.indexOf(JSON.stringify(filter));
    if (at < 0) return null;
    asked.splice(at, 1);
  }
  return asked.map((text) => JSON.parse(text) as PlacedFilter);
}

/** What a part of a plan asks of cells, in their terms. */
interface Asked {
  /** For each split the line key that tells. */
  splits: { column: SourceColumn; by: DateBucket | undefined }[];
  lineFilters: { filter: PlacedFilter; column: SourceColumn }[];
  rangeFilters: PlacedFilter[];
}

/** How cells answer a part of a plan; null where they do not. */
function askedOf(cells: Cells, { table, filters, splits, aggregates }: TablePlan): Asked | null {
  if (!sameName(cells.table, table)) return null;
  const has = (key: string) => cells.summed.has(key) || cells.others.has(key);
  if (!aggregates.every((a) => has(aggregateKey(a)))) return null;
  const further = furtherFilters(cells, filters);
  if (!further) return null;
  const isWhole = cells.filters.length === 0;
  const asked: Asked = { splits: [], lineFilters: [], rangeFilters: [] };
  for (const { place, by } of splits) {
    const at = cells.keys.findIndex((k) => isSamePlace(k.place, place) && tells(k.by, by));
    if (at < 0) return null;
    asked.splits.push({ column: cells.lines[at], by });
  }
  for (const filter of further) {
    const at = cells.keys.findIndex((k) => answersFilter(k, filter, isWhole));
    if (at >= 0) asked.lineFilters.push({ filter, column: cells.lines[at] });
    else if (cells.range && answersFilter(cells.range.key, filter, isWhole)) asked.rangeFilters.push(filter);
    else return null;
  }
  return asked;
}

/** When a query is answered. */
interface Now {
  calendar: Calendar | undefined;
  today: Value;
}

/** Visits the kept rows of a column, block by block. */
function narrowingBy(
  filters: { filter: PlacedFilter; column: SourceColumn }[],
  readers: Readers,
  { calendar, today }: Now,
): Narrowing | null {
  if (filters.length === 0) return null;
  return filters
    .map(
      ({ filter, column }) =>
        narrowingOf({ calendar, column: () => column }, [filter], readers, today) as Narrowing,
    )
    .reduce(chained);
}

/** The stretches of the range's values that filters keep, as pairs of a first place and one past the last. */
function keptStretches(
  { range }: Cells,
  filters: PlacedFilter[],
  readers: Readers,
  now: Now,
): [number, number][] | null {
  if (!range || filters.length === 0) return null;
  const column = range.values;
  const narrow = narrowingBy(
    filters.map((filter) => ({ filter, column })),
    readers,
    now,
  ) as Narrowing;
  const size = column.data.type === "text" ? column.data.codes.length : column.data.values.length;
  const kept = new Int32Array(BLOCK + 1);
  const stretches: [number, number][] = [];
  for (let base = 0; base < size; base += BLOCK) {
    const count = Math.min(BLOCK, size - base);
    const length = narrow({ base, count }, null, count, kept);
    for (let i = 0; i < length; i++) {
      const at = base + kept[i];
      const last = stretches.at(-1);
      if (last && last[1] === at) last[1]++;
      else stretches.push([at, at + 1]);
    }
  }
  return stretches;
}

/** The first place from `from` up to `to` at which codes are at least `code`. */
function firstAtLeast(codes: Int32Array, code: number, from: number, to: number): number {
  let [low, high] = [from, to];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (codes[middle] < code) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Runs of cells, from a place up to another, with the group of each. */
class Runs {
  private readonly ends: number[] = [];
  readonly groups: number[] = [];

  add(from: number, to: number): void {
    this.ends.push(from, to);
  }
  get length(): number {
    return this.ends.length / 2;
  }
  each(visit: (from: number, to: number, group: number) => void): void {
    for (let i = 0; i < this.length; i++) visit(this.ends[2 * i], this.ends[2 * i + 1], this.groups[i]);
  }
}

/** The cells of a line within some stretches; gives how many runs they are. */
function addRuns(
  runs: Runs,
  { starts, codes }: Cells,
  line: number,
  stretches: [number, number][] | null,
): number {
  const [start, end] = [starts[line], starts[line + 1]];
  const before = runs.length;
  if (stretches === null) runs.add(start, end);
  else {
    let from = start;
    for (const [first, past] of stretches) {
      from = firstAtLeast(codes, first, from, end);
      const to = firstAtLeast(codes, past, from, end);
      if (to > from) runs.add(from, to);
      from = to;
    }
  }
  return runs.length - before;
}

/**
 * What a scan of the rows would gather for a part of a plan, out of cells; null where they do not tell. Groups
 * may come in another order.
 */
export function gatheredFrom(cells: Cells, part: TablePlan, now: Now): Gathered | null {
  const asked = askedOf(cells, part);
  if (!asked) return null;
  const readers = new Readers();
  const stretches = keptStretches(cells, asked.rangeFilters, readers, now);
  const narrow = narrowingBy(asked.lineFilters, readers, now);
  const grouper = grouperOf(asked.splits, readers, now.calendar);
  const lines = cells.starts.length - 1;
  const block = { ...wholeBlock(), offsets: new Int32Array(BLOCK + 1) };
  const groups = new Int32Array(BLOCK);
  const runs = new Runs();
  for (let base = 0; base < lines; base += BLOCK) {
    const count = Math.min(BLOCK, lines - base);
    const kept = narrow ? narrow({ base, count }, null, count, block.offsets) : count;
    // A line without a cell in range makes no group, as no row of it would be met.
    const runsOf: number[] = [];
    let length = 0;
    for (let i = 0; i < kept; i++) {
      const at = narrow ? block.offsets[i] : i;
      const added = addRuns(runs, cells, base + at, stretches);
      if (added === 0) continue;
      block.offsets[length++] = at;
      runsOf.push(added);
    }
    Object.assign(block, { base, count, length, whole: length === count });
    grouper.assign(block, groups);
    for (let i = 0; i < length; i++) for (let n = runsOf[i]; n > 0; n--) runs.groups.push(groups[i]);
  }
  const { size } = grouper;
  const accumulators = new Map<string, Accumulator>();
  let into: Int32Array | null = null;
  for (const a of part.aggregates) {
    const key = aggregateKey(a);
    const summed = cells.summed.get(key);
    if (summed) {
      const { like, upTo } = summed;
      accumulators.set(key, like.ofTallies?.(upTo.map((sums) => sumsOver(sums, runs, size))) as Accumulator);
      continue;
    }
    into ??= placesIn(cells, runs);
    const other = cells.others.get(key) as Accumulator;
    const accumulator = other.empty();
    accumulator.absorb(other.state(), into, size);
    accumulators.set(key, accumulator);
  }
  const counts = sumsOver(cells.rowsUpTo, runs, size);
  const scanned = counts.reduce((sum, n) => sum + n, 0);
  return { keys: grouper.keys, size, accumulators, counts: new Count().ofTallies([counts]), scanned };
}

/** For each group the sum over its runs, out of sums over the first cells. */
function sumsOver(upTo: Int32Array | Float64Array, runs: Runs, size: number): Float64Array {
  const sums = new Float64Array(size);
  runs.each((from, to, group) => {
    sums[group] += upTo[to] - upTo[from];
  });
  return sums;
}

/** For each cell its group, or -1 where it is in no run. */
function placesIn({ rowsUpTo }: Cells, runs: Runs): Int32Array {
  const into = new Int32Array(rowsUpTo.length - 1).fill(-1);
  runs.each((from, to, group) => into.fill(group, from, to));
  return into;
}

/** Cells for the questions of a board, with what answers say besides. */
export interface CellIndex {
  cells: Cells[];
  facts: SplitFacts;
  /** The day for which it was made, in whole days. */
  today: Value;
}

/**
 * Answers queries from cells, in their order, the same as scans of the rows would; null where cells do not
 * tell, and where a query cannot be answered, so that who scans says why.
 */
export function answerFromCells(
  queries: Query[],
  index: CellIndex,
  { scope, inputs }: { scope: Scope; inputs: Record<string, Value> },
  clock: () => number = () => 0,
): (Result | null)[] {
  const now = { calendar: scope.calendar, today: index.today };
  const began = clock();
  const answers = answeredWithTotals(queries, (all) =>
    all.map((query) =>
      attempt((): Result | null => {
        const plan = planQuery(query, scope, inputs, index.today);
        const parts = plan.tables.map((part) =>
          firstOf(index.cells, (cells) => gatheredFrom(cells, part, now)),
        );
        if (parts.includes(null)) return null;
        const answer = answerOf(plan, parts as Gathered[]);
        return {
          ...answer,
          places: placesOfKeys(plan, answer, scope, index.facts),
          coarse: coarseSplits(plan, index.facts),
          ms: clock() - began,
        };
      }),
    ),
  );
  return answers.map((answer) => (answer instanceof QueryError ? null : answer));
}

/** What the first of some gives that gives anything. */
function firstOf<T, R>(all: T[], find: (one: T) => R | null): R | null {
  for (const one of all) {
    const found = find(one);
    if (found !== null) return found;
  }
  return null;
}
