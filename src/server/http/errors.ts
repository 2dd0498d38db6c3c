/** An answer that is an error: a status, a code for programs and a sentence for people that says what to do. */
export class HttpError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly more: { field?: string; at?: { start: number; end: number } } & Record<string, unknown> = {},
  ) {
    super(message);
  }
}
