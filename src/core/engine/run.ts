import { findColumn, outward, type Table } from "../data/column";
import { parseIsoDate } from "../formula/calendar";
import { checkFormula } from "../formula/check";
import { type Expr, type Scope, tableOf } from "../formula/expr";
import { compareValues, type Value } from "../formula/value";
import type { Accumulator } from "./accumulators";
import { aggregateKey, aggregatesOf, compileGroup } from "./group-level";
import { keyType, outwardKey } from "./grouper";
import { inputValue } from "./input-value";
import { type Query, QueryError, type Result, type ResultColumn } from "./query";
import { type Aggregate, type Gathered, scanKey, scanTable } from "./scan";
import { bindInputs, TODAY } from "./vector";

/** What queries are answered from: the names formulas may use, the inputs' values, and the tables by name. */
export interface Catalog {
  scope: Scope;
  /** Values by the input's name. Dates are ISO 8601 text. */
  inputs: Record<string, Value>;
  tables: Table[];
  /** What current_date is, as ISO 8601 text. */
  today?: string;
}

/** Remembers what scans gathered, so that a change of sort, of first-n or of a group-level input reads no rows again. */
export class ScanCache {
  private readonly entries = new Map<string, Gathered>();
  constructor(private readonly most = 64) {}
  get(key: string): Gathered | undefined {
    const found = this.entries.get(key);
    if (found) {
      this.entries.delete(key);
      this.entries.set(key, found);
    }
    return found;
  }
  set(key: string, gathered: Gathered): void {
    this.entries.delete(key);
    this.entries.set(key, gathered);
    for (const oldest of this.entries.keys()) {
      if (this.entries.size <= this.most) break;
      this.entries.delete(oldest);
    }
  }
}

interface Plan {
  query: Query;
  table: Table;
  measures: { name: string; expr: Expr }[];
  aggregates: Aggregate[];
  key: string;
}

function boundInputs(query: Query, catalog: Catalog): Map<string, Value> {
  const values = new Map<string, Value>();
  const given = new Map(Object.entries(query.inputs).map(([name, value]) => [name.toLowerCase(), value]));
  for (const { name, type } of catalog.scope.inputs) {
    const value = given.get(name.toLowerCase()) ?? catalog.inputs[name] ?? null;
    values.set(name.toLowerCase(), inputValue(value, type, name));
    given.delete(name.toLowerCase());
  }
  values.set(TODAY, catalog.today ? parseIsoDate(catalog.today) : null);
  const unknown = [...given.keys()][0];
  if (unknown !== undefined) throw new QueryError("unknown_input", `There is no input called “${unknown}”.`);
  return values;
}

function planQuery(query: Query, catalog: Catalog): Plan {
  if (query.splits.length > 1) throw new QueryError("not_available", "A second split is not available yet. Ask for one split.");
  const inputs = boundInputs(query, catalog);
  const { scope } = catalog;
  const measures = query.measures.map((m) => {
    const known = "id" in m ? scope.measures.find((k) => k.name.toLowerCase() === m.id.toLowerCase()) : null;
    if ("id" in m && !known) throw new QueryError("unknown_measure", `There is no measure called “${m.id}”.`);
    const formula = "formula" in m ? m.formula : (known?.formula ?? "");
    const own = "formula" in m ? (query.table ?? null) : (known?.table ?? null);
    const name = m.as ?? ("id" in m ? m.id : "value");
    const checked = checkFormula(formula, scope, own, "group", known ? [known.name] : []);
    if (!checked.expr) throw new QueryError("bad_formula", `${name}: ${checked.problems[0].message}`, { start: checked.problems[0].start, end: checked.problems[0].end });
    return { name, expr: bindInputs(checked.expr, inputs) };
  });
  const names = measures.map((m) => m.name);
  if (new Set(names).size < names.length) throw new QueryError("same_name", "Two measures of the query have the same name. Give one of them another with “as”.");
  const wanted = [...new Set([...measures.map((m) => tableOf(m.expr)), query.table ?? null].filter((t): t is string => t !== null).map((t) => t.toLowerCase()))];
  if (wanted.length > 1)
    throw new QueryError("not_available", `These measures are computed over several tables (${wanted.join(", ")}); links between tables are not available yet.`);
  const name = wanted[0] ?? scope.measures.find((m) => query.measures.some((q) => "id" in q && q.id.toLowerCase() === m.name.toLowerCase()))?.table?.toLowerCase();
  const table = catalog.tables.find((t) => t.name.toLowerCase() === name) ?? (name ? undefined : { name: "", version: "", rows: 0, columns: [] });
  if (!table) throw new QueryError("unknown_table", `There is no table called “${name}”.`);
  const aggregates = measures.flatMap((m) => aggregatesOf(m.expr));
  return { query, table, measures, aggregates, key: scanKey(table, query.filters, query.splits[0] ?? null) };
}

/** The row order: by a measure, by the split's own order, and ties always by the split's own order. */
function orderOf(gathered: Gathered, plan: Plan, values: Value[][]): number[] {
  const { sort } = plan.query;
  const groups = gathered.keys.map((_, g) => g);
  const byKey = (a: number, b: number) => compareValues(gathered.keys[a], gathered.keys[b]);
  if (!sort) return groups.sort(byKey);
  const sign = sort.order === "asc" ? 1 : -1;
  const at = plan.measures.findIndex((m) => m.name === sort.by);
  if (at < 0) {
    if (sort.by === "split" || sort.by === plan.query.splits[0]?.column) return groups.sort((a, b) => sign * byKey(a, b));
    throw new QueryError("bad_sort", `“${sort.by}” is neither a measure of this query nor its split.`);
  }
  return groups.sort((a, b) => {
    const [x, y] = [values[at][a], values[at][b]];
    // Nulls stay last in both directions.
    if (x === null || y === null) return x === y ? byKey(a, b) : x === null ? 1 : -1;
    return sign * compareValues(x, y) || byKey(a, b);
  });
}

function mergeAll(gathered: Gathered, into: Int32Array, groups: number): Map<string, Accumulator> {
  return new Map([...gathered.accumulators].map(([key, a]) => [key, a.merge(into, groups)]));
}

function resultOf(plan: Plan, gathered: Gathered): Omit<Result, "ms"> {
  const { query, measures } = plan;
  const split = query.splits[0] ?? null;
  const groups = gathered.keys.length;
  const whole = mergeAll(gathered, new Int32Array(groups), 1);
  const totals = Object.fromEntries(measures.map((m) => [m.name, outward(compileGroup(m.expr, whole, whole)(0), m.expr.type)]));
  if (!split) {
    const columns = measures.map((m) => ({ name: m.name, type: m.expr.type, values: [totals[m.name]] }));
    return { columns, rows: 1, totals, others: null, scanned: gathered.scanned };
  }
  const values = measures.map((m) => {
    const of = compileGroup(m.expr, gathered.accumulators, whole);
    return gathered.keys.map((_, g) => of(g));
  });
  let order = orderOf(gathered, plan, values);
  let others: Result["others"] = null;
  let otherValues: Value[] = [];
  if (query.keep && order.length > query.keep.first) {
    const rest = order.slice(query.keep.first);
    order = order.slice(0, query.keep.first);
    if (query.keep.others) {
      const into = new Int32Array(groups);
      for (const g of rest) into[g] = 1;
      const merged = mergeAll(gathered, into, 2);
      otherValues = measures.map((m) => compileGroup(m.expr, merged, whole)(1));
      others = { row: order.length, groups: rest.length };
    }
  }
  const data = findColumn(plan.table, split.column)?.data;
  if (!data) throw new QueryError("unknown_column", `The table ${plan.table.name} has no column “${split.column}”.`);
  const keyColumn: ResultColumn = { name: split.column, type: keyType(data, split.by), values: order.map((g) => outwardKey(gathered.keys[g], data, split.by)) };
  if (others) keyColumn.values.push(null);
  const columns = [
    keyColumn,
    ...measures.map((m, i) => ({
      name: m.name,
      type: m.expr.type,
      values: [...order.map((g) => values[i][g]), ...(others ? [otherValues[i]] : [])].map((v) => outward(v, m.expr.type)),
    })),
  ];
  return { columns, rows: order.length + (others ? 1 : 0), totals, others, scanned: gathered.scanned };
}

/**
 * Answers queries in their order. Queries over the same table, filters and split share what is gathered, and all
 * splits of one table and filter are gathered in one pass. A query that cannot be answered gives its QueryError
 * and does not spoil the others.
 */
export function runQueries(queries: Query[], catalog: Catalog, cache = new ScanCache(), clock: () => number = () => 0): (Result | QueryError)[] {
  const began = clock();
  const plans = queries.map((query) => attempt(() => planQuery(query, catalog)));
  const scans = new Map<string, { plan: Plan; aggregates: Aggregate[] }>();
  for (const plan of plans) {
    if (plan instanceof QueryError) continue;
    const missing = plan.aggregates.filter((a) => !cache.get(plan.key)?.accumulators.has(aggregateKey(a)));
    if (missing.length === 0 && cache.get(plan.key)) continue;
    const scan = scans.get(plan.key);
    if (scan) scan.aggregates.push(...missing);
    else scans.set(plan.key, { plan, aggregates: missing });
  }
  const gathered = new Map<string, Gathered | QueryError>();
  const byRows = new Map<string, { plan: Plan; aggregates: Aggregate[] }[]>();
  for (const scan of scans.values()) {
    const key = JSON.stringify([scan.plan.table.name, scan.plan.query.filters]);
    byRows.set(key, [...(byRows.get(key) ?? []), scan]);
  }
  for (const group of byRows.values()) {
    const { table, query } = group[0].plan;
    const splits = group.map(({ plan, aggregates }) => ({ split: plan.query.splits[0] ?? null, aggregates }));
    const together = attempt(() => scanTable(table, query.filters, splits));
    const parts = together instanceof QueryError ? splits.map((s) => attempt(() => scanTable(table, query.filters, [s])[0])) : together;
    for (const [i, { plan }] of group.entries()) {
      const part = parts[i];
      if (!(part instanceof QueryError)) {
        for (const [key, accumulator] of cache.get(plan.key)?.accumulators ?? []) if (!part.accumulators.has(key)) part.accumulators.set(key, accumulator);
        cache.set(plan.key, part);
      }
      gathered.set(plan.key, part);
    }
  }
  return plans.map((plan) => {
    if (plan instanceof QueryError) return plan;
    const found = gathered.get(plan.key) ?? cache.get(plan.key);
    if (!found || found instanceof QueryError) return found ?? new QueryError("internal", "The query could not be answered.");
    return attempt(() => ({ ...resultOf(plan, found), ms: clock() - began }));
  });
}

function attempt<T>(work: () => T): T | QueryError {
  try {
    return work();
  } catch (error) {
    if (error instanceof QueryError) return error;
    throw error;
  }
}
