"use client";
import { Dialog } from "radix-ui";
import { type FormEvent, useId, useState } from "react";
import type { TableInfo } from "@/core/project/schema";
import { proposedTurn, turnProblem } from "@/core/project/turned-columns";
import { api } from "../shared/api";
import { Labelled } from "../shared/labelled";
import { useImports, useProject, useProjectStore } from "../shared/project-context";
import { useReturnFocus } from "../shared/return-focus";

const number = (n: number) => n.toLocaleString("en").replaceAll(",", " ");

/** Which columns of a table are turned into rows of another, and what becomes of their names and cells. */
export function TurnDialog({ table, onClose }: { table: TableInfo; onClose: () => void }) {
  const projectId = useProject((s) => s.id);
  const store = useProjectStore();
  const take = useImports((s) => s.take);
  const returnFocus = useReturnFocus();
  const told = useId();
  const [columns, setColumns] = useState(() => proposedTurn(table));
  const [names, setNames] = useState("column");
  const [values, setValues] = useState("value");
  const [find, setFind] = useState("");
  const turn = { columns, names: names.trim(), values: values.trim() };
  const problem = turnProblem(table, turn);
  const shown = table.columns.filter((c) => c.name.toLowerCase().includes(find.trim().toLowerCase()));
  const chosen = new Set(columns);
  const stay = table.columns.filter((c) => !chosen.has(c.name)).map((c) => c.name);
  /** The chosen columns without some. */
  const stays = (without: TableInfo["columns"]) => {
    const gone = new Set(without.map((c) => c.name));
    return columns.filter((c) => !gone.has(c));
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (problem) return;
    take([
      {
        file: `${table.name}, columns turned into rows`,
        bring: async (progress, signal) => {
          await store.getState().flush();
          return api.turnColumns(projectId, table.name, turn, progress, signal);
        },
      },
    ]);
    onClose();
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/25" />
        <Dialog.Content
          onCloseAutoFocus={returnFocus}
          aria-describedby={told}
          className="fixed top-1/2 left-1/2 z-50 max-h-[94dvh] w-[min(480px,94vw)] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-lg border border-rule bg-sheet p-4 shadow-stage"
        >
          <Dialog.Title className="text-md">Turn columns into rows</Dialog.Title>
          <p id={told} className="mt-1 text-sm text-muted">
            Each row of {table.name} stands in a table of its own once for each chosen column: with the
            column’s name and its cell. {table.name} stays as it is.
          </p>
          <form onSubmit={submit} className="mt-3 flex flex-col gap-2">
            <div className="flex items-center gap-2">
              {table.columns.length > 12 && (
                <input
                  type="search"
                  aria-label="Find a column"
                  placeholder="Find a column"
                  value={find}
                  onChange={(e) => setFind(e.target.value)}
                  // Enter in what only finds is no answer.
                  onKeyDown={(e) => e.key === "Enter" && e.preventDefault()}
                  className="field"
                />
              )}
              <button
                type="button"
                className="button shrink-0"
                onClick={() => setColumns([...stays(shown), ...shown.map((c) => c.name)])}
              >
                All
              </button>
              <button type="button" className="button shrink-0" onClick={() => setColumns(stays(shown))}>
                None
              </button>
            </div>
            <ul
              aria-label="Columns that are turned into rows"
              className="max-h-[38dvh] min-h-20 overflow-auto rounded-sm border border-rule p-1"
            >
              {shown.map(({ name, reading }) => (
                <li key={name}>
                  <label className="flex cursor-pointer items-center gap-2 rounded-sm px-2 py-1 text-sm hover:bg-tint">
                    <input
                      type="checkbox"
                      className="accent-verdigris"
                      checked={chosen.has(name)}
                      onChange={(e) =>
                        setColumns(e.target.checked ? [...columns, name] : columns.filter((c) => c !== name))
                      }
                    />
                    <span className="min-w-0 flex-1 truncate">{name}</span>
                    <span className="font-mono text-xs text-muted">{reading.type}</span>
                  </label>
                </li>
              ))}
              {shown.length === 0 && (
                <li className="px-2 py-1 text-sm text-muted">No column has this name.</li>
              )}
            </ul>
            <Labelled label="Names go to">
              {(id) => (
                <input id={id} value={names} onChange={(e) => setNames(e.target.value)} className="field" />
              )}
            </Labelled>
            <Labelled label="Cells go to">
              {(id) => (
                <input id={id} value={values} onChange={(e) => setValues(e.target.value)} className="field" />
              )}
            </Labelled>
            <p role="status" className={`text-sm ${problem ? "text-signal" : "text-muted"}`}>
              {problem ??
                `${number(table.rows)} rows become ${number(table.rows * columns.length)}, with ${stay.length === 0 ? "" : `${stay.slice(0, 3).join(", ")}${stay.length > 3 ? ` and ${stay.length - 3} more` : ""}, `}${turn.names} and ${turn.values}.`}
            </p>
            <div className="flex justify-end gap-2">
              <button type="button" className="button" onClick={onClose}>
                Cancel
              </button>
              <button type="submit" className="button button-strong" disabled={problem !== null}>
                Make the table
              </button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
