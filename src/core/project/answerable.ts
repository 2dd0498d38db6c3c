import { attempt } from "../engine/attempt";
import { planWith } from "../plan/plan";
import type { QueryInput } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { wholeQuery } from "../plan/whole-query";
import { type Named, scopeOf } from "./names";

/**
 * What of a query cannot be answered, by names and types alone, in sentences: all of it, or measures that it
 * asks for besides. `isWhole` says which of the two.
 */
export function unansweredIn(query: QueryInput, project: Named): { isWhole: boolean; why: string[] } {
  const plan = attempt(() => planWith(wholeQuery(query), scopeOf(project), (expr) => expr));
  return plan instanceof QueryError
    ? { isWhole: true, why: [plan.message] }
    : { isWhole: false, why: plan.unanswered };
}
