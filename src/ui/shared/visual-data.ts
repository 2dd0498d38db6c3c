"use client";
import { useMemo } from "react";
import type { Query } from "@/core/engine/query";
import type { Value } from "@/core/formula/value";
import { toQuery, toVisualData, type VisualData } from "@/core/kinds/visual-data";
import type { Visual } from "@/core/project/schema";
import { useProject } from "./project-context";
import { useResults } from "./results";

const NONE: Record<string, Value> = {};
const NO_FILTERS: Query["filters"] = [];

/** The data of several visuals, asked in one request; `filters` and `inputs` are those of a board. */
export function useVisualsData(visuals: Visual[], filters: Query["filters"] = NO_FILTERS, inputs: Record<string, Value> = NONE): VisualData[] {
  const document = useProject((s) => s.document);
  const queries = visuals.map((v) => toQuery(v, document, filters, inputs));
  const answers = useResults(queries);
  // The parts of the document that the data depends on; dials and boards are not among them.
  const { measures, inputs: declared } = document;
  // biome-ignore lint/correctness/useExhaustiveDependencies: answers is a new array each time, its items are not
  return useMemo(() => visuals.map((v, i) => toVisualData(v, { ...document, measures, inputs: declared }, answers[i], inputs)), [visuals, measures, declared, inputs, ...answers]);
}
