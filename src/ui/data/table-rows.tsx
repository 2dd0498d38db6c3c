"use client";
import { useVirtualizer } from "@tanstack/react-virtual";
import { memo, useEffect, useMemo } from "react";
import type { TableInfo } from "@/core/project/schema";
import type { RowsPage, TableProfile } from "@/server/compute/protocol";
import { useLate } from "../shared/late";
import { useSize } from "../shared/size";
import { type ShownColumn, shownColumns } from "./shown-columns";
import { ColumnHead } from "./table-head";
import { pageOf, type RowOrder, type RowWish, useRowPages } from "./table-row-pages";

const ROW = 28;
const HEAD = 94;
const NUMBERS = 56;
const LEAST_COLUMN = 132;

interface RowProps {
  row: RowsPage["rows"][number] | undefined;
  index: number;
  start: number;
  /** The columns in view, where each stands among all, and where it is in the answer. */
  columns: { column: ShownColumn; index: number; at: number }[];
  width: number;
}

/** One row: its number and the cells in view. */
const Row = memo(function Row({ row, index, start, columns, width }: RowProps) {
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      className="absolute left-0 w-full border-b border-rule/50"
      style={{ height: ROW, transform: `translateY(${start}px)` }}
    >
      <div
        role="rowheader"
        className="sticky left-0 z-1 w-14 truncate bg-sheet px-2 py-1 text-right font-mono text-xs leading-5 text-muted"
      >
        {row ? row.number : "…"}
      </div>
      {columns.map(({ column, index: place, at }) => {
        const cell = row?.cells[at] ?? null;
        const unread = row?.unread.includes(at);
        return (
          <div
            key={column.name}
            role="cell"
            aria-colindex={place + 2}
            style={{ left: NUMBERS + place * width, width }}
            className={`absolute inset-y-0 truncate border-l border-rule/50 px-2 text-sm leading-[27px] ${column.type === "number" ? "text-right" : ""} ${unread ? "bg-signal-tint text-signal" : ""}`}
          >
            {cell ?? <span className="text-faint">{row ? "—" : ""}</span>}
          </div>
        );
      })}
    </div>
  );
});

/** A cell that is cut tells its whole text. */
function tellWhole({ target }: { target: EventTarget }) {
  if (!(target instanceof HTMLElement) || target.role !== "cell") return;
  if (target.scrollWidth > target.clientWidth) target.title = target.textContent ?? "";
  else target.removeAttribute("title");
}

/** What of a long search or sorting is said, with a way to stop it. */
function Working({ working, wish, onStop }: { working: boolean; wish: RowWish; onStop: () => void }) {
  const late = useLate(working, 300);
  if (!late) return null;
  return (
    <div role="status" className="flex items-center gap-2 border-t border-rule bg-tint px-4 py-1 text-sm">
      <span className="busy-mark" aria-hidden="true" />
      {wish.find
        ? `Looking for “${wish.find}” …`
        : wish.order
          ? `Sorting by ${wish.order.column} …`
          : "Reading the rows …"}
      {(wish.find || wish.order) && (
        <button type="button" className="button ml-auto h-6" onClick={onStop}>
          Stop
        </button>
      )}
    </div>
  );
}

interface Props {
  table: TableInfo;
  profile: TableProfile | null;
  chosen: string | null;
  onChoose: (column: string) => void;
  wish: RowWish;
  onOrder: (order: RowOrder | null) => void;
  /** What is looked for and sorted by is let go. */
  onStop: () => void;
}

/**
 * The rows of a table: only those in view are fetched, and only the columns in view are drawn. Heads carry
 * the type, a sketch, nulls and distinct values.
 */
export function TableRows({ table, profile, chosen, onChoose, wish, onOrder, onStop }: Props) {
  const { element: scroller, size } = useSize<HTMLDivElement>();
  const room = size?.width ?? 0;
  const columns = useMemo(() => shownColumns(table, profile), [table, profile]);
  const page = pageOf(columns.length);
  const [first] = useRowPages(table, page, [0], wish);
  const total = first.data?.page.total ?? table.rows;
  const rows = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 4,
  });
  const width = Math.max(LEAST_COLUMN, (room - NUMBERS) / Math.max(1, columns.length));
  const across = useVirtualizer({
    count: columns.length,
    horizontal: true,
    getScrollElement: () => scroller.current,
    estimateSize: () => width,
    paddingStart: NUMBERS,
    scrollPaddingStart: NUMBERS,
    overscan: 1,
  });
  useEffect(() => {
    if (width > 0) across.measure();
  }, [across, width]);
  const at = columns.findIndex((c) => c.name === chosen);
  useEffect(() => {
    if (at >= 0) across.scrollToIndex(at, { align: "auto" });
  }, [across, at]);
  const given = first.data?.page.columns;
  const places = useMemo(() => new Map(given?.map((name, i) => [name, i])), [given]);
  const spans = across.getVirtualItems();
  const [from, to] = [spans[0]?.index ?? 0, spans.at(-1)?.index ?? -1];
  const seen = useMemo(
    () =>
      columns
        .slice(from, to + 1)
        .map((column, i) => ({ column, index: from + i, at: places.get(column.name) ?? -1 })),
    [columns, from, to, places],
  );
  const items = rows.getVirtualItems();
  const pages = [...new Set(items.map((i) => Math.floor(i.index / page)))];
  const loaded = useRowPages(table, page, pages, wish);
  const rowAt = (index: number) => {
    const found = loaded[pages.indexOf(Math.floor(index / page))];
    return found?.data && !found.isPlaceholderData ? found.data.page.rows[index % page] : undefined;
  };
  return (
    <>
      <Working working={first.isFetching} wish={wish} onStop={onStop} />
      <div
        ref={scroller}
        role="region"
        aria-label={`Rows of ${table.name}`}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls must be reachable by keyboard
        tabIndex={0}
        onPointerOver={tellWhole}
        className="min-h-0 flex-1 overflow-auto border-t border-rule bg-sheet"
      >
        <div
          role="table"
          aria-label={table.name}
          aria-rowcount={total + 1}
          aria-colcount={columns.length + 1}
          style={{ width: NUMBERS + columns.length * width }}
        >
          <div
            role="row"
            aria-rowindex={1}
            className="sticky top-0 z-10 border-b border-rule bg-panel"
            style={{ height: HEAD }}
          >
            <div
              role="columnheader"
              aria-colindex={1}
              className="sticky left-0 z-1 flex h-full w-14 items-end justify-end bg-panel px-2 py-1.5 text-xs text-muted"
            >
              row
            </div>
            {seen.map(({ column, index }) => (
              <ColumnHead
                key={column.name}
                column={column}
                index={index}
                left={NUMBERS + index * width}
                width={width}
                info={profile?.columns.find((c) => c.name === column.name)}
                sorted={wish.order?.column === column.name ? wish.order.order : null}
                isChosen={chosen === column.name}
                onChoose={onChoose}
                onOrder={onOrder}
              />
            ))}
          </div>
          <div role="rowgroup" style={{ height: rows.getTotalSize(), position: "relative" }}>
            {items.map((item) => (
              <Row
                key={item.key}
                row={rowAt(item.index)}
                index={item.index}
                start={item.start}
                columns={seen}
                width={width}
              />
            ))}
          </div>
        </div>
        {total === 0 && (
          <p className="sticky left-0 w-fit p-6 text-muted">
            No row is left: nothing holds that text, or the filters keep none.
          </p>
        )}
      </div>
    </>
  );
}
