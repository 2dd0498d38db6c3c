import { AGGREGATES } from "./aggregates";
import { quoteName } from "./check";
import type { Scope } from "./expr";
import { SCALAR_ENTRIES } from "./scalars";

/** A name or a form that can stand in a formula: what is written, what it is, and a line of help. */
export interface Completion {
  text: string;
  kind: "column" | "measure" | "input" | "aggregate" | "function" | "word";
  detail: string;
  help: string;
}

const WORDS: [string, string][] = [
  ["filter (where )", "keeps only some rows of an aggregate"],
  ["case when  then  else  end", "chooses a value by conditions"],
  ["extract(year from )", "a part of a date"],
  ["date_trunc('month', )", "the first day of a year, quarter, month or week"],
  ["current_date", "the day on which the query runs"],
  ["total()", "an aggregate over all rows that the filters keep, ignoring the split"],
  ["between  and ", "within two limits"],
  ["is null", "true where there is no value"],
  ["date ''", "a date: date '2026-05-01'"],
];

/** Everything that can be written in a formula of this table. */
export function completionsFor(scope: Scope, table: string | null): Completion[] {
  const own = scope.tables.find((t) => t.name.toLowerCase() === table?.toLowerCase());
  return [
    ...(own?.columns ?? []).map((c): Completion => ({ text: quoteName(c.name), kind: "column", detail: c.type, help: `column of ${own?.name}` })),
    ...scope.measures.map((m): Completion => ({ text: quoteName(m.name), kind: "measure", detail: "measure", help: m.formula })),
    ...scope.inputs.map((i): Completion => ({ text: `:${i.name}`, kind: "input", detail: `input, ${i.type}`, help: "" })),
    ...AGGREGATES.map((a): Completion => ({ text: a.ordered ? `${a.name}(0.5) within group (order by )` : `${a.name}()`, kind: "aggregate", detail: a.signature, help: a.help })),
    ...SCALAR_ENTRIES.map((f): Completion => ({ text: `${f.name}()`, kind: "function", detail: f.signature, help: f.help })),
    ...WORDS.map(([text, help]): Completion => ({ text, kind: "word", detail: "", help })),
  ];
}
