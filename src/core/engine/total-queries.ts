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

/** The answer to a query; null where who was asked cannot tell. */
type Answer = Result | QueryError | null;

/** An answer with what was asked for over all rows alone. */
function withTotals(result: Answer, totals: Answer[]): Answer {
  if (result === null || result instanceof QueryError || totals.length === 0) return result;
  if (totals.includes(null)) return null;
  const found = totals.filter((t): t is Result => !(t instanceof QueryError));
  const unfiltered = [result, ...found].flatMap((r) => r.unfiltered);
  return {
    ...result,
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
 * Answers queries, each with the totals that it asks for besides: `answer` gets all queries at once, those for
 * totals too, and gives as many answers.
 */
export function answeredWithTotals<A extends Answer>(
  queries: Query[],
  scope: Scope,
  answer: (all: Query[]) => A[],
): A[] {
  const answers = answer(queries.flatMap((query) => [query, ...totalQueries(query, scope)]));
  let at = 0;
  return queries.map(({ totals }) => {
    const [result, ...besides] = answers.slice(at, at + 1 + totals.length);
    at += 1 + totals.length;
    return withTotals(result, besides) as A;
  });
}
