"use client";
import { type ReactNode, useId, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { besideButton } from "@/present/elements";

/** A button that opens a list in the platform's own popover: it closes with Escape or a click beside it. */
export function PopoverButton({
  label,
  text,
  on,
  className,
  wide = false,
  children,
}: {
  /** What the list is called. */
  label: string;
  text: ReactNode;
  on?: boolean;
  className: string;
  /** Whether what it opens is as wide as it needs to be. */
  wide?: boolean;
  children: (close: () => void) => ReactNode;
}) {
  const id = useId();
  const list = useRef<HTMLDivElement>(null);
  const button = useRef<HTMLButtonElement>(null);
  const [open, setOpen] = useState(false);
  const place = () => {
    const box = button.current?.getBoundingClientRect();
    if (!box || !list.current) return;
    list.current.style.left = `${Math.max(8, Math.min(box.left, window.innerWidth - (wide ? 408 : 248)))}px`;
    Object.assign(list.current.style, besideButton(box, 320));
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
        onBeforeToggle={(event) => {
          place();
          // What it holds is there before it opens, so that the next Tab finds it.
          flushSync(() => setOpen(event.newState === "open"));
        }}
        role="group"
        aria-label={label}
        className={`${wide ? "w-fit min-w-60 max-w-100" : "w-60"} fixed m-0 max-h-80 overflow-auto rounded-md border border-rule bg-sheet p-1.5 text-ink shadow-stage`}
      >
        {open && children(() => list.current?.hidePopover())}
      </div>
    </>
  );
}
