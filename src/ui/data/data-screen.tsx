"use client";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Search, Upload } from "lucide-react";
import { useDeferredValue, useRef, useState } from "react";
import type { TableInfo } from "@/core/project/schema";
import { api } from "../shared/api";
import { useProject, useProjectStore } from "../shared/project-context";
import { useSelected } from "../shared/selected";
import { ColumnPanel } from "./column-panel";
import { DropZone, useImport } from "./import-table";
import { readingKey } from "./readings";
import { SourcePanel } from "./source-panel";
import { type RowOrder, TableRows } from "./table-rows";

function useProfile(table: TableInfo | null) {
  const store = useProjectStore();
  const { data } = useQuery({
    queryKey: ["profile", table?.id, table?.name, table?.columns.map((c) => [c.name, readingKey(c.reading)])],
    queryFn: async () => {
      await store.getState().flush();
      return api.profile(store.getState().id, table?.name ?? "");
    },
    enabled: table !== null,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return data && data.table.id === table?.id ? data.profile : null;
}

/** The first step: the tables, their rows, and what the import guessed about them. */
export function DataScreen() {
  const tables = useProject((s) => s.document.tables);
  const [table, choose] = useSelected("table", tables);
  const [notes, setNotes] = useState<{ table: string; notes: string[] } | null>(null);
  const [column, setColumn] = useState<string | null>(null);
  const [order, setOrder] = useState<RowOrder | null>(null);
  const [find, setFind] = useState("");
  const wanted = useDeferredValue(find);
  const file = useRef<HTMLInputElement>(null);
  const profile = useProfile(table);
  const { running, start, problem, dismiss } = useImport((id, made) => {
    choose(id);
    setNotes(made.length ? { table: id, notes: made } : null);
    setColumn(null);
  });
  const open = (id: string) => {
    choose(id);
    setColumn(null);
    setOrder(null);
    setFind("");
  };
  const chosen = table?.columns.find((c) => c.name === column) ?? table?.columns[0];
  const sortable = order && table?.columns.some((c) => c.name === order.column) ? order : null;
  return (
    <DropZone onFiles={start}>
      <div className="grid h-full grid-cols-[200px_minmax(0,1fr)_272px] max-lg:grid-cols-[168px_minmax(0,1fr)_240px]">
        <aside className="flex min-h-0 flex-col border-r border-rule">
          <div className="p-3">
            <button type="button" className="button button-strong w-full" disabled={running !== null} onClick={() => file.current?.click()}>
              <Upload size={14} /> Bring in a file
            </button>
            <input
              ref={file}
              type="file"
              accept=".csv,.tsv,.txt,text/csv,text/tab-separated-values"
              multiple
              aria-label="CSV or TSV file"
              tabIndex={-1}
              className="sr-only"
              onChange={(e) => {
                const files = [...(e.target.files ?? [])];
                e.target.value = "";
                if (files.length) start(files);
              }}
            />
            {running && (
              <div role="status" className="mt-3 text-sm">
                <div className="truncate text-muted">{running.file}</div>
                <div className="mt-1 flex items-center gap-2">
                  <progress aria-label={`Bringing in ${running.file}`} className="h-1.5 flex-1 accent-verdigris" value={running.progress} max={1} />
                  <button type="button" className="text-sm underline" onClick={() => running.cancel.abort()}>
                    Cancel
                  </button>
                </div>
              </div>
            )}
          </div>
          <nav aria-label="Tables" className="min-h-0 flex-1 overflow-auto pb-3">
            {tables.map((t) => (
              <button
                key={t.id}
                type="button"
                aria-current={t.id === table?.id}
                onClick={() => open(t.id)}
                className={`flex w-full items-baseline justify-between gap-2 border-l-[3px] px-3 py-2 text-left ${t.id === table?.id ? "border-verdigris bg-tint font-semibold" : "border-transparent hover:bg-well"}`}
              >
                <span className="truncate">{t.name}</span>
                <span className="font-mono text-xs text-muted">{t.rows.toLocaleString("en").replaceAll(",", "\u2009")}</span>
              </button>
            ))}
          </nav>
        </aside>
        <section className="flex min-h-0 min-w-0 flex-col">
          {problem && (
            <div role="alert" className="flex items-start gap-3 border-b border-signal bg-signal-tint px-4 py-2.5">
              <p className="flex-1">{problem}</p>
              <button type="button" className="text-sm underline" onClick={dismiss}>
                Dismiss
              </button>
            </div>
          )}
          {notes && notes.table === table?.id && (
            <div role="status" className="flex items-start gap-3 border-b border-amber-line bg-amber-tint px-4 py-2.5">
              <ul className="flex-1 text-sm">
                {notes.notes.map((n) => (
                  <li key={n}>{n}</li>
                ))}
              </ul>
              <button type="button" className="text-sm underline" onClick={() => setNotes(null)}>
                Dismiss
              </button>
            </div>
          )}
          {table ? (
            <>
              <div className="flex h-14 items-center gap-3 px-4">
                <h1 className="truncate text-lg">{table.name}</h1>
                <span className="text-muted">
                  {table.rows.toLocaleString("en").replaceAll(",", "\u2009")} rows · {table.columns.length} columns
                </span>
                <label className="ml-auto flex h-8 w-56 items-center gap-2 rounded-sm border border-rule bg-sheet px-2.5 focus-within:outline-2 focus-within:outline-verdigris">
                  <Search size={14} className="text-muted" />
                  <input
                    aria-label="Find in rows"
                    value={find}
                    maxLength={200}
                    placeholder="Find in rows"
                    onChange={(e) => setFind(e.target.value)}
                    className="min-w-0 flex-1 bg-transparent text-sm outline-none"
                  />
                </label>
              </div>
              <TableRows key={table.id} table={table} profile={profile} chosen={chosen?.name ?? null} onChoose={setColumn} order={sortable} onOrder={setOrder} find={wanted} />
            </>
          ) : (
            <div className="grid flex-1 place-items-center p-8 text-center">
              <div className="max-w-sm">
                <h1 className="text-lg">Begin with a table</h1>
                <p className="mt-2 text-muted">
                  Drop a CSV or TSV file anywhere on this page, or choose one. Cavlo finds out its separator, its encoding and what each column holds, and you can change every
                  guess afterwards.
                </p>
                <button type="button" className="button mt-4" onClick={() => file.current?.click()}>
                  Choose a file
                </button>
              </div>
            </div>
          )}
        </section>
        <aside className="min-h-0 overflow-auto border-l border-rule bg-panel">
          {table && chosen && (
            <ColumnPanel
              key={`${table.id} ${chosen.name}`}
              table={table}
              column={chosen}
              profile={profile?.columns.find((c) => c.name === chosen.name) ?? null}
              onRenamed={setColumn}
            />
          )}
          {table && <SourcePanel key={table.name} table={table} onReplaced={choose} />}
        </aside>
      </div>
    </DropZone>
  );
}
