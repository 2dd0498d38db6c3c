"use client";
import { X } from "lucide-react";
import { useId, useState } from "react";
import { DATE_BUCKETS } from "@/core/base/calendar";
import { PLAIN_FORMAT } from "@/core/base/number-format";
import type { Value } from "@/core/base/value";
import type { Filter } from "@/core/plan/query";
import { LONGEST } from "@/core/project/most";
import type { OfferedColumn } from "@/core/project/offered";
import { Choose } from "./choose";
import { useColumnValues } from "./column-values";
import { CommitField } from "./commit-field";
import { DateField } from "./date-field";
import { NumberEntry } from "./number-entry";

type Form = "values" | "year" | "month" | "contains" | "range" | "relative" | "empty" | "filled";

const FORM_LABELS: Record<Form, string> = {
  values: "is one of",
  year: "is in the year",
  month: "is in the month",
  contains: "contains",
  range: "lies between",
  relative: "lies in the last …",
  empty: "is empty",
  filled: "is filled",
};
const FORMS: Record<string, Form[]> = {
  text: ["values", "contains", "empty", "filled"],
  number: ["range", "values", "empty", "filled"],
  boolean: ["values", "empty", "filled"],
  date: ["year", "month", "range", "relative", "empty", "filled"],
  timestamp: ["year", "month", "range", "relative", "empty", "filled"],
};

function formOf(filter: Filter): Form {
  if ("in" in filter) return filter.by === "year" || filter.by === "month" ? filter.by : "values";
  if ("contains" in filter) return "contains";
  if ("isNull" in filter) return filter.isNull ? "empty" : "filled";
  return "relative" in filter ? "relative" : "range";
}

/** The filter that a form begins with; null where it does nothing until something is chosen. */
function begun(form: Form, column: string): Filter | null {
  if (form === "empty" || form === "filled") return { column, isNull: form === "empty" };
  return form === "relative"
    ? { column, relative: { unit: "month", from: -2, to: 0, anchor: "newest" } }
    : null;
}

function Values({
  column,
  by,
  chosen,
  onChange,
}: {
  column: OfferedColumn;
  by?: "year" | "month";
  chosen: Value[];
  onChange: (chosen: Value[]) => void;
}) {
  const values = useColumnValues(column.table, column.column, by);
  return (
    <ul
      className="max-h-48 overflow-auto rounded-sm border border-rule"
      aria-label={`Values of ${column.name}`}
    >
      {values.map(({ value, label }) => (
        <li key={`${typeof value} ${value}`}>
          <label className="flex cursor-pointer items-center gap-2 px-2 py-1 hover:bg-tint">
            <input
              type="checkbox"
              className="accent-verdigris"
              checked={chosen.includes(value)}
              onChange={(e) =>
                onChange(e.target.checked ? [...chosen, value] : chosen.filter((v) => v !== value))
              }
            />
            <span className="truncate">{label}</span>
          </label>
        </li>
      ))}
    </ul>
  );
}

type Range = Extract<Filter, { from?: Value }>;

function RangeEnds({
  column,
  filter,
  onChange,
}: {
  column: OfferedColumn;
  filter: Range;
  onChange: (filter: Filter | null) => void;
}) {
  const id = useId();
  const set = (end: "from" | "to", value: Value | undefined) => {
    const next = { ...filter, [end]: value };
    onChange(next.from == null && next.to == null ? null : next);
  };
  return (
    <div className={`grid gap-2 ${column.type === "number" ? "grid-cols-2" : ""}`}>
      {(["from", "to"] as const).map((end) => {
        const label = end === "from" ? "From" : "To";
        if (column.type === "number")
          return (
            <NumberEntry
              key={end}
              label={label}
              value={(filter[end] as number | undefined) ?? null}
              format={PLAIN_FORMAT}
              onCommit={(n) => set(end, n)}
            />
          );
        return (
          <div key={end} className="flex flex-col gap-1">
            <label htmlFor={`${id} ${end}`} className="text-xs text-muted">
              {label}
            </label>
            <DateField
              id={`${id} ${end}`}
              label={label}
              optional
              value={String(filter[end] ?? "").slice(0, 10)}
              onCommit={(date) => set(end, date === "" ? undefined : date)}
            />
          </div>
        );
      })}
    </div>
  );
}

type Relative = Extract<Filter, { relative: unknown }>["relative"];
const STRETCHES = {
  today: [
    { value: "whole", label: "whole ones" },
    { value: "with", label: "with the present one" },
    { value: "present", label: "only the present one" },
  ],
  newest: [
    { value: "with", label: "with the newest" },
    { value: "whole", label: "before the newest" },
    { value: "present", label: "only the newest" },
  ],
};

function RelativeEditor({
  relative,
  onChange,
}: {
  relative: Relative;
  onChange: (relative: Relative) => void;
}) {
  const stretch = relative.to === -1 ? "whole" : relative.from === 0 ? "present" : "with";
  const count = relative.to - relative.from + 1;
  const set = (n: number, how: string) =>
    onChange({
      ...relative,
      ...(how === "present"
        ? { from: 0, to: 0 }
        : how === "whole"
          ? { from: -n, to: -1 }
          : { from: 1 - n, to: 0 }),
    });
  return (
    <div className="grid grid-cols-[64px_1fr] gap-1.5">
      <CommitField
        label="How many"
        mono
        value={String(count)}
        check={(t) =>
          Number.isInteger(Number(t)) && Number(t) >= 1 && Number(t) <= 1000 ? null : "1 to 1000"
        }
        onCommit={(t) => set(Number(t), stretch === "present" ? "with" : stretch)}
      />
      <Choose
        label="Unit"
        value={relative.unit}
        options={DATE_BUCKETS.map((b) => ({ value: b, label: count === 1 ? b : `${b}s` }))}
        onChange={(unit) => onChange({ ...relative, unit: unit as Relative["unit"] })}
      />
      <div className="col-span-2 grid grid-cols-2 gap-1.5">
        <Choose
          label="Which ones"
          value={stretch}
          options={STRETCHES[relative.anchor]}
          onChange={(how) => set(count, how)}
        />
        <Choose
          label="Counted from"
          value={relative.anchor}
          options={[
            { value: "today", label: "from today" },
            { value: "newest", label: "from the newest date" },
          ]}
          onChange={(anchor) => onChange({ ...relative, anchor: anchor as Relative["anchor"] })}
        />
      </div>
    </div>
  );
}

/**
 * A filter on one column; null, and so all rows, until something is chosen. Every form that the
 * column's type allows.
 */
export function FilterEditor({
  column,
  filter,
  onChange,
  onRemove,
}: {
  column: OfferedColumn;
  filter: Filter | null;
  onChange: (filter: Filter | null) => void;
  onRemove: () => void;
}) {
  const forms = FORMS[column.type] ?? FORMS.text;
  const [wished, setWished] = useState<Form>(filter ? formOf(filter) : forms[0]);
  const form = filter ? formOf(filter) : wished;
  const choose = (next: Form) => {
    setWished(next);
    onChange(begun(next, column.name));
  };
  const by = form === "year" || form === "month" ? form : undefined;
  return (
    <fieldset className="flex flex-col gap-1.5 border-b border-rule pb-3 last:border-0">
      <legend className="sr-only">Filter on {column.name}</legend>
      <div className="flex items-center gap-1.5">
        <span className="min-w-0 flex-1 truncate font-semibold" title={column.name}>
          {column.name}
        </span>
        <div className="w-36">
          <Choose
            label={`How ${column.name} is filtered`}
            value={form}
            options={forms.map((f) => ({ value: f, label: FORM_LABELS[f] }))}
            onChange={(f) => choose(f as Form)}
          />
        </div>
        <button
          type="button"
          className="icon-button size-6"
          aria-label={`Remove the filter on ${column.name}`}
          onClick={onRemove}
        >
          <X size={13} />
        </button>
      </div>
      {(form === "values" || by) && (
        <Values
          column={column}
          by={by}
          chosen={filter && "in" in filter ? filter.in : []}
          onChange={(chosen) =>
            onChange(chosen.length ? { column: column.name, in: chosen, ...(by ? { by } : {}) } : null)
          }
        />
      )}
      {form === "contains" && (
        <CommitField
          label={`Text in ${column.name}`}
          value={filter && "contains" in filter ? filter.contains : ""}
          placeholder="a part of the text"
          longest={LONGEST.compared}
          onCommit={(t) => onChange(t ? { column: column.name, contains: t } : null)}
        />
      )}
      {form === "range" && (
        <RangeEnds
          column={column}
          filter={filter && formOf(filter) === "range" ? (filter as Range) : { column: column.name }}
          onChange={onChange}
        />
      )}
      {form === "relative" && filter && "relative" in filter && (
        <RelativeEditor
          relative={filter.relative}
          onChange={(relative) => onChange({ column: column.name, relative })}
        />
      )}
    </fieldset>
  );
}
