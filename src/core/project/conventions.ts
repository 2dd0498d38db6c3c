import type { Calendar } from "../base/calendar";
import { own } from "../base/own";
import type { Conventions, Project } from "./schema";

/** The fixed words of pictures, as they ship. */
export const WORDS = {
  other: "Other",
  noMatch: "(no match)",
  none: "(none)",
  yes: "yes",
  no: "no",
  of: "of",
  together: "together",
  week: "Week",
  quarter: "Q",
  pastGoal: "past the goal",
  pastEnd: "past the end",
  belowZero: "below zero",
  belowStart: "below the start",
  noTarget: "no target yet",
  noNames: "without names",
} as const;
/** The name of a fixed word. */
export type WordName = keyof typeof WORDS;
/** What pictures say: each word, as it ships or as the project has it. */
export type Words = Record<WordName, string>;

/** The words of a project; an empty one is as it ships. */
export const wordsOf = ({ conventions }: Pick<Project, "conventions">): Words =>
  Object.fromEntries(
    Object.entries(WORDS).map(([name, word]) => [name, own(conventions.words, name)?.trim() || word]),
  ) as Words;

const WEEK_STARTS: Record<Conventions["weekStart"], number> = { monday: 1, saturday: 6, sunday: 7 };

const calendars = new WeakMap<Conventions, Calendar>();

/** How a project counts weeks and years; the same object for the same conventions. */
export function calendarOf({ conventions }: Pick<Project, "conventions">): Calendar {
  const { weekStart, weekOne, yearStart } = conventions;
  const known = calendars.get(conventions) ?? { weekStart: WEEK_STARTS[weekStart], weekOne, yearStart };
  calendars.set(conventions, known);
  return known;
}
