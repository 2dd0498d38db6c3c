"use client";
import { format, parseISO } from "date-fns";
import { DayPicker } from "react-day-picker";
import { useProject } from "./project-context";

const WEEK_STARTS = { sunday: 0, monday: 1, saturday: 6 } as const;

/** A month to choose a day from, its weeks as the project counts them. */
export function DateCalendar({ value, onChoose }: { value: string; onChoose: (date: string) => void }) {
  const weekStart = useProject((s) => s.document.conventions.weekStart);
  const chosen = value ? parseISO(value) : undefined;
  return (
    <DayPicker
      mode="single"
      autoFocus
      captionLayout="dropdown"
      startMonth={new Date(1900, 0)}
      endMonth={new Date(2100, 11)}
      weekStartsOn={WEEK_STARTS[weekStart]}
      defaultMonth={chosen}
      selected={chosen}
      onSelect={(day) => day && onChoose(format(day, "yyyy-MM-dd"))}
      classNames={{
        months: "relative",
        month_caption: "flex h-8 items-center px-1 text-sm font-semibold",
        dropdowns: "flex gap-1",
        dropdown_root: "relative inline-flex items-center rounded-sm border border-rule px-1.5",
        dropdown: "absolute inset-0 cursor-pointer opacity-0",
        caption_label: "inline-flex items-center gap-1 text-sm",
        nav: "absolute top-0 right-0 flex h-8 items-center gap-1",
        button_previous: "icon-button size-7",
        button_next: "icon-button size-7",
        chevron: "size-3.5 fill-current",
        weekday: "size-8 text-xs font-normal text-muted",
        day: "size-8 p-0 text-center text-sm",
        day_button: "size-8 rounded-sm hover:bg-tint",
        selected: "[&>button]:bg-verdigris [&>button]:text-sheet",
        today: "font-semibold underline",
        outside: "text-faint",
      }}
    />
  );
}
