/** A name with one of these words, alone or as a part of it; "corporate" has none. */
const SHARE = /(^|[^\p{L}])(rate|share|percent|percentage|pct|ratio|quota)($|[^\p{L}])|%/iu;
const wordsOf = (column: string) => column.replace(/(\p{Ll})(\p{Lu})/gu, "$1 $2");

/** Whether a column is called like one of shares, whose sum is no share of anything. */
export const isNamedShare = (column: string): boolean => SHARE.test(wordsOf(column));
