"use client";
import { createStore, type StoreApi } from "zustand";
import { MOST } from "@/core/project/most";
import { readableName } from "@/core/project/names";
import type { TableInfo } from "@/core/project/schema";

import type { ImportedTable } from "@/server/import/import-table";
import { api } from "./api";
import type { ProjectState } from "./project-store";

export interface RunningImport {
  file: string;
  share: number;
  rows: number;
  /** When it began, in milliseconds. */
  began: number;
  cancel: AbortController;
}

/** What a new project is called until somebody, or its first table, names it. */
const UNNAMED = /^New project( \d+)?$/;

/** What an import said of a table: what was mended, and what its columns could be besides. */
export type Said = Pick<ImportedTable, "notes" | "doubts">;

/** A table that is to come in: what is told of it, and who brings it. */
export interface Coming {
  file: string;
  bring: (progress: (share: number, rows?: number) => void, signal: AbortSignal) => Promise<ImportedTable>;
}

export interface ImportState {
  running: RunningImport | null;
  /** Tables that wait for their turn. */
  waiting: Coming[];
  /** What could not be brought in and why, until somebody has read it. */
  problems: string[];
  /** What is to be said of a table, by its id, until somebody has read it. */
  said: ReadonlyMap<string, Said>;
  /** The table that came in last, and that no screen has shown yet. */
  arrived: string | null;
  /** Brings files in. */
  start: (files: File[]) => void;
  /** Brings tables in, whoever makes them. */
  take: (coming: Coming[]) => void;
  say: (table: TableInfo, said: Said) => void;
  dismiss: (tableId: string) => void;
  dismissProblems: () => void;
  shown: () => void;
}

/**
 * Brings files in, one after the other, while its project is open: moving to another step does not end it.
 */
export function createImportStore(project: StoreApi<ProjectState>): StoreApi<ImportState> {
  return createStore<ImportState>((set, get) => {
    const say = (table: TableInfo, { notes, doubts }: Said) =>
      set({ said: new Map(get().said).set(table.id, { notes, doubts }) });
    const next = async (): Promise<void> => {
      const [coming, ...waiting] = get().waiting;
      if (!coming || get().running) return;
      const { file } = coming;
      const most = MOST.project.tables;
      if (project.getState().document.tables.length >= most) {
        const problem = `${file}: A project has at most ${most} tables. Remove some first.`;
        set({ waiting, problems: [...get().problems, problem] });
        return void (await next());
      }
      const running: RunningImport = {
        file,
        share: 0,
        rows: 0,
        began: Date.now(),
        cancel: new AbortController(),
      };
      set({ running, waiting });
      try {
        const imported = await coming.bring(
          (share, rows) => set({ running: { ...running, share, rows: rows ?? 0 } }),
          running.cancel.signal,
        );
        const { document, apply } = project.getState();
        const group = `import ${imported.table.id}`;
        // Another may have come in meanwhile; then it was said, and the rows are kept aside.
        if (!apply({ type: "add table", table: imported.table }, group)) throw new Error("It was not added.");
        // A project that nobody has named yet is called after its first table.
        if (document.tables.length === 0 && UNNAMED.test(document.name))
          apply({ type: "rename project", name: readableName(imported.table.name) }, group);
        say(imported.table, imported);
        set({ arrived: imported.table.id });
      } catch (error) {
        if (!running.cancel.signal.aborted)
          set({
            problems: [
              ...get().problems,
              `${file}: ${error instanceof Error ? error.message : String(error)}`,
            ],
          });
      }
      set({ running: null });
      await next();
    };
    return {
      running: null,
      waiting: [],
      problems: [],
      said: new Map(),
      arrived: null,
      start: (files) =>
        get().take(
          files.map((file) => ({
            file: file.name,
            bring: (progress, signal) => api.importTable(project.getState().id, file, progress, signal),
          })),
        ),
      take: (coming) => {
        // A new try begins with a clean slate; files that join a running one do not wipe what it
        // could not take.
        set({ waiting: [...get().waiting, ...coming], problems: get().running ? get().problems : [] });
        void next();
      },
      say,
      dismiss: (tableId) => {
        const said = new Map(get().said);
        said.delete(tableId);
        set({ said });
      },
      dismissProblems: () => set({ problems: [] }),
      shown: () => set({ arrived: null }),
    };
  });
}

/** How long an import will still take, in words, once that can be told. */
export function timeLeft({ share, began }: RunningImport, now: number): string {
  const spent = (now - began) / 1000;
  if (share < 0.05 || spent < 2) return "";
  const left = Math.ceil((spent / share) * (1 - share));
  return left > 90 ? `about ${Math.round(left / 60)} min left` : `about ${left} s left`;
}
