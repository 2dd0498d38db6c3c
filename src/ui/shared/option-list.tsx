"use client";
import { Command } from "cmdk";
import { useMemo, useState } from "react";
import { matching } from "./matching";

/** One of a list to choose from. */
export interface Option {
  key: string;
  label: string;
  hint?: string;
  group?: string;
  pick: () => void;
}

/** So many are shown; more are found by typing. */
const MOST = 60;

/**
 * A list to choose from by typing, arrow keys or pointer. A list of thousands stays quick: only the first of
 * what matches are drawn.
 */
export function OptionList({
  label,
  options,
  chosen,
  close,
  placeholder = "Find …",
  large = false,
}: {
  label: string;
  options: Option[];
  chosen?: string;
  close: () => void;
  placeholder?: string;
  /** For a list that is all of its window. */
  large?: boolean;
}) {
  const [find, setFind] = useState("");
  const found = useMemo(() => matching(options, find, (o) => o.label), [options, find]);
  const first = found.slice(0, MOST);
  const kept = find === "" ? found.find((o) => o.key === chosen) : undefined;
  const shown = kept && !first.includes(kept) ? [kept, ...first] : first;
  const groups = [...new Set(shown.map((o) => o.group ?? ""))];
  const rest = found.length - shown.length;
  return (
    <Command label={label} shouldFilter={false} defaultValue={chosen}>
      <Command.Input
        placeholder={placeholder}
        value={find}
        onValueChange={setFind}
        maxLength={200}
        className={`w-full border-b border-rule bg-transparent outline-none ${large ? "h-12 px-4 text-md" : "h-9 px-3"}`}
      />
      <Command.List className={`overflow-auto ${large ? "max-h-80 p-2" : "max-h-72 p-1.5"}`}>
        {shown.length === 0 && <p className="p-3 text-muted">Nothing has that name.</p>}
        {groups.map((group) => (
          <Command.Group
            key={group}
            heading={group || undefined}
            className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:py-1 [&_[cmdk-group-heading]]:text-xs [&_[cmdk-group-heading]]:text-muted"
          >
            {shown
              .filter((o) => (o.group ?? "") === group)
              .map((o) => (
                <Command.Item
                  key={o.key}
                  value={o.key}
                  title={o.label}
                  onSelect={() => {
                    o.pick();
                    close();
                  }}
                  className="flex cursor-pointer items-baseline justify-between gap-3 rounded-sm px-2 py-1.5 data-[selected=true]:bg-tint"
                >
                  <span className={`truncate ${o.key === chosen ? "font-semibold" : ""}`}>{o.label}</span>
                  {o.hint && <span className="shrink-0 truncate font-mono text-xs text-muted">{o.hint}</span>}
                </Command.Item>
              ))}
          </Command.Group>
        ))}
        {rest > 0 && (
          <p className="px-2 py-1.5 text-sm text-muted">{rest} more: type a part of the name to find them.</p>
        )}
      </Command.List>
    </Command>
  );
}
