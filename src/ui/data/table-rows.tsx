"use client";
import { keepPreviousData, useQueries } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { ArrowDown, ArrowUp } from "lucide-react";
import { useRef } from "react";
import type { Filter } from "@/core/plan/query";
import type { TableInfo } from "@/core/project/schema";
import type { TableProfile } from "@/server/compute/protocol";
import { api } from "../shared/api";
import { useProjectStore } from "../shared/project-context";
import { ColumnSketch } from "./column-sketch";
import { useTableVersion } from "./table-version";

const PAGE = 100;
const ROW = 28;
export interface RowOrder {
  column: string;
  order: "asc" | "desc";
}

function useRows(
  table: TableInfo,
  wanted: number[],
  order: RowOrder | null,
  find: string,
  filters: Filter[],
) {
  const store = useProjectStore();
  const version = useTableVersion(table);
  return useQueries({
    queries: wanted.map((page) => ({
      queryKey: ["rows", version, page, order, find, filters],
      queryFn: async () => {
        // The server reads the columns as the saved document says.
        await store.getState().flush();
        return api.rows(store.getState().id, table.name, {
          offset: page * PAGE,
          limit: PAGE,
          find,
          filters: JSON.stringify(filters),
          ...(order ? { sort: order.column, order: order.order } : {}),
        });
      },
      placeholderData: keepPreviousData,
      staleTime: Number.POSITIVE_INFINITY,
    })),
  });
}

/** The columns that are not hidden, the derived ones last. */
export function shownColumns(
  table: TableInfo,
  profile: TableProfile | null,
): { name: string; type: string; derived: boolean }[] {
  const typeOf = (name: string) => profile?.columns.find((c) => c.name === name)?.type ?? "…";
  return [
    ...table.columns
      .filter((c) => !c.hidden)
      .map((c) => ({ name: c.name, type: c.reading.type, derived: false })),
    ...table.derived
      .filter((c) => !c.hidden)
      .map((c) => ({ name: c.name, type: typeOf(c.name), derived: true })),
  ];
}

const count = (n: number) => n.toLocaleString("en").replaceAll(",", "\u2009");

interface Props {
  table: TableInfo;
  profile: TableProfile | null;
  chosen: string | null;
  onChoose: (column: string) => void;
  order: RowOrder | null;
  onOrder: (order: RowOrder | null) => void;
  find: string;
  filters: Filter[];
}

/**
 * The rows of a table: only those in view are fetched and drawn. Heads carry the type, a sketch, nulls and
 * distinct values.
 */
export function TableRows({ table, profile, chosen, onChoose, order, onOrder, find, filters }: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const [first] = useRows(table, [0], order, find, filters);
  const given = first.data?.page.columns ?? [];
  const total = first.data?.page.total ?? table.rows;
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const items = virtual.getVirtualItems();
  const pages = [...new Set(items.map((i) => Math.floor(i.index / PAGE)))];
  const loaded = useRows(table, pages, order, find, filters);
  const rowAt = (index: number) => {
    const found = loaded[pages.indexOf(Math.floor(index / PAGE))];
    return found?.data && !found.isPlaceholderData ? found.data.page.rows[index % PAGE] : undefined;
  };
  const columns = shownColumns(table, profile);
  const template = `56px repeat(${columns.length}, minmax(132px, 1fr))`;
  const nextOrder = (column: string): RowOrder | null =>
    order?.column !== column
      ? { column, order: "asc" }
      : order.order === "asc"
        ? { column, order: "desc" }
        : null;
  return (
    <div
      ref={scroller}
      role="region"
      aria-label={`Rows of ${table.name}`}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls must be reachable by keyboard
      tabIndex={0}
      className="min-h-0 flex-1 overflow-auto border-t border-rule bg-sheet"
    >
      <div
        role="table"
        aria-label={table.name}
        aria-rowcount={total + 1}
        style={{ minWidth: 56 + columns.length * 132 }}
      >
        <div
          role="row"
          aria-rowindex={1}
          className="sticky top-0 z-10 grid border-b border-rule bg-panel"
          style={{ gridTemplateColumns: template }}
        >
          <div role="columnheader" className="self-end px-2 py-1.5 text-right text-xs text-muted">
            row
          </div>
          {columns.map((column) => {
            const info = profile?.columns.find((c) => c.name === column.name);
            const sorted = order?.column === column.name ? order.order : null;
            return (
              <div
                key={column.name}
                role="columnheader"
                aria-sort={sorted === "asc" ? "ascending" : sorted === "desc" ? "descending" : "none"}
                className={`border-l border-rule px-2 py-1.5 ${chosen === column.name ? "bg-tint" : ""}`}
              >
                <div className="flex items-center gap-1">
                  <button
                    type="button"
                    title={column.name}
                    className="min-w-0 flex-1 truncate text-left text-sm font-semibold hover:text-verdigris"
                    onClick={() => onChoose(column.name)}
                  >
                    {column.name}
                  </button>
                  <button
                    type="button"
                    className="icon-button size-5"
                    aria-label={`Sort by ${column.name}`}
                    onClick={() => onOrder(nextOrder(column.name))}
                  >
                    {sorted === "desc" ? (
                      <ArrowDown size={12} />
                    ) : (
                      <ArrowUp size={12} className={sorted ? "" : "opacity-35"} />
                    )}
                  </button>
                </div>
                <div className="truncate font-mono text-xs text-muted">
                  {column.derived ? `ƒ ${column.type}` : column.type}
                </div>
                <div className="h-[22px]">{info && <ColumnSketch column={info} />}</div>
                <div className="truncate text-xs text-muted">
                  {info
                    ? `${count(info.distinct)} distinct${info.nulls ? ` · ${count(info.nulls)} empty` : ""}`
                    : "\u00a0"}
                  {info && info.unread > 0 && (
                    <span className="text-signal"> · {count(info.unread)} unread</span>
                  )}
                </div>
              </div>
            );
          })}
        </div>
        <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: "relative" }}>
          {items.map((item) => {
            const row = rowAt(item.index);
            return (
              <div
                key={item.key}
                role="row"
                aria-rowindex={item.index + 2}
                className="absolute inset-x-0 grid border-b border-rule/50"
                style={{
                  gridTemplateColumns: template,
                  height: ROW,
                  transform: `translateY(${item.start}px)`,
                }}
              >
                <div
                  role="rowheader"
                  className="truncate px-2 py-1 text-right font-mono text-xs leading-5 text-muted"
                >
                  {row ? row.number : "…"}
                </div>
                {columns.map((column) => {
                  const at = given.indexOf(column.name);
                  const cell = row?.cells[at] ?? null;
                  const unread = row?.unread.includes(at);
                  const numeric = column.type === "number";
                  return (
                    <div
                      key={column.name}
                      role="cell"
                      title={cell ?? undefined}
                      className={`truncate border-l border-rule/50 px-2 text-sm leading-[27px] ${numeric ? "text-right" : ""} ${unread ? "bg-signal-tint text-signal" : ""}`}
                    >
                      {cell ?? <span className="text-faint">{row ? "—" : ""}</span>}
                    </div>
                  );
                })}
              </div>
            );
          })}
        </div>
      </div>
      {total === 0 && (
        <p className="p-6 text-muted">No row is left: nothing holds that text, or the filters keep none.</p>
      )}
    </div>
  );
}
