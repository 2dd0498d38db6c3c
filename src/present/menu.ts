import { steppedBy } from "@/core/base/stepped-by";
import { focusedBeside, groundOver } from "@/render/roots";
import { element } from "./elements";

/** Something that can be done. */
export interface MenuItem {
  text: string;
  run: () => void;
}

/**
 * Opens a menu at a point of the window, with the focus on its first item: arrows go from item to item, and
 * Escape or a click beside it closes it. It lies over a node; `back` puts the focus where it came from.
 */
export function openMenu(
  label: string,
  items: MenuItem[],
  { x, y }: { x: number; y: number },
  over: Node,
  back: () => void,
): void {
  const buttons = items.map(({ text, run }) =>
    element(
      "button",
      {
        type: "button",
        role: "menuitem",
        tabindex: -1,
        onclick: () => {
          menu.hidePopover();
          run();
        },
      },
      text,
    ),
  );
  const menu = element(
    "div",
    {
      popover: "auto",
      role: "menu",
      "aria-label": label,
      class: "board-list board-menu",
      part: "menu",
      onkeydown: (event: KeyboardEvent) => {
        const at = buttons.indexOf(focusedBeside(menu) as HTMLButtonElement);
        if (event.key === "Tab") menu.hidePopover();
        const next = steppedBy(event.key, at, buttons.length);
        if (next === null) return;
        event.preventDefault();
        buttons[next].focus();
      },
      ontoggle: (event: ToggleEvent) => {
        if (event.newState === "open") return;
        const focused = focusedBeside(menu);
        if (focused === null || menu.contains(focused) || focused === document.body) back();
        menu.remove();
      },
    },
    ...buttons,
  );
  // Over a list that is open, it belongs to that: it would close it otherwise.
  const list = focusedBeside(over)?.closest("[popover]");
  (list ?? groundOver(over)).appendChild(menu);
  menu.showPopover();
  const { width, height } = menu.getBoundingClientRect();
  menu.style.left = `${Math.max(8, Math.min(x, window.innerWidth - width - 8))}px`;
  menu.style.top = `${Math.max(8, Math.min(y, window.innerHeight - height - 8))}px`;
  buttons[0]?.focus();
}
