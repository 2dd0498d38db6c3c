"use client";
import { useRef, useState } from "react";
import { toast } from "sonner";
import type { TableInfo } from "@/core/project/schema";
import { removeTable, renameTable, replaceRows } from "@/core/project/table-edits";
import { api } from "../shared/api";
import { CommitField } from "../shared/commit-field";
import { Choose, Labelled } from "../shared/labelled";
import { useProject, useProjectStore } from "../shared/project-context";

const SEPARATORS = [
  { value: ",", label: "comma" },
  { value: ";", label: "semicolon" },
  { value: "\t", label: "tab" },
  { value: "|", label: "bar" },
];
const ENCODINGS = [
  { value: "utf-8", label: "UTF-8" },
  { value: "utf-16le", label: "UTF-16, little end first" },
  { value: "utf-16be", label: "UTF-16, big end first" },
  { value: "windows-1252", label: "Windows-1252" },
];

/** A table's name and how its file is read; a change reads the file again, and undo takes it back. */
export function SourcePanel({ table, onReplaced }: { table: TableInfo; onReplaced: (id: string) => void }) {
  const apply = useProject((s) => s.apply);
  const projectId = useProject((s) => s.id);
  const tables = useProject((s) => s.document.tables);
  const allMeasures = useProject((s) => s.document.measures);
  const measures = allMeasures.filter((m) => m.table?.toLowerCase() === table.name.toLowerCase());
  const store = useProjectStore();
  const [busy, setBusy] = useState<number | null>(null);
  const cancel = useRef<AbortController | null>(null);
  const { source } = table;
  const reread = async (change: Partial<typeof source>) => {
    const { separator, encoding, header } = { ...source, ...change };
    setBusy(0);
    cancel.current = new AbortController();
    try {
      await store.getState().flush();
      const { table: fresh, notes } = await api.rereadTable(projectId, table.name, { separator, encoding, header }, setBusy, cancel.current.signal);
      apply(replaceRows(table.id, fresh));
      onReplaced(fresh.id);
      for (const note of notes.slice(0, 3)) toast(note);
    } catch (error) {
      if (!cancel.current.signal.aborted) toast.error(error instanceof Error ? error.message : String(error), { duration: 10_000 });
    }
    setBusy(null);
  };
  const demo = source.file.endsWith("(demo)");
  return (
    <section aria-label="Table" className="flex flex-col gap-2 p-4">
      <h2 className="section-title">Table</h2>
      <Labelled label="Name">
        {(id) => (
          <CommitField
            id={id}
            value={table.name}
            check={(text) =>
              !text.trim()
                ? "A table needs a name."
                : tables.some((t) => t.id !== table.id && t.name.toLowerCase() === text.trim().toLowerCase())
                  ? "Another table has this name."
                  : null
            }
            onCommit={(text) => apply(renameTable(table.id, text.trim()))}
          />
        )}
      </Labelled>
      <p className="truncate text-sm text-muted" title={source.file}>
        From {source.file}
      </p>
      {!demo && (
        <>
          <Labelled label="Separator">
            {(id) => <Choose id={id} value={source.separator} options={SEPARATORS} disabled={busy !== null} onChange={(separator) => void reread({ separator })} />}
          </Labelled>
          <Labelled label="Encoding">
            {(id) => <Choose id={id} value={source.encoding} options={ENCODINGS} disabled={busy !== null} onChange={(encoding) => void reread({ encoding })} />}
          </Labelled>
          <Labelled label="First row">
            {(id) => (
              <Choose
                id={id}
                value={String(source.header)}
                options={[
                  { value: "true", label: "holds the names" },
                  { value: "false", label: "is data" },
                ]}
                disabled={busy !== null}
                onChange={(header) => void reread({ header: header === "true" })}
              />
            )}
          </Labelled>
        </>
      )}
      {busy !== null && (
        <p role="status" className="text-sm text-muted">
          Reading again … {Math.round(busy * 100)} %{" "}
          <button type="button" className="underline" onClick={() => cancel.current?.abort()}>
            Cancel
          </button>
        </p>
      )}
      <button
        type="button"
        className="button mt-1 self-start"
        onClick={() => {
          if (measures.length > 0) {
            toast.error(
              `${table.name} is used by ${measures
                .map((m) => m.label)
                .slice(0, 4)
                .join(", ")}${measures.length > 4 ? ` and ${measures.length - 4} more` : ""}. Remove or change these measures first.`,
            );
            return;
          }
          apply(removeTable(table.id));
          toast(`${table.name} is removed.`, { action: { label: "Undo", onClick: () => store.getState().undo() } });
        }}
      >
        Remove the table
      </button>
    </section>
  );
}
