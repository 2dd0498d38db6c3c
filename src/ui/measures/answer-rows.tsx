"use client";
import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  getSortedRowModel,
  type Row,
  type SortingState,
  useReactTable,
} from "@tanstack/react-table";
import { ArrowDown, ArrowUp, Rows3 } from "lucide-react";
import { useMemo, useRef, useState } from "react";
import { formatNumber } from "@/core/base/number-format";
import { compareValues, type Value } from "@/core/base/value";
import type { Measure } from "@/core/project/schema";
import type { TriedGroup } from "@/core/view/tried-answers";
import { shownValue, WHOLE } from "./shown-value";

const helper = createColumnHelper<TriedGroup>();
/** What is empty comes last, whichever way: the table sorts what is undefined to the end. */
const sortable = (value: Value) => value ?? undefined;
const byValue = (a: Row<TriedGroup>, b: Row<TriedGroup>, column: string) =>
  compareValues(a.getValue(column), b.getValue(column));
const CELLS: Record<string, string> = {
  label: "max-w-0 truncate px-2 py-1.5 narrow:overflow-visible narrow:whitespace-normal",
  count: "px-2 py-1.5 text-right font-mono text-muted",
  bar: "px-2 py-1.5",
  value: "px-2 py-1.5 text-right font-mono",
  behind: "w-9 text-right",
};
const HEADS: Record<string, string> = {
  label: "w-[30%]",
  count: "w-24 text-right",
  bar: "",
  value: "w-36 text-right",
};
const ORDERS = { asc: "ascending", desc: "descending" } as const;

/** The head and the rows of a measure's answers, in the order of the answer or by a column. */
export function AnswerRows({
  rows,
  heads,
  measure,
  most,
  onBehind,
}: {
  rows: TriedGroup[];
  heads: { label: string; value: string };
  measure: Measure;
  /** The largest value without its sign: what a full bar is. */
  most: number;
  /** Opens the rows behind a group. */
  onBehind: (group: TriedGroup) => void;
}) {
  const [sorting, setSorting] = useState<SortingState>([]);
  // Columns stay the same while only what is opened changes.
  const told = useRef(onBehind);
  told.current = onBehind;
  const columns = useMemo(
    () => [
      helper.accessor((row) => sortable(row.key), {
        id: "label",
        header: heads.label,
        sortingFn: byValue,
        sortUndefined: "last",
        cell: (cell) => cell.row.original.label,
      }),
      helper.accessor("count", {
        header: "rows",
        cell: (cell) => formatNumber(cell.getValue(), { ...measure.format, ...WHOLE }),
      }),
      helper.display({
        id: "bar",
        header: "",
        cell: ({ row: { original } }) => {
          const { value } = original;
          const share = typeof value === "number" && most > 0 ? Math.abs(value) / most : 0;
          return (
            <div
              className={`h-2 rounded-full ${typeof value === "number" && value < 0 ? "bg-signal" : "bg-verdigris"}`}
              style={{ width: `${share * 100}%` }}
            />
          );
        },
      }),
      helper.accessor((row) => sortable(row.value), {
        id: "value",
        header: heads.value,
        sortingFn: byValue,
        sortUndefined: "last",
        cell: (cell) => shownValue(cell.row.original.value, measure),
      }),
      helper.display({
        id: "behind",
        header: "",
        cell: ({ row: { original } }) => (
          <button
            type="button"
            title={`Rows behind ${original.label}`}
            aria-label={`Rows behind ${original.label}`}
            className="icon-button size-7"
            onClick={() => told.current(original)}
          >
            <Rows3 size={14} />
          </button>
        ),
      }),
    ],
    [heads.label, heads.value, measure, most],
  );
  const table = useReactTable({
    data: rows,
    columns,
    state: { sorting },
    onSortingChange: setSorting,
    getRowId: (row) => row.id,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  return (
    <>
      <thead className="sticky top-0 bg-paper">
        {table.getHeaderGroups().map((group) => (
          <tr key={group.id} className="border-b border-rule text-left text-muted">
            {group.headers.map(({ id, column, getContext }) => {
              const sorted = column.getIsSorted();
              const head = flexRender(column.columnDef.header, getContext());
              return id === "bar" || id === "behind" ? (
                <td key={id} />
              ) : (
                <th
                  key={id}
                  aria-sort={sorted ? ORDERS[sorted] : "none"}
                  className={`px-2 py-1 font-medium ${HEADS[id]}`}
                >
                  <button
                    type="button"
                    title={String(column.columnDef.header)}
                    className="inline-flex min-h-6 max-w-full items-center gap-1 hover:text-ink"
                    onClick={column.getToggleSortingHandler()}
                  >
                    <span className="truncate">{head}</span>
                    {sorted === "asc" && <ArrowUp size={12} aria-hidden="true" />}
                    {sorted === "desc" && <ArrowDown size={12} aria-hidden="true" />}
                  </button>
                </th>
              );
            })}
          </tr>
        ))}
      </thead>
      <tbody>
        {table.getRowModel().rows.map((row) => (
          <tr key={row.id} className="border-b border-rule/60">
            {row.getVisibleCells().map((cell) => (
              <td key={cell.id} className={CELLS[cell.column.id]}>
                {flexRender(cell.column.columnDef.cell, cell.getContext())}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </>
  );
}
