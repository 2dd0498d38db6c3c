"use client";
import type { ReactNode } from "react";
import { useLate } from "./late";

/** Nothing is said of an answer that comes within this time, in milliseconds. */
const QUIET = 300;

/**
 * What stands here stays while its next answer is under way; after a moment it is dimmed and a quiet mark
 * says that it is being computed.
 */
export function Busy({
  pending,
  className,
  children,
}: {
  pending: boolean;
  className?: string;
  children: ReactNode;
}) {
  const late = useLate(pending, QUIET) && pending;
  return (
    <div className={`relative ${className ?? ""}`} aria-busy={pending}>
      <div className={`size-full transition-opacity duration-200 ${late ? "opacity-45" : ""}`}>
        {children}
      </div>
      {late && (
        <span
          role="status"
          className="pointer-events-none absolute top-2 right-2 flex items-center gap-1.5 rounded-full border border-rule bg-sheet px-2 py-0.5 text-xs text-muted"
        >
          <span aria-hidden="true" className="busy-mark" /> computing
        </span>
      )}
    </div>
  );
}
