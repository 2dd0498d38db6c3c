import type { DateBucket } from "../base/calendar";
import { listed } from "../base/listed";
import { sameName } from "../base/names";
import type { ValueType } from "../base/value";
import { checkFormula, derivedType } from "../formula/check";
import { type Expr, type Scope, tablesOf } from "../formula/expr";
import { tablesMeant } from "../formula/home-table";
import { type ColumnPlace, columnFor, meetingColumn, placesOf } from "../formula/meeting";
import { quoteName } from "../formula/quote-name";
import { columnNamed, measureNamed, tableNamed } from "../formula/scope-names";
import { type Aggregate, aggregatesOf } from "./aggregates";
import { leftWholeOf, mixedWords } from "./left-whole";
import { NoMeetingError } from "./no-meeting";
import type { Filter, Query, Result } from "./query";
import { QueryError } from "./query-error";

/** A split with the column that it means for one table. */
export interface PlacedSplit {
  place: ColumnPlace;
  by: DateBucket | undefined;
}

/** A filter with the column that it means for one table. */
export interface PlacedFilter {
  place: ColumnPlace;
  filter: Filter;
}

/** What a query asks of one table: names and types only, no rows. */
export interface TablePlan {
  table: string;
  filters: PlacedFilter[];
  splits: PlacedSplit[];
  aggregates: Aggregate[];
}

/**
 * A checked query: its measures with every name and input bound, and what it asks of each table
 * that they read.
 */
export interface Plan {
  query: Query;
  measures: { name: string; expr: Expr }[];
  /** For each split, what its groups are sorted by where that is a column; else null. */
  orders: (Expr | null)[];
  tables: TablePlan[];
  /** The type of each split's keys. */
  keyTypes: Exclude<ValueType, "null">[];
  unfiltered: Result["unfiltered"];
  leftWhole: Result["leftWhole"];
  /** Why measures that were asked for besides are not among its own, and why others have no value here. */
  unanswered: Result["unanswered"];
}

/** The table that the names of a query's formula tell. Throws a QueryError where they stand in several. */
function tableOfFormula(formula: string, scope: Scope): string | null {
  const meant = tablesMeant(formula, scope);
  if (meant.says !== "tables") return null;
  if (meant.tables.length === 1) return meant.tables[0];
  throw new QueryError(
    "unclear_table",
    `What ${formula} names stands in ${listed(meant.tables)}. Name the table in the query.`,
  );
}

/** A measure's expression with its inputs bound. */
export type Bind = (expr: Expr) => Expr;

/** The measures of a query, checked and bound. Throws a QueryError where one is unknown or not sound. */
function boundMeasures(query: Query, scope: Scope, bind: Bind): Plan["measures"] {
  const measures = query.measures.map((m) => {
    const known = "id" in m ? measureNamed(scope, m.id) : null;
    if ("id" in m && !known) throw new QueryError("unknown_measure", `There is no measure called “${m.id}”.`);
    const formula = "formula" in m ? m.formula : (known?.formula ?? "");
    const table = known ? known.table : (query.table ?? tableOfFormula(formula, scope));
    const name = nameIn(m);
    const checked = checkFormula(formula, scope, table, "group", known?.name);
    if (!checked.expr)
      throw new QueryError("bad_formula", `${name}: ${checked.problems[0].message}`, {
        start: checked.problems[0].start,
        end: checked.problems[0].end,
      });
    return { name, expr: bind(checked.expr) };
  });
  const names = measures.map((m) => m.name);
  if (new Set(names).size < names.length)
    throw new QueryError(
      "same_name",
      "Two measures of the query have the same name. Give one of them another with “as”.",
    );
  return measures;
}

/**
 * The smallest value of the columns that splits are sorted by, as expressions over each group. Throws a
 * QueryError where there is no such column.
 */
function boundOrders(query: Query, scope: Scope, base: string | undefined): Plan["orders"] {
  return [query.sort, query.series?.sort].slice(0, query.splits.length).map((sort) => {
    if (sort === undefined || typeof sort.by === "string" || base === undefined) return null;
    const { table, column } = placeOf(scope, base, sort.by.column, "sort");
    const checked = checkFormula(`min(${quoteName(table)}.${quoteName(column)})`, scope, base, "group");
    if (checked.expr) return checked.expr;
    throw new QueryError("bad_sort", `${column}: ${checked.problems[0].message}`);
  });
}

/** The tables that a query reads; the first is the one in whose terms its splits and filters are written. */
function tablesRead(query: Query, scope: Scope, measures: Plan["measures"]): string[] {
  const declared = query.measures.flatMap((q) => ("id" in q ? (measureNamed(scope, q.id)?.table ?? []) : []));
  const base = query.table ?? declared[0];
  const all = [...(base === undefined ? [] : [base]), ...measures.flatMap((m) => tablesOf(m.expr))];
  // A table that is only named, and of which no measure reads a row, adds nothing but its keys.
  return all.filter((t, i) => all.findIndex((other) => sameName(t, other)) === i);
}

/**
 * What a split's or a filter's column means for a table. Throws a QueryError where it is nothing or
 * could be several.
 */
function placeOf(scope: Scope, table: string, name: string, use: "split" | "filter" | "sort"): ColumnPlace {
  const places = placesOf(scope, table, name);
  if (places.length > 1)
    throw new QueryError(
      "unclear_column",
      `“${name}” could be ${listed(
        places.map((p) => `${p.table}.${p.column}`),
        4,
        "or",
      )}. Write the table before it.`,
    );
  if (places.length === 0)
    throw new QueryError("unknown_column", `The table ${table} has no column “${name}” to ${use} by.`);
  return places[0];
}

/**
 * The type of a split's keys: a timestamp in buckets is a date. "null" where the column is derived by a
 * formula that has a problem.
 */
function keyType(scope: Scope, { place, by }: PlacedSplit): ValueType {
  const column = columnNamed(scope, place.table, place.column);
  const type =
    column?.type === "null" && column.formula !== undefined
      ? derivedType(column.formula, scope, place.table, column.name)
      : (column?.type ?? "null");
  return type === "timestamp" && by ? "date" : type;
}

/** Throws a QueryError where the keys of several tables are of different types, so that they cannot meet. */
function checkMeeting(scope: Scope, tables: TablePlan[]): void {
  const [first, ...others] = tables;
  for (const { splits } of others)
    for (const [i, split] of splits.entries()) {
      const [a, b] = [keyType(scope, first.splits[i]), keyType(scope, split)];
      if (a === b || a === "null" || b === "null") continue;
      const [here, there] = [first.splits[i].place, split.place];
      throw new QueryError(
        "no_meeting",
        `${here.table}.${here.column} and ${there.table}.${there.column} are of different types, so their tables cannot meet there.`,
      );
    }
}

/** The table in whose terms a query's splits and filters are written; none where its measures read no rows. */
export function baseOf(query: Query, scope: Scope): string | undefined {
  const known = query.measures.flatMap((q) => ("id" in q ? (measureNamed(scope, q.id) ?? []) : []));
  const declared = query.table ?? known.find((m) => m.table !== null)?.table;
  if (declared) return declared;
  const [first] = known.flatMap((m) => {
    const { expr } = checkFormula(m.formula, scope, m.table, "group", m.name);
    return expr ? tablesOf(expr) : [];
  });
  return first;
}

/**
 * Checks a query against the names of a project and finds what it asks of each table. Several tables meet in
 * the query's splits: see `meetingColumn`. Throws a QueryError where something is unknown, or where a table
 * cannot be split so; of a measure that is asked for besides, the plan says that. `bind` puts the values of
 * inputs in.
 */
export function planWith(query: Query, scope: Scope, bind: Bind): Plan {
  const unanswered: string[] = [];
  const left = new Set<string>();
  let plan = planMeasures({ ...query, besides: [] }, scope, bind);
  for (const measure of query.besides)
    try {
      const more = { ...plan.query, measures: [...plan.query.measures, measure] };
      plan = planMeasures(more, scope, bind);
    } catch (error) {
      if (!(error instanceof QueryError)) throw error;
      unanswered.push(error.message);
      left.add(nameIn(measure));
    }
  return {
    ...plan,
    query: withSortsWithout(left, plan.query),
    unanswered: [...unanswered, ...plan.unanswered],
  };
}

/** What a measure of a query is called in its answer. */
const nameIn = (measure: Query["measures"][number]): string =>
  measure.as ?? ("id" in measure ? measure.id : "value");

/** The query in which nothing is sorted by measures that are not answered: the first one takes their place. */
function withSortsWithout(left: ReadonlySet<string>, query: Query): Query {
  const sorted = (sort: Query["sort"]): Query["sort"] =>
    sort && typeof sort.by === "string" && left.has(sort.by)
      ? { by: nameIn(query.measures[0]), order: sort.order }
      : sort;
  if (left.size === 0) return query;
  return {
    ...query,
    ...(query.sort ? { sort: sorted(query.sort) } : {}),
    ...(query.series ? { series: { ...query.series, sort: sorted(query.series.sort) } } : {}),
  };
}

function planMeasures(query: Query, scope: Scope, bind: Bind): Plan {
  const bound = boundMeasures(query, scope, bind);
  const read = tablesRead(query, scope, bound);
  const [base] = read;
  if (base === undefined && (query.splits.length > 0 || query.filters.length > 0))
    throw new QueryError(
      "no_table",
      "These measures read no rows, so there is nothing to split or to filter. Name a table in the query.",
    );
  const splitPlaces = query.splits.map((s) => placeOf(scope, base, s.column, "split"));
  const filterPlaces = query.filters.map((f) => placeOf(scope, base, f.column, "filter"));
  const unfiltered: Result["unfiltered"] = [];
  const orders = boundOrders(query, scope, base);
  const aggregates = [...bound.map((m) => m.expr), ...orders].flatMap((expr) =>
    expr ? aggregatesOf(expr) : [],
  );
  const aggregatesIn = (table: string) => aggregates.filter((a) => sameName(a.table, table));
  const placeAt = (table: string, place: ColumnPlace) =>
    sameName(table, base) ? columnFor(scope, table, place) : meetingColumn(scope, table, place);
  // A base of which no measure reads a row adds nothing to others.
  const asked = read.filter((t, i) => i > 0 || aggregatesIn(t).length > 0 || read.length === 1);
  const tables = asked.map((name): TablePlan => {
    const table = tableNamed(scope, name)?.name;
    if (table === undefined) throw new QueryError("unknown_table", `There is no table called “${name}”.`);
    const splits = query.splits.map(({ by }, i): PlacedSplit => {
      const place = placeAt(table, splitPlaces[i]);
      if (place) return { place, by };
      throw new NoMeetingError(scope, table, splitPlaces[i]);
    });
    const filters = query.filters.flatMap((filter, i): PlacedFilter[] => {
      const place = placeAt(table, filterPlaces[i]);
      if (place) return [{ place, filter }];
      const alike = { table, column: filterPlaces[i].column };
      const isThere = columnNamed(scope, table, alike.column) !== undefined;
      const fails = isThere && keyType(scope, { place: alike, by: undefined }) === "null";
      unfiltered.push({ table, column: filter.column, ...(fails ? { fails } : {}) });
      return [];
    });
    return { table, filters, splits, aggregates: aggregatesIn(table) };
  });
  checkMeeting(scope, tables);
  // A column with a problem says so when its rows are read; until then its keys count as texts.
  const keyTypes = (tables[0]?.splits ?? [])
    .map((split) => keyType(scope, split))
    .map((type) => (type === "null" ? "text" : type));
  const leftWhole = bound.flatMap((m) => leftWholeOf(m, base, unfiltered, scope));
  const mixed = leftWhole.filter(({ as }) => as === "mixed");
  const measures = bound.map((m): Plan["measures"][number] =>
    mixed.some(({ measure }) => measure === m.name)
      ? { name: m.name, expr: { op: "constant", type: m.expr.type, value: null } }
      : m,
  );
  const unanswered = mixed.map((side) => mixedWords(side, side.measure));
  return { query, measures, orders, tables, keyTypes, unfiltered, leftWhole, unanswered };
}
