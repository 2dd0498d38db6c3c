import { sameName } from "../base/names";
import type { Value } from "../base/value";
import { totalQueries } from "../engine/total-queries";
import { checkFormula } from "../formula/check";
import type { Expr, Scope } from "../formula/expr";
import { pathsBetween } from "../formula/links";
import { type ColumnPlace, homeOf } from "../formula/meeting";
import { columnNamed, tableNamed } from "../formula/scope-names";
import { planQuery } from "../plan/plan-query";
import type { Query } from "../plan/query";

/** Columns of a project's tables, each once. */
export class ColumnSet {
  private readonly found = new Map<string, ColumnPlace>();

  private static key = ({ table, column }: ColumnPlace) => JSON.stringify([table, column]).toLowerCase();

  /** Says whether it is new. */
  add(place: ColumnPlace): boolean {
    const key = ColumnSet.key(place);
    if (this.found.has(key)) return false;
    this.found.set(key, place);
    return true;
  }
  has = (place: ColumnPlace): boolean => this.found.has(ColumnSet.key(place));
  get all(): ColumnPlace[] {
    return [...this.found.values()];
  }
}

function columnsIn(expr: Expr | null, found: ColumnPlace[] = []): ColumnPlace[] {
  if (expr === null) return found;
  switch (expr.op) {
    case "column":
      found.push({ table: expr.table, column: expr.column });
      break;
    case "call":
      for (const arg of expr.args) columnsIn(arg, found);
      break;
    case "aggregate":
      for (const part of [expr.arg, expr.by, expr.filter]) columnsIn(part, found);
      break;
    case "total":
      columnsIn(expr.arg, found);
      break;
  }
  return found;
}

/** Collects columns with all that they are computed from, as a table's rows see them. */
class Collector {
  readonly set = new ColumnSet();
  constructor(private readonly scope: Scope) {}

  add(base: string, place: ColumnPlace): void {
    const { scope } = this;
    if (!sameName(base, place.table))
      for (const link of pathsBetween(scope.links ?? [], base, place.table)[0] ?? []) {
        this.take({ table: link.table, column: link.column });
        this.take({ table: link.to, column: link.key });
      }
    this.take(place);
  }

  private take(place: ColumnPlace): void {
    const { scope } = this;
    const column = columnNamed(scope, place.table, place.column);
    const table = tableNamed(scope, place.table)?.name;
    if (!column || table === undefined || !this.set.add({ table, column: column.name })) return;
    if (column.formula === undefined) return;
    const { expr } = checkFormula(column.formula, scope, table, "derived", `${table}.${column.name}`);
    for (const further of columnsIn(expr)) this.add(table, further);
  }
}

/**
 * The columns whose values an answer lists: those that it is split by. Throws a QueryError where the query
 * cannot be planned.
 */
export const columnsListed = (query: Query, scope: Scope, inputs: Record<string, Value>): ColumnPlace[] =>
  planQuery({ ...query, totals: [] }, scope, inputs, null).tables.flatMap((t) =>
    t.splits.map((s) => s.place),
  );

/**
 * The columns whose cells a query is answered from, with those that derived ones are computed
 * from, those that
 * links go through, and those that say where categories are at home. Throws a QueryError where the query
 * cannot be planned.
 */
export function columnsOfQuery(query: Query, scope: Scope, inputs: Record<string, Value>): ColumnPlace[] {
  const collector = new Collector(scope);
  for (const asked of [{ ...query, totals: [] }, ...totalQueries(query, scope)])
    for (const { table, filters, splits, aggregates } of planQuery(asked, scope, inputs, null).tables) {
      for (const { place } of [...filters, ...splits]) collector.add(table, place);
      for (const { place } of splits) {
        const home = homeOf(scope, place);
        collector.add(home.table, home);
      }
      for (const { arg, by, filter } of aggregates)
        for (const part of [arg, by, filter])
          for (const place of columnsIn(part)) collector.add(table, place);
    }
  return collector.set.all;
}
