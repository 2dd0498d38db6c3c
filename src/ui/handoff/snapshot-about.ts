"use client";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { Touched } from "@/core/engine/cells/plan-cells";
import { api } from "../shared/api";
import { useProject, useProjectStore } from "../shared/project-context";
import type { What } from "./what";

/** What travels when something is taken out alive. */
export interface Travelling {
  travel: "answers" | "rows";
  theme: "light" | "night" | "auto";
  /** The columns by which a page filters visuals; a board brings its own. */
  by: Touched[];
}

/** The address of a snapshot, as the server's interface has it. */
export const snapshotQuery = (what: What, { travel, theme, by }: Travelling): Record<string, string> => ({
  ...(what.board
    ? { board: what.board.id }
    : { visuals: what.visuals.map((v) => v.id).join(","), by: JSON.stringify(by) }),
  travel,
  theme,
});

/** What a snapshot would hold, asked once all is saved. */
export function useAbout(what: What, travelling: Travelling) {
  const id = useProject((s) => s.id);
  const revision = useProject((s) => s.revision);
  const store = useProjectStore();
  const query = snapshotQuery(what, travelling);
  return useQuery({
    // What is not saved yet is saved first; its revision is another, and it is asked again.
    queryKey: ["snapshot", id, query, revision],
    queryFn: async ({ signal }) => {
      await store.getState().flush();
      return (await api.snapshotAbout(id, query, signal)).about;
    },
    placeholderData: keepPreviousData,
  });
}
