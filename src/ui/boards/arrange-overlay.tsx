import type { Tile } from "@/core/project/schema";
import { boundsOf, GAP, type Place } from "@/core/project/tile-layout";
import type { Preview, Stretch } from "./arrange-gestures";

/** Where edges of what is moved meet those of other tiles, in columns and rows. */
function guidesOf(preview: Preview, tiles: readonly Tile[]) {
  const moved = new Set(preview.landing.map((p) => p.id));
  const box = boundsOf(preview.landing);
  const others = tiles.flatMap((t) => (moved.has(t.id) ? [] : (preview.places.get(t.id) ?? [])));
  const lines = (own: number, of: (p: Place) => number) => (others.some((o) => of(o) === own) ? [own] : []);
  return {
    left: lines(box.x, (p) => p.x),
    right: lines(box.x + box.w, (p) => p.x + p.w),
    top: lines(box.y, (p) => p.y),
    bottom: lines(box.y + box.h, (p) => p.y + p.h),
  };
}

/** What a drag shows over the grid: where tiles would land, and the lines on which their edges meet others. */
export function DragOverlay({
  preview,
  tiles,
  column,
}: {
  preview: Preview;
  tiles: readonly Tile[];
  /** The width of a column with its gap, in pixels. */
  column: number;
}) {
  const { left, right, top, bottom } = guidesOf(preview, tiles);
  const { rowHeight } = preview;
  const lines = [
    ...left.map((x) => ({ isDown: true, at: x * column })),
    ...right.map((x) => ({ isDown: true, at: x * column - GAP })),
    ...top.map((y) => ({ isDown: false, at: y * rowHeight })),
    ...bottom.map((y) => ({ isDown: false, at: y * rowHeight - GAP })),
  ];
  return (
    <>
      {preview.landing.map(({ id, x, y, w, h }) => (
        <div
          key={id}
          aria-hidden
          className="arranged-landing"
          style={{ gridColumn: `${x + 1} / span ${w}`, gridRow: `${y + 1} / span ${h}` }}
        />
      ))}
      <div aria-hidden className="arranged-guides">
        {lines.map(({ isDown, at }) => (
          <span
            key={`${isDown} ${at}`}
            data-down={isDown || undefined}
            style={isDown ? { left: at } : { top: at }}
          />
        ))}
      </div>
    </>
  );
}

/** The stretch that is drawn around tiles. */
export function Marquee({ stretch: { x, y, width, height } }: { stretch: Stretch }) {
  return <div aria-hidden className="arranged-marquee" style={{ left: x, top: y, width, height }} />;
}
