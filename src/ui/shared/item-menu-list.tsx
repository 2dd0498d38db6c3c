"use client";
import { DropdownMenu } from "radix-ui";
import { useRef } from "react";
import type { OpenMenu } from "./item-actions";
import { MENU_ITEM, MENU_LIST } from "./menu-look";

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
          className={MENU_LIST}
        >
          {open.actions.map(({ label, run }) => (
            <DropdownMenu.Item
              key={label}
              onSelect={() => {
                // What is chosen may open a dialog: the focus is back before it does.
                chosen.current = run;
              }}
              className={MENU_ITEM}
            >
              {label}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
