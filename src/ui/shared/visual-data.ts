"use client";
import { useMemo, useRef } from "react";
import type { Value } from "@/core/base/value";
import type { Query } from "@/core/plan/query";
import type { Measure, Visual } from "@/core/project/schema";
import type { VisualData } from "@/core/rows/visual-data";
import { dataFieldsOf } from "@/core/view/look";
import { toQuery } from "@/core/view/query";
import { toVisualData } from "@/core/view/visual-data";
import { useProject } from "./project-context";
import { useDraft, useResults } from "./results";

const NONE: Record<string, Value> = {};
const NO_FILTERS: Query["filters"] = [];

interface Known {
  depends: unknown[];
  data: VisualData;
}

/**
 * The data of a visual, and whether its answer is still under way: until that comes, the data are those of
 * before.
 */
export interface Pictured {
  data: VisualData;
  pending: boolean;
}

type Asked = ReturnType<typeof toQuery>;

/**
 * The query of a visual, made once for what it depends on: of two hundred visuals only the one that changed
 * makes its own anew.
 */
function useKnownQueries(
  document: Parameters<typeof toQuery>[1],
  filters: Query["filters"],
  inputs: Record<string, Value>,
): (visual: Visual) => Asked {
  return useMemo(() => {
    const known = new WeakMap<Visual, { query: Asked }>();
    return (visual) => {
      const before = known.get(visual);
      if (before) return before.query;
      const query = toQuery(visual, document, filters, inputs);
      known.set(visual, { query });
      return query;
    };
  }, [document, filters, inputs]);
}

/**
 * The data of several visuals, asked in one request; `filters` and `inputs` are those of a board. A visual's
 * data stays the same object until something it depends on changes (its dials are not among that), and stays
 * what it was while a new answer is under way. `proposed` is a measure that the document does not have yet.
 */
export function useVisualsData(
  visuals: Visual[],
  filters: Query["filters"] = NO_FILTERS,
  inputs: Record<string, Value> = NONE,
  proposed: Measure | null = null,
): Pictured[] {
  const { draft } = useDraft(proposed);
  const categories = useProject((s) => s.document.categories);
  const document = useMemo(() => ({ ...draft, categories }), [draft, categories]);
  const queryOf = useKnownQueries(document, filters, inputs);
  const queries = visuals.map(queryOf);
  const answers = useResults(queries, proposed);
  const known = useRef(new Map<string, Known>());
  return visuals.map((visual, i): Pictured => {
    const pending = queries[i] !== null && answers[i] === null;
    const before = known.current.get(visual.id);
    if (pending && before) return { data: before.data, pending };
    const depends = [
      ...dataFieldsOf(visual),
      draft.measures,
      draft.inputs,
      categories,
      answers[i],
      inputs,
      filters,
    ];
    if (
      before &&
      before.depends.length === depends.length &&
      before.depends.every((d, k) => d === depends[k])
    )
      return { data: before.data, pending };
    const data = toVisualData(visual, document, answers[i], { inputs, filters });
    if (!pending) known.current.set(visual.id, { depends, data });
    return { data, pending };
  });
}
