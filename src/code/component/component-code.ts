import type { Value } from "@/core/base/value";
import { formulaKey, type KnownFormula } from "@/core/formula/expr";
import type { Result } from "@/core/plan/query";
import type { Project, Visual } from "@/core/project/schema";
import { codeOf, commentText, keyOf } from "../json-code";
import type { Spec } from "./drawing";

/** What a component is made of: a visual with the parts of its document, and its answer as it stands. */
export interface ComponentSource {
  visual: Visual;
  project: Project;
  formulas: [string, KnownFormula][];
  result: Result;
  /** The drawing of its kind, as the build bundled it: the body of a function that gives `draw`. */
  drawing: string;
}

/** A name as that of a component: letters and digits, each word with a capital. */
export function componentName(name: string): string {
  const words = name.normalize("NFKD").match(/[A-Za-z0-9]+/g) ?? [];
  const joined = words.map((w) => w[0].toUpperCase() + w.slice(1)).join("");
  return /^[A-Za-z]/.test(joined) ? joined.slice(0, 60) : `Visual${joined.slice(0, 50)}`;
}

const TYPES: Record<string, string> = { number: "number", boolean: "boolean" };
const typeOf = (type: string) => TYPES[type] ?? "string";

const splitsOf = ({ crossed }: Result, visual: Visual): 0 | 1 | 2 => (crossed ? 2 : visual.split ? 1 : 0);

function specOf({ visual, project, formulas, result }: ComponentSource): Spec {
  const keys = (at: number): Value[] => result.crossed?.splits[at].keys ?? result.columns[0]?.values ?? [];
  return {
    project,
    visual,
    formulas,
    columns: result.columns.map(({ name, type }) => ({ name, type })),
    splits: splitsOf(result, visual),
    totals: Object.keys(result.totals),
    places: result.places.map(({ of, at }, i) => ({ of, at, keys: keys(i) })),
  };
}

/** The rows as they stand, the row of all others apart. */
function rowsOf({ result, visual }: ComponentSource): { rows: object[]; other: object | null } {
  const { columns, rows, others, crossed } = result;
  const splits = splitsOf(result, visual);
  const row = (i: number, from = 0) =>
    Object.fromEntries(columns.slice(from).map((c): [string, Value] => [c.name, c.values[i] ?? null]));
  const isOther = (i: number) =>
    crossed ? crossed.splits.some((s, k) => s.others?.at === crossed.at[i][k]) : others?.row === i;
  const places = Array.from({ length: rows }, (_, i) => i);
  const other = splits === 1 ? places.find(isOther) : undefined;
  return {
    rows: places.filter((i) => !isOther(i)).map((i) => row(i)),
    other: other === undefined ? null : row(other, splits),
  };
}

/** Measures of which the value over all rows has to be given, since it is not the sum of those of the rows. */
const neededTotals = ({ result, visual, project, formulas }: ComponentSource): string[] =>
  splitsOf(result, visual) === 0
    ? Object.keys(result.totals).filter((name) => !result.columns.some((c) => c.name === name))
    : Object.keys(result.totals).filter((name) => {
        const measure = project.measures.find((m) => m.name === name);
        const key = measure && formulaKey(measure.formula, measure.table, "group", measure.name);
        const known = formulas.find(([known]) => known === key);
        return known?.[1].addsUp !== "yes" || !result.columns.some((c) => c.name === name);
      });

/**
 * A visual as one file of TypeScript with a React component: typed rows in, the same picture out, and nothing
 * imported but React. What draws its kind stands at its end.
 */
export function componentCode(source: ComponentSource): string {
  const { visual, result, drawing } = source;
  const spec = specOf(source);
  const name = componentName(visual.name);
  const { rows, other } = rowsOf(source);
  const needed = neededTotals(source);
  const measures = spec.columns.slice(spec.splits);
  const field = (c: (typeof spec.columns)[number], empty: boolean) =>
    `  ${keyOf(c.name)}: ${typeOf(c.type)}${empty ? " | null" : ""};\n`;
  const totalsNow = Object.fromEntries(needed.map((total) => [total, result.totals[total] ?? null]));
  const { width, height } = visual.size;
  return `// @ts-nocheck: what stands at the end of this file was written by a machine; its types are right.
// ${commentText(visual.name)}: a component of React without anything else. It draws the rows that it is
// given.
${"import"} type { ReactElement } from "react";
${"import"} { createElement } from "react";

/** One row: a group of the data. Dates are ISO 8601 text. */
export interface ${name}Row {
${spec.columns.map((c) => field(c, true)).join("")}}

export interface ${name}Props {
  rows: ${name}Row[];
${spec.splits === 1 ? `  /** All others, put together as one. */\n  other?: { ${measures.map((c) => `${keyOf(c.name)}: ${typeOf(c.type)} | null`).join("; ")} } | null;\n` : ""}${
  needed.length > 0
    ? `  /** Values over all rows that are not the sums of those of the rows. */\n  totals: { ${needed.map((total) => `${keyOf(total)}: number | null`).join("; ")} };\n`
    : ""
}  width?: number;
  height?: number;
  theme?: "light" | "night";
  className?: string;
}

/** What it showed when it was taken out. */
export const ${name}Example: ${name}Props = {
  rows: ${codeOf(rows, 2)},
${other ? `  other: ${codeOf(other, 2)},\n` : ""}${needed.length > 0 ? `  totals: ${codeOf(totalsNow, 2)},\n` : ""}};

const camel = (name: string): string => name.replace(/-([a-z])/g, (_, letter) => letter.toUpperCase());

function toElement(node, key, more = {}): ReactElement {
  const props = { key, ...more };
  for (const [name, value] of Object.entries(node.attributes)) props[camel(name)] = value;
  return createElement(node.tag, props, node.text, ...node.children.map((child, i) => toElement(child, i)));
}

export function ${name}(props: ${name}Props): ReactElement {
  const { className, width = ${width}, height = ${height}, theme = "light", ...given } = props;
  const tree = drawing().draw(SPEC, { ...given, width, height, theme });
  return toElement(tree, undefined, { className, style: { maxWidth: "100%", height: "auto" } });
}

const SPEC = ${codeOf(spec, 0, Number.POSITIVE_INFINITY)};

// The drawing of this kind.
let made = null;
function drawing() {
  made ??= (() => { ${drawing} })();
  return made;
}
`;
}

/** The part of the code that a person reads: without what draws. */
export const readablePart = (code: string): string => {
  const at = code.indexOf("\nconst SPEC = ");
  return at < 0 ? code : `${code.slice(0, at)}\n// … SPEC and the drawing of this kind follow.\n`;
};
