"use client";
import { ChevronDown } from "lucide-react";
import { Popover } from "radix-ui";
import { useState } from "react";
import type { ChooseProps } from "./choose-props";
import { OptionList } from "./option-list";

/** A choice among many: found by a part of the name. */
export function LongChoose({ id, label, value, options, onChange, disabled }: ChooseProps) {
  const [open, setOpen] = useState(false);
  const now = options.find((o) => o.value === value);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        id={id}
        role="combobox"
        aria-expanded={open}
        aria-label={label}
        title={now?.label}
        disabled={disabled}
        className="field flex items-center gap-1 pr-1.5 text-left disabled:opacity-50"
      >
        <span className="min-w-0 flex-1 truncate">{now?.label ?? "\u00a0"}</span>
        <ChevronDown size={13} className="shrink-0 text-muted" aria-hidden="true" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          aria-label={label}
          className="z-50 w-80 max-w-[92vw] rounded-md border border-rule bg-sheet text-ink shadow-stage"
        >
          <OptionList
            label={label ?? "Choices"}
            chosen={value}
            options={options.map((o) => ({
              key: o.value,
              label: o.label,
              why: o.why,
              pick: () => onChange(o.value),
            }))}
            close={() => setOpen(false)}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
