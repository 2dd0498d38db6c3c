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

/**
 * The query under the filters that stay alone, with the measures of its totals where the split reaches them;
 * null where it does not name such filters.
 */
function restQuery({ atRest, totals, besides, ...query }: Query): Query | null {
  return atRest ? { ...query, filters: atRest, totals: [], besides: [...besides, ...totals] } : null;
}

/** What is known of measures at rest, by the text of their query: it stays while a board is filtered. */
export type KnownAtRest = Map<string, NonNullable<Result["atRest"]>>;

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

/** An answer with what was asked for over all rows alone, and what it is at rest (null: nobody asked). */
function withTotals(result: Answer, totals: Answer[], atRest: Result["atRest"]): Answer {
  if (result === null || result instanceof QueryError) return result;
  if (totals.includes(null)) return null;
  if (totals.length === 0 && atRest === null) return result;
  const found = totals.filter((t): t is Result => !(t instanceof QueryError));
  const unfiltered = [result, ...found].flatMap((r) => r.unfiltered);
  return {
    ...result,
    atRest,
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
 * Answers queries, each with the totals that it asks for besides and with what it is at rest: `answer` gets
 * all queries at once, those for both too, and gives as many answers. What `known` has at rest is not asked
 * again, and what it has not is put there.
 */
export function answeredWithTotals<A extends Answer>(
  queries: Query[],
  scope: Scope,
  answer: (all: Query[]) => A[],
  known: KnownAtRest = new Map(),
): A[] {
  const totals = queries.map((query) => totalQueries(query, scope));
  const rests = queries.map(restQuery);
  const keys = rests.map((rest) => rest && JSON.stringify(rest));
  const unknown = rests.flatMap((rest, i): [string, Query][] => {
    const key = keys[i];
    return rest && key !== null && !known.has(key) && keys.indexOf(key) === i ? [[key, rest]] : [];
  });
  const asked = queries.flatMap((query, i) => [query, ...totals[i]]);
  const answers = answer([...asked, ...unknown.map(([, rest]) => rest)]);
  const isUntold = new Set<string>();
  for (const [i, [key]] of unknown.entries()) {
    const rest = answers[asked.length + i];
    if (rest === null) isUntold.add(key);
    else if (!(rest instanceof QueryError)) known.set(key, measuresOf(rest));
  }
  let at = 0;
  return queries.map((_, i) => {
    const [result, ...others] = answers.slice(at, at + 1 + totals[i].length);
    at += 1 + totals[i].length;
    const key = keys[i];
    if (key !== null && isUntold.has(key)) return null as A;
    return withTotals(result, others, key === null ? null : (known.get(key) ?? null)) as A;
  });
}
