"use client";
import { useEffect, useRef } from "react";
import type { QueryInput } from "@/core/plan/query";
import { boardReducer } from "@/core/view/board-state";
import { Answers } from "@/present/answers";
import { BoardControls as Controls } from "@/present/board-controls";
import { useAsking } from "../shared/results";
import type { ReaderState } from "./reader-state";

/** The filters and inputs of a board while it is arranged: the very ones that its readers have. */
export function BoardControls({ reader: { state, change, presented } }: { reader: ReaderState }) {
  const ask = useAsking();
  const host = useRef<HTMLDivElement>(null);
  const now = useRef({ state, change });
  const show = useRef(() => {});
  useEffect(() => {
    now.current = { state, change };
  });
  useEffect(() => {
    const answers = new Answers((queries) => Promise.all(queries.map(ask)));
    const controls = new Controls(presented, {
      act: (action) => now.current.change(boardReducer(now.current.state, action), action),
      refresh: () => show.current(),
    });
    show.current = () => {
      const asked: QueryInput[] = [];
      const answer = (query: QueryInput) => {
        asked.push(query);
        return answers.of(query);
      };
      controls.show(now.current.state, presented, { answer, later: answer });
      answers.ask(asked, show.current);
    };
    host.current?.replaceChildren(...controls.elements);
    show.current();
    return () => answers.stop();
  }, [presented, ask]);
  useEffect(() => {
    now.current.state = state;
    show.current();
  }, [state]);
  return <div ref={host} className="board-controls" />;
}
