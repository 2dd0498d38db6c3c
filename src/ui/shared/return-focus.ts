"use client";
import { useState } from "react";

/**
 * For a dialog without a trigger of its own, which mounts when it opens: what had the focus then has it again
 * when the dialog closes.
 */
export function useReturnFocus(): (event: Event) => void {
  const [opener] = useState(() => document.activeElement as HTMLElement | null);
  return (event) => {
    event.preventDefault();
    opener?.focus();
  };
}
