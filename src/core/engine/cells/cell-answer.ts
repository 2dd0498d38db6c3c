import type { Calendar, DateBucket } from "../../base/calendar";
import { sameName } from "../../base/names";
import type { Value } from "../../base/value";
import type { Scope } from "../../formula/expr";
import { type Aggregate, aggregateKey } from "../../plan/aggregates";
import { isListFilter } from "../../plan/list-filter";
import type { PlacedFilter, PlacedSplit, Plan, TablePlan } from "../../plan/plan";
import { planQuery } from "../../plan/plan-query";
import type { Query, Result } from "../../plan/query";
import { QueryError } from "../../plan/query-error";
import type { Accumulator, Tally } from "../accumulators/accumulator";
import { Count } from "../accumulators/count";
import { answerOf } from "../answer";
import { attempt } from "../attempt";
import { Readers, wholeBlock } from "../block";
import { combined, type Gathered, isRowCount, stateOf } from "../gathered";
import { grouperOf } from "../grouper";
import { BLOCK, grown } from "../loops/loops";
import { scanStretches } from "../scan";
import { chained, type Narrowing, narrowingOf } from "../selection";
import type { SourceColumn } from "../source-column";
import { answeredWithTotals, type KnownAtRest } from "../total-queries";
import type { Cells, RangeKey } from "./cells";
import type { KeptFacts } from "./kept-facts";
import { isSamePlace, tells } from "./keys";

/** Whether keys of a column are enough to tell which of its rows a filter keeps. */
function answersFilter(key: PlacedSplit, { place, filter }: PlacedFilter, isWhole: boolean): boolean {
  if (!isSamePlace(key.place, place)) return false;
  const by = isListFilter(filter) ? filter.by : undefined;
  // What the newest date of the column is, rows that are not among the cells can say.
  if ("relative" in filter && filter.relative.anchor === "newest" && !isWhole) return false;
  return tells(key.by, by);
}

/** The same of the key of a range, in which what has no match and what is null are one. */
const tellsInRange = (key: PlacedSplit, placed: PlacedFilter, isWhole: boolean): boolean =>
  answersFilter(key, placed, isWhole) &&
  !(isListFilter(placed.filter) && placed.filter.noMatch !== undefined);

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
    else if (cells.range && tellsInRange(cells.range.key, filter, isWhole)) asked.rangeFilters.push(filter);
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

/** Stretches of places: of each the first, and one past the last. */
type Stretches = [number, number][];

/** The stretches of the range's values that filters keep. */
function keptStretches(
  { values: column }: RangeKey,
  filters: PlacedFilter[],
  readers: Readers,
  now: Now,
): Stretches {
  const narrow = narrowingBy(
    filters.map((filter) => ({ filter, column })),
    readers,
    now,
  ) as Narrowing;
  const size = column.data.type === "text" ? column.data.codes.length : column.data.values.length;
  const kept = new Int32Array(BLOCK + 1);
  const stretches: Stretches = [];
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

/** Stretches of values as whole bins, and what is left of them at the edges. */
function inBins({ bins }: RangeKey, stretches: Stretches): { whole: Stretches; edges: Stretches } {
  const [whole, edges]: [Stretches, Stretches] = [[], []];
  for (const [first, past] of stretches) {
    const from = firstAtLeast(bins, first, 0, bins.length);
    const to = firstAtLeast(bins, past + 1, 0, bins.length) - 1;
    if (to <= from) edges.push([first, past]);
    else {
      whole.push([from, to]);
      if (bins[from] > first) edges.push([first, bins[from]]);
      if (past > bins[to]) edges.push([bins[to], past]);
    }
  }
  return { whole, edges };
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
  private ends = new Int32Array(2048);
  private groups = new Int32Array(1024);
  length = 0;

  add(from: number, to: number): void {
    const { length } = this;
    if (length === this.groups.length) {
      this.ends = grown(this.ends, 4 * length);
      this.groups = grown(this.groups, 2 * length);
    }
    this.ends[2 * length] = from;
    this.ends[2 * length + 1] = to;
    this.length++;
  }
  put(at: number, group: number): void {
    this.groups[at] = group;
  }
  /** For each group the sum over its runs, out of sums over the first cells. */
  sums(upTo: Tally, size: number): Float64Array {
    const { ends, groups, length } = this;
    const sums = new Float64Array(size);
    for (let i = 0; i < length; i++) sums[groups[i]] += upTo[ends[2 * i + 1]] - upTo[ends[2 * i]];
    return sums;
  }
  /** For each cell its group, or -1 where it is in no run. */
  into(cells: number): Int32Array {
    const { ends, groups, length } = this;
    const into = new Int32Array(cells).fill(-1);
    for (let i = 0; i < length; i++) into.fill(groups[i], ends[2 * i], ends[2 * i + 1]);
    return into;
  }
}

/** The cells of a line within some stretches; gives how many runs they are. */
function addRuns(runs: Runs, { starts, codes }: Cells, line: number, stretches: Stretches | null): number {
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

/** What some cells gather: those of lines that filters keep, in some bins of the range (null: all). */
function gatheredRuns(
  cells: Cells,
  { splits, lineFilters }: Asked,
  bins: Stretches | null,
  aggregates: Aggregate[],
  now: Now,
): Gathered {
  const readers = new Readers();
  const narrow = narrowingBy(lineFilters, readers, now);
  const grouper = grouperOf(splits, readers, now.calendar);
  const lines = cells.starts.length - 1;
  const block = { ...wholeBlock(), offsets: new Int32Array(BLOCK + 1) };
  const groups = new Int32Array(BLOCK);
  const runs = new Runs();
  let put = 0;
  for (let base = 0; base < lines; base += BLOCK) {
    const count = Math.min(BLOCK, lines - base);
    const kept = narrow ? narrow({ base, count }, null, count, block.offsets) : count;
    // A line without a cell in range makes no group, as no row of it would be met.
    const runsOf: number[] = [];
    let length = 0;
    for (let i = 0; i < kept; i++) {
      const at = narrow ? block.offsets[i] : i;
      const added = addRuns(runs, cells, base + at, bins);
      if (added === 0) continue;
      block.offsets[length++] = at;
      runsOf.push(added);
    }
    Object.assign(block, { base, count, length, whole: length === count });
    grouper.assign(block, groups);
    for (let i = 0; i < length; i++) for (let n = runsOf[i]; n > 0; n--) runs.put(put++, groups[i]);
  }
  const { size } = grouper;
  const rows = runs.sums(cells.rowsUpTo, size);
  const counts = new Count().ofTallies([rows]);
  const scanned = rows.reduce((sum, n) => sum + n, 0);
  const accumulators = new Map<string, Accumulator>();
  let into: Int32Array | null = null;
  for (const a of aggregates) {
    const key = aggregateKey(a);
    if (isRowCount(a)) {
      accumulators.set(key, counts);
      continue;
    }
    const summed = cells.summed.get(key);
    if (summed) {
      const { like, upTo } = summed;
      accumulators.set(key, like.ofTallies?.(upTo.map((sums) => runs.sums(sums, size))) as Accumulator);
      continue;
    }
    into ??= runs.into(cells.rowsUpTo.length - 1);
    const other = cells.others.get(key)?.accumulator as Accumulator;
    const accumulator = other.empty();
    accumulator.absorb(other.state(), into, size);
    accumulators.set(key, accumulator);
  }
  return { keys: grouper.keys, size, accumulators, counts, scanned };
}

/** Where more of the rows than this stand at edges, a scan of all is no slower. */
const MOST_AT_EDGES = 1 / 4;

/**
 * What a scan of the rows would gather for a part of a plan, out of cells, and of the rows at the edges of
 * bins; null where they do not tell. Groups may come in another order.
 */
export function gatheredFrom(cells: Cells, part: TablePlan, now: Now): Gathered | null {
  const asked = askedOf(cells, part);
  if (!asked) return null;
  const { range } = cells;
  if (!range || asked.rangeFilters.length === 0)
    return gatheredRuns(cells, asked, null, part.aggregates, now);
  const kept = keptStretches(range, asked.rangeFilters, new Readers(), now);
  const { whole, edges } = inBins(range, kept);
  if (edges.length === 0) return gatheredRuns(cells, asked, whole, part.aggregates, now);
  if (!range.edges) return null;
  const { starts, rows } = range.edges;
  const stretches = edges.map(([first, past]) => ({ from: starts[first], to: starts[past] }));
  const many = stretches.reduce((sum, { from, to }) => sum + to - from, 0);
  if (many > rows.table.rows * MOST_AT_EDGES) return null;
  const inside = gatheredRuns(cells, asked, whole, part.aggregates, now);
  const filters = [...cells.filters, ...asked.lineFilters.map((f) => f.filter)];
  const grouping = { splits: part.splits, aggregates: part.aggregates, most: Number.POSITIVE_INFINITY };
  const outside = scanStretches(rows, stretches, filters, grouping, now.today);
  return combined(grouping, [stateOf({ gathered: outside, ordered: [] })], { gathered: inside, ordered: [] });
}

/** Cells for the questions of a board, with what answers say besides. */
export interface CellIndex {
  cells: Cells[];
  facts: KeptFacts;
  /** The day for which it was made, in whole days. */
  today: Value;
  /** Whether nothing of it depends on how the board was filtered when it was made. */
  isSettled: boolean;
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
  const known = knownAtRest(index, JSON.stringify([scope.measures, inputs]));
  const ask = (all: Query[]) => {
    const plans = all.map((query) => attempt(() => planQuery(query, scope, inputs, index.today)));
    const gather = gatheringOf(plans, index, now);
    return plans.map((plan) => {
      if (plan instanceof QueryError) return plan;
      return attempt((): Result | null => {
        const parts = plan.tables.map(gather);
        if (parts.includes(null)) return null;
        const answer = answerOf(plan, parts as Gathered[], { scope, facts: index.facts });
        return { ...answer, ms: clock() - began };
      });
    });
  };
  return answeredWithTotals(queries, scope, ask, known).map((answer) =>
    answer instanceof QueryError ? null : answer,
  );
}

const atRest = new WeakMap<CellIndex, { of: string; known: KnownAtRest }>();
/** So many queries of a board are known at rest. */
const MOST_AT_REST = 500;

/** What is known at rest of an index, as long as measures and inputs mean the same. */
function knownAtRest(index: CellIndex, of: string): KnownAtRest {
  let found = atRest.get(index);
  if (found?.of !== of || found.known.size > MOST_AT_REST) {
    found = { of, known: new Map() };
    atRest.set(index, found);
  }
  return found.known;
}

/**
 * How each part of some plans is gathered: those that ask for the same rows in the same groups together, in
 * which one may have more aggregates than it asked for; where that cannot be, each alone.
 */
function gatheringOf(plans: (Plan | QueryError)[], { cells }: CellIndex, now: Now) {
  const find = (part: TablePlan) => firstOf(cells, (one) => gatheredFrom(one, part, now));
  const nameOf = ({ table, filters, splits }: TablePlan) => JSON.stringify([table, filters, splits]);
  const together = new Map<string, TablePlan>();
  const found = new Map<string, Gathered | null>();
  for (const plan of plans)
    for (const part of plan instanceof QueryError ? [] : plan.tables) {
      const known = together.get(nameOf(part));
      const all = [...(known?.aggregates ?? []), ...part.aggregates];
      together.set(nameOf(part), { ...part, aggregates: all });
    }
  return (part: TablePlan): Gathered | null => {
    const name = nameOf(part);
    if (!found.has(name)) found.set(name, find(together.get(name) as TablePlan));
    return found.get(name) ?? find(part);
  };
}

/** What the first of some gives that gives anything. */
function firstOf<T, R>(all: T[], find: (one: T) => R | null): R | null {
  for (const one of all) {
    const found = find(one);
    if (found !== null) return found;
  }
  return null;
}
