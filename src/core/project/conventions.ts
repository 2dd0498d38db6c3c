import type { Calendar } from "../base/calendar";
import { own } from "../base/own";
import { type Conventions, LONGEST_WORD, type Project } from "./schema";

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
  more: "and {n} more",
  unfit: "and {n} more that do not fit",
  belowLeftOut: "{n} below zero left out",
  tinyLeftOut: "{n} smaller than half a cell left out",
  emptyTracks: "{n} below zero: an empty track",
  notAdditive: "The parts do not add up to the total",
  fullAt: "Full at {value}",
  scaleStart: "The scale starts at {value}",
  stemStart: "Stems start at {value}",
  headArea: "Head area: {name}",
  twoScales: "Two scales: {outer} to {outerEnd}, {inner} to {innerEnd}",
  noGoal: "the target is not above zero",
  against: "against",
  left: "{value} left",
  value: "Value",
  share: "Share",
  target: "Target",
  gap: "Gap to target",
  zone: "Zone",
  cells: "Cells",
  within: "Of",
} as const;
/** The name of a fixed word. */
export type WordName = keyof typeof WORDS;
/** What pictures say: each word, as it ships or as the project has it. */
export type Words = Record<WordName, string>;

/** The places of a word, {n} or {value}, in the order of their names. */
const placesOf = (word: string): string =>
  [...word.matchAll(PLACE)]
    .map(([place]) => place)
    .sort()
    .join(" ");
const PLACE = /\{(\w+)\}/g;

/** What is wrong with a word that is to stand for one that ships; null where nothing is. An empty one ships. */
export function wordProblem(name: WordName, word: string): string | null {
  if (word.length > LONGEST_WORD) return `Say it in ${LONGEST_WORD} letters at most.`;
  const wanted = placesOf(WORDS[name]);
  const hasLooseBraces = /[{}]/.test(word.replace(PLACE, ""));
  if (word.trim() === "" || (placesOf(word) === wanted && !hasLooseBraces)) return null;
  return wanted
    ? `Keep ${wanted} in it: this is filled in.`
    : "Leave out the braces: nothing is filled in here.";
}

/** The words of a project; what is empty, or cannot be filled in, is as it ships. */
export const wordsOf = ({ conventions }: Pick<Project, "conventions">): Words =>
  Object.fromEntries(
    (Object.keys(WORDS) as WordName[]).map((name) => {
      const word = own(conventions.words, name)?.trim() ?? "";
      return [name, word && wordProblem(name, word) === null ? word : WORDS[name]];
    }),
  ) as Words;

/** A word with what its places stand for: "and 3 more". */
export const filledIn = (word: string, places: Readonly<Record<string, string | number>>): string =>
  word.replace(PLACE, (place, name: string) => String(own(places, name) ?? place));

/** A word that counts something, with its number; nothing where there is nothing to count. */
export const counted = (word: string, n: number): string => (n > 0 ? filledIn(word, { n }) : "");

const WEEK_STARTS: Record<Conventions["weekStart"], number> = { monday: 1, saturday: 6, sunday: 7 };

const calendars = new WeakMap<Conventions, Calendar>();

/** How a project counts weeks and years; the same object for the same conventions. */
export function calendarOf({ conventions }: Pick<Project, "conventions">): Calendar {
  const { weekStart, weekOne, yearStart } = conventions;
  const known = calendars.get(conventions) ?? { weekStart: WEEK_STARTS[weekStart], weekOne, yearStart };
  calendars.set(conventions, known);
  return known;
}
