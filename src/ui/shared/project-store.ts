import { createStore, type StoreApi } from "zustand";
import type { Edit } from "@/core/project/edit";
import type { Project } from "@/core/project/schema";
import type { SavedProject } from "@/server/store/projects";
import { ApiError, api } from "./api";

export type SaveState = "saved" | "unsaved" | "saving" | "behind" | "failed";

export interface ProjectState {
  id: string;
  document: Project;
  revision: number;
  saveState: SaveState;
  /** Why saving failed, or null. */
  saveProblem: string | null;
  /** What another window saved, when this one fell behind. */
  newer: SavedProject | null;
  past: Project[];
  future: Project[];
  /** Applies an edit as one step of undo. Edits of one `group` that follow each other are one step together. */
  apply: (edit: Edit, group?: string) => void;
  undo: () => void;
  redo: () => void;
  /** Saves at once what is not saved yet. */
  flush: () => Promise<void>;
  /** Takes the newer version of the other window and lets go of what this one has. */
  takeNewer: () => void;
  /** Looks whether another window saved. */
  look: () => Promise<void>;
}

const STEPS = 200;
const SAVE_AFTER = 400;
const GROUP_WITHIN = 1500;

/** The editor's one store: the document, its history, and saving. */
export function createProjectStore(saved: SavedProject): StoreApi<ProjectState> {
  let lastGroup: { name: string; at: number } | null = null;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let running: Promise<void> | null = null;

  return createStore<ProjectState>((set, get) => {
    const schedule = () => {
      if (get().saveState === "behind") return;
      set({ saveState: "unsaved" });
      if (timer) clearTimeout(timer);
      timer = setTimeout(() => void get().flush(), SAVE_AFTER);
    };
    const change = (document: Project, more: Partial<ProjectState>) => {
      set({ document, ...more });
      schedule();
    };
    const saveOnce = async () => {
      const { id, revision, document } = get();
      set({ saveState: "saving" });
      try {
        const { project } = await api.save(id, revision, document);
        set({ revision: project.revision, saveProblem: null, saveState: get().document === document ? "saved" : "unsaved" });
      } catch (error) {
        if (error instanceof ApiError && error.status === 409) set({ saveState: "behind", newer: (error.body as { project: SavedProject }).project });
        else set({ saveState: "failed", saveProblem: error instanceof Error ? error.message : String(error) });
      }
    };
    return {
      id: saved.id,
      document: saved.document,
      revision: saved.revision,
      saveState: "saved",
      saveProblem: null,
      newer: null,
      past: [],
      future: [],
      apply(edit, group) {
        const { document, past } = get();
        const next = edit(document);
        if (next === document) return;
        const now = Date.now();
        const joins = group !== undefined && lastGroup?.name === group && now - lastGroup.at < GROUP_WITHIN && past.length > 0;
        lastGroup = group === undefined ? null : { name: group, at: now };
        change(next, { past: joins ? past : [...past.slice(-STEPS + 1), document], future: [] });
      },
      undo() {
        const { document, past, future } = get();
        if (past.length === 0) return;
        lastGroup = null;
        change(past[past.length - 1], { past: past.slice(0, -1), future: [document, ...future] });
      },
      redo() {
        const { document, past, future } = get();
        if (future.length === 0) return;
        lastGroup = null;
        change(future[0], { past: [...past, document], future: future.slice(1) });
      },
      async flush() {
        if (timer) clearTimeout(timer);
        timer = null;
        while (running) await running;
        if (get().saveState === "saved" || get().saveState === "behind") return;
        running = saveOnce().finally(() => {
          running = null;
        });
        await running;
        if (get().saveState === "unsaved") schedule();
      },
      takeNewer() {
        const { newer } = get();
        if (newer) set({ document: newer.document, revision: newer.revision, newer: null, saveState: "saved", past: [], future: [] });
      },
      async look() {
        const { id, revision, saveState } = get();
        if (saveState !== "saved") return;
        const { project } = await api.project(id);
        // Nothing of this window would be lost, so the newer version is simply taken.
        if (project.revision > get().revision && get().saveState === "saved" && get().revision === revision)
          set({ document: project.document, revision: project.revision, past: [], future: [] });
      },
    };
  });
}
