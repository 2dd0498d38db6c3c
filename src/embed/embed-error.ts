import type { CavloProblem } from "./public";

/** What went wrong, as `error` events tell it. */
export type EmbedCode = CavloProblem["code"];

/** Something that a page gave cannot be used: the message says what, and what to do. */
export class EmbedError extends Error {
  constructor(
    readonly code: EmbedCode,
    message: string,
    /** The table and the column that it is of, where it is of one. */
    readonly at: { table?: string; column?: string } = {},
  ) {
    super(message);
  }
}
