import type { Value } from "../base/value";
import type { Filter, QueryInput, Result, Split } from "../plan/query";
import { groupLabel, type Wording } from "../rows/key-labels";
import { rowKey } from "../rows/row-key";
import { keysFilter } from "./picks";

/** How a measure is tried where it is written: over which table, by up to two splits, under which filters. */
export interface Trial {
  measure: string;
  table: string;
  splits: Split[];
  filters: Filter[];
  /** Whether less is better: the best groups come first. */
  lower: boolean;
}

/** So many groups of the first split are shown. */
export const FIRST_GROUPS = 100;

/** The query that answers a trial: the measure as "answer" and the rows of its table as "rows". */
export function trialQuery({ measure, table, splits, filters, lower }: Trial): QueryInput {
  const [first] = splits;
  return {
    table,
    measures: [
      { id: measure, as: "answer" },
      { formula: "count(*)", as: "rows" },
    ],
    splits,
    filters,
    keep: { first: FIRST_GROUPS, others: false },
    ...(first && !first.by ? { sort: { by: "answer", order: lower ? "asc" : "desc" } } : {}),
  };
}

/** One group of a trial's answer. */
export interface TriedGroup {
  id: string;
  label: string;
  /** Its key by the first split. */
  key: Value;
  count: number;
  value: Value;
  /** What keeps just its rows, besides the filters of the trial. */
  filters: Filter[];
}

/** The groups of a trial's answer, each with its label: "North Quay", or "North Quay · 2025" by two splits. */
export function triedGroups({ splits }: Trial, answer: Result, wording: Wording): TriedGroup[] {
  const valuesOf = (name: string) => answer.columns.find((c) => c.name === name)?.values ?? [];
  const [values, counts] = [valuesOf("answer"), valuesOf("rows")];
  if (splits.length === 0) return [];
  return values.map((value, row) => {
    const parts = splits.map((split, i) => {
      const key = answer.columns[i].values[row];
      const isNoMatch = answer.crossed
        ? answer.crossed.splits[i].noMatch?.at === answer.crossed.at[row][i]
        : answer.noMatch?.row === row;
      const subject = isNoMatch ? { type: "no match" as const } : { type: "category" as const, value: key };
      return {
        key,
        label: groupLabel(key, isNoMatch, split.by, wording),
        filter: keysFilter(split, [rowKey(subject)]),
      };
    });
    return {
      id: JSON.stringify(parts.map((p) => p.filter)),
      label: parts.map((p) => p.label).join(" · "),
      key: parts[0].key,
      count: counts[row] as number,
      value,
      filters: parts.map((p) => p.filter),
    };
  });
}

/** The query of which the rows behind a group, or behind the total (null), are all rows. */
export const behindTried = ({ measure, table, filters }: Trial, group: TriedGroup | null): QueryInput => ({
  table,
  measures: [{ id: measure }],
  filters: [...filters, ...(group?.filters ?? [])],
});
