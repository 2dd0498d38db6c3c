import { describe, expect, it } from "vitest";
import { tooMany } from "./limits";
import { MOST } from "./most";
import { emptyProject, type Project, projectSchema } from "./schema";

const source = { file: "" };
const column = { name: "c", reading: { type: "text" } };
const format = { style: "number", decimals: 0 };
const colour = "#123456";
const filter = { column: "c", in: [] };
const measure = { label: "M", note: "", table: null, formula: "1", format };

/** One that belongs to a project, by its number. */
const ONE: Record<keyof typeof MOST.project, (i: number) => object> = {
  tables: (i) => ({ id: `t${i}`, name: `t${i}`, rows: 0, columns: [column], source }),
  links: (i) => ({ id: `l${i}`, table: "a", column: "c", to: "b", key: "k" }),
  measures: (i) => ({ id: `m${i}`, name: `m${i}`, ...measure }),
  inputs: (i) => ({ id: `i${i}`, name: `i${i}`, label: "I", type: "number", value: 1, format }),
  palettes: (i) => ({
    id: `p${i}`,
    name: `p${i}`,
    type: "categorical",
    light: [colour, colour],
    night: [colour, colour],
  }),
  finishes: (i) => ({ id: `f${i}`, name: `f${i}`, dials: {} }),
  pictures: (i) => ({ id: `o${i}`, name: `o${i}`, href: "data:image/png;base64,AAAA" }),
  categories: (i) => ({ id: `k${i}`, table: "t", column: `c${i}` }),
  visuals: (i) => ({ id: `v${i}`, name: `v${i}`, kind: "donut" }),
  boards: (i) => ({ id: `b${i}`, name: `b${i}` }),
};
/** An entry of a list of one of those, by its number. */
const ENTRY: Record<string, (i: number) => unknown> = {
  "table derived": (i) => ({ name: `d${i}`, formula: "1" }),
  "measure proofs": (i) => ({ id: `q${i}`, type: "between", from: 0, to: 1 }),
  "input choices": (i) => i,
  "palette light": () => colour,
  "palette night": () => colour,
  "categories order": (i) => `v${i}`,
  "categories colours": (i) => ({ value: `v${i}`, color: colour }),
  "visual steps": () => ({ column: "c" }),
  "visual more": (i) => `m${i}`,
  "visual zones": (i) => ({ to: i, word: "", tone: "plain" }),
  "visual filters": () => filter,
  "visual rules": (i) => ({ when: "from", than: i, word: "", color: colour }),
  "board tiles": (i) => ({ id: `s${i}`, type: "text", text: "", x: 0, y: 2 * i, w: 12, h: 2 }),
  "board controls": (i) => ({ id: `c${i}`, type: "input", input: `i${i}` }),
};
const LIST: Record<string, keyof Project & keyof typeof ONE> = {
  table: "tables",
  measure: "measures",
  input: "inputs",
  palette: "palettes",
  categories: "categories",
  visual: "visuals",
  board: "boards",
};
const many = <T>(length: number, of: (i: number) => T) => Array.from({ length }, (_, i) => of(i));

/** Documents with so many entries of one list. */
const documents: [string, number, (length: number) => object][] = Object.entries(MOST).flatMap(
  ([owner, lists]) =>
    Object.entries(lists).map(([list, most]): [string, number, (length: number) => object] => [
      `${owner} ${list}`,
      most,
      (length) =>
        owner === "project"
          ? { [list]: many(length, ONE[list as keyof typeof ONE]) }
          : { [LIST[owner]]: [{ ...ONE[LIST[owner]](0), [list]: many(length, ENTRY[`${owner} ${list}`]) }] },
    ]),
);

describe("what a document holds at most", () => {
  it.each(documents)("%s: what is said is what its schema takes", (name, most, documentOf) => {
    const of = (length: number) => ({ ...emptyProject("P"), ...documentOf(length) });
    const full = projectSchema.safeParse(of(most));
    expect(full.error).toBeUndefined();
    const refused = projectSchema.safeParse(of(most + 1)).error?.issues.map((issue) => issue.message);
    const [before, after] = [of(most), of(most + 1)] as Project[];
    expect(tooMany(emptyProject("P"), before), name).toBeNull();
    expect(tooMany(before, after)).toMatch(
      new RegExp(`^An? \\w+ has at most ${most.toLocaleString("en")} [a-z ]+\\. Remove some first\\.$`),
    );
    // The server says the same of a document that it is given.
    expect(refused).toEqual([tooMany(before, after)]);
    // What was too long before may stay so, and become shorter.
    expect(tooMany(after, after)).toBeNull();
    expect(tooMany(of(most + 2) as Project, after)).toBeNull();
  });
});
