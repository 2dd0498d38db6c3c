"use client";
import { X } from "lucide-react";
import { type ClipboardEvent, type KeyboardEvent, useEffect, useRef, useState } from "react";
import type { TypedGrid } from "@/core/data/typed-grid";

/** A place in the grid; row -1 is the names of the columns. */
export interface Place {
  row: number;
  column: number;
}

interface Props {
  grid: TypedGrid;
  onCell: (place: Place, text: string) => void;
  onPaste: (place: Place, text: string) => void;
  onRemoveRow: (row: number) => void;
  onRemoveColumn: (column: number) => void;
}

const ARROWS: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/**
 * Cells that are typed in: arrows go from cell to cell, typing replaces, Enter or F2 changes what is there,
 * Delete clears, copied cells are laid over.
 */
export function CellGrid({ grid, onCell, onPaste, onRemoveRow, onRemoveColumn }: Props) {
  const [at, setAt] = useState<Place>({ row: -1, column: 0 });
  /** The text of the cell that is being typed in; null while none is. */
  const [typed, setTyped] = useState<string | null>(null);
  const table = useRef<HTMLTableElement>(null);
  const wantsFocus = useRef(true);
  const place = {
    row: Math.min(at.row, grid.rows.length - 1),
    column: Math.min(at.column, grid.names.length - 1),
  };
  const textAt = ({ row, column }: Place) => (row < 0 ? grid.names[column] : grid.rows[row][column]) ?? "";
  useEffect(() => {
    if (!wantsFocus.current) return;
    wantsFocus.current = false;
    const cell = table.current?.querySelector<HTMLElement>("[data-here]");
    (cell?.querySelector("input") ?? cell)?.focus();
  });
  const go = (row: number, column: number) => {
    wantsFocus.current = true;
    setTyped(null);
    setAt({
      row: Math.max(-1, Math.min(grid.rows.length - 1, row)),
      column: Math.max(0, Math.min(grid.names.length - 1, column)),
    });
  };
  const begin = (text: string) => {
    wantsFocus.current = true;
    setTyped(text);
  };
  const commit = () => {
    if (typed !== null && typed !== textAt(place)) onCell(place, typed);
    setTyped(null);
  };
  const typing = (event: KeyboardEvent) => {
    if (event.key === "Escape") {
      event.preventDefault();
      go(place.row, place.column);
    } else if (event.key === "Enter" || event.key === "Tab") {
      event.preventDefault();
      commit();
      const back = event.shiftKey ? -1 : 1;
      if (event.key === "Enter") go(place.row + back, place.column);
      else go(place.row, place.column + back);
    }
  };
  const moving = (event: KeyboardEvent) => {
    if (event.target instanceof HTMLInputElement) return typing(event);
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const arrow = Object.hasOwn(ARROWS, event.key) ? ARROWS[event.key] : null;
    if (arrow) go(place.row + arrow[0], place.column + arrow[1]);
    else if (event.key === "Home") go(place.row, 0);
    else if (event.key === "End") go(place.row, grid.names.length - 1);
    else if (event.key === "Enter" || event.key === "F2") begin(textAt(place));
    else if (event.key === "Delete" || event.key === "Backspace") onCell(place, "");
    else if (event.key.length === 1) begin(event.key);
    else return;
    event.preventDefault();
  };
  const paste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData("text/plain");
    if (typed !== null || text === "") return;
    event.preventDefault();
    onPaste(place, text);
  };
  const cell = (row: number, column: number) => {
    const here = place.row === row && place.column === column;
    const name = row < 0 ? `Name of column ${column + 1}` : `${grid.names[column]}, row ${row + 1}`;
    const shared = {
      "data-here": here ? "" : undefined,
      tabIndex: here && typed === null ? 0 : -1,
      onFocus: () => {
        if (!here) setAt({ row, column });
      },
      onDoubleClick: () => begin(textAt({ row, column })),
      className: `h-7 max-w-60 min-w-28 truncate border border-rule px-2 text-left text-sm ${row < 0 ? "bg-panel font-semibold" : "bg-sheet"} ${here ? "outline-2 -outline-offset-2 outline-verdigris" : ""}`,
    };
    const content =
      here && typed !== null ? (
        <input
          aria-label={name}
          value={typed}
          maxLength={2000}
          onChange={(e) => setTyped(e.target.value)}
          onBlur={commit}
          className="w-full bg-transparent outline-none"
        />
      ) : (
        textAt({ row, column })
      );
    return row < 0 ? (
      <th key={column} aria-label={name} scope="col" {...shared}>
        {content}
      </th>
    ) : (
      <td key={column} aria-label={`${name}: ${textAt({ row, column })}`} {...shared}>
        {content}
      </td>
    );
  };
  return (
    <table
      ref={table}
      // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: cells are gone through by arrow keys
      role="grid"
      aria-label="Cells"
      className="border-collapse"
      onKeyDown={moving}
      onPaste={paste}
    >
      <thead>
        <tr>
          <td />
          {grid.names.map((name, column) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a column is its place
            <td key={column} className="pb-0.5 text-right">
              <button
                type="button"
                tabIndex={-1}
                className="icon-button size-6"
                aria-label={`Remove the column ${name}`}
                onClick={() => onRemoveColumn(column)}
              >
                <X size={11} />
              </button>
            </td>
          ))}
        </tr>
        <tr>
          <td />
          {grid.names.map((_, column) => cell(-1, column))}
        </tr>
      </thead>
      <tbody>
        {grid.rows.map((cells, row) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a row is its place
          <tr key={row}>
            <td className="pr-1 text-right font-mono text-xs whitespace-nowrap text-muted">
              {row + 1}
              <button
                type="button"
                tabIndex={-1}
                className="icon-button ml-1 size-6"
                aria-label={`Remove row ${row + 1}`}
                onClick={() => onRemoveRow(row)}
              >
                <X size={11} />
              </button>
            </td>
            {cells.map((_, column) => cell(row, column))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
