import { HttpError } from "../http/errors";
import { removeTableFiles } from "../store/table-files";
import { startThread } from "../thread";
import type { Progress } from "./progress";
import type { ImportJob, ImportMessage } from "./worker";

/**
 * Runs an import job in a worker thread of its own. Rejects with a 422 HttpError where the file is at fault. When
 * `signal` aborts, the thread ends and what it wrote is removed.
 */
export function runJob<T>(job: ImportJob, progress: Progress, signal?: AbortSignal): Promise<T> {
  return new Promise<T>((resolve, reject) => {
    if (signal?.aborted) return reject(new HttpError(499, "cancelled", "The import was cancelled."));
    const worker = startThread("import-worker", job);
    const end = async (settle: () => void) => {
      signal?.removeEventListener("abort", cancel);
      await worker.terminate();
      settle();
    };
    const fail = (error: unknown) =>
      end(() => {
        if (job.type === "table" || job.type === "append") removeTableFiles(job.id);
        reject(error);
      });
    const cancel = () => fail(new HttpError(499, "cancelled", "The import was cancelled."));
    signal?.addEventListener("abort", cancel, { once: true });
    worker.on("message", (message: ImportMessage) => {
      if ("progress" in message) progress(message.progress, message.rows);
      else if ("problem" in message) fail(new HttpError(422, "bad_file", message.problem));
      else end(() => resolve(message.done as T));
    });
    worker.on("error", fail);
  });
}
