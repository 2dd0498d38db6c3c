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

/** The latest drafts, the newest last; a few are enough, since editing goes from one to the next. */
const drafts: { draft: Draft; number: number }[] = [];
const KEPT_DRAFTS = 50;
let nextNumber = 1;

/** One draft object for each state of what queries depend on, so that an unchanged one is not asked again. */
function draftOf(now: Draft): { draft: Draft; number: number } {
  const known = drafts.findLast(({ draft: d }) => d.tables === now.tables && d.links === now.links && d.measures === now.measures && d.inputs === now.inputs);
  if (known) return known;
  const made = { draft: now, number: nextNumber++ };
  drafts.push(made);
  if (drafts.length > KEPT_DRAFTS) drafts.shift();
  return made;
}

/** What queries and formulas depend on in the open document. */
export function useDraft(): { draft: Draft; number: number } {
  const tables = useProject((s) => s.document.tables);
  const links = useProject((s) => s.document.links);
  const measures = useProject((s) => s.document.measures);
  const inputs = useProject((s) => s.document.inputs);
  return draftOf({ tables, links, measures, inputs });
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
