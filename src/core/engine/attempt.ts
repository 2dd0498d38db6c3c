import { LimitError } from "../base/limit-error";
import { QueryError } from "../plan/query-error";

/** What work gives, or the QueryError that it throws. */
export function attempt<T>(work: () => T): T | QueryError {
  try {
    return work();
  } catch (error) {
    if (error instanceof QueryError) return error;
    if (error instanceof LimitError) return new QueryError("limit", error.message);
    throw error;
  }
}
