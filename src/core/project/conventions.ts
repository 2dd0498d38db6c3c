import type { Calendar } from "../base/calendar";
import { own } from "../base/own";
import { WORDS, type WordName, type Words, wordProblem } from "./fixed-words";
import type { Conventions, Project } from "./schema";

const known = new WeakMap<Conventions, Words>();

/**
 * The words of a project; what is empty, or cannot be filled in, is as it ships. The same object for
 * the same conventions.
 */
export function wordsOf({ conventions }: Pick<Project, "conventions">): Words {
  const found = known.get(conventions);
  if (found) return found;
  const words = Object.fromEntries(
    (Object.keys(WORDS) as WordName[]).map((name) => {
      const word = own(conventions.words, name)?.trim() ?? "";
      return [name, word && wordProblem(name, word) === null ? word : WORDS[name]];
    }),
  ) as Words;
  known.set(conventions, words);
  return words;
}

const WEEK_STARTS: Record<Conventions["weekStart"], number> = { monday: 1, saturday: 6, sunday: 7 };

const calendars = new WeakMap<Conventions, Calendar>();

/** How a project counts weeks and years; the same object for the same conventions. */
export function calendarOf({ conventions }: Pick<Project, "conventions">): Calendar {
  const { weekStart, weekOne, yearStart } = conventions;
  const known = calendars.get(conventions) ?? { weekStart: WEEK_STARTS[weekStart], weekOne, yearStart };
  calendars.set(conventions, known);
  return known;
}
