"use client";
import { DropdownMenu } from "radix-ui";
import { useRef } from "react";
import type { OpenMenu } from "./item-actions";

/** The list of an item's menu, at the point where it was asked for. */
export function ItemMenuList({ open, onClose }: { open: OpenMenu; onClose: () => void }) {
  const chosen = useRef<(() => void) | null>(null);
  return (
    <DropdownMenu.Root open onOpenChange={(stays) => !stays && onClose()}>
      <DropdownMenu.Trigger asChild>
        <span aria-hidden="true" className="fixed size-0" style={{ left: open.x, top: open.y }} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          aria-label={open.name}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            open.opener.focus();
            chosen.current?.();
          }}
          className="z-50 min-w-44 rounded-md border border-rule bg-sheet p-1 text-sm text-ink shadow-stage"
        >
          {open.actions.map(({ label, run }) => (
            <DropdownMenu.Item
              key={label}
              onSelect={() => {
                // What is chosen may open a dialog: the focus is back before it does.
                chosen.current = run;
              }}
              className="flex min-h-7 cursor-pointer items-center rounded-sm px-2.5 outline-none data-[highlighted]:bg-tint"
            >
              {label}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
