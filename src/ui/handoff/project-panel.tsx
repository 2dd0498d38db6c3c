"use client";
import { FileJson } from "lucide-react";
import { api } from "../shared/api";
import { useProject } from "../shared/project-context";
import { useTaking } from "./taking";

/** The whole project as one file. */
export function ProjectPanel() {
  const id = useProject((s) => s.id);
  const { tables, measures, visuals, boards } = useProject((s) => s.document);
  const take = useTaking();
  const count = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;
  return (
    <>
      <h2 className="section-title">Project</h2>
      <p className="text-sm text-muted">
        Everything in one file: {count(tables.length, "table")} with all their rows and columns, hidden ones
        too, {count(measures.length, "measure")}, {count(visuals.length, "visual")} and{" "}
        {count(boards.length, "board")}. It is opened on the page of all projects.
      </p>
      <button
        type="button"
        className="button button-strong self-start"
        onClick={() => void take(api.fileAddress(id))}
      >
        <FileJson size={14} /> Take the project file
      </button>
    </>
  );
}
