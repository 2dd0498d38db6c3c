"use client";
import { ChevronDown } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { ItemAction } from "./item-actions";
import { MENU_ITEM, MENU_LIST } from "./menu-look";

/** A button that offers a few things to do. */
export function ActionMenu({ label, actions }: { label: string; actions: ItemAction[] }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="button">
        {label} <ChevronDown size={13} aria-hidden="true" />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="start" sideOffset={4} className={MENU_LIST}>
          {actions.map(({ label: text, run }) => (
            <DropdownMenu.Item key={text} onSelect={run} className={MENU_ITEM}>
              {text}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
