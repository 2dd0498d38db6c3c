"use client";
import { Link2, Link2Off, X } from "lucide-react";
import { type CSSProperties, memo } from "react";
import type { Tile } from "@/core/project/schema";
import { TileContent } from "./tile-content";
import { TileFindings } from "./tile-findings";
import type { ShownText, ShownVisual } from "./tiles-shown";

/** Where a tile is taken hold of to be resized, by the directions of the compass. */
const HANDLES = ["n", "s", "w", "e", "nw", "ne", "sw", "se"] as const;

/** A tile while its board is arranged: what its readers see, and what can be done with it over that. */
export const ArrangedTile = memo(function ArrangedTile({
  tile,
  name,
  style,
  shown,
  text,
  isSelected,
  isLit,
  isFollowing,
  swaps,
  canResize,
  onRemove,
  onAside,
}: {
  tile: Tile;
  name: string;
  style: CSSProperties;
  shown: ShownVisual | undefined;
  text: ShownText | undefined;
  isSelected: boolean;
  /** Whether it stands out, as one that a control reaches. */
  isLit: boolean;
  /** Whether it follows the pointer. */
  isFollowing: boolean;
  /** Whether a drop now would exchange its place. */
  swaps: boolean;
  canResize: boolean;
  onRemove: (tile: Tile) => void;
  onAside: (tile: Tile) => void;
}) {
  return (
    <div
      data-tile={tile.id}
      role="group"
      aria-label={`Tile ${name}${isSelected ? ", selected" : ""}: arrow keys move it, with Shift they resize it, Space selects it, Delete removes it`}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a tile is moved by arrow keys
      tabIndex={0}
      data-selected={isSelected || undefined}
      data-lit={isLit || undefined}
      data-following={isFollowing || undefined}
      data-swaps={swaps || undefined}
      data-section={tile.type === "section" || undefined}
      style={style}
      className="board-tile arranged-tile group"
    >
      <div className="size-full" inert>
        <TileContent tile={tile} shown={shown} text={text} />
      </div>
      {tile.type === "picture" && tile.picture === null && (
        <p className="arranged-hint">Choose a picture at the right.</p>
      )}
      {swaps && <p className="arranged-swap">Swap places</p>}
      {canResize && HANDLES.map((edge) => <span key={edge} aria-hidden data-edge={edge} />)}
      {shown && <TileFindings visual={shown.kept} data={shown.data} />}
      <span className="arranged-tools no-drag">
        {tile.type === "visual" && (
          <button
            type="button"
            aria-label={`${name} answers what is picked on others`}
            title={
              tile.aside ? "Stands aside of what is picked on others" : "Answers what is picked on others"
            }
            aria-pressed={!tile.aside}
            className="icon-button size-6 border border-rule bg-sheet"
            onClick={() => onAside(tile)}
          >
            {tile.aside ? <Link2Off size={13} /> : <Link2 size={13} />}
          </button>
        )}
        <button
          type="button"
          aria-label={`Remove ${name}`}
          className="icon-button size-6 border border-rule bg-sheet"
          onClick={() => onRemove(tile)}
        >
          <X size={13} />
        </button>
      </span>
    </div>
  );
});
