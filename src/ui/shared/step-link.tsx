"use client";
import type { AnchorHTMLAttributes } from "react";

/**
 * Goes to another step or item of the open project. Its screens are all in this window, so the server is not
 * asked: it works while that is away.
 */
export function goWithin(to: string): void {
  window.history.pushState(null, "", to);
}

/**
 * Names in the address what is chosen on the screen of `path`. The page is the same whatever is chosen, so
 * the server is not asked. A screen that is being left has no say any more: the address has moved on, and
 * what it wrote would throw the person back.
 */
export function nameInAddress(path: string, params: Record<string, string>): void {
  if (window.location.pathname !== path) return;
  const query = new URLSearchParams(params).toString();
  window.history.replaceState(null, "", query ? `${path}?${query}` : path);
}

/** A link to another step or item of the open project; with a modifier key it opens as any link does. */
export function StepLink({
  to,
  onClick,
  ...more
}: { to: string } & Omit<AnchorHTMLAttributes<HTMLAnchorElement>, "href">) {
  return (
    <a
      {...more}
      href={to}
      onClick={(event) => {
        onClick?.(event);
        if (
          event.defaultPrevented ||
          event.button !== 0 ||
          event.metaKey ||
          event.ctrlKey ||
          event.shiftKey ||
          event.altKey
        )
          return;
        event.preventDefault();
        goWithin(to);
      }}
    />
  );
}
