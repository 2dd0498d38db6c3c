"use client";
import { Command } from "cmdk";
import { Popover } from "radix-ui";
import { type ReactNode, useState } from "react";
import { stayForField } from "../shared/unsaved-field";

const TONES = {
  data: "border-verdigris bg-tint text-verdigris-deep",
  input: "border-amber-line bg-amber-tint text-amber",
  missing: "border-dotted border-muted text-muted",
};

/** A part of the sentence that can be changed in place: a button that opens its choices. */
export function Phrase({
  label,
  text,
  tone = "data",
  children,
}: {
  label: string;
  text: string;
  tone?: keyof typeof TONES;
  children: (close: () => void) => ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={`${label}: ${text}`}
        className={`mx-0.5 inline rounded-t-sm border-b-2 px-1.5 leading-7 font-semibold transition-colors hover:brightness-95 ${TONES[tone]}`}
      >
        {text}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          aria-label={label}
          onEscapeKeyDown={stayForField}
          className="z-30 w-80 rounded-md border border-rule bg-sheet text-base shadow-stage"
        >
          {children(() => setOpen(false))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

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
