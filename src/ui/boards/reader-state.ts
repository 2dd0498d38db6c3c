"use client";
import { useCallback, useEffect, useMemo, useState } from "react";
import type { Board } from "@/core/project/schema";
import type { BoardAction, BoardState } from "@/core/view/board-state";
import { type ReadState, stateFrom } from "@/core/view/state-address";
import type { Presented } from "@/present/board-controls";
import { leaveHistory, wholeState, withState, writeHistory } from "@/present/history";
import { useProject } from "../shared/project-context";

/** What an address says besides the state: it names the board, whatever others there are. */
function searchOf({ board }: Presented): string {
  const params = new URLSearchParams(window.location.search);
  params.set("board", board.id);
  return `?${params}`;
}

/** What is left out now: the same object where that is nothing, as before, so that nothing is shown anew for it. */
const leftOut = (before: string[], now: string[]): string[] =>
  before.length === 0 && now.length === 0 ? before : now;

/**
 * What a reader has changed on a board: as the address says it, and with each change written there. Going
 * back takes it back; nothing of it changes the document.
 */
export function useReaderState(board: Board) {
  const project = useProject((s) => s.document);
  const fromAddress = () => stateFrom(new URLSearchParams(window.location.search), board, project);
  const [{ state, left }, hold] = useState<ReadState>(fromAddress);
  useEffect(() => {
    const back = () => {
      leaveHistory();
      const next = stateFrom(new URLSearchParams(window.location.search), board, project);
      hold(({ left: before }) => ({ state: next.state, left: leftOut(before, next.left) }));
    };
    window.addEventListener("popstate", back);
    return () => window.removeEventListener("popstate", back);
  }, [board, project]);
  useEffect(() => leaveHistory, []);
  const presented = useMemo(() => ({ board, project }), [board, project]);
  const change = useCallback(
    (next: BoardState, action: BoardAction, live = false) => {
      hold(({ left: before }) => ({
        state: next,
        left: action.type === "become" ? before : leftOut(before, []),
      }));
      const address = () => window.location.pathname + withState(searchOf(presented), next, presented);
      writeHistory(address, action, live);
    },
    [presented],
  );
  const link = (now: BoardState) => {
    const search = wholeState(searchOf(presented), now, presented);
    return search === null ? null : window.location.origin + window.location.pathname + search;
  };
  return { state, left, change, link, presented };
}
export type ReaderState = ReturnType<typeof useReaderState>;
