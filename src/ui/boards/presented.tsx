"use client";
import { useEffect, useRef } from "react";
import type { Board } from "@/core/project/schema";
import type { BoardAction, BoardState } from "@/core/view/board-state";
import { Answers } from "@/present/answers";
import { cellsOfServer } from "@/present/cells-source";
import { Preparation } from "@/present/preparing";
import { PresentedBoard, type PresentOptions } from "@/present/present";
import { rowsOfServer } from "@/present/rows-source";
import type { Walking } from "@/present/walking";
import { startPainter } from "@/render/painter/painter";
import { useProject } from "../shared/project-context";
import { useAsking, useDraft } from "../shared/results";
import { useTheme } from "../shared/theme";

const wantsMotion = () => !window.matchMedia("(prefers-reduced-motion: reduce)").matches;

const EMPTY = "This board is empty. Press Arrange to put visuals, filters and inputs on it.";

interface Props {
  board: Board;
  /** What the reader has changed, and what of the address was left out. */
  state: BoardState;
  left: string[];
  onState: (state: BoardState, action: BoardAction, live: boolean) => void;
  link: (state: BoardState) => string | null;
  /** The walk through boards, where the board is presented. */
  walking?: Walking;
  onClose?: () => void;
}

/** A board as it is looked at and presented: by what presents it outside of the application too. */
export function Presented({ board, state, left, onState, link, walking, onClose }: Props) {
  const projectId = useProject((s) => s.id);
  const project = useProject((s) => s.document);
  const theme = useTheme((s) => s.theme);
  const ask = useAsking();
  const { draft } = useDraft();
  const host = useRef<HTMLDivElement>(null);
  const shown = useRef<PresentedBoard | null>(null);
  const told = useRef({ onState, link, walking, onClose });
  // It begins with the state, so that nothing is asked for without it; later ones it is told.
  const begun = useRef(state);
  const closes = onClose !== undefined;
  // As text, so that only what of it changes shows the board anew.
  const walk = walking ? JSON.stringify({ boards: walking.boards, walk: walking.walk }) : null;
  useEffect(() => {
    told.current = { onState, link, walking, onClose };
  });
  useEffect(() => {
    if (!host.current) return;
    const presented = { project, board };
    const server = `/api/projects/${encodeURIComponent(projectId)}`;
    const answers = new Answers((queries) => Promise.all(queries.map(ask)));
    const preparation = new Preparation(presented, cellsOfServer(server, draft), answers);
    const options: PresentOptions = {
      answers,
      start: startPainter,
      theme,
      wantsMotion,
      left,
      onState: (now, action, live) => {
        preparation.acted(action);
        told.current.onState(now, action, live);
      },
      onSettled: preparation.settled,
      link: (now) => told.current.link(now),
      onRows: (asked, of) => {
        const source = rowsOfServer(server, draft);
        return import("@/present/rows-sheet").then((m) => m.openRowsSheet(asked, of, source));
      },
      ...(walk
        ? {
            walking: {
              ...(JSON.parse(walk) as Pick<Walking, "boards" | "walk">),
              onWalk: (next) => told.current.walking?.onWalk(next),
              onGo: (to) => told.current.walking?.onGo(to),
            },
          }
        : {}),
      ...(closes ? { onClose: () => told.current.onClose?.() } : { whenEmpty: EMPTY }),
    };
    if (shown.current) shown.current.update(presented, options);
    else shown.current = new PresentedBoard(host.current, presented, { ...options, state: begun.current });
    return () => preparation.stop();
  }, [project, board, theme, ask, projectId, draft, left, closes, walk]);
  useEffect(() => shown.current?.become(state), [state]);
  useEffect(
    () => () => {
      shown.current?.dispose();
      shown.current = null;
    },
    [],
  );
  return <div ref={host} className="presented" />;
}
