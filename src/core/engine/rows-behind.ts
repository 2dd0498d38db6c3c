import { parseIsoDate } from "../base/calendar";
import { findNamed, sameName } from "../base/names";
import { own } from "../base/own";
import type { Value } from "../base/value";
import { quoteName } from "../formula/quote-name";
import { measureNamed } from "../formula/scope-names";
import { workedParts } from "../formula/worked";
import { baseOf } from "../plan/plan";
import { planQuery } from "../plan/plan-query";
import { type Filter, type Query, querySchema, type Result } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { type Catalog, runQueries } from "./run";

/** The rows of one table that a measure is computed from. */
export interface TableBehind {
  table: string;
  /** What keeps them, in the table's own terms. */
  filters: Filter[];
  /** Filters of the query that leave this table whole, since nothing in it means their column. */
  unfiltered: string[];
  count: number;
  /** The sum of each column of numbers over these rows, by its name; null where there is nothing to add up. */
  sums: [string, Value][];
}

/** A measure of the query, with what its parts come to. */
export interface MeasureBehind {
  name: string;
  value: Value;
  /** One value for each of the formula's `workedParts`; empty where they cannot be computed apart. */
  parts: Value[];
}

/** What stands behind an answer: the tables that its measures read, and how their formulas come to it. */
export interface Behind {
  tables: TableBehind[];
  measures: MeasureBehind[];
}

const ask = (table: string | undefined, query: Pick<Query, "measures" | "filters" | "inputs">): Query =>
  querySchema.parse({ ...query, ...(table ? { table } : {}) });

/** The answer to a query; throws what is wrong with it. */
function answerTo(query: Query, catalog: Catalog): Result {
  const [found] = runQueries([query], catalog);
  if (found instanceof QueryError) throw found;
  return found;
}

/** The columns of numbers that a table shows; a derived one that cannot be computed is none. */
function numberColumns(table: string, { scope }: Catalog): string[] {
  const columns = findNamed(scope.tables, table)?.columns ?? [];
  return columns.filter((c) => c.type === "number").map((c) => c.name);
}

/** Sums over some rows of a table, a query each: one that cannot be computed spoils no other. */
function sumsOf(table: string, filters: Filter[], inputs: Query["inputs"], catalog: Catalog) {
  const columns = numberColumns(table, catalog);
  const queries = [
    ask(table, { measures: [{ formula: "count(*)", as: "rows" }], filters, inputs }),
    ...columns.map((c) =>
      ask(table, { measures: [{ formula: `sum(${quoteName(c)})`, as: "sum" }], filters, inputs }),
    ),
  ];
  const [count, ...sums] = runQueries(queries, catalog);
  if (count instanceof QueryError) throw count;
  return {
    count: Number(count.totals.rows),
    sums: columns.flatMap((name, i): [string, Value][] => {
      const found = sums[i];
      return found instanceof QueryError ? [] : [[name, found.totals.sum]];
    }),
  };
}

/** What the parts of a measure's formula come to under a query's filters. */
function partsOf(name: string, query: Query, catalog: Catalog): Value[] {
  const measure = measureNamed(catalog.scope, name);
  if (!measure) return [];
  const parts = workedParts(measure.formula, catalog.scope, measure.table);
  const { filters, inputs } = query;
  const of = (as: string) => (part: (typeof parts)[number]) =>
    part.of === "measure"
      ? { id: part.name, as }
      : { formula: measure.formula.slice(part.start, part.end), as };
  const table = measure.table ?? baseOf(query, catalog.scope);
  const queries = parts.map((part) =>
    part.of === "input" ? null : ask(table, { measures: [of("part")(part)], filters, inputs }),
  );
  const answers = runQueries(
    queries.filter((q) => q !== null),
    catalog,
  );
  if (answers.some((a) => a instanceof QueryError)) return [];
  let at = 0;
  return parts.map((part) => {
    if (part.of !== "input") return (answers[at++] as Result).totals.part;
    const known = Object.entries(inputs).find(([n]) => sameName(n, part.name));
    return known?.[1] ?? Object.entries(catalog.inputs).find(([n]) => sameName(n, part.name))?.[1] ?? null;
  });
}

/**
 * The rows behind the whole of a query (its splits have no say): for each table that its measures read the
 * filters that keep them, their count and their sums; and each measure with the values of its parts. Throws a
 * QueryError where the query cannot be answered.
 */
export function rowsBehind(query: Query, catalog: Catalog): Behind {
  const whole: Query = { ...query, splits: [], totals: [] };
  const today = catalog.today ? parseIsoDate(catalog.today) : null;
  const plan = planQuery(whole, catalog.scope, catalog.inputs, today);
  const { totals } = answerTo(whole, catalog);
  const { inputs } = query;
  return {
    tables: plan.tables.map(({ table, filters: placed }) => {
      const filters = placed.map(({ place, filter }) => ({
        ...filter,
        column: sameName(place.table, table) ? place.column : `${place.table}.${place.column}`,
      }));
      const unfiltered = plan.unfiltered.flatMap((u) => (sameName(u.table, table) ? u.column : []));
      return { table, filters, unfiltered, ...sumsOf(table, filters, inputs, catalog) };
    }),
    measures: plan.measures.map(({ name }) => ({
      name,
      value: own(totals, name) ?? null,
      parts: partsOf(name, query, catalog),
    })),
  };
}
