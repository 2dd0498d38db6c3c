"use client";
import { usePathname, useSearchParams } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { toast, withdrawNotices } from "./notice";
import { useImports, useProject } from "./project-context";
import { goWithin } from "./step-link";

/**
 * Takes cells that are pasted on the page: cells copied from a spreadsheet come as lines with tabs, files
 * copied from a folder as files.
 */
function usePaste(onFiles: (files: File[]) => void): void {
  const take = useRef(onFiles);
  useEffect(() => {
    take.current = onFiles;
  });
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const target = event.target as HTMLElement | null;
      // Cells that are typed in take what is pasted there.
      if (event.defaultPrevented || target?.closest("input, textarea, select, [contenteditable=true]"))
        return;
      const files = [...(event.clipboardData?.files ?? [])];
      const text = event.clipboardData?.getData("text/plain") ?? "";
      if (files.length === 0 && !/[\t\n]/.test(text.trim())) return;
      event.preventDefault();
      take.current(
        files.length ? files : [new File([text], "pasted.tsv", { type: "text/tab-separated-values" })],
      );
    };
    window.addEventListener("paste", paste);
    return () => window.removeEventListener("paste", paste);
  }, []);
}

/** Lights up the page while files hang over it, and takes them when they are dropped. */
function DropZone({ onFiles }: { onFiles: (files: File[]) => void }) {
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
      {over && (
        <div className="pointer-events-none fixed inset-3 z-50 grid place-items-center rounded-lg border-2 border-dashed border-verdigris bg-tint/90 text-lg font-semibold text-verdigris-deep">
          Drop the file to bring it in
        </div>
      )}
    </>
  );
}

/** The address of the page within the application. */
function useAddress(): string {
  const path = usePathname();
  const query = useSearchParams().toString();
  return query ? `${path}?${query}` : path;
}

/** Takes away notices that lead to where somebody is, or tell what was taken back. */
function useDoneNotices(): void {
  const here = useAddress();
  const steps = useProject((s) => s.past);
  useEffect(
    () =>
      void withdrawNotices(
        here,
        steps.map((step) => step.changes),
      ),
    [here, steps],
  );
}

/** Says what came in, and offers to show it; on steps that show no tables also why something did not. */
function useArrivals(isData: boolean): void {
  const id = useProject((s) => s.id);
  const tables = useProject((s) => s.document.tables);
  const here = useAddress();
  const { arrived, shown, problems, dismissProblems, said } = useImports((s) => s);
  useEffect(() => {
    const table = tables.find((t) => t.id === arrived);
    if (!table) return;
    shown();
    const leadsTo = `/p/${id}/data?table=${table.id}`;
    // The first table is shown as soon as it is there.
    if (isData && (tables.length === 1 || here === leadsTo)) return;
    const doubts = said.get(table.id)?.doubts.length ?? 0;
    const look = doubts ? ` ${doubts === 1 ? "One thing is" : `${doubts} things are`} to be looked at.` : "";
    toast(
      `${table.name} is here: ${table.rows.toLocaleString("en")} ${table.rows === 1 ? "row" : "rows"}.${look}`,
      {
        duration: 8000,
        leadsTo,
        action: { label: "Show it", onClick: () => goWithin(leadsTo) },
      },
    );
  }, [isData, arrived, tables, said, shown, id, here]);
  useEffect(() => {
    if (isData || problems.length === 0) return;
    for (const problem of problems) toast.error(problem, { duration: 12_000 });
    dismissProblems();
  }, [isData, problems, dismissProblems]);
}

/** Takes tables that are dropped or pasted anywhere in a project. */
export function TakeFiles() {
  const start = useImports((s) => s.start);
  useDoneNotices();
  useArrivals(usePathname().split("/")[3] === "data");
  usePaste(start);
  return <DropZone onFiles={start} />;
}
