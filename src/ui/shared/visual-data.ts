"use client";
import { useRef } from "react";
import type { Query } from "@/core/engine/query";
import type { Value } from "@/core/formula/value";
import { toQuery, toVisualData, type VisualData } from "@/core/kinds/visual-data";
import type { Visual } from "@/core/project/schema";
import { useDraft, useResults } from "./results";

const NONE: Record<string, Value> = {};
const NO_FILTERS: Query["filters"] = [];

interface Known {
  depends: unknown[];
  data: VisualData;
}

/**
 * The data of several visuals, asked in one request; `filters` and `inputs` are those of a board. A visual's data stays the
 * same object until something it depends on changes: its dials are not among that.
 */
export function useVisualsData(visuals: Visual[], filters: Query["filters"] = NO_FILTERS, inputs: Record<string, Value> = NONE): VisualData[] {
  const { draft: document } = useDraft();
  const answers = useResults(visuals.map((v) => toQuery(v, document, filters, inputs)));
  const known = useRef(new Map<string, Known>());
  return visuals.map((visual, i) => {
    const { dials: _dials, size: _size, finish: _finish, categoryColours: _colours, pictures: _pictures, ...sentence } = visual;
    const depends = [...Object.values(sentence), document.measures, document.inputs, answers[i], inputs];
    const before = known.current.get(visual.id);
    if (before && before.depends.length === depends.length && before.depends.every((d, k) => d === depends[k])) return before.data;
    const data = toVisualData(visual, document, answers[i], inputs);
    known.current.set(visual.id, { depends, data });
    return data;
  });
}
