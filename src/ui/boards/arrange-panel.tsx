"use client";
import { Plus } from "lucide-react";
import { type ReactNode, useState } from "react";
import { kindOf } from "@/core/kinds";
import type { TileContent } from "@/core/project/board-edits";
import { visualTile } from "@/core/project/defaults";
import { MOST } from "@/core/project/most";
import type { Board, Tile } from "@/core/project/schema";
import { useFind } from "../shared/find-in-list";
import { newId } from "../shared/ids";
import { toast } from "../shared/notice";
import { useProject } from "../shared/project-context";
import { useTheme } from "../shared/theme";
import { useVisualsData } from "../shared/visual-data";
import { VisualThumbnail } from "../shared/visual-thumbnail";
import { AddFilter } from "./add-filter";
import { BoardLookPanel } from "./board-look-panel";
import { ControlRow } from "./control-row";
import { PhoneOrder } from "./phone-order";
import { TilePanel } from "./tile-panel";

/** What can be put on a board besides visuals, with the columns and rows that it has at first. */
const OTHERS: {
  label: string;
  size: { width: number; height: number };
  make: (id: string) => TileContent;
}[] = [
  {
    label: "A text",
    size: { width: 4, height: 14 },
    make: (id) => ({ id, type: "text", text: "Write here" }),
  },
  {
    label: "A picture",
    size: { width: 2, height: 14 },
    make: (id) => ({ id, type: "picture", picture: null, shows: "", fit: "whole" }),
  },
  {
    label: "A line",
    size: { width: 12, height: 3 },
    make: (id) => ({ id, type: "line", along: "across" }),
  },
  {
    label: "A section",
    size: { width: 12, height: 49 },
    make: (id) => ({ id, type: "section", heading: "Section", ground: "panel", border: true }),
  },
];

/** A part of the panel that can be closed. */
function Part({ title, closed = false, children }: { title: string; closed?: boolean; children: ReactNode }) {
  const [isOpen, setOpen] = useState(!closed);
  return (
    <details open={isOpen} onToggle={(e) => setOpen(e.currentTarget.open)} className="flex flex-col">
      <summary className="section-title cursor-pointer py-0.5">{title}</summary>
      {isOpen && <div className="flex flex-col gap-1.5">{children}</div>}
    </details>
  );
}

const BUTTON =
  "flex items-center justify-between gap-2 rounded-sm border border-rule bg-sheet text-left text-sm hover:border-verdigris";

/** What can be put on a board, what is selected of it, its controls, its look, and its order on a phone. */
export function ArrangePanel({
  board,
  selected,
  nameOf,
  onLight,
  onSelect,
  onShift,
}: {
  board: Board;
  selected: readonly string[];
  nameOf: (tile: Tile) => string;
  /** Makes tiles stand out. */
  onLight: (tiles: string[]) => void;
  onSelect: (ids: string[]) => void;
  /** Moves a tile within the order on a phone. */
  onShift: (id: string, by: 1 | -1) => void;
}) {
  const one = selected.length === 1 ? board.tiles.find((t) => t.id === selected[0]) : undefined;
  return (
    <aside
      aria-label="Put on the board"
      className="flex min-h-0 w-64 shrink-0 flex-col gap-4 overflow-auto border-l border-rule bg-panel p-4 narrow:w-auto narrow:overflow-visible narrow:border-t narrow:border-l-0"
    >
      {one && (
        <Part title="Selected">
          <TilePanel key={one.id} board={board} tile={one} name={nameOf(one)} />
        </Part>
      )}
      <Part title="Visuals">
        <AddVisuals board={board} onAdded={onSelect} />
      </Part>
      <Part title="Controls">
        <Controls board={board} onLight={onLight} />
      </Part>
      <Part title="Look of the board" closed>
        <BoardLookPanel board={board} />
      </Part>
      {board.tiles.length > 0 && (
        <Part title="Order on a phone" closed>
          <PhoneOrder board={board} nameOf={nameOf} onShift={onShift} />
        </Part>
      )}
    </aside>
  );
}

function AddVisuals({ board, onAdded }: { board: Board; onAdded: (ids: string[]) => void }) {
  const visuals = useProject((s) => s.document.visuals);
  const apply = useProject((s) => s.apply);
  const theme = useTheme((s) => s.theme);
  const data = useVisualsData(visuals);
  const find = useFind("Find a visual", visuals);
  const add = (tile: TileContent, size: { width: number; height: number }) => {
    if (board.tiles.length >= MOST.board.tiles)
      return void toast.error(
        `A board has at most ${MOST.board.tiles} tiles. Take one off, or make another board.`,
      );
    apply({ type: "add tile", board: board.id, tile, size });
    onAdded([tile.id]);
  };
  return (
    <>
      {visuals.length === 0 && (
        <p className="text-sm text-muted">There is no visual yet. Draw one on the Visuals step.</p>
      )}
      {find.field}
      <div className={find.listLook}>
        {visuals.map((v, i) =>
          find.fits(v.id) ? (
            <button
              key={v.id}
              type="button"
              aria-label={`Add ${v.name}`}
              title={v.name}
              className={`${BUTTON} shrink-0 py-1 pr-2.5 pl-1`}
              onClick={() => add(visualTile(newId(), v.id), kindOf(v.kind).tileSize(v))}
            >
              <span className="w-14 shrink-0">
                <VisualThumbnail visual={v} data={data[i].data} theme={theme} />
              </span>
              <span className="min-w-0 flex-1">
                <span className="block truncate">{v.name}</span>
                <span className="block truncate text-xs text-muted">{kindOf(v.kind).label}</span>
              </span>
              <Plus size={13} className="shrink-0 text-muted" />
            </button>
          ) : null,
        )}
      </div>
      {OTHERS.map(({ label, size, make }) => (
        <button
          key={label}
          type="button"
          className={`${BUTTON} px-2.5 py-1.5`}
          onClick={() => add(make(newId()), size)}
        >
          {label} <Plus size={13} className="text-muted" />
        </button>
      ))}
    </>
  );
}

function Controls({ board, onLight }: { board: Board; onLight: (tiles: string[]) => void }) {
  return (
    <>
      {board.controls.map((control, at) => (
        <ControlRow key={control.id} board={board} control={control} at={at} onLight={onLight} />
      ))}
      <div className="flex">
        <AddFilter board={board} />
      </div>
    </>
  );
}
