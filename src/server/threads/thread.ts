import { join } from "node:path";
import * as threads from "node:worker_threads";
import { settings } from "../settings";

/**
 * Starts one of the worker threads bundled in dist/, with the server's settings and what is
 * handed to it.
 */
export function startThread(
  name:
    | "compute-worker"
    | "scan-helper"
    | "cell-worker"
    | "import-worker"
    | "table-builder"
    | "picture-worker",
  workerData?: unknown,
  transferList: threads.TransferListItem[] = [],
): threads.Worker {
  // The path is only known at run time, so the page bundler must leave this call alone.
  const Thread: typeof threads.Worker = Reflect.get(threads, "Worker");
  return new Thread(join(settings.root, "dist", `${name}.mjs`), {
    workerData,
    transferList,
    env: { ...process.env, CAVLO_DATA: settings.data, CAVLO_ROOT: settings.root },
  });
}

/** Whether a thread ended since it needed more memory than it may have. */
export const isOutOfMemory = (error: unknown): boolean =>
  (error as { code?: unknown } | null)?.code === "ERR_WORKER_OUT_OF_MEMORY";
