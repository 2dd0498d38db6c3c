"use client";
import { ChartPie, Keyboard, Plus, Search, X } from "lucide-react";
import { useDeferredValue, useState } from "react";
import { GRID_LIMITS } from "@/core/data/typed-grid";
import type { Filter } from "@/core/plan/query";
import type { TableInfo } from "@/core/project/schema";
import { filterText } from "@/core/rows/filter-text";
import type { TableProfile } from "@/server/compute/protocol";
import { freeLabel } from "../shared/ids";
import { useLate } from "../shared/late";
import { ProgressBar } from "../shared/progress-bar";
import { useProject } from "../shared/project-context";
import { StepLink } from "../shared/step-link";
import { FindColumn } from "./find-column";
import { shownColumns } from "./shown-columns";
import type { RowOrder } from "./table-row-pages";
import { TableRows } from "./table-rows";

const count = (n: number) => n.toLocaleString("en").replaceAll(",", "\u2009");

/** From so many columns on, one is found by its name. */
const MANY = 8;

interface Props {
  table: TableInfo;
  profile: TableProfile | null;
  chosen: string | null;
  onChoose: (column: string) => void;
  filters: Filter[];
  onFilters: (filters: Filter[]) => void;
  /** Opens the cells of a small table to be typed in. */
  onType: (table: TableInfo) => void;
}

/** A table's rows with what is found, filtered and sorted in them. None of it changes the table. */
export function TableView({ table, profile, chosen, onChoose, filters, onFilters, onType }: Props) {
  const id = useProject((s) => s.id);
  const apply = useProject((s) => s.apply);
  const [order, setOrder] = useState<RowOrder | null>(null);
  const [find, setFind] = useState("");
  const wanted = useDeferredValue(find);
  // What is there at once needs no word.
  const reading = useLate(profile === null, 300);
  const columns = shownColumns(table, profile);
  const hidden = table.columns.length + table.derived.length - columns.length;
  const names = [...table.columns, ...table.derived].map((c) => c.name);
  const sortable = order && names.includes(order.column) ? order : null;
  const standing = filters.filter((f) => names.includes(f.column));
  const derive = () => {
    const name = freeLabel("new_column", names).replace(" ", "_");
    const derived = { name, formula: "", hidden: false };
    if (apply({ type: "add derived", table: table.id, derived })) onChoose(name);
  };
  return (
    <>
      <div className="flex min-h-14 flex-wrap items-center gap-3 px-4 py-2">
        <h1 className="truncate text-lg">{table.name}</h1>
        <span className="text-muted">
          {count(table.rows)} rows · {columns.length} columns{hidden > 0 && ` · ${hidden} hidden`}
        </span>
        <StepLink to={`/p/${id}/visuals?draw=${table.id}`} className="button ml-auto">
          <ChartPie size={13} /> Draw this table
        </StepLink>
        {table.rows <= GRID_LIMITS.rows && table.columns.length <= GRID_LIMITS.columns && (
          <button type="button" className="button" onClick={() => onType(table)}>
            <Keyboard size={13} /> Change cells
          </button>
        )}
        <button type="button" className="button" onClick={derive}>
          <Plus size={13} /> Derive a column
        </button>
        {columns.length > MANY && <FindColumn columns={columns} chosen={chosen} onChoose={onChoose} />}
        <label className="flex h-8 w-52 min-w-32 flex-auto items-center max-w-52 gap-2 rounded-sm border border-rule bg-sheet px-2.5 focus-within:outline-2 focus-within:outline-verdigris">
          <Search size={14} className="text-muted" />
          <input
            aria-label="Find in rows"
            value={find}
            maxLength={200}
            placeholder="Find in rows"
            onChange={(e) => setFind(e.target.value)}
            className="min-w-0 flex-1 bg-transparent text-sm outline-none"
          />
        </label>
        {standing.length > 0 && (
          <ul className="flex w-full flex-wrap gap-1.5" aria-label="Rows shown">
            {standing.map((f) => (
              <li
                key={f.column}
                className="flex items-center gap-1 rounded-sm bg-tint py-0.5 pr-1 pl-2 text-sm"
              >
                {f.column === filterText(f).slice(0, f.column.length)
                  ? filterText(f)
                  : `${f.column}: ${filterText(f)}`}
                <button
                  type="button"
                  className="icon-button size-6"
                  aria-label={`Show all of ${f.column}`}
                  onClick={() => onFilters(filters.filter((g) => g !== f))}
                >
                  <X size={11} />
                </button>
              </li>
            ))}
          </ul>
        )}
      </div>
      {reading && (
        <div role="status" className="flex items-center gap-2 px-4 pb-2 text-sm text-muted">
          <ProgressBar label={`Reading the columns of ${table.name}`} share={null} className="w-40" />
          Reading the columns …
        </div>
      )}
      <TableRows
        table={table}
        profile={profile}
        chosen={chosen}
        onChoose={onChoose}
        wish={{ order: sortable, find: wanted, filters: standing }}
        onOrder={setOrder}
        onStop={() => {
          setOrder(null);
          setFind("");
        }}
      />
    </>
  );
}
