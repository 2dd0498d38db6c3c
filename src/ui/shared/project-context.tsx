"use client";
import { createContext, type ReactNode, useContext, useEffect, useState } from "react";
import { type StoreApi, useStore } from "zustand";
import type { SavedProject } from "@/server/store/projects";
import { onProjectEvent, onServerBack } from "./connection";
import { createImportStore, type ImportState } from "./import-store";
import { keepHistory, keptHistory } from "./kept-history";
import { toast } from "./notice";
import { createProjectStore, type ProjectState } from "./project-store";
import { forgetUnsaved, keepUnsaved } from "./unsaved";

const StoreContext = createContext<StoreApi<ProjectState> | null>(null);
const ImportContext = createContext<StoreApi<ImportState> | null>(null);

const KEEP_AFTER = 200;

/** Keeps what can be taken back, so that it still can after the page was loaded again. */
function useKeptHistory(store: StoreApi<ProjectState>): void {
  useEffect(() => {
    const { id, restore } = store.getState();
    let timer: ReturnType<typeof setTimeout> | null = null;
    const keep = () => {
      timer = null;
      void keepHistory(id, store.getState());
    };
    const unsubscribe = store.subscribe(({ past, future }, before) => {
      if (past !== before.past || future !== before.future) timer ??= setTimeout(keep, KEEP_AFTER);
    });
    void keptHistory(id).then((history) => history && restore(history));
    const leave = () => timer !== null && keep();
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      unsubscribe();
      if (timer !== null) clearTimeout(timer);
    };
  }, [store]);
}

/**
 * Holds the store of one project, saves before the window closes, and hears what happens to
 * the project elsewhere.
 */
export function ProjectProvider({ saved, children }: { saved: SavedProject; children: ReactNode }) {
  const [store] = useState(() =>
    createProjectStore(saved, { keep: keepUnsaved, forget: (id) => forgetUnsaved(id) }, toast.error),
  );
  const [imports] = useState(() => createImportStore(store));
  useKeptHistory(store);
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
