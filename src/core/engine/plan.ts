import type { ColumnType } from "../data/column";
import { own } from "../data/own";
import { checkFormula } from "../formula/check";
import { type Expr, type Scope, tablesOf } from "../formula/expr";
import { type ColumnPlace, columnFor, meetingColumn, placesOf } from "../formula/meeting";
import { measureNamed } from "../formula/scope-names";
import type { Value } from "../formula/value";
import { aggregatesOf } from "./group-level";
import { keyType } from "./grouper";
import { inputValue } from "./input-value";
import { type Query, QueryError, type Result } from "./query";
import type { Aggregate, PlacedSplit } from "./scan";
import type { PlacedFilter } from "./selection";
import type { Source, Sources } from "./source";
import { bindInputs, TODAY } from "./vector";

/** What a query asks of one table. `key` names what one pass gathers; passes with the same `rowsKey` read the same rows. */
export interface Part {
  source: Source;
  filters: PlacedFilter[];
  splits: PlacedSplit[];
  aggregates: Aggregate[];
  key: string;
  rowsKey: string;
}

/** A checked query: its measures with every name and input bound, and a part for each table that they read. */
export interface Plan {
  query: Query;
  measures: { name: string; expr: Expr }[];
  parts: Part[];
  /** The type of each split's keys. */
  keyTypes: ColumnType[];
  unfiltered: Result["unfiltered"];
}

const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();

/** The value of every input by its name in lower case: the query's own before the project's. */
function boundInputs(query: Query, scope: Scope, project: Record<string, Value>, today: Value): Map<string, Value> {
  const values = new Map<string, Value>();
  const given = new Map(Object.entries(query.inputs).map(([name, value]) => [name.toLowerCase(), value]));
  for (const { name, type } of scope.inputs) {
    const value = given.get(name.toLowerCase()) ?? own(project, name) ?? null;
    values.set(name.toLowerCase(), inputValue(value, type, name));
    given.delete(name.toLowerCase());
  }
  values.set(TODAY, today);
  const unknown = [...given.keys()][0];
  if (unknown !== undefined) throw new QueryError("unknown_input", `There is no input called “${unknown}”.`);
  return values;
}

function boundMeasures(query: Query, scope: Scope, inputs: Map<string, Value>): Plan["measures"] {
  const bound = new Map<Expr, Expr>();
  const measures = query.measures.map((m) => {
    const known = "id" in m ? measureNamed(scope, m.id) : null;
    if ("id" in m && !known) throw new QueryError("unknown_measure", `There is no measure called “${m.id}”.`);
    const formula = "formula" in m ? m.formula : (known?.formula ?? "");
    const table = "formula" in m ? (query.table ?? null) : (known?.table ?? null);
    const name = m.as ?? ("id" in m ? m.id : "value");
    const checked = checkFormula(formula, scope, table, "group", known?.name);
    if (!checked.expr) throw new QueryError("bad_formula", `${name}: ${checked.problems[0].message}`, { start: checked.problems[0].start, end: checked.problems[0].end });
    return { name, expr: bindInputs(checked.expr, inputs, bound) };
  });
  const names = measures.map((m) => m.name);
  if (new Set(names).size < names.length) throw new QueryError("same_name", "Two measures of the query have the same name. Give one of them another with “as”.");
  return measures;
}

/** The tables that a query reads; the first is the one in whose terms its splits and filters are written. */
function tablesRead(query: Query, scope: Scope, measures: Plan["measures"]): string[] {
  const declared = query.measures.flatMap((q) => ("id" in q ? (measureNamed(scope, q.id)?.table ?? []) : []));
  const base = query.table ?? declared[0];
  const all = [...(base === undefined ? [] : [base]), ...measures.flatMap((m) => tablesOf(m.expr))];
  // A table that is only named, and of which no measure reads a row, adds nothing but its keys.
  return all.filter((t, i) => all.findIndex((other) => same(t, other)) === i);
}

/** What a split's or a filter's column means for a table. Throws a QueryError where it is nothing or could be several. */
function placeOf(scope: Scope, table: string, name: string, use: "split" | "filter"): ColumnPlace {
  const places = placesOf(scope, table, name);
  if (places.length > 1) throw new QueryError("unclear_column", `“${name}” could be ${places.map((p) => `${p.table}.${p.column}`).join(" or ")}. Write the table before it.`);
  if (places.length === 0) throw new QueryError("unknown_column", `The table ${table} has no column “${name}” to ${use} by.`);
  return places[0];
}

/**
 * Checks a query against a catalog and finds what it asks of each table. Several tables meet in the query's splits: see
 * `meetingColumn`. Throws a QueryError where something is unknown, or where a table cannot be split so.
 */
export function planQuery(query: Query, sources: Sources, projectInputs: Record<string, Value>): Plan {
  const { scope } = sources;
  sources.checkStop();
  const measures = boundMeasures(query, scope, boundInputs(query, scope, projectInputs, sources.today));
  const tables = tablesRead(query, scope, measures);
  const [base] = tables;
  if (base === undefined && (query.splits.length > 0 || query.filters.length > 0))
    throw new QueryError("no_table", "These measures read no rows, so there is nothing to split or to filter. Name a table in the query.");
  const splitPlaces = query.splits.map((s) => placeOf(scope, base, s.column, "split"));
  const filterPlaces = query.filters.map((f) => placeOf(scope, base, f.column, "filter"));
  const unfiltered: Result["unfiltered"] = [];
  const aggregates = measures.flatMap((m) => aggregatesOf(m.expr));
  const aggregatesIn = (table: string) => aggregates.filter((a) => same(a.table, table));
  const placeAt = (table: string, place: ColumnPlace) => (same(table, base) ? columnFor(scope, table, place) : meetingColumn(scope, table, place));
  const read = tables.filter((t, i) => i > 0 || aggregatesIn(t).length > 0 || tables.length === 1);
  const parts = read.map((table): Part => {
    const source = sources.of(table);
    const splits = query.splits.map(({ by }, i): PlacedSplit => {
      const place = placeAt(table, splitPlaces[i]);
      if (!place)
        throw new QueryError(
          "no_meeting",
          `${source.table.name} cannot be split by ${splitPlaces[i].table}.${splitPlaces[i].column}: no link leads there, and it has no column of that name. Link the tables on the Data step.`,
        );
      return { place, by };
    });
    const filters = query.filters.flatMap((filter, i): PlacedFilter[] => {
      const place = placeAt(table, filterPlaces[i]);
      if (place) return [{ place, filter }];
      unfiltered.push({ table: source.table.name, column: filter.column });
      return [];
    });
    const rowsKey = JSON.stringify([source.table.name, source.version, filters, filters.some((f) => "relative" in f.filter) ? sources.today : null]);
    return { source, filters, splits, aggregates: aggregatesIn(table), rowsKey, key: JSON.stringify([rowsKey, splits]) };
  });
  const typesIn = (part: Part) => part.splits.map((s) => keyType(part.source.column(s.place.table, s.place.column).data, s.by));
  const keyTypes = parts.length ? typesIn(parts[0]) : [];
  for (const part of parts.slice(1)) {
    const clash = typesIn(part).findIndex((t, i) => t !== keyTypes[i]);
    if (clash >= 0) {
      const [a, b] = [parts[0].splits[clash].place, part.splits[clash].place];
      throw new QueryError("no_meeting", `${a.table}.${a.column} and ${b.table}.${b.column} are of different types, so their tables cannot meet there.`);
    }
  }
  return { query, measures, parts, keyTypes, unfiltered };
}
