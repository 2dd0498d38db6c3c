import type { DateBucket } from "../../base/calendar";
import { bytesIn } from "../../data/bytes-in";
import type { ColumnType } from "../../data/column";
import { columnRange } from "../../data/column-range";
import { type ColumnPlace, homeOf } from "../../formula/meeting";
import { type Aggregate, aggregateKey } from "../../plan/aggregates";
import { type PlacedFilter, type PlacedSplit, type Plan, planQuery } from "../../plan/plan";
import { type Filter, type Query, QueryError } from "../../plan/query";
import { attempt } from "../attempt";
import type { Categories } from "../category-places";
import type { Gathered } from "../gathered";
import { type Catalog, factsOf, sourcesOf } from "../run";
import { isPutTogetherExactly, scanTable } from "../scan";
import type { SplitFacts } from "../split-facts";
import type { TableSource, TableSources } from "../table-source";
import { totalQueries } from "../total-queries";
import type { CellIndex } from "./cell-answer";
import { type Cells, cellsOf } from "./cells";
import { isSameKey } from "./keys";
import { holds, rolledUp } from "./roll-up";

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

const USUAL: CellLimits = { cells: 500_000, bytes: 200_000_000 };

/** A range key is worth it from so many values on; fewer tell lines apart. */
const LEAST_RANGE = 24;

/** One grouping that is to be gathered: rows that pass filters, by keys of which one may be a range. */
interface Wanted {
  source: TableSource;
  filters: PlacedFilter[];
  keys: PlacedSplit[];
  /** The place of the range key among the keys; -1 where there is none. */
  range: number;
  aggregates: Map<string, Aggregate>;
}

const DAYS_IN: Record<DateBucket, number> = { day: 1, week: 7, month: 30, quarter: 91, year: 365 };
const DAY = 86_400_000;

/** About how many keys a split makes at most. */
function keysOf(source: TableSource, { place, by }: PlacedSplit): number {
  const { data } = source.column(place.table, place.column);
  if (data.type === "text") return data.dictionary.length + 1;
  if (data.type === "boolean") return 3;
  const { within } = columnRange(data);
  if (!within) return Number.POSITIVE_INFINITY;
  const span = data.type === "timestamp" ? within.span / (by ? DAY : 1) : within.span;
  return Math.ceil(span / (by && data.type !== "number" ? DAYS_IN[by] : 1)) + 2;
}

/** The range key: the one with the most values that no split needs as it is. */
function rangeAmong(source: TableSource, splits: PlacedSplit[], touched: PlacedSplit[]): PlacedSplit | null {
  const sizes = touched
    .filter((key) => key.by === undefined && !splits.some((s) => isSameKey(s, key)))
    .map((key) => ({
      key,
      size: keysOf(source, key),
      type: source.column(key.place.table, key.place.column).data.type,
    }))
    .filter(({ size, type }) => size >= LEAST_RANGE && type !== "text")
    .sort((a, b) => b.size - a.size);
  return sizes[0]?.key ?? null;
}

/** A filter that keeps nothing, by which it is found where a touched column stands for each table. */
const probeOf = ({ column, by }: Touched): Filter => ({ column, ...(by ? { by } : {}), in: [] });

/** The touched columns that mean something for a query, with their probes. */
function probesFor(query: Query, { touched }: CellsAsked, plan: (query: Query) => Plan | QueryError) {
  return touched
    .map((t) => ({ touched: t, probe: probeOf(t) }))
    .filter(({ probe }) => !(plan({ ...query, filters: [probe] }) instanceof QueryError));
}

/** The groupings that answer one query whatever is done to some touched columns, others left as they are. */
function wantedFor(
  query: Query,
  { now }: CellsAsked,
  together: { touched: Touched; probe: Filter }[],
  plan: (query: Query) => Plan | QueryError,
  sources: TableSources,
  limits: CellLimits,
): Wanted[] | null {
  const probes = new Set(together.map((t) => t.probe));
  const names = new Set(together.map((t) => t.touched.column.toLowerCase()));
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
    const range = rangeAmong(source, splits, touched);
    const all = [...splits, ...touched];
    const keys = all.filter((key, i) => all.findIndex((k) => isSameKey(k, key)) === i);
    const cells = keys.reduce((product, key) => product * keysOf(source, key), 1);
    if (Math.min(cells, source.table.rows) > limits.cells) return null;
    wanted.push({
      source,
      filters: filters.filter(({ filter }) => !probes.has(filter)),
      keys,
      range: range ? keys.findIndex((k) => isSameKey(k, range)) : -1,
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
    const name = JSON.stringify([source.table.name, filters, keys, range]);
    const known = byName.get(name);
    if (!known) byName.set(name, wanted);
    else for (const [key, a] of aggregates) known.aggregates.set(key, a);
  }
  return [...byName.values()];
}

/** Groupings of which each that another holds is put together from that one, and the others are scanned. */
interface Scanned {
  wanted: Wanted;
  from: Wanted[];
}

function scannedFor(all: Wanted[]): Scanned[] {
  const scanned: Scanned[] = [];
  for (const wanted of all.toSorted((a, b) => b.keys.length - a.keys.length)) {
    const finer = scanned.find((s) => holds(s.wanted, wanted));
    if (!finer) scanned.push({ wanted, from: [wanted] });
    else finer.from.push(wanted);
  }
  return scanned.map(({ wanted, from }) => ({
    wanted: { ...wanted, aggregates: new Map(from.flatMap((w) => [...w.aggregates])) },
    from,
  }));
}

/** Scans for groupings of one table, all in one pass; one that cannot be gathered is left out. */
function gathered(wanted: Wanted[], sources: TableSources, { cells }: CellLimits): (Gathered | null)[] {
  const selections = wanted.map(({ filters, keys, aggregates }) => ({
    filters,
    groupings: [{ splits: keys, aggregates: [...aggregates.values()], most: cells }],
  }));
  const { source } = wanted[0];
  const together = attempt(() => scanTable(source, selections, sources.today));
  if (!(together instanceof QueryError)) return together;
  if (together.code !== "too_many_groups") throw together;
  return selections.map((s) => {
    const alone = attempt(() => scanTable(source, [s], sources.today)[0]);
    if (alone instanceof QueryError && alone.code !== "too_many_groups") throw alone;
    return alone instanceof QueryError ? null : alone;
  });
}

/** The type of a key: a timestamp in stretches is a date. */
function keyType(source: TableSource, { place, by }: PlacedSplit): ColumnType {
  const { type } = source.column(place.table, place.column).data;
  return type === "timestamp" && by ? "date" : type;
}

/** What answers say of splits, kept as plain data so that no rows are needed for it. */
export class KeptFacts implements SplitFacts {
  constructor(
    readonly kept: { categories: Map<string, Categories | null>; coarser: Map<string, DateBucket | null> } = {
      categories: new Map(),
      coarser: new Map(),
    },
  ) {}
  static nameOf = ({ table, column }: ColumnPlace, by: DateBucket | undefined, of = ""): string =>
    JSON.stringify([of, table, column, by ?? null]).toLowerCase();

  categories(place: ColumnPlace, by: DateBucket | undefined): Categories | null {
    return this.kept.categories.get(KeptFacts.nameOf(place, by)) ?? null;
  }
  coarser(table: string, { place, by }: PlacedSplit): DateBucket | null {
    return this.kept.coarser.get(KeptFacts.nameOf(place, by, table)) ?? null;
  }
  /** Keeps what answers of a plan will say. */
  keep({ tables }: Plan, { scope }: TableSources, facts: SplitFacts): void {
    for (const { table, splits } of tables)
      for (const split of splits) {
        const { place, by } = split;
        this.kept.coarser.set(KeptFacts.nameOf(place, by, table), facts.coarser(table, split));
        for (const p of [place, homeOf(scope, place)])
          this.kept.categories.set(KeptFacts.nameOf(p, by), facts.categories(p, by));
      }
  }
}

/**
 * Gathers cells from which the queries of a board are answered whatever is filtered by the touched columns:
 * by all of them at once where these are few enough cells, else by each with the others as they are now.
 * Queries of which an aggregate depends on the order of rows have none, nor those that would need too many
 * cells. Throws a QueryError where it is stopped.
 */
export function buildCells(asked: CellsAsked, catalog: Catalog, limits = USUAL): CellIndex {
  const sources = sourcesOf(catalog);
  const live = factsOf(sources);
  const facts = new KeptFacts();
  const plan = (query: Query) =>
    attempt(() => planQuery(query, sources.scope, catalog.inputs, sources.today));
  const queries = asked.queries.flatMap((q) => [{ ...q, totals: [] }, ...totalQueries(q)]);
  const wanted = queries.flatMap((query) => {
    const probes = probesFor(query, asked, plan);
    const bare = plan(query);
    if (!(bare instanceof QueryError)) facts.keep(bare, sources, live);
    const found = attempt(() => {
      const all = wantedFor(query, asked, probes, plan, sources, limits);
      if (all) return all;
      return probes.flatMap((one) => wantedFor(query, asked, [one], plan, sources, limits) ?? []);
    });
    return found instanceof QueryError ? [] : found;
  });
  const cells: Cells[] = [];
  let bytes = 0;
  const bySource = new Map<TableSource, Wanted[]>();
  for (const w of united(wanted)) bySource.set(w.source, [...(bySource.get(w.source) ?? []), w]);
  for (const [source, all] of bySource) {
    const scanned = scannedFor(all);
    const found = gathered(
      scanned.map((s) => s.wanted),
      sources,
      limits,
    );
    for (const [i, { wanted: fine, from }] of scanned.entries()) {
      const fineOf = found[i];
      if (!fineOf) continue;
      const types = fine.keys.map((key) => keyType(source, key));
      for (const { filters, keys, range, aggregates } of from) {
        const names = new Set(aggregates.keys());
        const own = rolledUp(fineOf, { keys: fine.keys, types }, keys, names, source.calendar);
        const ownTypes = keys.map((key) => keyType(source, key));
        const made = cellsOf({ table: source.table.name, filters, keys }, ownTypes, range, own);
        bytes += bytesIn(made);
        if (bytes <= limits.bytes) cells.push(made);
      }
    }
  }
  return { cells, facts, today: sources.today };
}
