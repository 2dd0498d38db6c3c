"use client";
import type { AnchorHTMLAttributes } from "react";

/** Goes to another step or item of the open project. Its screens are all in this window, so the server is not asked: it works while that is away. */
export function goWithin(to: string): void {
  window.history.pushState(null, "", to);
}

/** A link to another step or item of the open project; with a modifier key it opens as any link does. */
export function StepLink({ to, onClick, ...more }: { to: string } & Omit<AnchorHTMLAttributes<HTMLAnchorElement>, "href">) {
  return (
    <a
      {...more}
      href={to}
      onClick={(event) => {
        onClick?.(event);
        if (event.defaultPrevented || event.button !== 0 || event.metaKey || event.ctrlKey || event.shiftKey || event.altKey) return;
        event.preventDefault();
        goWithin(to);
      }}
    />
  );
}
