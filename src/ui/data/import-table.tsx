"use client";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { doubtText } from "@/core/data/doubt-text";
import { readingKey, readingLabel } from "@/core/data/reading-label";
import type { TableInfo } from "@/core/project/schema";

import { type Said, timeLeft } from "../shared/import-store";
import { useImports, useProject } from "../shared/project-context";

/**
 * Takes cells that are pasted on the page: cells copied from a spreadsheet come as lines with tabs, files
 * copied from a folder as files.
 */
export function usePaste(onFiles: (files: File[]) => void): void {
  const take = useRef(onFiles);
  useEffect(() => {
    take.current = onFiles;
  });
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const target = event.target as HTMLElement | null;
      if (target?.closest("input, textarea, select, [contenteditable=true]")) return;
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

/** How far the import has come: percent, rows, time left; and a way to end it. */
export function ImportProgress() {
  const running = useImports((s) => s.running);
  const waiting = useImports((s) => s.waiting.length);
  if (!running) return null;
  const percent = Math.floor(running.share * 100);
  const facts = [
    `${percent} %`,
    running.rows ? `${running.rows.toLocaleString("en").replaceAll(",", "\u2009")} rows` : "",
    timeLeft(running, Date.now()),
  ];
  return (
    <div role="status" className="text-sm">
      <div className="truncate text-muted">
        {running.file}
        {waiting > 0 && ` and ${waiting} more`}
      </div>
      <div className="mt-1 flex items-center gap-2">
        <progress
          aria-label={`Bringing in ${running.file}`}
          className="h-1.5 min-w-0 flex-1 accent-verdigris"
          value={running.share}
          max={1}
        />
        <button type="button" className="text-sm underline" onClick={() => running.cancel.abort()}>
          Cancel
        </button>
      </div>
      <div className="mt-0.5 text-xs text-muted">{facts.filter(Boolean).join(" · ")}</div>
    </div>
  );
}

const shownValue = (value: string | null) => (value === null ? "nothing" : value);

/**
 * What an import said of a table: what was mended, and for each doubt the other reading with its effect,
 * which one click takes.
 */
export function SaidOfImport({ table, said }: { table: TableInfo; said: Said }) {
  const apply = useProject((s) => s.apply);
  return (
    <ul className="flex flex-col gap-1.5">
      {said.notes.map((n) => (
        <li key={n}>{n}</li>
      ))}
      {said.doubts.map((doubt) => {
        const column = table.columns.find((c) => c.name === doubt.column);
        if (!column) return null;
        const key = `${doubt.column} ${doubt.why}`;
        // Once the column is read in another way, what was said of the first reading holds no more.
        if (readingKey(column.reading) !== readingKey(doubt.reading))
          return <li key={key}>{`“${doubt.column}” is read as ${readingLabel(column.reading)} now.`}</li>;
        return (
          <li key={key}>
            {doubtText(doubt.column, doubt.reading, doubt)}{" "}
            {doubt.cells.length > 0 && (
              <span className="text-muted">
                {doubt.cells
                  .map((c) => `“${c.text}” is ${shownValue(c.as)} now, ${shownValue(c.other)} then`)
                  .join("; ")}
                .{" "}
              </span>
            )}
            <button
              type="button"
              className="underline"
              onClick={() =>
                apply({
                  type: "change column",
                  table: table.id,
                  column: doubt.column,
                  change: { reading: doubt.other },
                })
              }
            >
              Read “{doubt.column}” the other way
            </button>
          </li>
        );
      })}
    </ul>
  );
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
