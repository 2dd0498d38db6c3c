import { createStore, type StoreApi } from "zustand";
import { type History, type Step, stepBetween, stepped } from "@/core/changes/history";
import type { Conflict } from "@/core/changes/merge";
import { type Edit, edited } from "@/core/project/edits";
import { tooMany } from "@/core/project/limits";
import type { Project } from "@/core/project/schema";
import type { ProjectEvent } from "@/server/events";
import type { SavedProject } from "@/server/store/projects";
import { ApiError, api } from "./api";
import { editWords, fetchEditWords, UNTOLD } from "./edit-words";
import { fetchMerging, type Merging, merging } from "./merging";

/**
 * `waiting`: saving failed for now and is tried again by itself; `refused`: what is here cannot be saved as
 * it is; `deleted`: the project is gone elsewhere.
 */
export type SaveState = "saved" | "unsaved" | "saving" | "behind" | "waiting" | "refused" | "deleted";

export interface ProjectState {
  id: string;
  document: Project;
  revision: number;
  /** The document of that revision: what this window changed, it changed since. */
  base: Project;
  saveState: SaveState;
  /** Why saving failed, or null. */
  saveProblem: string | null;
  /** Since when something is not saved, in milliseconds; null while everything is. */
  unsavedSince: number | null;
  /** Whether what is not saved is kept outside of this window meanwhile. */
  isKept: boolean;
  /** What another window saved that does not go together with what this one has. */
  newer: SavedProject | null;
  /** Where both made something else of the same. */
  conflicts: readonly Conflict[];
  past: readonly Step[];
  future: readonly Step[];
  /**
   * Applies an edit as one step of undo. Edits of one `group` that follow each other are one step together.
   * Gives false, and says why, where there would be more of something than a document holds.
   */
  apply: (edit: Edit, group?: string) => boolean;
  undo: () => void;
  redo: () => void;
  /** Puts edits of this window from before its page was loaded again before those since. */
  restore: (history: History) => void;
  /** Saves at once what is not saved yet. */
  flush: () => Promise<void>;
  /** Takes the newer version of the other window, and gives up what this one has. */
  takeNewer: () => void;
  /** Puts both windows' versions together: says of each conflict whether this window's side is taken. */
  settle: (takeMine: (conflict: number) => boolean) => void;
  /** Looks whether another window saved. */
  look: () => Promise<void>;
  /** Hears what happened to a project elsewhere. */
  hear: (event: ProjectEvent) => void;
}

/** Where documents are kept until they are saved. */
export interface UnsavedKeeper {
  /** Gives whether it is kept. */
  keep: (project: string, document: Project, base: Project, revision: number) => Promise<boolean>;
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

/** Whether saving failed because another window saved first; then its version came with the error. */
const isNewer = (error: unknown): error is ApiError => error instanceof ApiError && error.code === "newer";

/** Said where the script that puts windows together is not here and cannot be had now. */
const unfetched = () =>
  new ApiError(
    0,
    "unreachable",
    "Another window changed the project too, and Cavlo's server does not answer with what puts both together.",
    null,
  );

/** The editor's one store: the document, its history, and saving. `tell` says why an edit was not taken. */
export function createProjectStore(
  saved: SavedProject,
  unsaved: UnsavedKeeper = NOWHERE,
  tell: (words: string) => void = () => {},
): StoreApi<ProjectState> {
  let lastGroup: { name: string; at: number; from: Project } | null = null;
  // Whether nobody else changed the document since the edits that can be taken back.
  let isAlone = true;
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
        const { id, document, base, revision, saveState } = get();
        if (saveState !== "saved")
          void unsaved.keep(id, document, base, revision).then((isKept) => set({ isKept }));
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
    /** Takes what another window saved into what this one has, or says where the two do not go together. */
    const takeIn = ({ merge }: Merging, newer: SavedProject, takeMine?: (conflict: number) => boolean) => {
      const { base, document } = get();
      const merged = merge(base, document, newer.document, takeMine);
      isAlone = false;
      lastGroup = null;
      if (merged.conflicts.length > 0 && !takeMine)
        return set({ saveState: "behind", newer, conflicts: merged.conflicts });
      const { revision } = newer;
      set({
        base: newer.document,
        revision,
        newer: null,
        conflicts: [],
        saveState: "unsaved",
        saveProblem: null,
      });
      change(merged.document, {});
    };
    const failed = (error: unknown) => {
      const saveProblem = error instanceof Error ? error.message : String(error);
      const together = merging();
      if (together && isNewer(error)) takeIn(together, (error.body as { project: SavedProject }).project);
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
        const { revision: saved } = project;
        if (heard !== before && get().saveState === "deleted") set({ base: document, revision: saved });
        else if (get().document === document) allSaved({ base: document, revision: saved });
        else set({ base: document, revision: saved, saveProblem: null, saveState: "unsaved" });
      } catch (problem) {
        const error = isNewer(problem) ? await fetchMerging().then(() => problem, unfetched) : problem;
        if (heard === before) failed(error);
        else if (get().saveState !== "deleted") set({ saveState: "unsaved" });
      }
    };
    /** Puts the words of an edit in their place, once it is known how to say them. */
    const tellLater = async (step: Step, edit: Edit, before: Project, after: Project) => {
      const wordsOf = await fetchEditWords().catch(() => null);
      if (!wordsOf) return;
      const words = wordsOf(edit, before, after);
      const told = (steps: readonly Step[]) => steps.map((s) => (s === step ? { ...s, words } : s));
      const { past, future } = get();
      set({ past: told(past), future: told(future) });
    };
    const step = (way: "back" | "forth") => {
      const { document, past, future } = get();
      const together = merging();
      if (!isAlone && !together) {
        void fetchMerging().then(
          () => step(way),
          () => tell(unfetched().message),
        );
        return;
      }
      const made = stepped(document, { past, future }, way, isAlone ? null : (together?.breaks ?? null));
      if (!made) return;
      lastGroup = null;
      const { document: next, refused, ...history } = made;
      if (refused === null) return change(next, history);
      set(history);
      const what = way === "back" ? "undone" : "made again";
      tell(
        `“${refused}” can't be ${what}: another window changed the same since, or uses it. Nothing changed.`,
      );
    };
    return {
      id: saved.id,
      document: saved.document,
      revision: saved.revision,
      saveState: "saved",
      saveProblem: null,
      unsavedSince: null,
      isKept: false,
      base: saved.document,
      newer: null,
      conflicts: [],
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
        // What is one step together is told from where it began.
        const from = joins && lastGroup ? lastGroup.from : document;
        lastGroup = group === undefined ? null : { name: group, at: now, from };
        const step = stepBetween(from, next, editWords()?.(edit, from, next) ?? UNTOLD);
        if (step.words === UNTOLD) void tellLater(step, edit, from, next);
        change(next, { past: [...(joins ? past.slice(0, -1) : past.slice(-STEPS + 1)), step], future: [] });
        return true;
      },
      undo: () => step("back"),
      redo: () => step("forth"),
      restore({ past, future }) {
        isAlone = false;
        const { past: since, future: next } = get();
        set({ past: [...past, ...since].slice(-STEPS), future: since.length > 0 ? next : future });
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
        if (!newer) return;
        const { document, revision } = newer;
        allSaved({ document, base: document, revision, newer: null, conflicts: [] });
      },
      settle(takeMine) {
        const { newer } = get();
        const together = merging();
        if (newer && together) takeIn(together, newer, takeMine);
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
        const together = get().saveState === "saved" ? null : await fetchMerging();
        const { saveState: now } = get();
        isAlone = false;
        if (now === "saved")
          set({ document: project.document, base: project.document, revision: project.revision });
        else if (together && now !== "saving" && now !== "deleted") takeIn(together, project);
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
