"use client";
import { toast } from "./notice";
import { useProjectStore } from "./project-context";

/** A message with a way back stays so long, in milliseconds. */
const LONG_ENOUGH = 10_000;

/**
 * Says what the last edit did, with a way to take exactly that back: where other edits came after it, none of
 * them is taken back in its place.
 */
export function useTellEdit(): (text: string, duration?: number) => void {
  const store = useProjectStore();
  return (text, duration = LONG_ENOUGH) => {
    // Its words may come later; what it changed stays the same.
    const step = store.getState().past.at(-1)?.changes;
    const takeBack = () => {
      const { past, undo } = store.getState();
      if (past.at(-1)?.changes === step) undo();
      else toast("Other edits came after it. Undo in the header takes them back first, one by one.");
    };
    toast(text, { duration, step, action: { label: "Undo", onClick: takeBack } });
  };
}

/** After so many milliseconds what was removed is gone from the page, and so is a button that went with it. */
const GONE_AFTER = 60;

/**
 * Leaves a button that still stands after it removed something: another press would remove the next thing.
 * The focus goes to what is chosen in the list of all, else to the area around the button.
 */
function stepAside(): void {
  const pressed = document.activeElement;
  if (!(pressed instanceof HTMLButtonElement)) return;
  setTimeout(() => {
    if (document.activeElement !== pressed) return;
    const chosen = document.querySelector<HTMLElement>("[data-item][aria-current=true]");
    const area = pressed.closest<HTMLElement>("section, aside, main");
    if (area && !area.hasAttribute("tabindex")) area.tabIndex = -1;
    (chosen ?? area)?.focus({ preventScroll: true });
  }, GONE_AFTER);
}

/** Says what was removed, with a way to take that back, and leaves the button that did it. */
export function useTellRemoved(): (text: string, duration?: number) => void {
  const tell = useTellEdit();
  return (text, duration) => {
    tell(text, duration);
    stepAside();
  };
}
