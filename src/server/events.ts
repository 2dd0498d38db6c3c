import { EventEmitter } from "node:events";

/** What happened to a project, for all windows that look at it. */
export type ProjectEvent = { project: string } & (
  | { type: "saved"; revision: number }
  | { type: "deleted" }
  | { type: "brought back"; revision: number }
);

const shared = globalThis as { cavloEvents?: EventEmitter };
function bus(): EventEmitter {
  shared.cavloEvents ??= new EventEmitter().setMaxListeners(0);
  return shared.cavloEvents;
}

/** Tells every listener of this process that a project changed. */
export function announce(event: ProjectEvent): void {
  bus().emit("project", event);
}

/** Hears of every event until the function that is given back is called. */
export function listen(hear: (event: ProjectEvent) => void): () => void {
  bus().on("project", hear);
  return () => void bus().off("project", hear);
}
