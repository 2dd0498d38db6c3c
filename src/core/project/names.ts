import { checkFormula, quoteName } from "../formula/check";
import type { Scope, ScopeColumn } from "../formula/expr";
import { tokenize } from "../formula/tokens";
import type { Project, Visual } from "./schema";

const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();

/** What names in formulas and sentences are read against. */
export type Named = Pick<Project, "tables" | "links" | "measures" | "inputs">;

/** The type of a derived column; "null" while its formula has a problem. */
function typeOfDerived(formula: string, scope: Scope, table: string, column: string): ScopeColumn["type"] {
  const checked = checkFormula(formula, scope, table, "derived", [`${table}.${column}`]);
  return checked.expr ? checked.type : "null";
}

const scopes = new WeakMap<object, { of: Named; scope: Scope }>();

/** The scope in which a project's formulas are checked. The same parts of a document give the same scope. */
export function scopeOf(project: Named): Scope {
  const known = scopes.get(project.tables);
  if (known && known.of.links === project.links && known.of.measures === project.measures && known.of.inputs === project.inputs) return known.scope;
  const scope: Scope = {
    tables: project.tables.map((t) => ({
      name: t.name,
      columns: [
        ...t.columns.map((c): ScopeColumn => ({ name: c.name, type: c.reading.type })),
        ...t.derived.map((d): ScopeColumn => ({ name: d.name, type: "null", formula: d.formula })),
      ],
    })),
    measures: project.measures.map(({ name, formula, table }) => ({ name, formula, table })),
    inputs: project.inputs.map(({ name, type }) => ({ name, type })),
    links: project.links.map(({ table, column, to, key }) => ({ table, column, to, key })),
  };
  for (const t of scope.tables) for (const c of t.columns) if (c.formula !== undefined) c.type = typeOfDerived(c.formula, scope, t.name, c.name);
  scopes.set(project.tables, { of: { tables: project.tables, links: project.links, measures: project.measures, inputs: project.inputs }, scope });
  return scope;
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

/**
 * The formula with the name of a column of `table` changed. `bare` says what a bare name becomes: null where it does not mean
 * this column.
 */
export function renameColumnIn(formula: string, table: string, bare: string | null, from: string, to: string): string {
  return rewrite(formula, (kind, text, before, after, qualifier) => {
    if (kind !== "name" || !same(text, from) || after === "(" || after === ".") return null;
    if (before === ".") return qualifier !== null && same(qualifier, table) ? quoteName(to) : null;
    return bare;
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

/** The formula with a table's name changed where it stands before a column. */
export function renameTableIn(formula: string, from: string, to: string): string {
  return rewrite(formula, (kind, text, _before, after) => (kind === "name" && same(text, from) && after === "." ? quoteName(to) : null));
}

/** A template such as "{passengers} carried" with a name changed. */
export function renameInTemplate(template: string, from: string, to: string): string {
  return template.replace(/\{\s*([^{}:]+?)\s*(:[^{}]*)?\}/g, (whole, name: string, format: string | undefined) => (same(name, from) ? `{${to}${format ?? ""}}` : whole));
}

/** The ids of the measures that a visual's phrases and rules name. */
export function measuresOf(visual: Visual): (string | null)[] {
  const sources = [visual.target, visual.minimum, visual.maximum, visual.comparison].map((s) => (s && "measure" in s ? s.measure : null));
  return [visual.value, visual.second, visual.headSize, ...visual.more, ...sources, ...visual.rules.map((r) => r.measure)];
}
