"use client";
import { useCallback } from "react";
import { type Choice, choicesIn, choicesQuery } from "@/core/view/column-choices";
import { useProject } from "./project-context";
import { useAsking, useResult } from "./results";

const MOST = 300;

/** The distinct values of a column (dates by a bucket) with their labels, in the column's own order. */
export function useColumnValues(
  table: string | null,
  column: string | null,
  by?: "year" | "quarter" | "month",
): Choice[] {
  const conventions = useProject((s) => s.document.conventions);
  const { answer } = useResult(table && column ? choicesQuery(table, column, by) : null);
  return choicesIn(answer, by, { conventions });
}

/** A way to ask for the values of a text column, the most frequent first; none where they cannot be had. */
export function useTextValues(): (table: string, column: string) => Promise<string[]> {
  const ask = useAsking();
  return useCallback(
    async (table, column) => {
      const answer = await ask({
        table,
        measures: [{ formula: "count(*)", as: "rows" }],
        splits: [{ column }],
        sort: { by: "rows", order: "desc" },
        keep: { first: MOST, others: false },
      }).catch(() => null);
      if (!answer || "error" in answer) return [];
      return answer.columns[0].values.filter((value) => typeof value === "string");
    },
    [ask],
  );
}
