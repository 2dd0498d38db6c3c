"use client";
import { keepPreviousData, useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo } from "react";
import type { QueryInput, Result } from "@/core/plan/query";
import type { Measure } from "@/core/project/schema";
import type { QueryAnswer } from "@/server/compute/protocol";
import type { Draft } from "@/server/results";
import { ApiError, api } from "./api";
import { useProject } from "./project-context";

export type Answer = Result | { error: string };
interface Pending {
  query: QueryInput;
  signal: AbortSignal;
  resolve: (answer: Answer) => void;
  reject: (error: unknown) => void;
}

/** The most queries that the server answers at once. */
const MOST_TOGETHER = 200;

const batches = new Map<Draft, { projectId: string; pending: Pending[] }>();

function send(draft: Draft): void {
  const batch = batches.get(draft);
  if (!batch) return;
  batches.delete(draft);
  for (let from = 0; from < batch.pending.length; from += MOST_TOGETHER)
    void sendPart(batch.projectId, draft, batch.pending.slice(from, from + MOST_TOGETHER));
}

/** Asks some queries in one request, which is cancelled when nobody waits for any of them. */
async function sendPart(projectId: string, draft: Draft, pending: Pending[]): Promise<void> {
  const cancel = new AbortController();
  const look = () => {
    if (pending.every((p) => p.signal.aborted)) cancel.abort();
  };
  for (const p of pending) p.signal.addEventListener("abort", look, { once: true });
  look();
  try {
    const { results } = await api.results(
      projectId,
      pending.map((p) => p.query),
      draft,
      cancel.signal,
    );
    for (const [i, p] of pending.entries()) p.resolve(plain(results[i]));
  } catch (error) {
    // A fault of the server's own is told where it happened: each query is asked once more, alone.
    if (error instanceof ApiError && error.status === 500 && pending.length > 1)
      for (const p of pending) void sendPart(projectId, draft, [p]);
    else for (const p of pending) p.reject(error);
  } finally {
    for (const p of pending) p.signal.removeEventListener("abort", look);
  }
}

const plain = (answer: QueryAnswer): Answer => ("error" in answer ? { error: answer.error.message } : answer);

/** Asks a query together with all others of the same moment. */
function ask(projectId: string, draft: Draft, query: QueryInput, signal: AbortSignal): Promise<Answer> {
  return new Promise((resolve, reject) => {
    let batch = batches.get(draft);
    if (!batch) {
      batch = { projectId, pending: [] };
      batches.set(draft, batch);
      queueMicrotask(() => send(draft));
    }
    batch.pending.push({ query, signal, resolve, reject });
  });
}

/** The latest drafts, the newest last; a few are enough, since editing goes from one to the next. */
const drafts: { draft: Draft; number: number }[] = [];
const KEPT_DRAFTS = 50;
let nextNumber = 1;

/** One draft object for each state of what queries depend on, so that an unchanged one is not asked again. */
function draftOf(now: Draft): { draft: Draft; number: number } {
  const known = drafts.findLast(
    ({ draft: d }) =>
      d.tables === now.tables &&
      d.links === now.links &&
      d.measures === now.measures &&
      d.inputs === now.inputs &&
      d.conventions === now.conventions,
  );
  if (known) return known;
  const made = { draft: now, number: nextNumber++ };
  drafts.push(made);
  if (drafts.length > KEPT_DRAFTS) drafts.shift();
  return made;
}

/** What queries and formulas depend on in the open document; `proposed` is a measure that it does not have yet. */
export function useDraft(proposed: Measure | null = null): { draft: Draft; number: number } {
  const tables = useProject((s) => s.document.tables);
  const links = useProject((s) => s.document.links);
  const own = useProject((s) => s.document.measures);
  const measures = useMemo(() => (proposed ? [...own, proposed] : own), [own, proposed]);
  const inputs = useProject((s) => s.document.inputs);
  const conventions = useProject((s) => s.document.conventions);
  return draftOf({ tables, links, measures, inputs, conventions });
}

/**
 * How one query is asked. While it is tried again after the server was away, it counts as waiting and
 * not as failed.
 */
function queryOptions(
  projectId: string,
  { draft, number }: { draft: Draft; number: number },
  query: QueryInput | null,
  i = 0,
) {
  return {
    queryKey: query ? ["result", projectId, number, query] : ["no result", i],
    queryFn: ({ signal }: { signal: AbortSignal }) => ask(projectId, draft, query as QueryInput, signal),
    enabled: query !== null,
    staleTime: Number.POSITIVE_INFINITY,
  };
}

/** The answer to one query over the document as it is now; null while there is none, or no query. */
export function useResult(query: QueryInput | null): { answer: Answer | null; fetching: boolean } {
  const projectId = useProject((s) => s.id);
  const draft = useDraft();
  const { data, error, isFetching } = useQuery({
    ...queryOptions(projectId, draft, query),
    placeholderData: keepPreviousData,
  });
  if (query === null) return { answer: null, fetching: false };
  return {
    answer: error ? { error: error.message } : ((data as Answer | undefined) ?? null),
    fetching: isFetching,
  };
}

/** A way to ask one query over the document as it is now. */
export function useAsking(): (query: QueryInput) => Promise<Answer> {
  const client = useQueryClient();
  const projectId = useProject((s) => s.id);
  const draft = useDraft();
  return useCallback(
    (query) => client.fetchQuery({ ...queryOptions(projectId, draft, query), retry: false }),
    [client, projectId, draft],
  );
}

/** The answers to several queries, in as few requests as can be; each null while it has none. */
export function useResults(
  queries: (QueryInput | null)[],
  proposed: Measure | null = null,
): (Answer | null)[] {
  const projectId = useProject((s) => s.id);
  const draft = useDraft(proposed);
  const found = useQueries({ queries: queries.map((query, i) => queryOptions(projectId, draft, query, i)) });
  return found.map(({ data, error }, i) =>
    queries[i] === null ? null : error ? { error: error.message } : ((data as Answer | undefined) ?? null),
  );
}
