"use client";
import { ChevronDown, ChevronUp, RotateCcw } from "lucide-react";
import { phonePlaces, phoneTiles } from "@/core/project/phone-layout";
import type { Board, Tile } from "@/core/project/schema";
import { MOST_ROWS } from "@/core/project/tile-layout";
import { useProject } from "../shared/project-context";
import { TypedNumber } from "../shared/typed-number";

/** The tiles as a phone has them, one below the other, with how high each is: by itself, or as it is set here. */
export function PhoneOrder({
  board,
  nameOf,
  onShift,
}: {
  board: Board;
  nameOf: (tile: Tile) => string;
  onShift: (id: string, by: 1 | -1) => void;
}) {
  const apply = useProject((s) => s.apply);
  const tiles = phoneTiles(board);
  const places = phonePlaces(board);
  const isOwn = board.phoneOrder.length > 0;
  const sectionOf = (tile: Tile) => places.get(tile.id)?.section ?? null;
  // A tile moves among those of its section, or of the board.
  const [firsts, lasts] = [new Map<string | null, string>(), new Map<string | null, string>()];
  for (const tile of tiles) {
    if (!firsts.has(sectionOf(tile))) firsts.set(sectionOf(tile), tile.id);
    lasts.set(sectionOf(tile), tile.id);
  }
  return (
    <>
      <p className="text-xs text-muted">
        {isOwn
          ? "In an order of its own; new tiles follow the one that they stand after."
          : "By itself: from the top row to the bottom one, each from the left."}{" "}
        Heights are in rows of 8 px; an empty field is as high as needed.
      </p>
      <ol aria-label="Order on a phone" className="flex flex-col gap-0.5 text-sm">
        {tiles.map((tile) => {
          const name = nameOf(tile);
          return (
            <li key={tile.id} className={`flex items-center gap-1 ${sectionOf(tile) ? "pl-3" : ""}`}>
              <span className="min-w-0 flex-1 truncate" title={name}>
                {name}
              </span>
              <span className="w-12 shrink-0">
                <TypedNumber
                  label={`Rows of ${name} on a phone`}
                  value={tile.phone}
                  percent={false}
                  placeholder={String(places.get(tile.id)?.rows ?? "")}
                  optional
                  check={(n) =>
                    Number.isInteger(n) && n >= 2 && n <= MOST_ROWS ? null : `Whole rows, 2 to ${MOST_ROWS}.`
                  }
                  onCommit={(phone) =>
                    apply({ type: "change tile", board: board.id, tile: tile.id, change: { phone } })
                  }
                />
              </span>
              <button
                type="button"
                className="icon-button size-6"
                aria-label={`Move ${name} up on a phone`}
                disabled={firsts.get(sectionOf(tile)) === tile.id}
                onClick={() => onShift(tile.id, -1)}
              >
                <ChevronUp size={13} />
              </button>
              <button
                type="button"
                className="icon-button size-6"
                aria-label={`Move ${name} down on a phone`}
                disabled={lasts.get(sectionOf(tile)) === tile.id}
                onClick={() => onShift(tile.id, 1)}
              >
                <ChevronDown size={13} />
              </button>
            </li>
          );
        })}
      </ol>
      {isOwn && (
        <button
          type="button"
          className="button self-start"
          onClick={() => apply({ type: "change board", board: board.id, change: { phoneOrder: [] } })}
        >
          <RotateCcw size={13} /> Order by itself
        </button>
      )}
    </>
  );
}
