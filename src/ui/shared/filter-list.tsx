"use client";
import { Plus } from "lucide-react";
import { useState } from "react";
import { findNamed } from "@/core/base/names";
import type { Filter } from "@/core/plan/query";
import type { OfferedColumn } from "@/core/project/offered";
import { Choose } from "./choose";
import { FilterEditor } from "./filter-editor";

/** The filters of a visual, by any column that its table has or reaches. */
export function FilterList({
  columns,
  filters,
  onChange,
}: {
  columns: OfferedColumn[];
  filters: Filter[];
  onChange: (filters: Filter[]) => void;
}) {
  const [column, setColumn] = useState("");
  // A column that was taken up but keeps all rows so far has no filter in the sentence yet.
  const [begun, setBegun] = useState<string[]>(filters.map((f) => f.column));
  const shown = [...new Set([...filters.map((f) => f.column), ...begun])];
  const offered = columns.filter((c) => !shown.includes(c.name));
  const without = (name: string) => filters.filter((f) => f.column !== name);
  return (
    <div className="flex max-h-[420px] flex-col gap-3 overflow-auto p-3">
      {shown.map((name) => {
        const found = findNamed(columns, name);
        const gone: OfferedColumn = { name, type: "text", table: "", column: name, own: true };
        return (
          <FilterEditor
            key={name}
            column={found ?? gone}
            filter={filters.find((f) => f.column === name) ?? null}
            onChange={(next) => {
              const at = filters.findIndex((f) => f.column === name);
              setBegun((b) => [...new Set([...b, name])]);
              if (next === null) onChange(without(name));
              else onChange(at < 0 ? [...filters, next] : filters.map((f, i) => (i === at ? next : f)));
            }}
            onRemove={() => {
              setBegun((b) => b.filter((n) => n !== name));
              onChange(without(name));
            }}
          />
        );
      })}
      <div className="flex gap-1.5">
        <Choose
          label="Column to filter by"
          value={column}
          options={[
            { value: "", label: "Choose a column" },
            ...offered.map((c) => ({ value: c.name, label: c.name })),
          ]}
          onChange={setColumn}
        />
        <button
          type="button"
          className="button"
          disabled={!column}
          onClick={() => {
            setBegun([...shown, column]);
            setColumn("");
          }}
        >
          <Plus size={13} /> Add the filter
        </button>
      </div>
    </div>
  );
}
