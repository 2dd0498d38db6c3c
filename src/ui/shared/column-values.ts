"use client";
import type { Value } from "@/core/base/value";
import type { QueryInput } from "@/core/plan/query";
import { filterKey, keyLabel, wordingOf } from "@/core/rows/key-labels";
import { useProject } from "./project-context";
import { useResult } from "./results";

const MOST = 300;

/** The distinct values of a column (dates by a bucket) with their labels, in the column's own order. */
export function useColumnValues(
  table: string | null,
  column: string | null,
  by?: "year" | "quarter" | "month",
): { value: Value; label: string }[] {
  const conventions = useProject((s) => s.document.conventions);
  const query: QueryInput | null =
    table && column
      ? {
          table,
          measures: [{ formula: "count(*)", as: "rows" }],
          splits: [{ column, ...(by ? { by } : {}) }],
          keep: { first: MOST, others: false },
        }
      : null;
  const { answer } = useResult(query);
  if (!answer || "error" in answer) return [];
  return answer.columns[0].values.map((key) => ({
    value: filterKey(key, by),
    label: keyLabel(key, by, wordingOf({ conventions })),
  }));
}
