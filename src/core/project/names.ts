import { cutText } from "../base/cut-text";
import { sameName } from "../base/names";
import { checkFormula, derivedType } from "../formula/check";
import type { KnownFormula, Scope, ScopeColumn } from "../formula/expr";
import { quoteName } from "../formula/quote-name";
import { tokenize } from "../formula/tokens";
import { calendarOf } from "./conventions";
import type { Project } from "./schema";

/** What names in formulas and sentences are read against. */
export type Named = Pick<Project, "tables" | "links" | "measures" | "inputs" | "conventions">;

const scopes = new WeakMap<object, { of: Named; scope: Scope }>();

const settled = new WeakMap<object, ReadonlyMap<string, KnownFormula>>();

/** Says what the formulas of a project mean, of which only the tables stay the same object. */
export function knowFormulas(
  { tables }: Pick<Project, "tables">,
  formulas: readonly (readonly [string, KnownFormula])[],
): void {
  settled.set(tables, new Map(formulas));
}

/** The scope in which a project's formulas are checked. The same parts of a document give the same scope. */
export function scopeOf(project: Named): Scope {
  const known = scopes.get(project.tables);
  if (
    known &&
    known.of.links === project.links &&
    known.of.measures === project.measures &&
    known.of.inputs === project.inputs &&
    known.of.conventions === project.conventions
  )
    return known.scope;
  const scope: Scope = {
    tables: project.tables.map((t) => ({
      name: t.name,
      columns: [
        ...t.columns.map((c): ScopeColumn => ({ name: c.name, type: c.reading.type })),
        ...t.derived.map((d): ScopeColumn => ({ name: d.name, type: "null", formula: d.formula })),
      ],
    })),
    measures: project.measures.map(({ name, formula, table, standsWhole }) => ({
      name,
      formula,
      table,
      standsWhole,
    })),
    inputs: project.inputs.map(({ name, type }) => ({ name, type })),
    links: project.links.map(({ table, column, to, key }) => ({ table, column, to, key })),
    calendar: calendarOf(project),
    timeZone: project.conventions.timeZone,
    ...(settled.has(project.tables) ? { known: settled.get(project.tables) } : {}),
  };
  for (const t of scope.tables)
    for (const c of t.columns)
      if (c.formula !== undefined) c.type = derivedType(c.formula, scope, t.name, c.name);
  scopes.set(project.tables, {
    of: {
      tables: project.tables,
      links: project.links,
      measures: project.measures,
      inputs: project.inputs,
      conventions: project.conventions,
    },
    scope,
  });
  return scope;
}

/** A name of a column or a table as a label says it: "trips_2025" is Trips 2025. */
export function readableName(name: string): string {
  const words = name.replaceAll("_", " ").trim() || name;
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/**
 * Makes a name for formulas out of a label: "On-time rate" becomes on_time_rate, numbered where it is taken.
 */
export function freeName(label: string, taken: string[]): string {
  const plain = label
    .normalize("NFKD")
    .replace(/[\u0300-\u036f]/g, "")
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, "_")
    .replace(/^_+|_+$/g, "");
  const base = cutText(/^[\p{L}_]/u.test(plain) ? plain : `m_${plain}`, 100) || "measure";
  let candidate = base;
  for (let n = 2; taken.some((t) => sameName(t, candidate)); n++) candidate = `${base}_${n}`;
  return candidate;
}

/** A formula with the table whose columns it sees, and whether it is of a derived column. */
export interface Written {
  formula: string;
  table: string | null;
  derived: boolean;
}

/**
 * The text of a formula with the spans replaced for which `replace` gives another text. Spans do not overlap.
 */
function respan<S extends { start: number; end: number }>(
  formula: string,
  spans: S[],
  replace: (span: S) => string | null,
): string {
  let out = "";
  let at = 0;
  for (const span of spans) {
    const replaced = replace(span);
    if (replaced === null || span.start < at) continue;
    out += formula.slice(at, span.start) + replaced;
    at = span.end;
  }
  return out + formula.slice(at);
}

/**
 * The names in a formula's text as they are bound in a scope: what a name means is asked of the checker,
 * never told from its neighbours.
 */
const boundNames = ({ formula, table, derived }: Written, scope: Scope) =>
  checkFormula(formula, scope, table, derived ? "derived" : "group").names;

/** Where the parts of a name stand within it: its table, where it is written, and its own. */
function partsOf(text: string): {
  table: { start: number; end: number } | null;
  own: { start: number; end: number };
} {
  const tokens = tokenize(text).tokens.filter((t) => t.kind === "word" || t.kind === "quoted");
  return { table: tokens.length > 1 ? tokens[0] : null, own: tokens[tokens.length - 1] };
}

/**
 * The formula with the name of a column changed; `scope` is that of before. Where the column is reached
 * through a link, a bare name is written with its table, since another table could have the new name too.
 */
export function renameColumnIn(
  written: Written,
  scope: Scope,
  column: { table: string; column: string },
  to: string,
): string {
  return respan(written.formula, boundNames(written, scope), (name) => {
    if (!("column" in name) || !sameName(name.column, column.column) || !sameName(name.table, column.table))
      return null;
    const text = written.formula.slice(name.start, name.end);
    const { table, own } = partsOf(text);
    if (table) return text.slice(0, own.start) + quoteName(to) + text.slice(own.end);
    return written.table !== null && sameName(written.table, column.table)
      ? quoteName(to)
      : `${quoteName(column.table)}.${quoteName(to)}`;
  });
}

/** The formula with a measure's name changed; `scope` is that of before. */
export function renameMeasureIn(written: Written, scope: Scope, from: string, to: string): string {
  return respan(written.formula, boundNames(written, scope), (name) =>
    "measure" in name && sameName(name.measure, from) ? quoteName(to) : null,
  );
}

/** The formula with a table's name changed where it stands before a column; `scope` is that of before. */
export function renameTableIn(written: Written, scope: Scope, from: string, to: string): string {
  return respan(written.formula, boundNames(written, scope), (name) => {
    if (!("column" in name) || !sameName(name.table, from)) return null;
    const text = written.formula.slice(name.start, name.end);
    const { table } = partsOf(text);
    return table && text.slice(0, table.start) + quoteName(to) + text.slice(table.end);
  });
}

/** A formula in which an input has another name; all else stays as it was written. */
export function renameInputIn(formula: string, from: string, to: string): string {
  return respan(formula, tokenize(formula).tokens, (token) =>
    token.kind === "input" && sameName(token.text, from) ? `:${to}` : null,
  );
}
