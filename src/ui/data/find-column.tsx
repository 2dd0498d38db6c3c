"use client";
import { Columns3 } from "lucide-react";
import { Popover } from "radix-ui";
import { useState } from "react";
import { OptionList } from "../shared/option-list";
import type { ShownColumn } from "./shown-columns";

/** Finds a column of a wide table by a part of its name. */
export function FindColumn({
  columns,
  chosen,
  onChoose,
}: {
  columns: ShownColumn[];
  chosen: string | null;
  onChoose: (column: string) => void;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="button">
        <Columns3 size={13} /> Find a column
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          aria-label="Find a column"
          className="z-30 w-80 rounded-md border border-rule bg-sheet shadow-stage"
        >
          <OptionList
            label="Columns"
            placeholder="A part of its name"
            chosen={chosen ?? undefined}
            options={columns.map((c) => ({
              key: c.name,
              label: c.name,
              hint: c.type,
              pick: () => onChoose(c.name),
            }))}
            close={() => setOpen(false)}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
