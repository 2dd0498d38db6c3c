"use client";
import { ArrowDown, ArrowUp } from "lucide-react";
import { memo } from "react";
import type { TableProfile } from "@/server/compute/protocol";
import { ColumnSketch } from "./column-sketch";
import type { ShownColumn } from "./shown-columns";
import type { RowOrder } from "./table-row-pages";

const count = (n: number) => n.toLocaleString("en").replaceAll(",", "\u2009");

/** What a click on the sorting of a column leads to: upwards, downwards, not at all. */
function nextOrder(column: string, sorted: RowOrder["order"] | null): RowOrder | null {
  if (sorted === null) return { column, order: "asc" };
  return sorted === "asc" ? { column, order: "desc" } : null;
}

/** The head of one column: its name, sorting, type, a sketch of its values, how many they are. */
export const ColumnHead = memo(function ColumnHead({
  column,
  index,
  left,
  width,
  info,
  sorted,
  isChosen,
  onChoose,
  onOrder,
}: {
  column: ShownColumn;
  index: number;
  /** Where it stands across the rows, in pixels. */
  left: number;
  width: number;
  info: TableProfile["columns"][number] | undefined;
  sorted: RowOrder["order"] | null;
  isChosen: boolean;
  onChoose: (column: string) => void;
  onOrder: (order: RowOrder | null) => void;
}) {
  return (
    <div
      role="columnheader"
      aria-colindex={index + 2}
      aria-sort={sorted === "asc" ? "ascending" : sorted === "desc" ? "descending" : "none"}
      style={{ left, width }}
      className={`absolute inset-y-0 border-l border-rule px-2 py-1.5 ${isChosen ? "bg-tint" : "bg-panel"}`}
    >
      <div className="flex items-center gap-1">
        <button
          type="button"
          title={column.name}
          className="min-h-6 min-w-0 flex-1 truncate text-left text-sm font-semibold hover:text-verdigris-deep"
          onClick={() => onChoose(column.name)}
        >
          {column.name}
        </button>
        <button
          type="button"
          className="icon-button size-6"
          aria-label={`Sort by ${column.name}`}
          onClick={() => onOrder(nextOrder(column.name, sorted))}
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
        {info && info.unread > 0 && <span className="text-signal"> · {count(info.unread)} unread</span>}
      </div>
    </div>
  );
});
