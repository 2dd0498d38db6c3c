"use client";
import { type KeyboardEvent, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { cutText } from "@/core/base/cut-text";
import { pastedTiles } from "@/core/project/arrange";
import type { Edit } from "@/core/project/edits";
import { MOST } from "@/core/project/most";
import { readingOrder, shiftedOrder } from "@/core/project/phone-layout";
import type { Board, Tile } from "@/core/project/schema";
import { type Place, withMembers } from "@/core/project/tile-layout";
import { plainText, readText } from "@/core/view/board-text";
import { newId } from "../shared/ids";
import { toast } from "../shared/notice";
import { useProject } from "../shared/project-context";
import { useTellEdit } from "../shared/tell-edit";
import { useCopied } from "./arrange-clipboard";
import { ArrangePanel } from "./arrange-panel";
import { ArrangeSheet } from "./arrange-sheet";
import { ArrangeToolbar } from "./arrange-toolbar";
import type { ReaderState } from "./reader-state";
import { isNarrowWindow, type SeenAt, windowWidth } from "./seen-at";
import { useTilesShown } from "./tiles-shown";

const counted = (count: number) => (count === 1 ? "1 tile" : `${count} tiles`);

/** How a tile is called, by what stands in it. */
function useTileNames(): (tile: Tile) => string {
  const visuals = useProject((s) => s.document.visuals);
  const pictures = useProject((s) => s.document.pictures);
  return useCallback(
    (tile) => {
      switch (tile.type) {
        case "visual":
          return visuals.find((v) => v.id === tile.visual)?.name ?? "a visual that was removed";
        case "text":
          return `text ${cutText(plainText(readText(tile.text)), 40)}`.trim();
        case "picture":
          return `picture ${pictures.find((p) => p.id === tile.picture)?.name ?? ""}`.trim();
        case "line":
          return "line";
        case "section":
          return `section ${tile.heading}`.trim();
      }
    },
    [visuals, pictures],
  );
}

/** A board while its author arranges it: as it will be seen, and beside it what can be put there. */
export function ArrangedBoard({ board, reader }: { board: Board; reader: ReaderState }) {
  const projectId = useProject((s) => s.id);
  const apply = useProject((s) => s.apply);
  const tellEdit = useTellEdit();
  const { copied, copy } = useCopied();
  const nameOf = useTileNames();
  const shown = useTilesShown(board, reader.state);
  const [lit, setLit] = useState<readonly string[]>([]);
  const [chosen, setChosen] = useState<string[]>([]);
  const [fluid, setFluid] = useState(windowWidth);
  const [isTrueSize, setTrueSize] = useState(false);
  const [isPhone, setPhone] = useState(isNarrowWindow);
  const selected = useMemo(() => {
    const known = new Set(board.tiles.map((t) => t.id));
    return chosen.filter((id) => known.has(id));
  }, [chosen, board.tiles]);
  const seenAt: SeenAt = isPhone ? "phone" : board.width === "fluid" ? fluid : board.width;

  const place = (places: Place[], moved: string[], group?: string) =>
    apply({ type: "place tiles", board: board.id, places, moved }, group);
  const remove = (ids: readonly string[]) => {
    if (ids.length === 0) return;
    const [one] = board.tiles.filter((t) => ids.includes(t.id));
    apply({ type: "remove tiles", board: board.id, tiles: [...ids] });
    tellEdit(
      ids.length === 1 && one
        ? `${nameOf(one)} is off the board.`
        : `${counted(ids.length)} are off the board.`,
    );
  };
  const take = (ids: readonly string[]): Tile[] => {
    const all = withMembers(new Set(ids), board.tiles);
    return board.tiles.filter((t) => all.has(t.id));
  };
  const put = (tiles: readonly Tile[]) => {
    if (tiles.length === 0) return;
    if (board.tiles.length + tiles.length > MOST.board.tiles)
      return void toast.error(
        `A board has at most ${MOST.board.tiles} tiles; this one has ${board.tiles.length}.`,
      );
    const made = pastedTiles(tiles, board.tiles, newId);
    apply({ type: "add tiles", board: board.id, tiles: made });
    setChosen(made.map((t) => t.id));
    tellEdit(`${counted(made.length)} put on ${board.name}.`);
  };
  const copyTiles = (ids: readonly string[]) => {
    const tiles = take(ids);
    if (tiles.length === 0) return;
    copy({ project: projectId, tiles });
    toast(`${counted(tiles.length)} copied. Paste them here, or on another board.`);
  };
  const pasted = copied?.project === projectId ? copied.tiles : [];

  const shift = (id: string, by: 1 | -1) => {
    const phoneOrder = shiftedOrder(board, id, by);
    if (phoneOrder) apply({ type: "change board", board: board.id, change: { phoneOrder } }, `phone ${id}`);
  };
  const key = (event: KeyboardEvent, focused: string | null): boolean => {
    const isCommand = event.ctrlKey || event.metaKey;
    const meant = focused === null || selected.includes(focused) ? selected : [focused];
    if (isCommand && event.key === "a") setChosen(readingOrder(board.tiles).map((t) => t.id));
    else if (isCommand && event.key === "c" && meant.length > 0) copyTiles(meant);
    else if (isCommand && event.key === "x" && meant.length > 0) {
      copyTiles(meant);
      remove([...withMembers(new Set(meant), board.tiles)]);
    } else if (isCommand && event.key === "v" && pasted.length > 0) put(pasted);
    else if (isCommand && event.key === "d" && meant.length > 0) put(take(meant));
    else if (isPhone && focused !== null && (event.key === "ArrowUp" || event.key === "ArrowDown"))
      shift(focused, event.key === "ArrowUp" ? -1 : 1);
    else return false;
    return true;
  };

  // Tiles are drawn anew only where something of them changes, so what they are given stays the same.
  const acts = useRef({ remove, apply });
  useEffect(() => {
    acts.current = { remove, apply };
  });
  const removeTiles = useCallback((ids: readonly string[]) => acts.current.remove(ids), []);
  const setAside = useCallback(
    (tile: Tile) => {
      const aside = tile.type === "visual" && !tile.aside;
      const edit: Edit = { type: "change tile", board: board.id, tile: tile.id, change: { aside } };
      acts.current.apply(edit);
    },
    [board.id],
  );
  return (
    <div className="flex h-full min-h-0 flex-col narrow:h-auto narrow:min-h-full">
      <ArrangeToolbar
        board={board}
        selected={selected}
        seenAt={seenAt}
        isTrueSize={isTrueSize}
        onTrueSize={setTrueSize}
        onFluid={setFluid}
        onPhone={setPhone}
        onPlace={(places) => place(places, selected)}
        onSelect={setChosen}
        onCopy={() => copyTiles(selected)}
        onPaste={pasted.length > 0 ? () => put(pasted) : null}
        onRemove={() => remove(selected)}
      />
      <div className="flex min-h-0 flex-1 narrow:flex-col">
        <ArrangeSheet
          board={board}
          reader={reader}
          shown={shown}
          seenAt={seenAt}
          isTrueSize={isTrueSize}
          lit={lit}
          selected={selected}
          nameOf={nameOf}
          onSelect={setChosen}
          onPlace={place}
          onRemove={removeTiles}
          onAside={setAside}
          onKey={key}
        />
        <ArrangePanel
          board={board}
          selected={selected}
          nameOf={nameOf}
          onLight={setLit}
          onSelect={setChosen}
          onShift={shift}
        />
      </div>
    </div>
  );
}
