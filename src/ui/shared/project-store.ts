import { createStore, type StoreApi } from "zustand";
import { type Edit, edited } from "@/core/project/edits";
import { tooMany } from "@/core/project/limits";
import type { Project } from "@/core/project/schema";
import { wordsOf } from "@/core/view/edit-words";
import type { ProjectEvent } from "@/server/events";
import type { SavedProject } from "@/server/store/projects";
import { ApiError, api } from "./api";

/**
 * `waiting`: saving failed for now and is tried again by itself; `refused`: what is here cannot be saved as
 * it is; `deleted`: the project is gone elsewhere.
 */
export type SaveState = "saved" | "unsaved" | "saving" | "behind" | "waiting" | "refused" | "deleted";

/** A document that an edit was made from or led to, and the edit in words. */
export interface Step {
  document: Project;
  words: string;
}

export interface ProjectState {
  id: string;
  document: Project;
  revision: number;
  saveState: SaveState;
  /** Why saving failed, or null. */
  saveProblem: string | null;
  /** Since when something is not saved, in milliseconds; null while everything is. */
  unsavedSince: number | null;
  /** Whether what is not saved is kept outside of this window meanwhile. */
  isKept: boolean;
  /** What another window saved, when this one fell behind. */
  newer: SavedProject | null;
  past: Step[];
  future: Step[];
  /**
   * Applies an edit as one step of undo. Edits of one `group` that follow each other are one step together.
   * Gives false, and says why, where there would be more of something than a document holds.
   */
  apply: (edit: Edit, group?: string) => boolean;
  undo: () => void;
  redo: () => void;
  /** Saves at once what is not saved yet. */
  flush: () => Promise<void>;
  /** Takes the newer version of the other window and lets go of what this one has. */
  takeNewer: () => void;
  /** Looks whether another window saved. */
  look: () => Promise<void>;
  /** Hears what happened to a project elsewhere. */
  hear: (event: ProjectEvent) => void;
}

/** Where documents are kept until they are saved. */
export interface UnsavedKeeper {
  /** Gives whether it is kept. */
  keep: (project: string, document: Project, revision: number) => Promise<boolean>;
  forget: (project: string) => Promise<void>;
}

const NOWHERE: UnsavedKeeper = { keep: async () => false, forget: async () => {} };
const STEPS = 200;
const SAVE_AFTER = 400;
const KEEP_AFTER = 100;
const GROUP_WITHIN = 1500;
const FIRST_PAUSE = 1000;
const LONGEST_PAUSE = 30_000;

/** Whether what failed may succeed by itself: no answer came, or the server cannot for now. */
export const isPassing = (error: unknown): boolean =>
  error instanceof ApiError &&
  [0, 500, 503, 507].includes(error.status) &&
  error.code !== "too_long" &&
  error.code !== "too_large";

/** The editor's one store: the document, its history, and saving. `tell` says why an edit was not taken. */
export function createProjectStore(
  saved: SavedProject,
  unsaved: UnsavedKeeper = NOWHERE,
  tell: (words: string) => void = () => {},
): StoreApi<ProjectState> {
  let lastGroup: { name: string; at: number } | null = null;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let keeping: ReturnType<typeof setTimeout> | null = null;
  let running: Promise<void> | null = null;
  let pause = FIRST_PAUSE;
  // How often it was heard that the project is gone or there again: what a save that began before then
  // says of that is old.
  let heard = 0;

  return createStore<ProjectState>((set, get) => {
    const saveIn = (ms: number) => {
      if (timer) clearTimeout(timer);
      timer = setTimeout(() => void get().flush(), ms);
    };
    const keep = () => {
      if (keeping !== null) return;
      keeping = setTimeout(() => {
        keeping = null;
        const { id, document, revision, saveState } = get();
        if (saveState !== "saved")
          void unsaved.keep(id, document, revision).then((isKept) => set({ isKept }));
      }, KEEP_AFTER);
    };
    const schedule = () => {
      const { saveState, unsavedSince } = get();
      set({ unsavedSince: unsavedSince ?? Date.now() });
      keep();
      if (saveState === "behind" || saveState === "deleted") return;
      // While saving is tried again by itself, it stays said that it failed.
      if (saveState === "waiting") return;
      set({ saveState: "unsaved" });
      saveIn(SAVE_AFTER);
    };
    const change = (document: Project, more: Partial<ProjectState>) => {
      set({ document, ...more });
      schedule();
    };
    const allSaved = (more: Partial<ProjectState>) => {
      set({ saveState: "saved", saveProblem: null, unsavedSince: null, isKept: false, ...more });
      void unsaved.forget(get().id);
    };
    const failed = (error: unknown) => {
      const saveProblem = error instanceof Error ? error.message : String(error);
      if (error instanceof ApiError && error.code === "newer")
        set({ saveState: "behind", newer: (error.body as { project: SavedProject }).project });
      else if (error instanceof ApiError && error.status === 404) set({ saveState: "deleted", saveProblem });
      else if (isPassing(error)) {
        set({ saveState: "waiting", saveProblem });
        saveIn(pause);
        pause = Math.min(LONGEST_PAUSE, pause * 2);
      } else set({ saveState: "refused", saveProblem });
    };
    const saveOnce = async () => {
      const { id, revision, document } = get();
      const before = heard;
      if (get().saveState !== "waiting") set({ saveState: "saving" });
      try {
        const { project } = await api.save(id, revision, document);
        pause = FIRST_PAUSE;
        if (heard !== before && get().saveState === "deleted") set({ revision: project.revision });
        else if (get().document === document) allSaved({ revision: project.revision });
        else set({ revision: project.revision, saveProblem: null, saveState: "unsaved" });
      } catch (error) {
        if (heard === before) failed(error);
        else if (get().saveState !== "deleted") set({ saveState: "unsaved" });
      }
    };
    return {
      id: saved.id,
      document: saved.document,
      revision: saved.revision,
      saveState: "saved",
      saveProblem: null,
      unsavedSince: null,
      isKept: false,
      newer: null,
      past: [],
      future: [],
      apply(edit, group) {
        const { document, past } = get();
        const next = edited(document, edit);
        if (next === document) return true;
        const refused = tooMany(document, next);
        if (refused !== null) {
          tell(refused);
          return false;
        }
        const now = Date.now();
        const joins =
          group !== undefined &&
          lastGroup?.name === group &&
          now - lastGroup.at < GROUP_WITHIN &&
          past.length > 0;
        lastGroup = group === undefined ? null : { name: group, at: now };
        // What is one step together is told from where it began.
        const from = joins ? past[past.length - 1].document : document;
        const step = { document: from, words: wordsOf(edit, from, next) };
        change(next, { past: [...(joins ? past.slice(0, -1) : past.slice(-STEPS + 1)), step], future: [] });
        return true;
      },
      undo() {
        const { document, past, future } = get();
        const step = past[past.length - 1];
        if (!step) return;
        lastGroup = null;
        change(step.document, { past: past.slice(0, -1), future: [{ ...step, document }, ...future] });
      },
      redo() {
        const { document, past, future } = get();
        const [step] = future;
        if (!step) return;
        lastGroup = null;
        change(step.document, { past: [...past, { ...step, document }], future: future.slice(1) });
      },
      async flush() {
        if (timer) clearTimeout(timer);
        timer = null;
        while (running) await running;
        const { saveState } = get();
        if (saveState === "saved" || saveState === "behind" || saveState === "deleted") return;
        running = saveOnce().finally(() => {
          running = null;
        });
        await running;
        if (get().saveState === "unsaved") schedule();
      },
      takeNewer() {
        const { newer } = get();
        if (newer)
          allSaved({ document: newer.document, revision: newer.revision, newer: null, past: [], future: [] });
      },
      async look() {
        const { id, saveState } = get();
        if (saveState === "saving") return;
        const before = heard;
        const { project } = await api.project(id).catch((error: unknown) => {
          // Its removal may have been told while this window heard nothing.
          if (error instanceof ApiError && error.status === 404 && heard === before) failed(error);
          throw error;
        });
        // Another look may have been faster with an older version.
        if (project.revision <= get().revision) return;
        // Where nothing of this window would be lost, the newer version is simply taken; else it is said at
        // once, and not only at the next save.
        if (get().saveState === "saved")
          set({ document: project.document, revision: project.revision, past: [], future: [] });
        else if (get().saveState !== "saving") set({ saveState: "behind", newer: project });
      },
      hear(event) {
        const { id, revision, saveState } = get();
        if (event.project !== id) return;
        if (event.type !== "saved") heard++;
        if (event.type === "deleted")
          set({ saveState: "deleted", saveProblem: "This project was removed in another window." });
        else if (event.type === "brought back" && saveState === "deleted") {
          set({ saveState: "unsaved" });
          void get().flush();
        } else if (event.type === "saved" && event.revision > revision && saveState !== "saving")
          void get()
            .look()
            .catch(() => {});
      },
    };
  });
}
