/**
 * A type family that ships for visuals: `css` is what the page loads, `file` begins the names of its static
 * cuts.
 */
export interface Family {
  id: string;
  name: string;
  css: string;
  file: string;
}

/** The families that ship, in the order they are offered. */
export const FAMILIES: Family[] = [
  { id: "archivo", name: "Archivo", css: "'Archivo Variable', Archivo, sans-serif", file: "archivo" },
  {
    id: "source serif",
    name: "Source Serif",
    css: "'Source Serif 4 Variable', 'Source Serif 4', serif",
    file: "source-serif-4",
  },
  { id: "barlow", name: "Barlow Condensed", css: "'Barlow Condensed', sans-serif", file: "barlow-condensed" },
  { id: "nunito", name: "Nunito", css: "'Nunito Variable', Nunito, sans-serif", file: "nunito" },
];

const brought = new Map<string, Family>();

/**
 * Makes a family known that a page brings, by its own name; its widths are known to `text.ts` under the same. It
 * has no cuts among those that ship. Gives the id by which it is asked for.
 */
export function bringFamily(name: string): string {
  const id = `brought ${name}`;
  brought.set(id, { id, name, css: `'${name.replace(/['\\]/g, "")}', sans-serif`, file: "" });
  return id;
}

/** A family by its id, or the first where there is none of it. */
export const familyOf = (id: string): Family =>
  FAMILIES.find((f) => f.id === id) ?? brought.get(id) ?? FAMILIES[0];

/** The families that write the scripts which those above lack, ideographs left out. */
const ALPHABETS = ["Noto Sans", "Noto Sans Arabic", "Noto Sans Hebrew"];
/** From here on, the families above lack signs; the arrows, shapes and marks between are in them. */
const isForeign = (code: number) => code >= 0x250 && (code < 0x2000 || code > 0x2bff);
const isEastAsian = (code: number) => code >= 0x1100 && (code < 0x1200 || code > 0x2bff);

/**
 * The families that write East Asian texts, the first one by what else stands in them: kana are Japanese,
 * Hangul is Korean; ideographs alone are taken for simplified Chinese.
 */
export function eastAsianFamilies(texts: string): string[] {
  const [jp, kr, sc] = ["Noto Sans JP", "Noto Sans KR", "Noto Sans SC"];
  if (/[\u3040-\u30ff\uff66-\uff9f]/.test(texts)) return [jp, kr, sc];
  return /[\u1100-\u11ff\u3130-\u318f\uac00-\ud7af]/.test(texts) ? [kr, sc, jp] : [sc, jp, kr];
}

/** The families, beside those of `FAMILIES`, that write these texts, in the order they are tried. */
export function furtherFamilies(texts: Iterable<string>): string[] {
  const all = [...texts].join("");
  let [foreign, eastAsian] = [false, false];
  for (const char of all) {
    const code = char.codePointAt(0) as number;
    foreign ||= isForeign(code);
    eastAsian ||= isEastAsian(code);
  }
  return [...(foreign ? ALPHABETS : []), ...(eastAsian ? eastAsianFamilies(all) : [])];
}

/** The CSS list of families for a picture's texts: its own first, then those of the scripts it lacks. */
export function fontStack(family: string, texts: Iterable<string>): string {
  const { css } = familyOf(family);
  const further = furtherFamilies(texts).map((name) => `'${name}'`);
  if (further.length === 0) return css;
  const at = css.lastIndexOf(",");
  return [css.slice(0, at), ...further, css.slice(at + 1).trim()].join(", ");
}
