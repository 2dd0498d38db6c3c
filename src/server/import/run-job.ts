import { statSync } from "node:fs";
import type { Worker } from "node:worker_threads";
import { HttpError } from "../http/errors";
import { settings } from "../settings";
import { removeTableFiles } from "../store/table-files";
import { isOutOfMemory, startThread } from "../threads/thread";
import type { ImportJob, ImportMessage } from "./job";
import type { Follower } from "./progress";

const TOO_SLOW = `The file takes longer than ${Math.round(settings.importTime / 60_000)} minutes to read and was given up. Bring in a part of it, or save it as CSV first.`;

const STALLED =
  "Reading the file made no progress for so long that it was given up: it may be broken, be packed too tightly, or need more memory than there is. Write it again with smaller row groups, save it as CSV, or bring in fewer columns.";
const TOO_LARGE =
  "Reading the file needs more memory than there is for it. Bring in fewer columns, or fewer rows at a time.";

/**
 * How long a file may be read without any progress, in milliseconds: broken ones can keep a reader
 * in a circle.
 */
const stallTime = (bytes: number) => 8000 + bytes / 50;

/**
 * A thread that has loaded what it needs and waits for its job; starting one takes longer than reading a
 * small file.
 */
let spare: Worker | null = null;

function keepSpare(): void {
  if (spare) return;
  const worker = startThread("import-worker");
  worker.unref();
  const lost = () => {
    if (spare === worker) spare = null;
  };
  worker.on("error", lost);
  worker.on("exit", lost);
  spare = worker;
}

function takeWorker(): Worker {
  const worker = spare ?? startThread("import-worker");
  spare = null;
  worker.removeAllListeners();
  worker.ref();
  return worker;
}

/** Imports that run at once; more only wait for the same cores and disk. */
const MOST_AT_ONCE = 4;
let running = 0;
const waiting: (() => void)[] = [];

async function myTurn(): Promise<void> {
  if (running >= MOST_AT_ONCE) await new Promise<void>((resolve) => waiting.push(resolve));
  else running++;
}

function nextTurn(): void {
  const next = waiting.shift();
  if (next) next();
  else running--;
}

/**
 * Runs an import job in a worker thread of its own, when its turn has come. Rejects with a 422
 * HttpError where the file is at fault. When the follower's signal aborts, the thread ends and what it
 * wrote is removed.
 */
export async function runJob<T>(job: ImportJob, follower: Follower): Promise<T> {
  await myTurn();
  try {
    return await runNow<T>(job, follower);
  } finally {
    nextTurn();
  }
}

function runNow<T>(job: ImportJob, { progress, signal }: Follower): Promise<T> {
  return new Promise<T>((resolve, reject) => {
    const cancelled = () => new HttpError(499, "cancelled", "The import was cancelled.");
    if (signal?.aborted) return reject(cancelled());
    const worker = takeWorker();
    const end = async (settle: () => void) => {
      signal?.removeEventListener("abort", cancel);
      clearTimeout(limit);
      clearTimeout(stall);
      worker.removeAllListeners();
      await worker.terminate();
      keepSpare();
      settle();
    };
    const fail = (error: unknown) =>
      end(() => {
        if (job.type === "table" || job.type === "append") removeTableFiles(job.id);
        reject(error);
      });
    const cancel = () => fail(cancelled());
    const limit = setTimeout(() => fail(new HttpError(422, "too_slow", TOO_SLOW)), settings.importTime);
    const patience = job.type === "table" ? stallTime(statSync(job.path).size) : settings.importTime;
    let stall: NodeJS.Timeout | undefined;
    const progressed = () => {
      clearTimeout(stall);
      stall = setTimeout(() => fail(new HttpError(422, "bad_file", STALLED)), patience);
    };
    progressed();
    signal?.addEventListener("abort", cancel, { once: true });
    worker.on("message", (message: ImportMessage) => {
      if ("progress" in message) {
        progressed();
        progress(message.progress, message.rows);
      } else if ("problem" in message) fail(new HttpError(422, "bad_file", message.problem));
      else if ("fault" in message)
        fail(Object.assign(new Error(message.fault.message), { code: message.fault.code }));
      else end(() => resolve(message.done as T));
    });
    worker.on("error", (error) =>
      fail(isOutOfMemory(error) ? new HttpError(422, "too_large", TOO_LARGE) : error),
    );
    worker.on("exit", () => fail(new Error("the import thread ended before its time")));
    worker.postMessage(job);
  });
}
