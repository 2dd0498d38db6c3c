"use client";
import { useRef, useState } from "react";
import { listed } from "@/core/base/listed";
import { sameName } from "@/core/base/names";
import {
  ACCEPTED_FILES,
  ENCODINGS,
  type FileOption,
  fileFormat,
  MOST_ABOVE,
  SEPARATORS,
} from "@/core/data/file-formats";
import { breaksOf } from "@/core/project/breaks";
import { edited } from "@/core/project/edits";
import { LONGEST } from "@/core/project/most";
import { type Misfit, misfitsOf, withReadingsOf } from "@/core/project/replacement";
import type { TableInfo } from "@/core/project/schema";

import type { ImportedTable } from "@/server/import/import-table";
import { api } from "../shared/api";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import type { Said } from "../shared/import-store";
import { Labelled } from "../shared/labelled";
import { toast } from "../shared/notice";
import { useImports, useProject, useProjectStore } from "../shared/project-context";
import { useTellRemoved } from "../shared/tell-edit";
import { TableExport } from "./table-export";
import { TurnDialog } from "./turn-dialog";

const choices = (names: Record<string, string>) =>
  Object.entries(names).map(([value, label]) => ({ value, label }));
const HEADERS = [
  { value: "true", label: "names" },
  { value: "false", label: "data" },
];

type Work = (progress: (share: number) => void, signal: AbortSignal) => Promise<ImportedTable>;

/** Runs one piece of work on a table's rows at a time, with its progress, and lets it be cancelled. */
function useRowsWork() {
  const [busy, setBusy] = useState<{ what: string; share: number } | null>(null);
  const cancel = useRef<AbortController | null>(null);
  const run = async (what: string, work: Work): Promise<ImportedTable | null> => {
    setBusy({ what, share: 0 });
    const control = new AbortController();
    cancel.current = control;
    try {
      return await work((share) => setBusy({ what, share }), control.signal);
    } catch (error) {
      if (!control.signal.aborted)
        toast.error(error instanceof Error ? error.message : String(error), { duration: 12_000 });
      return null;
    } finally {
      setBusy(null);
    }
  };
  return { busy, run, cancel: () => cancel.current?.abort() };
}

function FileButton({
  label,
  disabled,
  onFile,
}: {
  label: string;
  disabled: boolean;
  onFile: (file: File) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className="button" disabled={disabled} onClick={() => input.current?.click()}>
        {label} …
      </button>
      <input
        ref={input}
        type="file"
        accept={ACCEPTED_FILES}
        aria-label={label}
        tabIndex={-1}
        className="sr-only"
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) onFile(file);
        }}
      />
    </>
  );
}

/** What no longer fits, before a newer file takes the place of the table's own. */
function Replacement({
  misfits,
  onReplace,
  onLeave,
}: {
  misfits: Misfit[];
  onReplace: () => void;
  onLeave: () => void;
}) {
  return (
    <div role="alert" className="rounded-sm bg-amber-tint p-2 text-sm">
      <p>With the new file, not everything fits:</p>
      <ul className="mt-1 flex flex-col gap-1">
        {misfits.map((m) => (
          <li key={m.column}>
            <strong>{m.column}</strong> {m.what}
            {m.uses.length > 0 && (
              <>
                ; used in {m.uses.slice(0, 3).join(", ")}
                {m.uses.length > 3 && ` and ${m.uses.length - 3} more`}
              </>
            )}
            .
          </li>
        ))}
      </ul>
      <div className="mt-2 flex gap-1.5">
        <button type="button" className="button" onClick={onReplace}>
          Replace it
        </button>
        <button type="button" className="button" onClick={onLeave}>
          Leave it
        </button>
      </div>
    </div>
  );
}

/**
 * A table's name, how its file is read, and what can take the place of its rows; undo takes any of it back.
 */
export function SourcePanel({ table, onReplaced }: { table: TableInfo; onReplaced: (id: string) => void }) {
  const apply = useProject((s) => s.apply);
  const projectId = useProject((s) => s.id);
  const tables = useProject((s) => s.document.tables);
  const store = useProjectStore();
  const tellRemoved = useTellRemoved();
  const { busy, run, cancel } = useRowsWork();
  const [fresh, setFresh] = useState<{ table: TableInfo; misfits: Misfit[] } | null>(null);
  const [isTurning, setIsTurning] = useState(false);
  const { source } = table;

  const say = useImports((s) => s.say);

  const take = (next: TableInfo, said: Said) => {
    apply({ type: "replace rows", id: table.id, fresh: next });
    onReplaced(next.id);
    say(next, said);
  };
  const can = (option: FileOption) => fromFile && fileFormat(source.format).options.includes(option);
  const reread = async (change: Partial<typeof source>) => {
    const wanted = { ...source, ...change };
    // Read as other cells, or from another part, what stands above the table is looked for anew.
    const forgotten: FileOption[] = "separator" in change || "sheet" in change ? ["above"] : [];
    await store.getState().flush();
    const options = Object.fromEntries(
      fileFormat(wanted.format).options.flatMap((option) =>
        wanted[option] === "" || forgotten.includes(option) ? [] : [[option, wanted[option]]],
      ),
    );
    const read = await run("Reading again", (progress, signal) =>
      api.rereadTable(projectId, table.name, options, progress, signal),
    );
    if (read) take(read.table, read);
  };
  const replace = async (file: File) => {
    const read = await run("Reading the new file", (progress, signal) =>
      api.importTable(projectId, file, progress, signal),
    );
    if (!read) return;
    const misfits = misfitsOf(store.getState().document, table, read.table);
    if (misfits.length === 0)
      take(withReadingsOf(table, read.table), {
        notes: [`${table.name} has ${read.table.rows.toLocaleString("en")} rows now.`],
        doubts: [],
      });
    else setFresh({ table: read.table, misfits });
  };
  const append = async (file: File) => {
    await store.getState().flush();
    const read = await run("Appending", (progress, signal) =>
      api.appendRows(projectId, table.name, file, progress, signal),
    );
    if (read) take(read.table, read);
  };
  const remove = () => {
    const { document } = store.getState();
    const names = breaksOf(document, edited(document, { type: "remove table", id: table.id }));
    if (names.length > 0) {
      toast.error(`${table.name} is used by ${listed(names)}. Remove or change what uses it first.`);
      return;
    }
    apply({ type: "remove table", id: table.id });
    tellRemoved(`${table.name} is removed.`);
  };
  const idle = busy === null;
  const fromFile = !source.file.endsWith("(demo)");
  return (
    <section aria-label="Table" className="flex flex-col gap-2 p-4">
      <h2 className="section-title">Table</h2>
      <Labelled label="Name">
        {(id) => (
          <CommitField
            id={id}
            value={table.name}
            longest={LONGEST.name}
            check={(text) =>
              !text.trim()
                ? "A table needs a name."
                : tables.some((t) => t.id !== table.id && sameName(t.name, text.trim()))
                  ? "Another table has this name."
                  : null
            }
            onCommit={(text) => apply({ type: "rename table", id: table.id, name: text.trim() })}
          />
        )}
      </Labelled>
      <p className="truncate text-sm text-muted" title={source.file}>
        From {source.file}
      </p>
      {can("separator") && (
        <>
          <Labelled label="Separator">
            {(id) => (
              <Choose
                id={id}
                value={source.separator}
                options={choices(SEPARATORS)}
                disabled={!idle}
                onChange={(separator) => void reread({ separator })}
              />
            )}
          </Labelled>
          <Labelled label="Encoding">
            {(id) => (
              <Choose
                id={id}
                value={source.encoding}
                options={choices(ENCODINGS)}
                disabled={!idle}
                onChange={(encoding) => void reread({ encoding })}
              />
            )}
          </Labelled>
        </>
      )}
      {can("sheet") && source.sheets.length > 1 && (
        <Labelled label={fileFormat(source.format).sheetWord ?? "Sheet"}>
          {(id) => (
            <Choose
              id={id}
              value={source.sheet}
              options={source.sheets.map((s) => ({ value: s, label: s }))}
              disabled={!idle}
              onChange={(sheet) => void reread({ sheet })}
            />
          )}
        </Labelled>
      )}
      {can("above") && (
        <Labelled label="Left out above">
          {(id) => (
            <CommitField
              id={id}
              value={String(source.above)}
              check={(text) =>
                !/^\d+$/.test(text.trim()) || Number(text) > MOST_ABOVE
                  ? `Write how many rows are left out above the table: 0 to ${MOST_ABOVE}.`
                  : idle
                    ? null
                    : "The file is being read. Wait until that is done."
              }
              onCommit={(text) => void reread({ above: Number(text) })}
            />
          )}
        </Labelled>
      )}
      {can("header") && (
        <Labelled label="First row">
          {(id) => (
            <Choose
              id={id}
              value={String(source.header)}
              options={HEADERS}
              disabled={!idle}
              onChange={(header) => void reread({ header: header === "true" })}
            />
          )}
        </Labelled>
      )}
      {busy && (
        <p role="status" className="text-sm text-muted">
          {busy.what} … {Math.round(busy.share * 100)} %{" "}
          <button type="button" className="underline" onClick={cancel}>
            Cancel
          </button>
        </p>
      )}
      {fresh && (
        <Replacement
          misfits={fresh.misfits}
          onLeave={() => setFresh(null)}
          onReplace={() => {
            take(withReadingsOf(table, fresh.table), { notes: [], doubts: [] });
            setFresh(null);
          }}
        />
      )}
      <div className="mt-1 flex flex-wrap gap-1.5">
        {fromFile && (
          <button type="button" className="button" disabled={!idle} onClick={() => void reread({})}>
            Read the file again
          </button>
        )}
        <FileButton label="Replace the file" disabled={!idle} onFile={(file) => void replace(file)} />
        <FileButton label="Append rows" disabled={!idle} onFile={(file) => void append(file)} />
      </div>
      {table.columns.length > 1 && (
        <button
          type="button"
          className="button self-start"
          disabled={!idle}
          onClick={() => setIsTurning(true)}
        >
          Turn columns into rows …
        </button>
      )}
      {isTurning && <TurnDialog table={table} onClose={() => setIsTurning(false)} />}
      <TableExport table={table} />
      <button type="button" className="button mt-1 self-start" onClick={remove}>
        Remove the table
      </button>
    </section>
  );
}
