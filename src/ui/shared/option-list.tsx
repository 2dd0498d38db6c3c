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
  /** Why it cannot be chosen, in a sentence: it stands below all others, with that. */
  why?: string | null;
  pick: () => void;
}

/** What heads the options that cannot be chosen. */
const CANNOT = "Not possible here";
const groupOf = (option: Option) => (option.why ? CANNOT : (option.group ?? ""));

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
  const found = useMemo(() => {
    const all = matching(options, find, (o) => o.label);
    return [...all.filter((o) => !o.why), ...all.filter((o) => o.why)];
  }, [options, find]);
  const first = found.slice(0, MOST);
  const kept = find === "" ? found.find((o) => o.key === chosen) : undefined;
  const shown = kept && !first.includes(kept) ? [kept, ...first] : first;
  const groups = [...new Set(shown.map(groupOf))];
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
      <Command.List label={label} className={`overflow-auto ${large ? "max-h-80 p-2" : "max-h-72 p-1.5"}`}>
        {groups.map((group) => (
          <Command.Group
            key={group}
            heading={group || undefined}
            className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:py-1 [&_[cmdk-group-heading]]:text-xs [&_[cmdk-group-heading]]:text-muted"
          >
            {shown
              .filter((o) => groupOf(o) === group)
              .map((o) => (
                <Command.Item
                  key={o.key}
                  value={o.key}
                  title={o.label}
                  // It can be walked to, so that its reason is heard, but not chosen.
                  aria-disabled={o.why ? true : undefined}
                  onSelect={() => {
                    if (o.why) return;
                    o.pick();
                    close();
                  }}
                  className={`flex flex-wrap items-baseline justify-between gap-x-3 rounded-sm px-2 py-1.5 data-[selected=true]:bg-tint ${o.why ? "cursor-default text-muted" : "cursor-pointer"}`}
                >
                  <span className={`min-w-0 flex-1 truncate ${o.key === chosen ? "font-semibold" : ""}`}>
                    {o.label}
                  </span>
                  {o.hint && <span className="shrink-0 truncate font-mono text-xs text-muted">{o.hint}</span>}
                  {o.why && <span className="w-full text-xs">{o.why}</span>}
                </Command.Item>
              ))}
          </Command.Group>
        ))}
      </Command.List>
      {/* A list of options holds nothing else. */}
      {shown.length === 0 && <p className="px-3 pb-3 text-muted">Nothing has that name.</p>}
      {rest > 0 && (
        <p className="px-3.5 pb-2 text-sm text-muted">{rest} more: type a part of the name to find them.</p>
      )}
    </Command>
  );
}
