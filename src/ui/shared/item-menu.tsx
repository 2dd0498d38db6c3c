"use client";
import { type MouseEvent, type ReactNode, useState } from "react";
import { later, OVER } from "./fetched-later";
import type { ItemAction, OpenMenu } from "./item-actions";

// Menus are fetched when one is first wanted.
const ItemMenuList = later(() => import("./item-menu-list").then((m) => m.ItemMenuList), OVER);

/** The menu of an item: with the second button of the pointer, the menu key, or Shift and F10. */
export function useItemMenu(): {
  menuOf: (name: string, actions: ItemAction[]) => (event: MouseEvent<HTMLElement>) => void;
  menu: ReactNode;
} {
  const [open, setOpen] = useState<OpenMenu | null>(null);
  return {
    menuOf: (name, actions) => (event) => {
      event.preventDefault();
      const opener = event.currentTarget;
      const box = opener.getBoundingClientRect();
      // By keyboard there is no point of the pointer: the menu opens under the item.
      const byKey = event.button !== 2;
      const [x, y] = byKey ? [box.left + 8, box.bottom] : [event.clientX, event.clientY];
      setOpen({ name, actions, x, y, opener });
    },
    menu: open && <ItemMenuList key={`${open.x} ${open.y}`} open={open} onClose={() => setOpen(null)} />,
  };
}
