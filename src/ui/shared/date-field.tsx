"use client";
import { CalendarDays } from "lucide-react";
import { Popover } from "radix-ui";
import { useState } from "react";
import { parseIsoDate } from "@/core/base/calendar";
import { CommitField } from "./commit-field";
import { later } from "./fetched-later";

// The calendar is fetched when it is first opened.
const DateCalendar = later(() => import("./date-calendar").then((m) => m.DateCalendar));

/** A date, typed as 2026-05-01 or chosen from a calendar; an empty one where that is allowed. */
export function DateField({
  id,
  label,
  value,
  onCommit,
  optional = false,
}: {
  id?: string;
  label: string;
  /** ISO 8601, or empty. */
  value: string;
  onCommit: (date: string) => void;
  optional?: boolean;
}) {
  const [open, setOpen] = useState(false);
  const check = (text: string) => {
    if (text.trim() === "") return optional ? null : "A date is needed.";
    return parseIsoDate(text.trim()) === null ? "Write a date as 2026-05-01." : null;
  };
  return (
    <div className="flex min-w-0 gap-1">
      <div className="min-w-24 flex-1 [&_.field]:px-1.5">
        <CommitField
          id={id}
          label={id ? undefined : label}
          mono
          value={value}
          placeholder="2026-05-01"
          check={check}
          onCommit={(text) => onCommit(text.trim())}
        />
      </div>
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger className="icon-button w-6 shrink-0" aria-label={`Calendar: ${label}`}>
          <CalendarDays size={14} />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="end"
            sideOffset={4}
            aria-label={label}
            className="z-50 rounded-md border border-rule bg-sheet p-2 text-ink shadow-stage"
          >
            <DateCalendar
              value={value}
              onChoose={(date) => {
                onCommit(date);
                setOpen(false);
              }}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </div>
  );
}
