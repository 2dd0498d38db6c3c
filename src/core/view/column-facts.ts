import { quoteName } from "../formula/quote-name";
import type { QueryInput, Result } from "../plan/query";
import type { Named } from "../project/names";
import { type OfferedColumn, offeredColumns } from "../project/offered";

/** What is known of a column that visuals can be split by: how many values it has, and its first and last day. */
export interface ColumnFacts {
  distinct: number;
  from: string | null;
  to: string | null;
}
/** The facts of a table's columns, by the names that its queries have for them. */
export type TableFacts = ReadonlyMap<string, ColumnFacts>;

/** A query asks for at most 50 measures, and a date takes three. */
const MOST_COLUMNS = 24;
const MOST_DATES = 6;

const isDate = ({ type }: OfferedColumn) => type === "date" || type === "timestamp";

/** The columns of a table, and of those that links lead to, which are looked at. */
function lookedAt(project: Named, table: string): OfferedColumn[] {
  const columns = offeredColumns(project, table);
  return [
    ...columns.filter((c) => c.type === "text" || c.type === "boolean").slice(0, MOST_COLUMNS),
    ...columns.filter(isDate).slice(0, MOST_DATES),
  ];
}

/** The query that answers the facts of a table's columns; null where it has none to look at. */
export function factsQuery(project: Named, table: string): QueryInput | null {
  const columns = lookedAt(project, table);
  if (columns.length === 0) return null;
  return {
    table,
    measures: columns.flatMap((c, i) => {
      const name = c.own ? quoteName(c.column) : `${quoteName(c.table)}.${quoteName(c.column)}`;
      const asked = { formula: `count(distinct ${name})`, as: `n${i}` };
      return isDate(c)
        ? [asked, { formula: `min(${name})`, as: `from${i}` }, { formula: `max(${name})`, as: `to${i}` }]
        : [asked];
    }),
  };
}

/** The facts that an answer to `factsQuery` tells. */
export function readFacts(project: Named, table: string, { totals }: Pick<Result, "totals">): TableFacts {
  const day = (value: unknown) => (typeof value === "string" ? value.slice(0, 10) : null);
  return new Map(
    lookedAt(project, table).map((c, i) => [
      c.name,
      { distinct: Number(totals[`n${i}`] ?? 0), from: day(totals[`from${i}`]), to: day(totals[`to${i}`]) },
    ]),
  );
}
