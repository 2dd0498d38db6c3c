"use client";
import { useId, useRef } from "react";
import type { Value } from "@/core/base/value";

/** A list of values to tick, in the platform's own popover: it closes with Escape or a click beside it. */
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
  const id = useId();
  const list = useRef<HTMLDivElement>(null);
  const button = useRef<HTMLButtonElement>(null);
  const place = () => {
    const box = button.current?.getBoundingClientRect();
    if (!box || !list.current) return;
    list.current.style.top = `${box.bottom + 6}px`;
    list.current.style.left = `${Math.max(8, Math.min(box.left, window.innerWidth - 248))}px`;
  };
  return (
    <>
      <button ref={button} type="button" popoverTarget={id} aria-pressed={on} className={className}>
        {text}
      </button>
      <div
        ref={list}
        id={id}
        popover="auto"
        onBeforeToggle={place}
        role="group"
        aria-label={`Values of ${label}`}
        className="fixed m-0 max-h-80 w-60 overflow-auto rounded-md border border-rule bg-sheet p-1.5 text-ink shadow-stage"
      >
        {values.map(({ value, label: name }) => (
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
        ))}
      </div>
    </>
  );
}
