import { attempt } from "../engine/attempt";
import { planWith } from "../plan/plan";
import type { QueryInput } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { wholeQuery } from "../plan/whole-query";
import { type Named, scopeOf } from "./names";

const planned = (query: QueryInput, project: Named) =>
  attempt(() => planWith(wholeQuery(query), scopeOf(project), (expr) => expr));

/** Why a query cannot be answered as a whole, by names and types alone; null where it can. */
export function unansweredWhole(query: QueryInput, project: Named): QueryError | null {
  const plan = planned(query, project);
  return plan instanceof QueryError ? plan : null;
}

/**
 * What of a query cannot be answered, by names and types alone, in sentences: all of it, or measures that it
 * asks for besides. `isWhole` says which of the two.
 */
export function unansweredIn(query: QueryInput, project: Named): { isWhole: boolean; why: string[] } {
  const plan = planned(query, project);
  return plan instanceof QueryError
    ? { isWhole: true, why: [plan.message] }
    : { isWhole: false, why: plan.unanswered };
}
