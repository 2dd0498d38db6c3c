"use client";
import { useEffect } from "react";

/** What counts as an area of a screen, where it does not stand in another one. */
const AREAS = "header, nav[aria-label], section[aria-label], aside[aria-label], [role=region][aria-label]";
const STOPS =
  'a[href], button:not(:disabled), input:not(:disabled), textarea:not(:disabled), [tabindex]:not([tabindex="-1"])';

const isSeen = (element: HTMLElement) => element.getClientRects().length > 0;

/** The areas of the screen, from the top: only the outermost ones that are seen. */
function areasOf(root: ParentNode): HTMLElement[] {
  return [...root.querySelectorAll<HTMLElement>(AREAS)].filter(
    (area) => !area.parentElement?.closest(AREAS) && isSeen(area),
  );
}

/** F6 goes to the next area of the screen, with Shift to the one before, and back to where one was in it. */
export function Areas() {
  useEffect(() => {
    const left = new WeakMap<HTMLElement, HTMLElement>();
    const go = (event: KeyboardEvent) => {
      if (event.key !== "F6" || event.ctrlKey || event.metaKey || event.altKey) return;
      const areas = areasOf(document);
      if (areas.length === 0) return;
      event.preventDefault();
      const here = document.activeElement instanceof HTMLElement ? document.activeElement : null;
      const at = areas.findIndex((area) => here !== null && area.contains(here));
      if (at >= 0 && here) left.set(areas[at], here);
      const step = event.shiftKey ? -1 : 1;
      const next = at < 0 ? areas[0] : areas[(at + step + areas.length) % areas.length];
      const before = left.get(next);
      const stop =
        before && isSeen(before) ? before : [...next.querySelectorAll<HTMLElement>(STOPS)].find(isSeen);
      if (!stop && !next.hasAttribute("tabindex")) next.tabIndex = -1;
      (next.tabIndex >= 0 ? next : (stop ?? next)).focus();
    };
    window.addEventListener("keydown", go);
    return () => window.removeEventListener("keydown", go);
  }, []);
  return null;
}
