import { findNamed } from "../base/names";
import { AGGREGATES, type AggregateEntry } from "./aggregates";
import type { Level, Scope, ScopeColumn } from "./expr";
import { FUNCTIONS } from "./functions";
import { reachedFrom } from "./links";
import { quoteName } from "./quote-name";
import { tokenize } from "./tokens";

/** A name or a form that can stand in a formula: what is written, what it is, and a line of help. */
export interface Completion {
  text: string;
  kind: "column" | "measure" | "input" | "aggregate" | "function" | "word";
  detail: string;
  help: string;
}

/** Forms of the language: what is written, what it does, and whether it stands only at group level. */
const WORDS: [string, string, boolean][] = [
  ["filter (where )", "keeps only some rows of an aggregate", true],
  ["case when  then  else  end", "chooses a value by conditions", false],
  ["extract(year from )", "a part of a date", false],
  ["date_trunc('month', )", "the first day of a year, quarter, month or week", false],
  ["current_date", "the day on which the query runs", false],
  ["total()", "an aggregate over all rows that the filters keep, ignoring the split", true],
  ["between  and ", "within two limits", false],
  ["is null", "true where there is no value", false],
  ["date ''", "a date: date '2026-05-01'", false],
];

/**
 * Everything that can be written in a formula of this table: in a measure, or row by row in a derived column.
 */
export function completionsFor(scope: Scope, table: string | null, level: Level = "group"): Completion[] {
  const tableNamed = (name: string) => findNamed(scope.tables, name);
  const own = table === null ? undefined : tableNamed(table);
  const reached = own ? reachedFrom(scope.links ?? [], own.name).flatMap((t) => tableNamed(t) ?? []) : [];
  const column = (text: string, c: ScopeColumn, owner: string): Completion => ({
    text,
    kind: "column",
    detail: c.type,
    help: c.formula === undefined ? `column of ${owner}` : `derived column of ${owner}: ${c.formula}`,
  });
  const rowLevel: Completion[] = [
    ...(own?.columns ?? []).map((c) => column(quoteName(c.name), c, own?.name ?? "")),
    ...reached.flatMap((t) =>
      t.columns.map((c) =>
        column(`${quoteName(t.name)}.${quoteName(c.name)}`, c, `${t.name}, through a link`),
      ),
    ),
    ...Object.entries(FUNCTIONS).map(
      ([name, f]): Completion => ({ text: `${name}()`, kind: "function", detail: f.signature, help: f.help }),
    ),
    ...WORDS.filter(([, , group]) => !group || level === "group").map(
      ([text, help]): Completion => ({ text, kind: "word", detail: "", help }),
    ),
  ];
  if (level === "row") return rowLevel;
  return [
    ...rowLevel,
    ...scope.measures.map(
      (m): Completion => ({ text: quoteName(m.name), kind: "measure", detail: "measure", help: m.formula }),
    ),
    ...scope.inputs.map(
      (i): Completion => ({ text: `:${i.name}`, kind: "input", detail: `input, ${i.type}`, help: "" }),
    ),
    ...Object.entries<AggregateEntry>(AGGREGATES).map(
      ([name, a]): Completion => ({
        text: a.ordered ? `${name}(0.5) within group (order by )` : `${name}()`,
        kind: "aggregate",
        detail: a.signature,
        help: a.help,
      }),
    ),
  ];
}

/** What the name or form at a place of a formula is, or null: for help where the pointer rests. */
export function helpAt(
  formula: string,
  at: number,
  scope: Scope,
  table: string | null,
): { start: number; end: number; title: string; help: string } | null {
  const token = tokenize(formula).tokens.find(
    (t) => t.start <= at && at < t.end && (t.kind === "word" || t.kind === "quoted" || t.kind === "input"),
  );
  if (!token) return null;
  const written = token.kind === "input" ? `:${token.text}` : quoteName(token.text);
  const bare = (text: string) => text.replace(/\(.*$|\s.*$/s, "").toLowerCase();
  const found = completionsFor(scope, table).find(
    (c) =>
      bare(c.text) === written.toLowerCase() || c.text.toLowerCase().endsWith(`.${written.toLowerCase()}`),
  );
  return found
    ? {
        start: token.start,
        end: token.end,
        title:
          found.detail && found.kind !== "function" && found.kind !== "aggregate"
            ? `${found.text}: ${found.detail}`
            : found.detail || found.text,
        help: found.help,
      }
    : null;
}
