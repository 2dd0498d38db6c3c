import type { Value } from "../base/value";
import type { Filter, QueryInput } from "../plan/query";
import type { Categorized } from "../project/categories";
import type { Visual } from "../project/schema";
import { type RowKey, rowKey, type Side, subjectOf } from "../rows/row-key";
import type { VisualData } from "../rows/visual-data";
import { keysFilter } from "./picks";
import { toQuery } from "./query";
import { spoken } from "./spoken";

/** A category of a visual, with what the visual shows beside it. */
interface Shown {
  key: RowKey;
  side: Side;
  data: Pick<VisualData, "rows" | "series">;
}

/**
 * The query of which the rows behind a visual, or behind one of its categories, are all rows: its
 * measures without their splits. A category that is a measure is that one alone. Null while the sentence
 * lacks its value.
 */
export function behindQuery(
  whole: Visual,
  project: Categorized,
  { filters, inputs }: { filters: Filter[]; inputs: Record<string, Value> },
  category: Shown | null,
): QueryInput | null {
  const query = toQuery(whole, project, filters, inputs);
  if (!query) return null;
  const behind: QueryInput = {
    ...(query.table === undefined ? {} : { table: query.table }),
    measures: query.measures,
    filters: query.filters ?? [],
    inputs,
  };
  const subject = category && subjectOf(category.key);
  if (!category || !subject || subject.type === "whole") return behind;
  if (subject.type === "measure") {
    const measure = project.measures.find((m) => m.id === subject.id);
    return measure ? { ...behind, measures: [{ id: measure.name }] } : behind;
  }
  const split = spoken(whole)[category.side];
  if (!split) return behind;
  const entries = category.side === "series" ? category.data.series : category.data.rows;
  const other = rowKey({ type: "other" });
  const but = entries.map((e) => e.key).filter((key) => key !== other);
  return { ...behind, filters: [...(query.filters ?? []), keysFilter(split, [category.key], but)] };
}
