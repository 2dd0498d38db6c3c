"use client";
import { type KeyboardEvent, type ReactNode, useEffect, useRef } from "react";
import { steppedBy } from "@/core/base/stepped-by";

const ITEM = "[data-item]";

/**
 * A list whose items are one stop of the Tab key: arrows, Home and End go from item to item, Enter opens one.
 * The stop is the item that was last gone to, else the current one, which is brought in sight.
 */
export function ItemList({
  label,
  className,
  children,
}: {
  label: string;
  className: string;
  children: ReactNode;
}) {
  const list = useRef<HTMLElement>(null);
  const seen = useRef<HTMLElement>(undefined);
  const items = () => [...(list.current?.querySelectorAll<HTMLElement>(ITEM) ?? [])];
  const stopAt = (stop: HTMLElement | undefined) => {
    for (const item of items()) item.tabIndex = item === stop ? 0 : -1;
  };
  useEffect(() => {
    const all = items();
    const focused = all.find((item) => item === document.activeElement);
    const current = all.find((item) => item.getAttribute("aria-current") === "true");
    stopAt(focused ?? current ?? all[0]);
    if (current && current !== seen.current) current.scrollIntoView({ block: "nearest", inline: "nearest" });
    seen.current = current;
  });
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const all = items();
    const at = all.indexOf(event.target as HTMLElement);
    const next = at < 0 ? null : steppedBy(event.key, at, all.length);
    if (next === null) return;
    event.preventDefault();
    stopAt(all[next]);
    all[next].focus();
  };
  return (
    <nav ref={list} aria-label={label} className={className} onKeyDown={onKeyDown}>
      {children}
    </nav>
  );
}
