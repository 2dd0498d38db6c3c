"use client";
import { Popover } from "radix-ui";
import { type ReactNode, useState } from "react";
import { type Option, OptionList } from "./option-list";

/** A button that opens a list of many things, in which one is found by a part of its name. */
export function FindOne({
  label,
  list,
  options,
  chosen,
  align,
  button,
  children,
}: {
  /** What is found: "Find a column". */
  label: string;
  /** What the list is of: "Columns". */
  list: string;
  options: Option[];
  chosen: string | undefined;
  align: "start" | "end";
  /** The looks of the button, and its name where what it shows is none. */
  button: { className: string; "aria-label"?: string };
  children: ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger title={label} {...button}>
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align={align}
          sideOffset={6}
          aria-label={label}
          className="z-30 w-80 max-w-[92vw] rounded-md border border-rule bg-sheet shadow-stage"
        >
          <OptionList
            label={list}
            placeholder="A part of its name"
            {...(chosen === undefined ? {} : { chosen })}
            options={options}
            close={() => setOpen(false)}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
