/** How many entries the lists of a document hold at most, by what they belong to; its schema takes them from here. */
export const MOST = {
  project: {
    tables: 200,
    links: 200,
    measures: 1000,
    inputs: 200,
    palettes: 50,
    finishes: 50,
    pictures: 60,
    categories: 500,
    visuals: 500,
    boards: 100,
  },
  table: { derived: 200 },
  measure: { proofs: 50 },
  input: { choices: 500 },
  palette: { light: 24, night: 24 },
  categories: { order: 1000, colours: 1000 },
  visual: { steps: 6, more: 5, zones: 8, filters: 20, rules: 20 },
  board: { tiles: 100, controls: 20 },
} as const;

/** How many characters the texts of a document have at most. */
export const LONGEST = {
  name: 120,
  /** Of a column that a file brings, or that is made. */
  column: 100,
  value: 10_000,
  note: 500,
  /** What stands before or after numbers. */
  affix: 20,
  /** How dates are written. */
  pattern: 40,
  /** Of a zone or a rule. */
  word: 60,
  title: 300,
  /** What a filter looks for, and what a rule compares with. */
  compared: 200,
  /** Why a finding is left as it is. */
  reason: 300,
  /** A text among the dials. */
  dial: 500,
  /** What a picture on a board shows. */
  shows: 300,
  heading: 200,
  /** Of a tile. */
  text: 2000,
} as const;

/** What a list belongs to. */
export type Owner = keyof typeof MOST;

/** What the lists of each thing hold, in words. */
const WORDS: { [T in Owner]: Record<keyof (typeof MOST)[T], string> } = {
  project: {
    tables: "tables",
    links: "links",
    measures: "measures",
    inputs: "inputs",
    palettes: "palettes",
    finishes: "finishes",
    pictures: "pictures",
    categories: "columns whose categories have an order or colours of their own",
    visuals: "visuals",
    boards: "boards",
  },
  table: { derived: "derived columns" },
  measure: { proofs: "tests" },
  input: { choices: "values to choose from" },
  palette: { light: "colours", night: "colours" },
  categories: {
    order: "categories in an order of their own",
    colours: "categories with colours of their own",
  },
  visual: {
    steps: "steps down",
    more: "further measures",
    zones: "zones",
    filters: "filters",
    rules: "rules",
  },
  board: { tiles: "tiles", controls: "controls" },
};
const OWNERS: Record<Owner, string> = {
  project: "A project",
  table: "A table",
  measure: "A measure",
  input: "An input",
  palette: "A palette",
  categories: "A column",
  visual: "A visual",
  board: "A board",
};

/** Says that a list is too long, and what to do. */
export function beyondWords(owner: Owner, list: string): string {
  const most: number = (MOST[owner] as Record<string, number>)[list];
  const words = (WORDS[owner] as Record<string, string>)[list];
  return `${OWNERS[owner]} has at most ${most.toLocaleString("en")} ${words}. Remove some first.`;
}
