"use client";
import { useEffect, useRef } from "react";
import { boardReducer } from "@/core/view/board-state";
import { choicesIn, choicesQuery } from "@/core/view/column-choices";
import { Answers } from "@/present/answers";
import { BoardControls as Controls } from "@/present/board-controls";
import { useProject } from "../shared/project-context";
import { useAsking } from "../shared/results";
import type { ReaderState } from "./reader-state";

/** The filters and inputs of a board while it is arranged: the very ones that its readers have. */
export function BoardControls({ reader: { state, change, presented } }: { reader: ReaderState }) {
  const project = useProject((s) => s.document);
  const ask = useAsking();
  const host = useRef<HTMLDivElement>(null);
  const now = useRef({ state, change });
  const show = useRef(() => {});
  useEffect(() => {
    now.current = { state, change };
  });
  useEffect(() => {
    const answers = new Answers((queries) => Promise.all(queries.map(ask)));
    const controls = new Controls(presented, (action) =>
      now.current.change(boardReducer(now.current.state, action), action),
    );
    show.current = () => {
      const asked: ReturnType<typeof choicesQuery>[] = [];
      controls.show(now.current.state, project, (table, column, by) => {
        const query = choicesQuery(table, column, by);
        asked.push(query);
        return choicesIn(answers.of(query), by, project);
      });
      answers.ask(asked, show.current);
    };
    host.current?.replaceChildren(...controls.elements);
    show.current();
    return () => answers.stop();
  }, [presented, project, ask]);
  useEffect(() => {
    now.current.state = state;
    show.current();
  }, [state]);
  return <div ref={host} className="board-controls" />;
}
