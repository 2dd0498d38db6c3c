/** A stretch of formula text: `start` inclusive, `end` exclusive, in UTF-16 units. */
export interface Span {
  start: number;
  end: number;
}

/** A replacement that one click applies: `text` takes the place of the span. */
export interface Mend extends Span {
  label: string;
  text: string;
}

/**
 * Something wrong in a formula, at its place, in a plain sentence. "foreign" is a word of another language: what
 * follows from it is not reported.
 */
export interface Problem extends Span {
  code: "syntax" | "name" | "type" | "level" | "circle" | "limit" | "foreign";
  message: string;
  mends?: Mend[];
}
