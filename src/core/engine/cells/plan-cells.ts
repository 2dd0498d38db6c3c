import type { DateBucket } from "../../base/calendar";
import type { ColumnData } from "../../data/column";
import { columnRange } from "../../data/column-range";
import { type Aggregate, aggregateKey } from "../../plan/aggregates";
import type { PlacedSplit, Plan } from "../../plan/plan";
import { planQuery } from "../../plan/plan-query";
import type { Filter, Query } from "../../plan/query";
import { QueryError } from "../../plan/query-error";
import { attempt } from "../attempt";
import { isPutTogetherExactly } from "../order-free";
import { type Catalog, factsOf } from "../run";
import type { TableSource, TableSources } from "../table-source";
import { totalQueries } from "../total-queries";
import type { RangeKey } from "./cells";
import { KeptFacts } from "./kept-facts";
import { isSameKey } from "./keys";
import { holds, type Keyed } from "./roll-up";
import { binsOf, type RowOrder, rowOrder } from "./row-order";

/** A column by which somebody may filter; dates in stretches where `by` says so, else by any range of them. */
export interface Touched {
  /** As filters name it. */
  column: string;
  by?: DateBucket | undefined;
}

/** What a board may ask: its queries without what is filtered there, and what may be. */
export interface CellsAsked {
  queries: Query[];
  touched: Touched[];
  /** How it is filtered now. */
  now: Filter[];
}

/** How large cells may be. */
export interface CellLimits {
  /** The most cells of one grouping. */
  cells: number;
  /** The most bytes of all. */
  bytes: number;
}

/** Cells of fewer rows than this would be as many as to scan. */
const LEAST_ROWS = 8;
/** So many are few whatever they hold. */
const FEW_CELLS = 50_000;

const mostCells = ({ table }: TableSource, { cells }: CellLimits): number =>
  Math.min(cells, Math.max(FEW_CELLS, table.rows / LEAST_ROWS));

/** A range key is worth it from so many values on; fewer tell lines apart. */
const LEAST_RANGE = 24;
/** Fewer bins than this would leave too many rows at their edges. */
const LEAST_BINS = 16;

/** One grouping that is to be gathered. */
export interface Wanted extends Keyed {
  source: TableSource;
  range: Omit<RangeKey, "edges"> | null;
  order: RowOrder | null;
  aggregates: Map<string, Aggregate>;
}

/** The orders of rows by columns, each found once, with their bins. */
class Orders {
  private readonly known = new Map<ColumnData, { order: RowOrder | null; bins: Map<number, Int32Array> }>();

  constructor(private readonly sources: TableSources) {}

  private of(data: ColumnData) {
    const boss = { checkStop: () => this.sources.checkStop() };
    const known = this.known.get(data) ?? { order: rowOrder(data, boss), bins: new Map() };
    this.known.set(data, known);
    return known;
  }
  order(data: ColumnData): RowOrder | null {
    return this.of(data).order;
  }
  /** At most so many bins; a power of two of them where not every value has its own, so that many share them. */
  bins(data: ColumnData, most: number): Int32Array | null {
    const { order, bins } = this.of(data);
    if (!order) return null;
    const all = order.starts.length - 1;
    const count = most >= all ? all : 2 ** Math.floor(Math.log2(most));
    if (count < Math.min(LEAST_BINS, all)) return null;
    const made = bins.get(count) ?? binsOf(order, count);
    bins.set(count, made);
    return made;
  }
}

const DAYS_IN: Record<DateBucket, number> = { day: 1, week: 7, month: 30, quarter: 91, year: 365 };
const DAY = 86_400_000;

const withNull = new WeakMap<ColumnData, boolean>();

/** Whether a row has null. */
function hasNull(data: ColumnData): boolean {
  const known = withNull.get(data);
  if (known !== undefined) return known;
  const has = data.type === "text" ? (data.codes as Int32Array).includes(-1) : !columnRange(data).full;
  withNull.set(data, has);
  return has;
}

/** About how many keys a split makes at most. */
function keysOf(source: TableSource, { place, by }: PlacedSplit): number {
  const { data, rows } = source.column(place.table, place.column);
  const besides = Number(hasNull(data)) + Number(rows !== null);
  if (data.type === "text") return data.dictionary.length + besides;
  if (data.type === "boolean") return 2 + besides;
  const { within } = columnRange(data);
  if (!within) return Number.POSITIVE_INFINITY;
  const span = data.type === "timestamp" ? within.span / (by ? DAY : 1) : within.span;
  return by && data.type !== "number" ? Math.ceil(span / DAYS_IN[by]) + 1 + besides : span + besides;
}

/** The range key: the one with the most values that no split needs as it is. */
function rangeAmong(
  source: TableSource,
  splits: PlacedSplit[],
  touched: PlacedSplit[],
  orders: Orders,
): PlacedSplit | null {
  const able = touched
    .filter((key) => key.by === undefined && !splits.some((s) => isSameKey(s, key)))
    .flatMap((key) => {
      const order = orders.order(source.column(key.place.table, key.place.column).data);
      return order && order.starts.length > LEAST_RANGE ? { key, size: order.starts.length } : [];
    });
  return able.sort((a, b) => b.size - a.size)[0]?.key ?? null;
}

/** A filter that keeps nothing, by which it is found where a touched column stands for each table. */
const probeOf = ({ column, by }: Touched): Filter => ({ column, ...(by ? { by } : {}), in: [] });

/** The touched columns that mean something for a query, with their probes. */
function probesFor(
  query: Query,
  { touched }: CellsAsked,
  plan: (query: Query) => Plan | QueryError,
): Probed[] {
  return touched
    .map((t) => ({ touched: t, probe: probeOf(t) }))
    .filter(({ probe }) => !(plan({ ...query, filters: [probe] }) instanceof QueryError));
}

/** A touched column with its probe. */
interface Probed {
  touched: Touched;
  probe: Filter;
}

/**
 * The groupings that answer a query whatever is done to some touched columns, while others are filtered as
 * they are in `now`; null where it has none.
 */
function wantedFor(
  { query, probes: some, now }: { query: Query; probes: Probed[]; now: Filter[] },
  plan: (query: Query) => Plan | QueryError,
  sources: TableSources,
  orders: Orders,
  limits: CellLimits,
): Wanted[] | null {
  const probes = new Set(some.map((t) => t.probe));
  const names = new Set(some.map((t) => t.touched.column.toLowerCase()));
  const standing = now.filter(
    (f) => !names.has(f.column.toLowerCase()) && !(plan({ ...query, filters: [f] }) instanceof QueryError),
  );
  const planned = plan({ ...query, filters: [...query.filters, ...standing, ...probes] });
  if (planned instanceof QueryError) return null;
  const wanted: Wanted[] = [];
  for (const { table, filters, splits, aggregates } of planned.tables) {
    const source = sources.of(table);
    if (!aggregates.every((a) => isPutTogetherExactly(a, source))) return null;
    const touched = filters
      .filter(({ filter }) => probes.has(filter))
      .map(({ place, filter }): PlacedSplit => ({ place, by: "by" in filter ? filter.by : undefined }));
    const along = rangeAmong(source, splits, touched, orders);
    const all = [...splits, ...touched].filter((key) => !along || !isSameKey(key, along));
    const keys = all.filter((key, i) => all.findIndex((k) => isSameKey(k, key)) === i);
    const lines = Math.min(
      keys.reduce((product, key) => product * keysOf(source, key), 1),
      source.table.rows,
    );
    const most = mostCells(source, limits);
    if (lines > most) return null;
    let range: Wanted["range"] = null;
    let order: RowOrder | null = null;
    if (along) {
      const { data } = source.column(along.place.table, along.place.column);
      order = orders.order(data);
      const bins = orders.bins(data, most / lines);
      if (!bins || !order) return null;
      range = { key: along, values: { data: order.values, rows: null }, bins };
    }
    wanted.push({
      source,
      filters: filters.filter(({ filter }) => !probes.has(filter)),
      keys,
      range,
      order,
      aggregates: new Map(aggregates.map((a) => [aggregateKey(a), a])),
    });
  }
  return wanted;
}

/** The same groupings put together, each with the aggregates that any of them needs. */
function united(all: Wanted[]): Wanted[] {
  const byName = new Map<string, Wanted>();
  for (const wanted of all) {
    const { source, filters, keys, range, aggregates } = wanted;
    const name = JSON.stringify([source.table.name, filters, keys, range?.key, range?.bins.length]);
    const known = byName.get(name);
    if (!known) byName.set(name, wanted);
    else for (const [key, a] of aggregates) known.aggregates.set(key, a);
  }
  return [...byName.values()];
}

/** Groupings of which each that another holds is put together from that one, and the others are scanned. */
export interface Scanned {
  wanted: Wanted;
  from: Wanted[];
}

/** Groupings with more of it come first, so that what can be put together from another comes after that. */
const fineness = ({ keys, range }: Wanted) => keys.length + (range ? 1 : 0);

export function scannedFor(all: Wanted[]): Scanned[] {
  const scanned: Scanned[] = [];
  for (const wanted of all.toSorted((a, b) => fineness(b) - fineness(a))) {
    const finer = scanned.find((s) => holds(s.wanted, wanted));
    if (!finer) scanned.push({ wanted, from: [wanted] });
    else finer.from.push(wanted);
  }
  return scanned.map(({ wanted, from }) => ({
    wanted: { ...wanted, aggregates: new Map(from.flatMap((w) => [...w.aggregates])) },
    from,
  }));
}

/** What is to be gathered for a board, what its answers say besides, and whether it depends on how it is filtered. */
export function wantedCells(
  asked: CellsAsked,
  sources: TableSources,
  inputs: Catalog["inputs"],
  limits: CellLimits,
): { wanted: Wanted[]; facts: KeptFacts; isSettled: boolean } {
  const live = factsOf(sources);
  const facts = new KeptFacts();
  const orders = new Orders(sources);
  const plan = (query: Query) => attempt(() => planQuery(query, sources.scope, inputs, sources.today));
  const queries = asked.queries.flatMap((q) => [{ ...q, totals: [] }, ...totalQueries(q, sources.scope)]);
  let isSettled = true;
  const wanted = queries.flatMap((query) => {
    const probes = probesFor(query, asked, plan);
    const bare = plan(query);
    if (!(bare instanceof QueryError)) facts.keep(bare, sources.scope, live);
    const found = attempt(() => {
      const wantedOf = (some: Probed[], now: Filter[]) =>
        wantedFor({ query, probes: some, now }, plan, sources, orders, limits);
      const all = wantedOf(probes, []);
      // By each alone there are fewer cells to look at, and more bins: most clicks are the first ones.
      const alone = probes.map((one) => wantedOf([one], all ? [] : asked.now));
      if (!all && probes.length > 1 && alone.some((w) => w !== null)) isSettled = false;
      return [all, ...alone].flatMap((w) => w ?? []);
    });
    return found instanceof QueryError ? [] : found;
  });
  return { wanted: united(wanted), facts, isSettled };
}
