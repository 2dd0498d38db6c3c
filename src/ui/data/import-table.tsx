"use client";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { addTable } from "@/core/project/table-edits";
import { api } from "../shared/api";
import { toast } from "../shared/notice";
import { useProject, useProjectStore } from "../shared/project-context";

/** What the file dialog offers. */
export const FORMATS = ".csv,.tsv,.txt,.json,.ndjson,.jsonl,.xlsx,.parquet,text/csv,text/tab-separated-values,application/json";

interface Running {
  file: string;
  progress: number;
  cancel: AbortController;
}

/** Brings files in, one after the other, from a dialog or a drop anywhere on the page; shows progress and can be cancelled. */
export function useImport(onTable: (id: string, notes: string[]) => void): {
  running: Running | null;
  start: (files: File[]) => void;
  problem: string | null;
  dismiss: () => void;
} {
  const projectId = useProject((s) => s.id);
  const store = useProjectStore();
  const [running, setRunning] = useState<Running | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const start = async (files: File[]) => {
    if (running) return void toast("One file at a time: wait for the import to end, or cancel it.");
    setProblem(null);
    for (const file of files) {
      const cancel = new AbortController();
      setRunning({ file: file.name, progress: 0, cancel });
      try {
        const { table, notes } = await api.importTable(projectId, file, (progress) => setRunning({ file: file.name, progress, cancel }), cancel.signal);
        store.getState().apply(addTable(table));
        onTable(table.id, notes);
      } catch (error) {
        if (!cancel.signal.aborted) setProblem(`${file.name}: ${error instanceof Error ? error.message : String(error)}`);
        break;
      } finally {
        setRunning(null);
      }
    }
  };
  const begin = useRef(start);
  useEffect(() => {
    begin.current = start;
  });
  useEffect(() => {
    /** Cells copied from a spreadsheet come as lines with tabs; files copied from a folder come as files. */
    const paste = (event: ClipboardEvent) => {
      const target = event.target as HTMLElement | null;
      if (target?.closest("input, textarea, select, [contenteditable=true]")) return;
      const files = [...(event.clipboardData?.files ?? [])];
      const text = event.clipboardData?.getData("text/plain") ?? "";
      if (files.length === 0 && !/[\t\n]/.test(text.trim())) return;
      event.preventDefault();
      void begin.current(files.length ? files : [new File([text], "pasted.tsv", { type: "text/tab-separated-values" })]);
    };
    window.addEventListener("paste", paste);
    return () => window.removeEventListener("paste", paste);
  }, []);
  return { running, start, problem, dismiss: () => setProblem(null) };
}

/** Lights up the page while files hang over it, and takes them when they are dropped. */
export function DropZone({ onFiles, children }: { onFiles: (files: File[]) => void; children: ReactNode }) {
  const [over, setOver] = useState(false);
  const take = useRef(onFiles);
  useEffect(() => {
    take.current = onFiles;
  });
  useEffect(() => {
    const drag = (event: DragEvent) => {
      if (!event.dataTransfer?.types.includes("Files")) return;
      event.preventDefault();
      setOver(event.type === "dragover");
    };
    const drop = (event: DragEvent) => {
      if (!event.dataTransfer?.types.includes("Files")) return;
      event.preventDefault();
      setOver(false);
      take.current([...event.dataTransfer.files]);
    };
    window.addEventListener("dragover", drag);
    window.addEventListener("dragleave", drag);
    window.addEventListener("drop", drop);
    return () => {
      window.removeEventListener("dragover", drag);
      window.removeEventListener("dragleave", drag);
      window.removeEventListener("drop", drop);
    };
  }, []);
  return (
    <>
      {children}
      {over && (
        <div className="pointer-events-none fixed inset-3 z-50 grid place-items-center rounded-lg border-2 border-dashed border-verdigris bg-tint/90 text-lg font-semibold text-verdigris-deep">
          Drop the file to bring it in
        </div>
      )}
    </>
  );
}
