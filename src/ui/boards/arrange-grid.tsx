"use client";
import { Link2, Link2Off, X } from "lucide-react";
import type { KeyboardEvent, ReactNode } from "react";
import { GridLayout, type Layout, type LayoutItem } from "react-grid-layout";
import type { Edit } from "@/core/project/edits";
import type { Board, Tile } from "@/core/project/schema";
import { GAP, ROW_HEIGHT } from "@/core/project/tile-layout";
import { useProject } from "../shared/project-context";
import { useSize } from "../shared/size";
import { useTellEdit } from "../shared/tell-edit";

/**
 * The board's grid while it is arranged: tiles are dragged and resized by pointer, or moved and resized by
 * arrow keys.
 */
export function ArrangeGrid({
  board,
  lit,
  nameOf,
  render,
  beside,
}: {
  board: Board;
  /** The tiles that stand out. */
  lit: string[];
  nameOf: (tile: Tile) => string;
  render: (tile: Tile) => ReactNode;
  /** What stands over a tile and can be used there. */
  beside: (tile: Tile) => ReactNode;
}) {
  const apply = useProject((s) => s.apply);
  const tellEdit = useTellEdit();
  const { element: host, size } = useSize<HTMLDivElement>();
  const width = size?.width ?? 0;
  const remove = (tile: Tile) => {
    const name = nameOf(tile);
    apply({ type: "remove tile", board: board.id, tile: tile.id });
    tellEdit(`${name} is off the board.`);
  };
  const place = (layout: Layout, _old: LayoutItem | null, item: LayoutItem | null) =>
    apply({
      type: "place tiles",
      board: board.id,
      places: layout.map(({ i, x, y, w, h }) => ({ id: i, x, y, w, h })),
      moved: item?.i ?? null,
    });
  const keys = (tile: Tile) => (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget) return;
    if (event.key === "Delete" || event.key === "Backspace") {
      event.preventDefault();
      remove(tile);
      return;
    }
    const move = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (!move) return;
    event.preventDefault();
    const [dx, dy] = move;
    const { x, y, w, h } = tile;
    const edit: Edit = event.shiftKey
      ? {
          type: "place tiles",
          board: board.id,
          places: [{ id: tile.id, x, y, w: Math.min(12 - x, w + dx), h: h + dy }],
          moved: tile.id,
        }
      : { type: "move tile", board: board.id, tile: tile.id, dx, dy };
    apply(edit, `arrange ${board.id} ${tile.id}`);
  };
  return (
    <div ref={host} className="min-h-full">
      {width > 0 && (
        <GridLayout
          width={width}
          gridConfig={{ cols: 12, rowHeight: ROW_HEIGHT, margin: [GAP, GAP], containerPadding: [0, 0] }}
          dragConfig={{ enabled: true, cancel: ".no-drag" }}
          resizeConfig={{ enabled: true, handles: ["se"] }}
          layout={board.tiles.map(({ id, x, y, w, h }) => ({ i: id, x, y, w, h }))}
          onDragStop={place}
          onResizeStop={place}
        >
          {board.tiles.map((tile) => (
            <div
              key={tile.id}
              role="group"
              aria-label={`Tile ${nameOf(tile)}: arrow keys move it, with Shift they resize it, Delete removes it`}
              // biome-ignore lint/a11y/noNoninteractiveTabindex: a tile is moved by arrow keys
              tabIndex={0}
              onKeyDown={keys(tile)}
              data-lit={lit.includes(tile.id) || undefined}
              className="group cursor-move rounded-lg outline-1 outline-verdigris/60 outline-dashed focus-visible:outline-2 focus-visible:outline-solid data-lit:bg-tint data-lit:outline-3 data-lit:outline-verdigris data-lit:outline-solid"
            >
              <div className="pointer-events-none size-full">{render(tile)}</div>
              {beside(tile)}
              {tile.type === "visual" && (
                <button
                  type="button"
                  aria-label={`${nameOf(tile)} answers what is picked on others`}
                  title={
                    tile.aside
                      ? "Stands aside of what is picked on others"
                      : "Answers what is picked on others"
                  }
                  aria-pressed={!tile.aside}
                  className="no-drag icon-button absolute top-1.5 right-9 size-6 border border-rule bg-sheet"
                  onClick={() =>
                    apply({ type: "stand aside", board: board.id, tile: tile.id, aside: !tile.aside })
                  }
                >
                  {tile.aside ? <Link2Off size={13} /> : <Link2 size={13} />}
                </button>
              )}
              <button
                type="button"
                aria-label={`Remove ${nameOf(tile)}`}
                className="no-drag icon-button absolute top-1.5 right-1.5 size-6 border border-rule bg-sheet"
                onClick={() => remove(tile)}
              >
                <X size={13} />
              </button>
            </div>
          ))}
        </GridLayout>
      )}
    </div>
  );
}
