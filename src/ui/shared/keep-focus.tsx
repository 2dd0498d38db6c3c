"use client";
import { useEffect } from "react";

/** Dialogs give the focus back themselves; only after so many milliseconds is it really lost. */
const LOST_AFTER = 60;

/** The elements around one, from itself outwards. */
function around(element: Element): Element[] {
  const path: Element[] = [];
  for (let at: Element | null = element; at; at = at.parentElement) path.push(at);
  return path;
}

/**
 * Where what had the focus goes away, gives it to the nearest area around it that is still there, so that the
 * keyboard goes on from the same place and not from the top of the page.
 */
export function KeepFocus() {
  useEffect(() => {
    // Somebody may have been faster than this script.
    const first = document.activeElement;
    let path: Element[] = first && first !== document.body ? around(first) : [];
    let timer: ReturnType<typeof setTimeout> | undefined;
    const isLost = () =>
      (document.activeElement === document.body || document.activeElement === null) &&
      path.length > 0 &&
      !path[0].isConnected;
    const restore = () => {
      if (!isLost()) return;
      const standing = path.find(
        (e) => e.isConnected && e !== document.body && e !== document.documentElement,
      );
      const area = standing?.closest("main, section, aside, nav, [role=dialog], [role=region]");
      const target = area ?? document.querySelector("main");
      if (!(target instanceof HTMLElement)) return;
      if (!target.hasAttribute("tabindex")) target.tabIndex = -1;
      target.focus({ preventScroll: true });
    };
    const remember = (event: FocusEvent) => {
      if (event.target instanceof Element) path = around(event.target);
    };
    const look = () => {
      if (!isLost()) return;
      clearTimeout(timer);
      timer = setTimeout(restore, LOST_AFTER);
    };
    const observer = new MutationObserver(look);
    observer.observe(document.body, { childList: true, subtree: true });
    document.addEventListener("focusin", remember);
    return () => {
      clearTimeout(timer);
      observer.disconnect();
      document.removeEventListener("focusin", remember);
    };
  }, []);
  return null;
}
