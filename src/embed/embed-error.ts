/** What went wrong, as `error` events tell it. */
export type EmbedCode =
  | "snapshot"
  | "not-there"
  | "rows"
  | "missing-table"
  | "missing-column"
  | "wrong-type"
  | "unread-cells"
  | "too-many-rows"
  | "filters"
  | "inputs"
  | "engine";

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
