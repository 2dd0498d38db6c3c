import { nothingWord } from "./reading";
import type { Reading } from "./reading-schema";

/** A reading of texts with the words for nothing that it keeps as values. */
export function withWords({ kept: _, ...reading }: Reading, words: readonly string[]): Reading {
  return words.length ? { ...reading, kept: [...new Set(words)] } : reading;
}

/** A reading of texts that keeps a word for nothing as a value. */
export const withKept = (reading: Reading, word: string): Reading =>
  withWords(reading, [...(reading.kept ?? []), word]);

/** A reading of texts for which a word counts as empty again. */
export const withoutKept = (reading: Reading, word: string): Reading =>
  withWords(
    reading,
    (reading.kept ?? []).filter((w) => w !== word),
  );

const piecesOf = (text: string) =>
  text
    .split(",")
    .map((piece) => piece.trim())
    .filter(Boolean);

/** The words for nothing in a list that somebody wrote, as they are told apart. */
export const keptIn = (text: string): string[] => piecesOf(text).flatMap((piece) => nothingWord(piece) ?? []);

/** What is wrong with such a list; null where nothing is. */
export function keptProblem(text: string): string | null {
  const other = piecesOf(text).find((piece) => nothingWord(piece) === null);
  return other === undefined
    ? null
    : `“${other}” is a value already. Write words that count as empty: None, NA, -.`;
}
