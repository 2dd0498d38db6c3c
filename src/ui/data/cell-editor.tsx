"use client";
import { Plus, Redo2, Undo2 } from "lucide-react";
import { type KeyboardEvent, useState } from "react";
import {
  GRID_LIMITS,
  gridProblem,
  gridToCsv,
  grownTo,
  type TypedGrid,
  withoutColumn,
  withoutRow,
  withPasted,
} from "@/core/data/typed-grid";
import { CellGrid } from "./cell-grid";
import type { TypedCells } from "./typed-cells";

/**
 * A small table that is typed or changed by hand. Nothing of it is in the project until it is saved; until
 * then it has an undo of its own, and after it one step of undo takes all of it back.
 */
export function CellEditor({
  typed: { title, past, now, future },
  onTyped,
  onSave,
  onLeave,
}: {
  typed: TypedCells;
  onTyped: (change: (now: TypedCells) => TypedCells) => void;
  /** Takes the cells as CSV; gives why they could not be saved, or null. */
  onSave: (csv: string) => Promise<string | null>;
  onLeave: () => void;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const [saving, setSaving] = useState(false);
  const change = (next: TypedGrid, said: string | null = null) => {
    setProblem(said);
    onTyped((h) => ({ ...h, past: [...h.past, h.now], now: next, future: [] }));
  };
  const undo = () =>
    onTyped((h) =>
      h.past.length === 0
        ? h
        : {
            ...h,
            past: h.past.slice(0, -1),
            now: h.past[h.past.length - 1],
            future: [h.now, ...h.future],
          },
    );
  const redo = () =>
    onTyped((h) =>
      h.future.length === 0
        ? h
        : { ...h, past: [...h.past, h.now], now: h.future[0], future: h.future.slice(1) },
    );
  const save = async () => {
    const wrong = gridProblem(now);
    if (wrong) return setProblem(wrong);
    setSaving(true);
    setProblem(await onSave(gridToCsv(now)));
    setSaving(false);
  };
  const keys = (event: KeyboardEvent) => {
    if (!(event.ctrlKey || event.metaKey) || event.target instanceof HTMLInputElement) return;
    const key = event.key.toLowerCase();
    if (key !== "z" && key !== "y") return;
    // The project's own undo is not meant while cells are typed.
    event.preventDefault();
    event.stopPropagation();
    if (key === "y" || event.shiftKey) redo();
    else undo();
  };
  return (
    <section aria-label={title} className="flex min-h-0 flex-1 flex-col" onKeyDown={keys}>
      <div className="flex flex-wrap items-center gap-2 px-4 py-2">
        <h1 className="mr-auto truncate text-lg">{title}</h1>
        <button
          type="button"
          className="icon-button"
          aria-label="Undo in the cells"
          disabled={past.length === 0}
          onClick={undo}
        >
          <Undo2 size={15} />
        </button>
        <button
          type="button"
          className="icon-button"
          aria-label="Redo in the cells"
          disabled={future.length === 0}
          onClick={redo}
        >
          <Redo2 size={15} />
        </button>
        <button
          type="button"
          className="button"
          disabled={now.rows.length >= GRID_LIMITS.rows}
          onClick={() => change(grownTo(now, now.rows.length + 1, 0))}
        >
          <Plus size={13} /> Add a row
        </button>
        <button
          type="button"
          className="button"
          disabled={now.names.length >= GRID_LIMITS.columns}
          onClick={() => change(grownTo(now, 0, now.names.length + 1))}
        >
          <Plus size={13} /> Add a column
        </button>
        <button type="button" className="button" onClick={onLeave}>
          Do not save
        </button>
        <button type="button" className="button button-strong" disabled={saving} onClick={() => void save()}>
          {saving ? "Saving …" : "Save the cells"}
        </button>
      </div>
      {problem && (
        <p role="alert" className="px-4 pb-2 text-sm text-signal">
          {problem}
        </p>
      )}
      <div className="min-h-0 flex-1 overflow-auto border-t border-rule p-4">
        <CellGrid
          grid={now}
          onGrid={change}
          onPaste={({ row, column }, text) => {
            const { grid, cut } = withPasted(now, row, column, text);
            change(
              grid,
              cut
                ? `A table typed here has at most ${GRID_LIMITS.rows} rows and ${GRID_LIMITS.columns} columns: what lies past that was left out. Bring in a file for more.`
                : null,
            );
          }}
          onRemoveRow={(row) => change(withoutRow(now, row))}
          onRemoveColumn={(column) => change(withoutColumn(now, column))}
        />
        <p className="mt-3 max-w-prose text-xs text-muted">
          Type to replace a cell, Enter to change it. Tab goes along the row and on to the next one, Enter
          back to where the row began. Shift with arrows selects: Delete clears, Ctrl D fills down, copied
          cells are laid over.
        </p>
      </div>
    </section>
  );
}
