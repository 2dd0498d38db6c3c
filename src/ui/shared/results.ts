"use client";
import { keepPreviousData, useQueries, useQuery } from "@tanstack/react-query";
import type { QueryInput, Result } from "@/core/engine/query";
import type { QueryAnswer } from "@/server/compute/protocol";
import type { Draft } from "@/server/results";
import { api } from "./api";
import { useProject } from "./project-context";

type Answer = Result | { error: string };
interface Pending {
  query: QueryInput;
  resolve: (answer: Answer) => void;
  reject: (error: unknown) => void;
}

const batches = new Map<Draft, { projectId: string; pending: Pending[] }>();

async function send(draft: Draft): Promise<void> {
  const batch = batches.get(draft);
  if (!batch) return;
  batches.delete(draft);
  try {
    const { results } = await api.results(
      batch.projectId,
      batch.pending.map((p) => p.query),
      draft,
    );
    for (const [i, p] of batch.pending.entries()) p.resolve(plain(results[i]));
  } catch (error) {
    for (const p of batch.pending) p.reject(error);
  }
}

const plain = (answer: QueryAnswer): Answer => ("error" in answer ? { error: answer.error.message } : answer);

/** Asks a query together with all others of the same moment, in one request. */
function ask(projectId: string, draft: Draft, query: QueryInput): Promise<Answer> {
  return new Promise((resolve, reject) => {
    let batch = batches.get(draft);
    if (!batch) {
      batch = { projectId, pending: [] };
      batches.set(draft, batch);
      queueMicrotask(() => void send(draft));
    }
    batch.pending.push({ query, resolve, reject });
  });
}

const drafts = new WeakMap<object, WeakMap<object, WeakMap<object, { draft: Draft; number: number }>>>();
let nextNumber = 1;

/** One draft object for each combination of tables, measures and inputs, so that an unchanged one is not asked again. */
function draftOf({ tables, measures, inputs }: Draft): { draft: Draft; number: number } {
  const byTables = drafts.get(tables) ?? new WeakMap();
  drafts.set(tables, byTables);
  const byMeasures = byTables.get(measures) ?? new WeakMap();
  byTables.set(measures, byMeasures);
  const known = byMeasures.get(inputs) ?? { draft: { tables, measures, inputs }, number: nextNumber++ };
  byMeasures.set(inputs, known);
  return known;
}

function useDraft() {
  const tables = useProject((s) => s.document.tables);
  const measures = useProject((s) => s.document.measures);
  const inputs = useProject((s) => s.document.inputs);
  return draftOf({ tables, measures, inputs });
}

/** The answer to one query over the document as it is now; null while there is none, or no query. */
export function useResult(query: QueryInput | null): { answer: Answer | null; fetching: boolean } {
  const projectId = useProject((s) => s.id);
  const { draft, number } = useDraft();
  const { data, error, isFetching } = useQuery({
    queryKey: ["result", projectId, number, query],
    queryFn: () => ask(projectId, draft, query as QueryInput),
    enabled: query !== null,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (query === null) return { answer: null, fetching: false };
  return { answer: error ? { error: error.message } : (data ?? null), fetching: isFetching };
}

/** The answers to several queries, in one request; each null while it has none. */
export function useResults(queries: (QueryInput | null)[]): (Answer | null)[] {
  const projectId = useProject((s) => s.id);
  const { draft, number } = useDraft();
  const found = useQueries({
    queries: queries.map((query, i) => ({
      queryKey: query ? ["result", projectId, number, query] : ["no result", i],
      queryFn: () => ask(projectId, draft, query as QueryInput),
      enabled: query !== null,
      placeholderData: keepPreviousData,
      staleTime: Number.POSITIVE_INFINITY,
    })),
  });
  return found.map(({ data, error }, i) => (queries[i] === null ? null : error ? { error: error.message } : (data ?? null)));
}
