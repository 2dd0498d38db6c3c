"use client";
import { create } from "zustand";
import type { Split } from "@/core/plan/query";

/** The column whose categories are looked at, and the palette that colours them where nothing else does. */
export interface CategoriesOf {
  table: string;
  column: string;
  by?: Split["by"];
  palette: string;
}

/** What has the focus: of a list that closes when something is chosen, the button that opened it. */
function openerNow(): HTMLElement | null {
  const now = document.activeElement as HTMLElement | null;
  const list = now?.closest("[role=dialog]");
  return list ? document.querySelector(`[aria-controls="${CSS.escape(list.id)}"]`) : now;
}

/** Which column's categories are open; any part of a step can open them. */
export const useCategoriesDialog = create<{
  of: CategoriesOf | null;
  /** What has the focus again when it is closed. */
  opener: HTMLElement | null;
  open: (of: CategoriesOf) => void;
  close: () => void;
}>((set) => ({
  of: null,
  opener: null,
  open: (of) => set({ of, opener: openerNow() }),
  close: () => set({ of: null }),
}));
