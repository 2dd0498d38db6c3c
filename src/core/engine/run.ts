import { parseIsoDate } from "../base/calendar";
import type { Value } from "../base/value";
import { bytesIn } from "../data/bytes-in";
import type { Table } from "../data/column";
import type { Scope } from "../formula/expr";
import { type Aggregate, aggregateKey } from "../plan/aggregates";
import type { Plan, TablePlan } from "../plan/plan";
import { planQuery } from "../plan/plan-query";
import type { Query, Result } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { answerOf } from "./answer";
import { attempt } from "./attempt";
import { categoriesOf } from "./category-places";
import type { Crew } from "./crew";
import { type Gathered, withBefore } from "./gathered";
import { coarserThan } from "./grain";
import { scanTable } from "./scan";
import type { SplitFacts } from "./split-facts";
import type { StopFlag } from "./stop";
import { type TableSource, TableSources } from "./table-source";
import { answeredWithTotals } from "./total-queries";

/** What queries are answered from: the names formulas may use, the inputs' values, and the tables by name. */
export interface Catalog {
  scope: Scope;
  /** Values by the input's name. Dates are ISO 8601 text. */
  inputs: Record<string, Value>;
  tables: Table[];
  /** What current_date is, as ISO 8601 text. */
  today?: string;
  /** Asked between blocks of work. */
  stop?: StopFlag;
  /** Who helps with scans. */
  crew?: Crew;
  /** How many rows are scanned at a time where several share the work, whole blocks; else what is usual. */
  chunk?: number;
}

/**
 * Remembers what scans gathered, within a bound of bytes, so that a change of sort, of first-n or of a
 * group-level input reads no rows again.
 */
export class ScanCache {
  private readonly entries = new Map<string, { gathered: Gathered; bytes: number }>();
  private total = 0;
  constructor(private readonly mostBytes = 50_000_000) {}

  /** What all entries hold, in bytes. */
  get bytes(): number {
    return this.total;
  }
  get(key: string): Gathered | undefined {
    const found = this.entries.get(key);
    if (found) {
      this.entries.delete(key);
      this.entries.set(key, found);
    }
    return found?.gathered;
  }
  set(key: string, gathered: Gathered): void {
    this.drop(key);
    const bytes = bytesIn(gathered);
    // What alone is larger than the bound would only push everything else out.
    if (bytes > this.mostBytes) return;
    this.entries.set(key, { gathered, bytes });
    this.total += bytes;
    for (const oldest of this.entries.keys()) {
      if (this.total <= this.mostBytes) break;
      this.drop(oldest);
    }
  }
  private drop(key: string): void {
    this.total -= this.entries.get(key)?.bytes ?? 0;
    this.entries.delete(key);
  }
}

/** The sources of a catalog, for queries and for computed columns. */
export function sourcesOf(catalog: Catalog): TableSources {
  return new TableSources(
    catalog.tables,
    catalog.scope,
    catalog.today ? parseIsoDate(catalog.today) : null,
    catalog.stop,
    catalog.crew,
    catalog.chunk,
  );
}

/**
 * What a plan asks of a table, with its source. `key` names what one pass gathers; passes with the same
 * `rowsKey` read the same rows.
 */
interface Part extends TablePlan {
  source: TableSource;
  key: string;
  rowsKey: string;
}

/** A plan with its parts, in the order of its tables. */
interface Prepared {
  plan: Plan;
  parts: Part[];
}

/** Throws a QueryError where a table of the plan has no rows here. */
function prepared(query: Query, sources: TableSources, inputs: Catalog["inputs"]): Prepared {
  sources.checkStop();
  const plan = planQuery(query, sources.scope, inputs, sources.today);
  const parts = plan.tables.map((asked): Part => {
    const source = sources.of(asked.table);
    const { filters, splits } = asked;
    const today = filters.some((f) => "relative" in f.filter) ? sources.today : null;
    const rowsKey = `${source.name} ${JSON.stringify([filters, today])}`;
    return { ...asked, source, rowsKey, key: `${rowsKey} ${JSON.stringify(splits)}` };
  });
  return { plan, parts };
}

/** What has to be gathered for one key: the aggregates that the cache lacks. */
interface Wanted {
  part: Part;
  aggregates: Aggregate[];
}

function wantedBy(plans: Prepared[], cache: ScanCache): Map<string, Wanted> {
  const wanted = new Map<string, Wanted>();
  for (const part of plans.flatMap((p) => p.parts)) {
    const known = cache.get(part.key);
    const missing = part.aggregates.filter((a) => !known?.accumulators.has(aggregateKey(a)));
    if (missing.length === 0 && known) continue;
    const before = wanted.get(part.key);
    if (before) before.aggregates.push(...missing);
    else wanted.set(part.key, { part, aggregates: missing });
  }
  return wanted;
}

/**
 * Gathers what is wanted, everything over the same table in one pass. A grouping that cannot be gathered
 * gives its error and does not spoil the others.
 */
function gather(
  wanted: Map<string, Wanted>,
  cache: ScanCache,
  today: Value,
): Map<string, Gathered | QueryError> {
  const gathered = new Map<string, Gathered | QueryError>();
  const bySource = new Map<TableSource, Wanted[]>();
  for (const w of wanted.values()) bySource.set(w.part.source, [...(bySource.get(w.part.source) ?? []), w]);
  for (const [source, all] of bySource) {
    const byRows = new Map<string, Wanted[]>();
    for (const w of all) byRows.set(w.part.rowsKey, [...(byRows.get(w.part.rowsKey) ?? []), w]);
    const group = [...byRows.values()].flat();
    const selections = [...byRows.values()].map((same) => ({
      filters: same[0].part.filters,
      groupings: same.map(({ part, aggregates }) => ({ splits: part.splits, aggregates })),
    }));
    const together = attempt(() => scanTable(source, selections, today));
    const found =
      together instanceof QueryError
        ? selections.flatMap(({ filters, groupings }) =>
            groupings.map((g) => attempt(() => scanTable(source, [{ filters, groupings: [g] }], today)[0])),
          )
        : together;
    for (const [i, { part }] of group.entries()) {
      let result = found[i];
      if (!(result instanceof QueryError)) {
        const before = cache.get(part.key);
        if (before) result = withBefore(result, before);
        cache.set(part.key, result);
      }
      gathered.set(part.key, result);
    }
  }
  return gathered;
}

/** What the columns of sources say of splits by them. */
export function factsOf(sources: TableSources): SplitFacts {
  const { calendar } = sources.scope;
  return {
    categories: ({ table, column }, by) => {
      const data = attempt(() => sources.of(table).column(table, column).data);
      return data instanceof QueryError ? null : categoriesOf(data, by, calendar);
    },
    coarser: (table, { place, by }) =>
      coarserThan(sources.of(table).column(place.table, place.column).data, by),
  };
}

/**
 * Answers queries in their order, each with the totals that it asks for besides. Queries over the same table,
 * filters and splits share what is gathered, and all splits of one table and filter are gathered in one pass.
 * A query that cannot be answered gives its QueryError and does not spoil the others.
 */
export function runQueries(
  queries: Query[],
  catalog: Catalog,
  cache = new ScanCache(),
  clock: () => number = () => 0,
): (Result | QueryError)[] {
  return answeredWithTotals(queries, catalog.scope, (all) => answerEach(all, catalog, cache, clock));
}

function answerEach(
  queries: Query[],
  catalog: Catalog,
  cache: ScanCache,
  clock: () => number,
): (Result | QueryError)[] {
  const began = clock();
  const sources = sourcesOf(catalog);
  const plans = queries.map((query) => attempt(() => prepared(query, sources, catalog.inputs)));
  const good = plans.filter((p): p is Prepared => !(p instanceof QueryError));
  const facts = factsOf(sources);
  const gathered = gather(wantedBy(good, cache), cache, sources.today);
  return plans.map((ready) => {
    if (ready instanceof QueryError) return ready;
    const parts = ready.parts.map(
      (part) =>
        gathered.get(part.key) ??
        cache.get(part.key) ??
        new QueryError("internal", "The query could not be answered."),
    );
    const failed = parts.find((p) => p instanceof QueryError);
    if (failed) return failed;
    return attempt(() => ({
      ...answerOf(ready.plan, parts as Gathered[], { scope: sources.scope, facts }),
      ms: clock() - began,
    }));
  });
}
