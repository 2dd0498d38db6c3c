import { quoteName } from "../formula/check";
import { tokenize } from "../formula/tokens";
import type { Project } from "./schema";

const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();

/** The scope in which a project's formulas are checked. */
export function scopeOf(project: Pick<Project, "tables" | "measures" | "inputs">) {
  return {
    tables: project.tables.map((t) => ({ name: t.name, columns: t.columns.map((c) => ({ name: c.name, type: c.reading.type })) })),
    measures: project.measures.map(({ name, formula, table }) => ({ name, formula, table })),
    inputs: project.inputs.map(({ name, type }) => ({ name, type })),
  };
}

/** Makes a name for formulas out of a label: "On-time rate" becomes on_time_rate, numbered where it is taken. */
export function freeName(label: string, taken: string[]): string {
  const plain = label
    .normalize("NFKD")
    .replace(/[\u0300-\u036f]/g, "")
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, "_")
    .replace(/^_+|_+$/g, "");
  const base = (/^[\p{L}_]/u.test(plain) ? plain : `m_${plain}`).slice(0, 100) || "measure";
  let candidate = base;
  for (let n = 2; taken.some((t) => same(t, candidate)); n++) candidate = `${base}_${n}`;
  return candidate;
}

/** Rewrites the formula's tokens for which `rename` gives another text. */
function rewrite(formula: string, rename: (kind: "name" | "input", text: string, before: string | null, after: string | null, beforeThat: string | null) => string | null): string {
  const { tokens } = tokenize(formula);
  let out = "";
  let at = 0;
  for (const [i, token] of tokens.entries()) {
    const isName = token.kind === "word" || token.kind === "quoted";
    if (!isName && token.kind !== "input") continue;
    const near = (k: number) => {
      const t = tokens[i + k];
      return t && t.kind !== "end" ? t.text : null;
    };
    const replaced = rename(isName ? "name" : "input", token.text, near(-1), near(1), near(-2));
    if (replaced === null) continue;
    out += formula.slice(at, token.start) + replaced;
    at = token.end;
  }
  return out + formula.slice(at);
}

/** The formula with a column's name changed, for a measure of `table`. */
export function renameColumnIn(formula: string, table: string, ownTable: string | null, from: string, to: string): string {
  return rewrite(formula, (kind, text, before, after, qualifier) => {
    if (kind !== "name" || !same(text, from) || after === "(") return null;
    const owner = before === "." ? qualifier : ownTable;
    return owner !== null && same(owner, table) ? quoteName(to) : null;
  });
}

/** The formula with a measure's name changed. `columns` are the columns of the formula's own table, which go before measures. */
export function renameMeasureIn(formula: string, columns: string[], from: string, to: string): string {
  return rewrite(formula, (kind, text, before, after) =>
    kind === "name" && same(text, from) && before !== "." && after !== "(" && after !== "." && !columns.some((c) => same(c, from)) ? quoteName(to) : null,
  );
}

export function renameInputIn(formula: string, from: string, to: string): string {
  return rewrite(formula, (kind, text) => (kind === "input" && same(text, from) ? `:${to}` : null));
}

/** The formula with its own table's qualifier changed. */
export function renameTableIn(formula: string, from: string, to: string): string {
  return rewrite(formula, (kind, text, _before, after) => (kind === "name" && same(text, from) && after === "." ? quoteName(to) : null));
}

/** A template such as "{passengers} carried" with a name changed. */
export function renameInTemplate(template: string, from: string, to: string): string {
  return template.replace(/\{\s*([^{}:]+?)\s*(:[^{}]*)?\}/g, (whole, name: string, format: string | undefined) => (same(name, from) ? `{${to}${format ?? ""}}` : whole));
}
