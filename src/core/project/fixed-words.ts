import { own } from "../base/own";

/** The most letters of a fixed word of pictures. */
export const LONGEST_WORD = 80;

/** The fixed words of pictures, as they ship. */
export const WORDS = {
  other: "Other",
  noMatch: "(no match)",
  none: "(none)",
  yes: "yes",
  no: "no",
  all: "all",
  of: "of",
  and: "and",
  together: "together",
  week: "Week",
  quarter: "Q",
  pastGoal: "past the target",
  pastEnd: "past the end",
  belowZero: "below zero",
  belowStart: "below the start",
  noTarget: "no target yet",
  whole: "{name} over all rows",
  noOwnTarget: "no target",
  fullAtOwn: "Each full at its own {name}",
  stemOwn: "Each stem starts at its own {name}",
  noNames: "without names",
  more: "and {n} more",
  unfit: "and {n} more that do not fit",
  belowLeftOut: "{n} below zero left out",
  tinyLeftOut: "{n} smaller than half a cell left out",
  emptyTracks: "{n} below zero: an empty track",
  notShown: "{share} not shown",
  notAdditive: "The parts do not add up to the total",
  fullAt: "Full at {value}",
  scaleStart: "The scale starts at {value}",
  stemStart: "Stems start at {value}",
  headArea: "Head area: {name}",
  twoScales: "Two scales: {outer} to {outerEnd}, {inner} to {innerEnd}",
  noGoal: "the target is not above zero",
  against: "against",
  left: "{value} left",
  net: "net {value}",
  value: "Value",
  share: "Share",
  picked: "Picked",
  target: "Target",
  gap: "Gap to target",
  points: "points",
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

/** A word with what its places stand for: "and 3 more". */
export const filledIn = (word: string, places: Readonly<Record<string, string | number>>): string =>
  word.replace(PLACE, (place, name: string) => String(own(places, name) ?? place));

/** A word that counts something, with its number; nothing where there is nothing to count. */
export const counted = (word: string, n: number): string => (n > 0 ? filledIn(word, { n }) : "");
