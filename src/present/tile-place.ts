import { phonePlaces } from "@/core/project/phone-layout";
import type { Board } from "@/core/project/schema";
import { GAP, insetsOf } from "@/core/project/tile-layout";

/** Where tiles stand on a board's grid, as styles by their ids: on a screen, and in the one column of a phone. */
export function tilePlaces(board: Pick<Board, "tiles" | "phoneOrder">): Map<string, Record<string, string>> {
  const phone = phonePlaces(board);
  return new Map(
    board.tiles.map((tile) => {
      const { x, y, w, h } = tile;
      const { left, right, top, bottom } = insetsOf(tile, board.tiles);
      const { row, rows, section } = phone.get(tile.id) ?? { row: 0, rows: 1, section: null };
      return [
        tile.id,
        {
          "--column": `${x + 1} / span ${w}`,
          "--rows": `${y + 1} / span ${h}`,
          "--inset": `${top}px ${right}px ${bottom}px ${left}px`,
          "--phone-rows": `${row + 1} / span ${rows}`,
          "--phone-inset": section ? `0 ${GAP}px ${GAP}px` : `0 0 ${GAP}px`,
        },
      ];
    }),
  );
}

/** So wide a window has boards in one column. */
export const PHONE = "(max-width: 760px)";
