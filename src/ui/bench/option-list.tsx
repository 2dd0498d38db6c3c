"use client";
import { Command } from "cmdk";

/** One of a list to choose from. */
export interface Option {
  key: string;
  label: string;
  hint?: string;
  group?: string;
  pick: () => void;
}

/** A list to choose from by typing, arrow keys or pointer. */
export function OptionList({
  label,
  options,
  chosen,
  close,
}: {
  label: string;
  options: Option[];
  chosen?: string;
  close: () => void;
}) {
  const groups = [...new Set(options.map((o) => o.group ?? ""))];
  return (
    <Command label={label} defaultValue={chosen}>
      <Command.Input
        placeholder="Find …"
        className="h-9 w-full border-b border-rule bg-transparent px-3 outline-none"
      />
      <Command.List className="max-h-72 overflow-auto p-1.5">
        <Command.Empty className="p-3 text-muted">Nothing has that name.</Command.Empty>
        {groups.map((group) => (
          <Command.Group
            key={group}
            heading={group || undefined}
            className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:py-1 [&_[cmdk-group-heading]]:text-xs [&_[cmdk-group-heading]]:text-muted"
          >
            {options
              .filter((o) => (o.group ?? "") === group)
              .map((o) => (
                <Command.Item
                  key={o.key}
                  value={`${o.label} ${o.key}`}
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
      </Command.List>
    </Command>
  );
}
