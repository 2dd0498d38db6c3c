import { HttpError } from "../http/errors";
import { settings } from "../settings";
import { removeTableFiles } from "../store/table-files";
import { startThread } from "../threads/thread";
import type { Progress } from "./progress";
import type { ImportJob, ImportMessage } from "./worker";

const TOO_SLOW = `The file takes longer than ${Math.round(settings.importTime / 60_000)} minutes to read and was given up. Bring in a part of it, or save it as CSV first.`;

/**
 * Runs an import job in a worker thread of its own. Rejects with a 422 HttpError where the file is at fault. When
 * `signal` aborts, the thread ends and what it wrote is removed.
 */
export function runJob<T>(job: ImportJob, progress: Progress, signal?: AbortSignal): Promise<T> {
  return new Promise<T>((resolve, reject) => {
    const cancelled = () => new HttpError(499, "cancelled", "The import was cancelled.");
    if (signal?.aborted) return reject(cancelled());
    const worker = startThread("import-worker", job);
    const end = async (settle: () => void) => {
      signal?.removeEventListener("abort", cancel);
      clearTimeout(limit);
      await worker.terminate();
      settle();
    };
    const fail = (error: unknown) =>
      end(() => {
        if (job.type === "table" || job.type === "append") removeTableFiles(job.id);
        reject(error);
      });
    const cancel = () => fail(cancelled());
    const limit = setTimeout(() => fail(new HttpError(422, "too_slow", TOO_SLOW)), settings.importTime);
    signal?.addEventListener("abort", cancel, { once: true });
    worker.on("message", (message: ImportMessage) => {
      if ("progress" in message) progress(message.progress, message.rows);
      else if ("problem" in message) fail(new HttpError(422, "bad_file", message.problem));
      else if ("fault" in message) fail(Object.assign(new Error(message.fault.message), { code: message.fault.code }));
      else end(() => resolve(message.done as T));
    });
    worker.on("error", fail);
  });
}
