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
 * The data of a visual, and whether its answer is still under way: until that comes, the data are
 * those of before.
 */
export interface Pictured {
  data: VisualData;
  pending: boolean;
}

type Asked = ReturnType<typeof toQuery>;

/** A visual whose data are asked: `key` tells it from others, and `filters` are those it has from a board. */
export interface AskedVisual {
  key: string;
  visual: Visual;
  filters: Query["filters"];
}

/**
 * The query of a visual, made once for what it depends on: of two hundred visuals only the one that changed
 * makes its own anew.
 */
function useKnownQueries(
  document: Parameters<typeof toQuery>[1],
  inputs: Record<string, Value>,
): (asked: AskedVisual) => Asked {
  return useMemo(() => {
    const known = new WeakMap<Visual, Map<Query["filters"], Asked>>();
    return ({ visual, filters }) => {
      const of = known.get(visual) ?? new Map<Query["filters"], Asked>();
      known.set(visual, of);
      const before = of.get(filters);
      if (before !== undefined) return before;
      const query = toQuery(visual, document, filters, inputs);
      of.set(filters, query);
      return query;
    };
  }, [document, inputs]);
}

/**
 * The data of several visuals, asked in one request; `inputs` are those of a board. A visual's data stays the
 * same object until something it depends on changes (its dials are not among that), and stays what it was
 * while a new answer is under way. `proposed` is a measure that the document does not have yet.
 */
export function usePictured(
  asked: AskedVisual[],
  inputs: Record<string, Value> = NONE,
  proposed: Measure | null = null,
): Pictured[] {
  const { draft } = useDraft(proposed);
  const categories = useProject((s) => s.document.categories);
  const document = useMemo(() => ({ ...draft, categories }), [draft, categories]);
  const queryOf = useKnownQueries(document, inputs);
  const queries = asked.map(queryOf);
  const answers = useResults(queries, proposed);
  const known = useRef(new Map<string, Known>());
  return asked.map(({ key, visual, filters }, i): Pictured => {
    const pending = queries[i] !== null && answers[i] === null;
    const before = known.current.get(key);
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
    if (!pending) known.current.set(key, { depends, data });
    return { data, pending };
  });
}

/** The data of visuals as they are by themselves. */
export function useVisualsData(visuals: Visual[], proposed: Measure | null = null): Pictured[] {
  return usePictured(
    visuals.map((visual) => ({ key: visual.id, visual, filters: NO_FILTERS })),
    NONE,
    proposed,
  );
}
