/** A query that cannot be answered, and why, in words for the person who asked. */
export class QueryError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly at?: { start: number; end: number },
  ) {
    super(message);
  }
}
