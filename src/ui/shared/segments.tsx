"use client";
import { ToggleGroup } from "radix-ui";

/** One of a few values, side by side. */
export function Segments<T extends string>({
  label,
  value,
  options,
  onChange,
  wide = false,
}: {
  label: string;
  value: T;
  options: readonly { id: T; name: string }[];
  onChange: (value: T) => void;
  /** As wide as there is room, in larger letters. */
  wide?: boolean;
}) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(next) => next && onChange(next as T)}
      className="flex overflow-hidden rounded-md border border-rule"
    >
      {options.map(({ id, name }) => (
        <ToggleGroup.Item
          key={id}
          value={id}
          className={`bg-sheet data-[state=on]:bg-active data-[state=on]:font-semibold data-[state=on]:text-on-active ${wide ? "flex-1 px-3 py-1 text-sm" : "px-2.5 py-1 text-xs"}`}
        >
          {name}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
