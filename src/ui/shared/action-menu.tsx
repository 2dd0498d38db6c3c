"use client";
import { ChevronDown } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";
import type { ItemAction } from "./item-actions";
import { MENU_ITEM, MENU_LIST } from "./menu-look";

/** A button that offers a few things to do: by its label, or by a sign that is called so. */
export function ActionMenu({
  label,
  actions,
  sign,
  beginsOpen = false,
}: {
  label: string;
  actions: ItemAction[];
  /** The looks of the button where it shows a sign and not its label. */
  sign?: { className: string; icon: ReactNode };
  /** Whether it was opened before it was here. */
  beginsOpen?: boolean;
}) {
  return (
    <DropdownMenu.Root modal={false} defaultOpen={beginsOpen}>
      <DropdownMenu.Trigger
        className={sign?.className ?? "button"}
        {...(sign ? { "aria-label": label } : {})}
      >
        {sign ? (
          sign.icon
        ) : (
          <>
            {label} <ChevronDown size={13} aria-hidden="true" />
          </>
        )}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align={sign ? "end" : "start"} sideOffset={4} className={MENU_LIST}>
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
