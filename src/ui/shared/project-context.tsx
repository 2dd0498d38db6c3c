"use client";
import { createContext, type ReactNode, useContext, useEffect, useState } from "react";
import { type StoreApi, useStore } from "zustand";
import type { SavedProject } from "@/server/store/projects";
import { onProjectEvent, onServerBack } from "./connection";
import { createImportStore, type ImportState } from "./import-store";
import { toast } from "./notice";
import { createProjectStore, type ProjectState } from "./project-store";
import { forgetUnsaved, keepUnsaved } from "./unsaved";

const StoreContext = createContext<StoreApi<ProjectState> | null>(null);
const ImportContext = createContext<StoreApi<ImportState> | null>(null);

/**
 * Holds the store of one project, saves before the window closes, and hears what happens to
 * the project elsewhere.
 */
export function ProjectProvider({ saved, children }: { saved: SavedProject; children: ReactNode }) {
  const [store] = useState(() =>
    createProjectStore(saved, { keep: keepUnsaved, forget: (id) => forgetUnsaved(id) }, toast.error),
  );
  const [imports] = useState(() => createImportStore(store));
  useEffect(() => {
    const leave = (event: BeforeUnloadEvent) => {
      if (store.getState().saveState === "saved" && !imports.getState().running) return;
      void store.getState().flush();
      event.preventDefault();
    };
    const look = () => {
      if (document.visibilityState === "visible")
        store
          .getState()
          .look()
          .catch(() => {});
    };
    const back = () => {
      look();
      void store.getState().flush();
    };
    // A page can be shown again after its project went on; it then takes what is newer.
    look();
    window.addEventListener("beforeunload", leave);
    window.addEventListener("focus", look);
    document.addEventListener("visibilitychange", look);
    const deaf = onProjectEvent((event) => store.getState().hear(event));
    const gone = onServerBack(back);
    return () => {
      window.removeEventListener("beforeunload", leave);
      window.removeEventListener("focus", look);
      document.removeEventListener("visibilitychange", look);
      deaf();
      gone();
    };
  }, [store, imports]);
  return (
    <StoreContext value={store}>
      <ImportContext value={imports}>{children}</ImportContext>
    </StoreContext>
  );
}

/** The store of the project that is open. */
export function useProjectStore(): StoreApi<ProjectState> {
  const store = useContext(StoreContext);
  if (!store) throw new Error("no project is open here");
  return store;
}

/** A part of the open project's state. */
export function useProject<T>(select: (state: ProjectState) => T): T {
  return useStore(useProjectStore(), select);
}

/** A part of what is known of the open project's imports. */
export function useImports<T>(select: (state: ImportState) => T): T {
  const store = useContext(ImportContext);
  if (!store) throw new Error("no project is open here");
  return useStore(store, select);
}
