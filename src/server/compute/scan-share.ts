import type { Value } from "@/core/base/value";
import type { Table } from "@/core/data/column";
import type { ScanTask, Share } from "@/core/engine/crew";
import type { Scope } from "@/core/formula/expr";
import type { TableInfo } from "@/core/project/schema";
import type { GivenColumns } from "./protocol";

/** A column that was computed from others, or the rows that a link leads to, by its name. */
export type Computed = [
  string,
  Omit<NonNullable<ReturnType<NonNullable<Table["computed"]>["get"]>>, "version">,
];

/** What a helper is asked: to take a share of a scan that a compute thread began. */
export interface HelpAsked {
  id: number;
  info: TableInfo;
  scope: Scope;
  today: Value;
  chunk: number;
  task: ScanTask;
  /** What this helper has not been given yet of the table. */
  given: GivenColumns;
  computed: Computed[];
  /** In which the thread that began is told to stop. */
  stop: SharedArrayBuffer;
  /** The state of the work (`WORK`), and which of its helpers this one is. */
  work: SharedArrayBuffer;
  at: number;
}

/**
 * What a helper gives: its share, none where nothing was left, null where it failed; and whether it let go of
 * what it was given.
 */
export interface HelpGiven {
  id: number;
  shares: Share[] | null;
  forgot: boolean;
}

/** The words of the state of a work: the next chunk, how many there are, and one for each helper. */
export const WORK = { next: 0, chunks: 1, helpers: 2 } as const;
/** What the word of a helper says. */
export const HELPER = { asked: 0, working: 1, done: 2, closed: 3 } as const;

/** The words that a helper's life is told by: 1 while it lives, and how many chunks it took. */
export const LIFE = { alive: 0, chunks: 1 } as const;

/** The chunk that is next, from now on the caller's; -1 when none is left. */
export function nextChunk(work: Int32Array): number {
  const chunk = Atomics.add(work, WORK.next, 1);
  return chunk < Atomics.load(work, WORK.chunks) ? chunk : -1;
}

/** The memory that a thread's arrays stand in, for handing it over instead of copying it. */
export function buffersIn(value: unknown, found = new Set<ArrayBuffer>()): ArrayBuffer[] {
  if (ArrayBuffer.isView(value)) {
    if (value.buffer instanceof ArrayBuffer) found.add(value.buffer);
  } else if (value instanceof Map) for (const inner of value.values()) buffersIn(inner, found);
  else if (Array.isArray(value)) {
    // Keys and texts are many, and have no memory of their own; a state stands behind its name.
    if (typeof value[0] === "object" || typeof value[1] === "object")
      for (const inner of value) buffersIn(inner, found);
  } else if (typeof value === "object" && value !== null)
    for (const inner of Object.values(value)) buffersIn(inner, found);
  return [...found];
}
