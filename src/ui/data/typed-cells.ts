"use client";
import { useEffect } from "react";
import { create } from "zustand";
import type { TypedGrid } from "@/core/data/typed-grid";
import type { TableInfo } from "@/core/project/schema";

/** Cells that are typed and not saved, with what they were before and what was taken back. */
export interface TypedCells {
  title: string;
  /** The table that they are of; null for a new one. */
  table: TableInfo | null;
  past: TypedGrid[];
  now: TypedGrid;
  future: TypedGrid[];
}

/** By project, outside of the Data step: they wait there while one looks at another step. */
const useAll = create<Record<string, TypedCells | undefined>>(() => ({}));

/** The typed cells of a project, and how they change; null where none are typed. */
export function useTypedCells(project: string): {
  typed: TypedCells | null;
  setTyped: (change: TypedCells | null | ((now: TypedCells) => TypedCells)) => void;
} {
  const typed = useAll((all) => (Object.hasOwn(all, project) ? all[project] : undefined)) ?? null;
  const setTyped: ReturnType<typeof useTypedCells>["setTyped"] = (change) =>
    useAll.setState((all) => {
      if (typeof change !== "function") return { [project]: change ?? undefined };
      const now = all[project];
      return now ? { [project]: change(now) } : {};
    });
  const changed = typed !== null && typed.past.length > 0;
  useEffect(() => {
    if (!changed) return;
    // A window that is closed would take them with it: the browser asks.
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [changed]);
  return { typed, setTyped };
}
