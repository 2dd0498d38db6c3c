"use client";
import { useMemo } from "react";
import { factsQuery, readFacts, type TableFacts } from "@/core/view/column-facts";
import { useDraft, useResults } from "./results";

const UNKNOWN: TableFacts = new Map();

/** What is known of the columns that a table can be split by; null while that is asked. */
export function useTableFacts(table: string | null): TableFacts | null {
  const { draft } = useDraft();
  const query = useMemo(() => (table === null ? null : factsQuery(draft, table)), [draft, table]);
  const [answer] = useResults([query]);
  return useMemo(() => {
    if (query === null || table === null) return UNKNOWN;
    if (answer === null) return null;
    return "error" in answer ? UNKNOWN : readFacts(draft, table, answer);
  }, [query, table, answer, draft]);
}
