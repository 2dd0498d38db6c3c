"use client";
import { useEffect, useMemo } from "react";
import type { Filter } from "@/core/plan/query";
import type { Board, Visual } from "@/core/project/schema";
import { touchedBy } from "@/core/view/board-state";
import { toQuery } from "@/core/view/query";
import { api } from "../shared/api";
import { useProject } from "../shared/project-context";
import { useDraft } from "../shared/results";
import type { BoardView } from "./board-state";

/** So long nothing changes before cells are gathered for how a board is now, in milliseconds. */
const SETTLED = 800;

/**
 * Lets the server gather, while nobody waits for anything, what the visuals of a board that is looked at may
 * be asked by its controls. `isIdle` says that all of them stand.
 */
export function useBoardCells(
  board: Board,
  visuals: Visual[],
  { filters, inputs }: BoardView,
  isIdle: boolean,
) {
  const projectId = useProject((s) => s.id);
  const categories = useProject((s) => s.document.categories);
  const { draft } = useDraft();
  const queries = useMemo(
    () => visuals.flatMap((v) => toQuery(v, { ...draft, categories }, [], inputs) ?? []),
    [visuals, draft, categories, inputs],
  );
  const touched = useMemo(() => touchedBy(board.controls), [board.controls]);
  useEffect(() => {
    if (!isIdle || queries.length === 0 || touched.length === 0) return;
    const asked: { board: string; queries: typeof queries; touched: typeof touched; now: Filter[] } = {
      board: board.id,
      queries,
      touched,
      now: filters,
    };
    const timer = setTimeout(() => {
      // Without cells every answer is a scan, as it would be anyway.
      api.prepare(projectId, asked, draft).catch(() => {});
    }, SETTLED);
    return () => clearTimeout(timer);
  }, [isIdle, board.id, queries, touched, filters, projectId, draft]);
}
