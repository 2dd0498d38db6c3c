"use client";
import { createStore, del, entries, get, set } from "idb-keyval";
import type { History, Step } from "@/core/changes/history";

interface Kept extends History {
  /** When it was kept, in milliseconds. */
  at: number;
}

const store = () => createStore("cavlo-history", "steps");
const TAB = "cavlo-tab";
/** A tab that was loaded again has its lock back within this many milliseconds; one that is a copy never. */
const LOCK_WITHIN = 1000;
const FORGET_AFTER = 7 * 24 * 3600 * 1000;
/** The characters that the steps of a tab may take together. */
const MOST_CHARACTERS = 4_000_000;

function holds(name: string): Promise<boolean> {
  return new Promise((resolve) => {
    navigator.locks
      .request(`cavlo-tab-${name}`, { signal: AbortSignal.timeout(LOCK_WITHIN) }, () => {
        resolve(true);
        return new Promise(() => {});
      })
      .catch(() => resolve(false));
  });
}

let tab: Promise<string | null> | null = null;

/** Names this tab, under a name that outlives its page; a tab that was copied from another one has its own. */
function thisTab(): Promise<string | null> {
  tab ??= (async () => {
    const known = sessionStorage.getItem(TAB);
    if (known && (await holds(known))) return known;
    const made = crypto.randomUUID();
    sessionStorage.setItem(TAB, made);
    return (await holds(made)) ? made : null;
  })().catch(() => null);
  return tab;
}

const keyOf = (project: string, name: string) => `${project}/${name}`;

/** The newest steps that there is room for. */
function within(steps: readonly Step[], most: number): Step[] {
  let left = most;
  const kept: Step[] = [];
  for (const step of steps) {
    left -= JSON.stringify(step).length;
    if (left < 0) break;
    kept.push(step);
  }
  return kept;
}

/** Keeps what this tab can take back and make again of a project. */
export async function keepHistory(project: string, { past, future }: History): Promise<void> {
  const name = await thisTab();
  if (name === null) return;
  const newest = within(past.toReversed(), MOST_CHARACTERS).toReversed();
  const kept: Kept = { past: newest, future: within(future, MOST_CHARACTERS), at: Date.now() };
  await set(keyOf(project, name), kept, store()).catch(() => {});
}

/** What this tab could take back and make again before its page was loaded; null where nothing is known. */
export async function keptHistory(project: string): Promise<History | null> {
  try {
    const name = await thisTab();
    if (name === null) return null;
    const all = await entries<string, Kept>(store());
    for (const [key, { at }] of all) if (Date.now() - at > FORGET_AFTER) await del(key, store());
    return (await get<Kept>(keyOf(project, name), store())) ?? null;
  } catch {
    return null;
  }
}
