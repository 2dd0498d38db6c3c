"use client";
import { createStore, del, entries, set } from "idb-keyval";
import type { Project } from "@/core/project/schema";

/** A document that a window could not save, kept in this browser until it is saved or let go. */
export interface Unsaved {
  project: string;
  window: string;
  document: Project;
  /** The revision that it grew from, and its document, which is missing in what an earlier version kept. */
  revision: number;
  base?: Project;
  /** When it was last changed, in milliseconds. */
  at: number;
}

const store = () => createStore("cavlo", "unsaved");
const PREFIX = "cavlo-window-";
const keyOf = (project: string, window: string) => `${project}/${window}`;

let windowId: string | null = null;

/**
 * Names this window, and holds a lock under that name for as long as it lives: what a window without a lock
 * left belongs to nobody.
 */
function thisWindow(): string {
  if (windowId === null) {
    windowId = crypto.randomUUID();
    void navigator.locks?.request(PREFIX + windowId, () => new Promise(() => {}));
  }
  return windowId;
}

/** Keeps a document until it is saved. Gives false where the browser keeps nothing: saving goes on trying. */
export async function keepUnsaved(
  project: string,
  document: Project,
  base: Project,
  revision: number,
): Promise<boolean> {
  const unsaved: Unsaved = { project, window: thisWindow(), document, base, revision, at: Date.now() };
  return set(keyOf(project, unsaved.window), unsaved, store()).then(
    () => true,
    () => false,
  );
}

export async function forgetUnsaved(project: string, window = thisWindow()): Promise<void> {
  await del(keyOf(project, window), store()).catch(() => {});
}

/** What windows that are gone left unsaved of a project, the newest first. */
export async function leftUnsaved(project: string): Promise<Unsaved[]> {
  try {
    const held = new Set((await navigator.locks.query()).held?.map((l) => l.name));
    const all = (await entries<string, Unsaved>(store())).map(([, value]) => value);
    return all
      .filter((u) => u.project === project && u.window !== thisWindow() && !held.has(PREFIX + u.window))
      .sort((a, b) => b.at - a.at);
  } catch {
    return [];
  }
}
