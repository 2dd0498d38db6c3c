import type { Board } from "@/core/project/schema";

/** So many rows of a board are sketched. */
const ROWS = 98;

/** Where the tiles of a board lie, as small as a word. */
export function BoardSketch({ board }: { board: Board }) {
  return (
    <svg
      aria-hidden="true"
      viewBox={`0 0 12 ${ROWS}`}
      preserveAspectRatio="none"
      className="h-4 w-6 shrink-0 rounded-[2px] bg-well fill-muted"
    >
      {board.tiles.map(({ id, type, x, y, w, h }) => (
        <rect
          key={id}
          x={x + 0.35}
          y={y + 0.5}
          width={w - 0.7}
          height={Math.max(0.5, Math.min(h, ROWS - y) - 1)}
          rx={0.4}
          opacity={type === "text" ? 0.35 : 0.8}
        />
      ))}
    </svg>
  );
}
