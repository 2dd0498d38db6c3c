"use client";
import type { Value } from "@/core/base/value";
import { PopoverButton } from "../shared/popover-button";

/** A list of values to tick. */
export function MoreValues({
  label,
  text,
  on,
  values,
  chosen,
  onToggle,
  className,
}: {
  label: string;
  text: string;
  on: boolean;
  values: { value: Value; label: string }[];
  chosen: Value[];
  onToggle: (value: Value) => void;
  className: string;
}) {
  return (
    <PopoverButton label={`Values of ${label}`} text={text} on={on} className={className}>
      {() =>
        values.map(({ value, label: name }) => (
          <label
            key={`${typeof value} ${value}`}
            className="flex cursor-pointer items-center gap-2 rounded-sm px-2 py-1 hover:bg-tint"
          >
            <input
              type="checkbox"
              className="accent-verdigris"
              checked={chosen.includes(value)}
              onChange={() => onToggle(value)}
            />
            <span className="truncate">{name}</span>
          </label>
        ))
      }
    </PopoverButton>
  );
}
