"use client";
import { X } from "lucide-react";
import { type ClipboardEvent, type KeyboardEvent, type MouseEvent, useEffect, useRef, useState } from "react";
import {
  committed,
  copiedFrom,
  type GridWalk,
  gridKey,
  type Place,
  selectedIn,
  walkAt,
} from "@/core/data/grid-keys";
import type { TypedGrid } from "@/core/data/typed-grid";

interface Props {
  grid: TypedGrid;
  onGrid: (grid: TypedGrid) => void;
  onPaste: (place: Place, text: string) => void;
  onRemoveRow: (row: number) => void;
  onRemoveColumn: (column: number) => void;
}

/**
 * Cells that are typed in, by the keys of `gridKey`; copied cells are laid over. What keys find is what the last
 * one left, however fast they come: it is kept beside what is drawn.
 */
export function CellGrid({ grid, onGrid, onPaste, onRemoveRow, onRemoveColumn }: Props) {
  const [walk, setWalk] = useState<GridWalk>(() => walkAt({ row: -1, column: 0 }));
  const now = useRef({ grid, walk });
  now.current.grid = grid;
  const table = useRef<HTMLTableElement>(null);
  const wantsFocus = useRef(true);
  const { typed } = walk;
  const place = {
    row: Math.min(walk.at.row, grid.rows.length - 1),
    column: Math.min(walk.at.column, grid.names.length - 1),
  };
  const { from, to } = selectedIn({ ...walk, at: place });
  const textAt = ({ row, column }: Place) => (row < 0 ? grid.names[column] : grid.rows[row]?.[column]) ?? "";
  useEffect(() => {
    if (!wantsFocus.current) return;
    wantsFocus.current = false;
    const cell = table.current?.querySelector<HTMLElement>("[data-here]");
    (cell?.querySelector("input") ?? cell)?.focus();
  });
  const become = (next: TypedGrid, then: GridWalk) => {
    const { grid: before } = now.current;
    now.current = { grid: next, walk: then };
    setWalk(then);
    if (next !== before) onGrid(next);
  };
  /** Ends typing with what is typed; `then` is where somebody is after it. */
  const leave = (then: GridWalk) => become(committed(now.current.grid, now.current.walk), then);
  const press = (event: KeyboardEvent) => {
    const step = gridKey(now.current.grid, now.current.walk, {
      key: event.key,
      shift: event.shiftKey,
      control: event.ctrlKey || event.metaKey,
      alt: event.altKey,
    });
    // A key that composes a letter of some script belongs to the text.
    if (!step || event.nativeEvent.isComposing) return;
    event.preventDefault();
    wantsFocus.current = true;
    become(step.grid, step.walk);
  };
  const begin = (at: Place) => {
    wantsFocus.current = true;
    leave({ ...walkAt(at), typed: textAt(at) });
  };
  const copy = (event: ClipboardEvent) => {
    if (now.current.walk.typed !== null) return;
    event.preventDefault();
    event.clipboardData.setData("text/plain", copiedFrom(now.current.grid, now.current.walk));
  };
  const paste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData("text/plain");
    if (now.current.walk.typed !== null || text === "") return;
    event.preventDefault();
    onPaste(from, text);
  };
  const cell = (row: number, column: number) => {
    const here = place.row === row && place.column === column;
    const isSelected = row >= from.row && row <= to.row && column >= from.column && column <= to.column;
    const name = row < 0 ? `Name of column ${column + 1}` : `${grid.names[column]}, row ${row + 1}`;
    const shared = {
      "data-here": here ? "" : undefined,
      tabIndex: here && typed === null ? 0 : -1,
      "aria-selected": isSelected,
      // With Shift a click selects from where somebody was.
      onMouseDown: (event: MouseEvent) => {
        if (!event.shiftKey || now.current.walk.typed !== null) return;
        event.preventDefault();
        wantsFocus.current = true;
        become(now.current.grid, { ...now.current.walk, at: { row, column }, began: null });
      },
      onFocus: () => {
        const { at } = now.current.walk;
        if (at.row !== row || at.column !== column) leave(walkAt({ row, column }));
      },
      onDoubleClick: () => begin({ row, column }),
      className: `h-7 max-w-60 min-w-28 truncate border border-rule px-2 text-left text-sm ${isSelected && !here ? "bg-tint" : row < 0 ? "bg-panel" : "bg-sheet"} ${row < 0 ? "font-semibold" : ""} ${here ? "outline-2 -outline-offset-2 outline-verdigris" : ""}`,
    };
    const content =
      here && typed !== null ? (
        <input
          aria-label={name}
          value={typed}
          maxLength={2000}
          onChange={(e) => become(now.current.grid, { ...now.current.walk, typed: e.target.value })}
          onBlur={() => {
            const { at, began, typed: left } = now.current.walk;
            if (left !== null) leave({ ...walkAt(at), began });
          }}
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
      aria-multiselectable="true"
      onKeyDown={press}
      onPaste={paste}
      onCopy={copy}
      onCut={(event) => {
        if (now.current.walk.typed !== null) return;
        copy(event);
        const cleared = gridKey(now.current.grid, now.current.walk, { key: "Delete" });
        if (cleared) become(cleared.grid, cleared.walk);
      }}
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
