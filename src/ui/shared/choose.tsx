"use client";
import { Check, ChevronDown } from "lucide-react";
import { Select } from "radix-ui";
import { useEffect, useRef, useState } from "react";
import type { ChooseProps } from "./choose-props";
import { later } from "./fetched-later";

/** Values are any texts, the empty one too, which the list cannot hold by itself. */
const PREFIX = "=";

/** From so many options on, one is found by its name. */
const MANY = 40;
const LongChoose = later(() => import("./long-choose").then((m) => m.LongChoose), {
  waiting: ({ options, value }: ChooseProps) => (
    <span className="field flex items-center truncate">{options.find((o) => o.value === value)?.label}</span>
  ),
});

/** A choice among some options: a list, or one that is searched where they are many. */
export function Choose(props: ChooseProps) {
  if (props.options.length <= MANY) return <ShortChoose {...props} />;
  return <LongChoose {...props} />;
}

function ShortChoose({ id, label, value, options, onChange, disabled }: ChooseProps) {
  const [open, setOpen] = useState(false);
  const trigger = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (!open) return;
    // The library hides the page from assistive technology once the list is open, as for a dialog: what can
    // be focused must not be hidden, and the list of a field leaves the page as it is.
    const timer = setTimeout(() => {
      for (const part of document.querySelectorAll("[data-aria-hidden]")) part.removeAttribute("aria-hidden");
    });
    return () => clearTimeout(timer);
  }, [open]);
  const now = options.find((o) => o.value === value);
  return (
    <Select.Root
      open={open}
      onOpenChange={setOpen}
      value={PREFIX + value}
      onValueChange={(next) => onChange(next.slice(PREFIX.length))}
      disabled={disabled}
    >
      <Select.Trigger
        ref={trigger}
        id={id}
        aria-label={label}
        title={now?.label}
        className="field flex cursor-pointer items-center gap-1 pr-1.5 text-left disabled:cursor-default disabled:opacity-50"
      >
        <span className="min-w-0 flex-1 truncate">{now?.label ?? "\u00a0"}</span>
        <ChevronDown size={13} className="shrink-0 text-muted" aria-hidden="true" />
      </Select.Trigger>
      {open && (
        <Select.Portal container={trigger.current?.closest<HTMLElement>("main, [role=dialog]")}>
          <Select.Content
            position="popper"
            sideOffset={4}
            className="z-50 max-h-[min(22rem,var(--radix-select-content-available-height))] max-w-96 min-w-(--radix-select-trigger-width) overflow-auto rounded-md border border-rule bg-sheet p-1 text-sm text-ink shadow-stage"
          >
            <Select.Viewport>
              {options.map((o) => (
                <Select.Item
                  key={o.value}
                  value={PREFIX + o.value}
                  data-value={o.value}
                  disabled={Boolean(o.why)}
                  className="flex min-h-7 cursor-pointer items-center gap-2 rounded-sm py-1 pr-2.5 pl-7 outline-none data-[highlighted]:bg-tint data-[disabled]:cursor-default data-[disabled]:text-muted data-[state=checked]:font-semibold"
                >
                  <Select.ItemIndicator className="absolute left-2.5">
                    <Check size={13} aria-hidden="true" />
                  </Select.ItemIndicator>
                  <span>
                    <Select.ItemText>{o.label}</Select.ItemText>
                    {o.why && <span className="block text-xs">{o.why}</span>}
                  </span>
                </Select.Item>
              ))}
            </Select.Viewport>
          </Select.Content>
        </Select.Portal>
      )}
    </Select.Root>
  );
}
