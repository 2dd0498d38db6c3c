"use client";
import { Plus, X } from "lucide-react";
import { useState } from "react";
import type { Filter } from "@/core/engine/query";
import { PLAIN_FORMAT } from "@/core/kinds/visual-data";
import type { TableInfo } from "@/core/project/schema";
import { useColumnValues } from "../shared/column-values";
import { Choose } from "../shared/labelled";
import { NumberEntry } from "./number-entry";
import { Phrase } from "./phrase";

function filterText(filter: Filter): string {
  if ("in" in filter)
    return filter.in.length === 0
      ? `${filter.column}: none`
      : filter.in.length <= 2
        ? filter.in.map((v) => (v === null ? "(none)" : String(v))).join(" and ")
        : `${filter.in.length} of ${filter.column}`;
  const { from, to } = filter as { from?: unknown; to?: unknown };
  return from != null && to != null ? `${filter.column} ${from} to ${to}` : from != null ? `${filter.column} from ${from}` : `${filter.column} up to ${to ?? "…"}`;
}

function Values({ table, filter, onChange }: { table: TableInfo; filter: Extract<Filter, { in: unknown[] }>; onChange: (filter: Filter) => void }) {
  const values = useColumnValues(table.name, filter.column, filter.by === "year" || filter.by === "quarter" || filter.by === "month" ? filter.by : undefined);
  return (
    <ul className="max-h-48 overflow-auto rounded-sm border border-rule" aria-label={`Values of ${filter.column}`}>
      {values.map(({ value, label }) => (
        <li key={String(value)}>
          <label className="flex cursor-pointer items-center gap-2 px-2 py-1 hover:bg-tint">
            <input
              type="checkbox"
              className="accent-verdigris"
              checked={filter.in.includes(value)}
              onChange={(e) => onChange({ ...filter, in: e.target.checked ? [...filter.in, value] : filter.in.filter((v) => v !== value) })}
            />
            <span className="truncate">{label}</span>
          </label>
        </li>
      ))}
    </ul>
  );
}

function FilterEditor({ table, filter, onChange, onRemove }: { table: TableInfo; filter: Filter; onChange: (filter: Filter) => void; onRemove: () => void }) {
  return (
    <fieldset className="flex flex-col gap-1.5 border-b border-rule pb-3 last:border-0">
      <legend className="sr-only">Filter on {filter.column}</legend>
      <div className="flex items-center justify-between">
        <span className="font-semibold">{filter.column}</span>
        <button type="button" className="icon-button size-6" aria-label={`Remove the filter on ${filter.column}`} onClick={onRemove}>
          <X size={13} />
        </button>
      </div>
      {"in" in filter ? (
        <Values table={table} filter={filter} onChange={onChange} />
      ) : (
        <div className="grid grid-cols-2 gap-2">
          {(["from", "to"] as const).map((end) => (
            <NumberEntry
              key={end}
              label={end === "from" ? "From" : "To"}
              value={((filter as { from?: number; to?: number })[end] as number) ?? null}
              format={PLAIN_FORMAT}
              onCommit={(n) => onChange({ ...filter, [end]: n })}
            />
          ))}
        </div>
      )}
    </fieldset>
  );
}

/** "for 2025 and Ferrow Isle": the rows a visual keeps, by any column of its table. */
export function FiltersPhrase({ table, filters, onChange }: { table: TableInfo; filters: Filter[]; onChange: (filters: Filter[]) => void }) {
  const [column, setColumn] = useState("");
  const add = (name: string) => {
    const type = table.columns.find((c) => c.name === name)?.reading.type;
    const filter: Filter = type === "number" || type === "timestamp" ? { column: name } : { column: name, in: [], ...(type === "date" ? { by: "year" as const } : {}) };
    onChange([...filters, filter]);
    setColumn("");
  };
  const free = table.columns.filter((c) => c.reading.type !== "timestamp" && !filters.some((f) => f.column === c.name));
  return (
    <Phrase label="Filter" text={filters.length ? filters.map(filterText).join(", ") : "all rows"}>
      {() => (
        <div className="flex max-h-[420px] flex-col gap-3 overflow-auto p-3">
          {filters.map((filter, i) => (
            <FilterEditor
              key={filter.column}
              table={table}
              filter={filter}
              onChange={(f) => onChange(filters.map((old, k) => (k === i ? f : old)))}
              onRemove={() => onChange(filters.filter((_, k) => k !== i))}
            />
          ))}
          <div className="flex gap-1.5">
            <Choose
              label="Column to filter by"
              value={column}
              options={[{ value: "", label: "Choose a column" }, ...free.map((c) => ({ value: c.name, label: c.name }))]}
              onChange={setColumn}
            />
            <button type="button" className="button" disabled={!column} onClick={() => add(column)}>
              <Plus size={13} /> Filter
            </button>
          </div>
        </div>
      )}
    </Phrase>
  );
}
