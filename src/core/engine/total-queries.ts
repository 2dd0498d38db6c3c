import { own } from "../base/own";
import type { Scope } from "../formula/expr";
import { baseOf } from "../plan/plan";
import type { Query, Result } from "../plan/query";
import { QueryError } from "../plan/query-error";

/**
 * What a query asks for over all rows alone: a query of its own for each measure, in the terms of the same
 * table, so that a filter means what it means beside it.
 */
export const totalQueries = (query: Query, scope: Scope): Query[] => {
  const { filters, inputs, totals } = query;
  const table = totals.length ? baseOf(query, scope) : undefined;
  return totals.map((measure) => ({
    ...(table === undefined ? {} : { table }),
    filters,
    inputs,
    measures: [measure],
    totals: [],
    besides: [],
    splits: [],
  }));
};

/** The query under the filters that stay alone; none where it does not name them. */
const restQueries = ({ atRest, ...query }: Query): Query[] =>
  atRest ? [{ ...query, filters: atRest, totals: [] }] : [];

/** So many values tell a scale and its digits. */
const MOST_VALUES = 500;

/** What the measures of an answer are, in all and by what is shown. */
function measuresOf({ columns, crossed, totals }: Result): NonNullable<Result["atRest"]> {
  return Object.fromEntries(
    Object.entries(totals).map(([name, total]) => {
      const cells = columns.findLast((c) => c.name === name)?.values ?? [];
      const rows = crossed ? (own(crossed.splits[0].totals, name) ?? []) : [];
      return [name, { total, values: [...rows, ...cells].slice(0, MOST_VALUES) }];
    }),
  );
}

/** The answer to a query; null where who was asked cannot tell. */
type Answer = Result | QueryError | null;

/** An answer with what was asked for over all rows alone. */
function withTotals(result: Answer, totals: Answer[], rest: Answer | undefined): Answer {
  if (result === null || result instanceof QueryError) return result;
  if (totals.includes(null) || rest === null) return null;
  if (totals.length === 0 && rest === undefined) return result;
  const found = totals.filter((t): t is Result => !(t instanceof QueryError));
  const unfiltered = [result, ...found].flatMap((r) => r.unfiltered);
  return {
    ...result,
    atRest: rest === undefined || rest instanceof QueryError ? null : measuresOf(rest),
    totals: Object.assign({}, ...found.map((t) => t.totals), result.totals),
    leftWhole: [result, ...found].flatMap((r) => r.leftWhole),
    unanswered: [
      ...result.unanswered,
      ...totals.flatMap((t) => (t === null ? [] : t instanceof QueryError ? [t.message] : t.unanswered)),
    ],
    unfiltered: unfiltered.filter(
      (u, i) => unfiltered.findIndex((v) => v.table === u.table && v.column === u.column) === i,
    ),
  };
}

/**
 * Answers queries, each with the totals that it asks for besides and with what it is at rest: `answer` gets all
 * queries at once, those for both too, and gives as many answers.
 */
export function answeredWithTotals<A extends Answer>(
  queries: Query[],
  scope: Scope,
  answer: (all: Query[]) => A[],
): A[] {
  const besides = queries.map((query) => [...totalQueries(query, scope), ...restQueries(query)]);
  const answers = answer(queries.flatMap((query, i) => [query, ...besides[i]]));
  let at = 0;
  return queries.map(({ totals, atRest }, i) => {
    const [result, ...others] = answers.slice(at, at + 1 + besides[i].length);
    at += 1 + besides[i].length;
    const rest = atRest ? others[totals.length] : undefined;
    return withTotals(result, others.slice(0, totals.length), rest) as A;
  });
}
