"use client";
import { readingKey } from "@/core/data/reading-label";
import type { TableInfo } from "@/core/project/schema";
import { useProject } from "./project-context";

/**
 * Changes whenever what a table's rows look like does: its rows, its readings, its derived columns, and the
 * tables those reach.
 */
export function useTableVersion(table: TableInfo | null): string {
  const tables = useProject((s) => s.document.tables);
  const links = useProject((s) => s.document.links);
  if (!table) return "";
  const own = [
    table.id,
    table.name,
    table.columns.map((c) => [c.name, readingKey(c.reading)]),
    table.derived.map((d) => [d.name, d.formula]),
  ];
  const others = table.derived.length
    ? [
        links,
        tables.map((t) => [t.id, t.name, t.derived, t.columns.map((c) => [c.name, readingKey(c.reading)])]),
      ]
    : [];
  return JSON.stringify([own, others]);
}
