import { QueryError } from "../plan/query-error";

/** Why a piece of work is to end before it is done: nobody waits for it any more, or it took too long. */
export type StopReason = "cancelled" | "too_long";

/** Asked between blocks of work: why it is to end now, or null while it may go on. */
export type StopFlag = () => StopReason | null;

/** Throws a QueryError where the work is to end. */
export function checkStop(flag: StopFlag): void {
  const reason = flag();
  if (reason === "too_long")
    throw new QueryError(
      "too_long",
      "This took too long and was stopped, so that other answers do not wait for it. Filter the rows, split by a column with fewer values, or make the formula simpler.",
    );
  if (reason === "cancelled") throw new QueryError("cancelled", "This was cancelled.");
}
