"use client";
import { useMemo, useReducer } from "react";
import type { Board, Project } from "@/core/project/schema";
import { boardReducer, filtersOf, inputsOf, UNTOUCHED } from "@/core/view/board-state";

/** The state of a board's controls: what the board begins with, changed by the reader. */
export function useBoardState(board: Board, project: Project) {
  const [state, act] = useReducer(boardReducer, UNTOUCHED);
  const filters = useMemo(() => filtersOf(board.controls, state), [board.controls, state]);
  const inputs = useMemo(() => inputsOf(project.inputs, state), [project.inputs, state]);
  return { state, act, filters, inputs };
}
export type BoardView = ReturnType<typeof useBoardState>;
