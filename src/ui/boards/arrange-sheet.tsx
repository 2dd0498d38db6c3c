"use client";
import {
  type CSSProperties,
  type KeyboardEvent,
  type MouseEvent,
  useCallback,
  useMemo,
  useRef,
  useState,
} from "react";
import { phoneTiles, readingOrder } from "@/core/project/phone-layout";
import type { Board, Tile } from "@/core/project/schema";
import { boundsOf, COLUMNS, EDGE, GAP, type Place } from "@/core/project/tile-layout";
import { groundStyles, tileGround } from "@/present/ground-styles";
import { tilePlaces } from "@/present/tile-place";
import { useSize } from "../shared/size";
import { useTheme } from "../shared/theme";
import { useArrangeGestures, useArrangeKeys } from "./arrange-gestures";
import { DragOverlay, Marquee } from "./arrange-overlay";
import { ArrangedTile } from "./arranged-tile";
import { BoardControls } from "./board-controls";
import type { ReaderState } from "./reader-state";
import { PHONE_SHAPE, PHONE_WIDTH, type SeenAt, windowShape } from "./seen-at";
import type { TilesShown } from "./tiles-shown";

/**
 * A board at the size it is seen at, scaled to the room that there is: just what its readers see, with what
 * arranges it over that.
 */
export function ArrangeSheet({
  board,
  reader,
  shown: { visuals, texts },
  seenAt,
  isTrueSize,
  lit,
  selected,
  nameOf,
  onSelect,
  onPlace,
  onRemove,
  onAside,
  onKey,
}: {
  board: Board;
  reader: ReaderState;
  shown: TilesShown;
  seenAt: SeenAt;
  /** Whether it is as large as its readers see it, and not as large as there is room. */
  isTrueSize: boolean;
  /** The tiles that stand out. */
  lit: readonly string[];
  selected: readonly string[];
  nameOf: (tile: Tile) => string;
  onSelect: (ids: string[]) => void;
  onPlace: (places: Place[], moved: string[], group?: string) => void;
  onRemove: (ids: readonly string[]) => void;
  onAside: (tile: Tile) => void;
  /** A key that is not for the sheet; says whether it did something. */
  onKey: (event: KeyboardEvent, focused: string | null) => boolean;
}) {
  const theme = useTheme((s) => s.theme);
  const { element: region, size: room } = useSize<HTMLDivElement>();
  const { element: sheet, size: laid } = useSize<HTMLDivElement>();
  const grid = useRef<HTMLDivElement>(null);
  const [said, setSaid] = useState("");
  const isPhone = seenAt === "phone";
  const width = isPhone ? PHONE_WIDTH : seenAt;
  const scale = isTrueSize ? 1 : Math.min(1, (room?.width ?? 0) / width) || 1;
  const height = width * (isPhone ? PHONE_SHAPE : windowShape());
  const { preview, marquee, ...hands } = useArrangeGestures({
    tiles: board.tiles,
    grid,
    region,
    scale,
    selected,
    onSelect,
    onPlace,
  });
  const arrows = useArrangeKeys(board.tiles, (places, moved, group) => {
    onPlace(places, moved, group);
    const { x, y, w, h } = boundsOf(places.filter((p) => moved.includes(p.id)));
    setSaid(`Column ${x + 1}, row ${y + 1}, ${w} by ${h}`);
  });
  const now = useMemo(
    () =>
      preview
        ? board.tiles.map((t) => {
            const place = preview.following.has(t.id) ? undefined : preview.places.get(t.id);
            return place ? { ...t, ...place } : t;
          })
        : board.tiles,
    [board.tiles, preview],
  );
  const places = useMemo(() => tilePlaces({ ...board, tiles: now }), [board, now]);
  // A tile whose place stays has the same styles, so that it is not drawn anew while others are dragged.
  const known = useRef(new Map<string, { text: string; style: CSSProperties }>());
  const styleOf = (tile: Tile): CSSProperties => {
    const style = { ...places.get(tile.id), ...tileGround(tile, board, theme) } as CSSProperties;
    const text = JSON.stringify(style);
    const before = known.current.get(tile.id);
    if (before?.text === text) return before.style;
    known.current.set(tile.id, { text, style });
    return style;
  };
  const keys = (event: KeyboardEvent<HTMLElement>) => {
    const target = event.target as HTMLElement;
    const focused = target.dataset.tile ?? null;
    if (focused === null && target !== event.currentTarget) return;
    const meant = focused === null || selected.includes(focused) ? selected : [focused];
    const isDone = () => {
      if (event.key === " " && focused !== null) {
        onSelect(selected.includes(focused) ? selected.filter((s) => s !== focused) : [...selected, focused]);
        return true;
      }
      if (event.key === "Escape" && selected.length > 0) {
        onSelect([]);
        return true;
      }
      if ((event.key === "Delete" || event.key === "Backspace") && meant.length > 0) {
        onRemove(meant);
        region.current?.focus();
        return true;
      }
      if (!isPhone && meant.length > 0 && focused !== null && arrows.press(event, meant)) return true;
      return onKey(event, focused);
    };
    if (isDone()) event.preventDefault();
  };
  const removeOne = useCallback((tile: Tile) => onRemove([tile.id]), [onRemove]);
  const select = (event: MouseEvent) => {
    const id = (event.target as Element).closest<HTMLElement>("[data-tile]")?.dataset.tile;
    onSelect(id === undefined ? [] : [id]);
  };
  const column = (width - 2 * EDGE + GAP) / COLUMNS;
  const order = isPhone ? phoneTiles(board) : readingOrder(board.tiles);
  return (
    <div
      ref={region}
      className="min-h-0 min-w-0 flex-1 overflow-auto bg-well/60 p-4 max-sm:p-2 narrow:overflow-visible"
      role="region"
      aria-label="Board"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reachable by keyboard
      tabIndex={0}
      onKeyDown={keys}
      onBlur={arrows.stop}
    >
      <div
        className="mx-auto"
        style={{
          width: width * scale,
          height: (laid?.height ?? height) * scale,
          visibility: room ? undefined : "hidden",
        }}
      >
        <div
          ref={sheet}
          className="board-sheet board-arranged"
          data-phone={isPhone || undefined}
          data-held={preview ? "" : undefined}
          style={
            {
              width,
              minHeight: height,
              transform: `scale(${scale})`,
              "--scale": scale,
              "--held": preview ? `${preview.rowHeight}px` : undefined,
            } as CSSProperties
          }
        >
          <header className="board-head">
            <h1>{board.name}</h1>
            <BoardControls reader={reader} />
          </header>
          <div
            className="board-body"
            style={groundStyles(board.look.ground, theme) as CSSProperties}
            {...(isPhone ? { onClick: select } : hands)}
          >
            {board.tiles.length === 0 && (
              <p className="board-empty">Add visuals from the list at the right.</p>
            )}
            <div ref={grid} className="board-grid">
              {order.map((tile) => (
                <ArrangedTile
                  key={tile.id}
                  tile={tile}
                  name={nameOf(tile)}
                  style={styleOf(tile)}
                  shown={visuals.get(tile.id)}
                  text={texts.get(tile.id)}
                  isSelected={selected.includes(tile.id)}
                  isLit={lit.includes(tile.id)}
                  isFollowing={preview?.following.has(tile.id) ?? false}
                  swaps={preview?.swaps === tile.id}
                  canResize={!isPhone}
                  onRemove={removeOne}
                  onAside={onAside}
                />
              ))}
              {preview && <DragOverlay preview={preview} tiles={board.tiles} column={column} />}
              {marquee && <Marquee stretch={marquee} />}
            </div>
          </div>
        </div>
      </div>
      <p role="status" className="sr-only">
        {said}
      </p>
    </div>
  );
}
