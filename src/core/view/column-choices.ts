import type { DateBucket } from "../base/calendar";
import type { Value } from "../base/value";
import type { QueryInput, Result } from "../plan/query";
import type { Project } from "../project/schema";
import { filterKey, keyLabel, wordingOf } from "../rows/key-labels";

/** A value of a column that can be chosen, and what it is called. */
export interface Choice {
  value: Value;
  label: string;
}

/** The most values that are offered of a column in a row of buttons and behind it, and in a list. */
const MOST = 300;
/** The most values of a list. */
export const MOST_LISTED = 10_000;

const IN_LINE = 4;

/** The choices that stand in a row of buttons, and those of a list behind it. */
export function inLine(choices: Choice[]): { shown: Choice[]; rest: Choice[] } {
  const shown = choices.length <= IN_LINE + 1 ? choices : choices.slice(0, IN_LINE - 1);
  return { shown, rest: choices.slice(shown.length) };
}

/** The query for the distinct values of a column (dates by a bucket), in the column's own order. */
export const choicesQuery = (table: string, column: string, by?: DateBucket, most = MOST): QueryInput => ({
  table,
  measures: [{ formula: "count(*)", as: "rows" }],
  splits: [{ column, ...(by ? { by } : {}) }],
  keep: { first: most, others: false },
});

/** What can be chosen, out of the answer to that query; nothing while there is none. */
export function choicesIn(
  answer: Result | { error: string } | null,
  by: DateBucket | undefined,
  project: Pick<Project, "conventions">,
): Choice[] {
  if (!answer || "error" in answer) return [];
  return answer.columns[0].values.map((key) => ({
    value: filterKey(key, by),
    label: keyLabel(key, by, wordingOf(project)),
  }));
}

/** How many rows have each value, out of the answer to that query. */
export function countsIn(
  answer: Result | { error: string },
  by: DateBucket | undefined,
  project: Pick<Project, "conventions">,
): Map<Value, number> | null {
  if ("error" in answer) return null;
  const rows = answer.columns.at(-1)?.values ?? [];
  return new Map(choicesIn(answer, by, project).map(({ value }, i) => [value, Number(rows[i])]));
}

/** Whether a column may have more values than the answer to that query could give. */
export const hasMore = (answer: Result): boolean => answer.rows >= MOST;
