import type { Worker } from "node:worker_threads";
import { HttpError } from "../http/errors";
import { isOutOfMemory } from "./thread";

/**
 * What a thread is asked and what it says; `more` is what goes with a question for this thread, `news` what a
 * thread tells besides its answer.
 */
export interface ToThread<Q, M> {
  id: number;
  question: Q;
  more: M;
}
/** What a thread says: its answer, a problem that the person can mend, or a fault of the machine. */
export type FromThread<A, N> = { id: number; news?: N } & (
  | { answer: A }
  | { error: { status: number; code: string; message: string } }
  | { fault: { code: string; message: string } }
);

/**
 * In which a thread looks, between steps of its work, whether it is to stop: the place of a word in shared
 * memory, and its values.
 */
export const STOP = { none: 0, cancelled: 1, tooLong: 2 } as const;

/** What a pool needs to know of its threads and of the questions to them. */
export interface PoolOptions<Q, M, N> {
  start: (stop: SharedArrayBuffer) => Worker;
  /** The most threads at once. */
  most: number;
  /** The longest that one question may take, in milliseconds. */
  limit: () => number;
  /** What is said when a question took too long. */
  tooLong: string;
  /** Whether a question is heavy: heavy ones never have the last free thread. */
  isHeavy: (question: Q) => boolean;
  /** What goes with a question for a thread, which may know some of it already. */
  moreFor?: (question: Q, thread: Set<string>) => M;
  /** The memory of a question that is handed over instead of copied. */
  handOver?: (question: Q) => ArrayBuffer[];
  onNews?: (news: N, thread: Set<string>) => void;
}

interface Waiting<Q, A> {
  id: number;
  question: Q;
  /** Whose question it is: no owner has all threads. */
  owner: string;
  heavy: boolean;
  /** When it was asked, as performance.now() has it: waiting for a thread counts towards the limit. */
  asked: number;
  /** Ends the waiting for a thread. */
  patience: NodeJS.Timeout | null;
  resolve: (answer: A) => void;
  reject: (error: unknown) => void;
  left: () => void;
}

interface Thread<Q, A> {
  worker: Worker;
  stop: Int32Array;
  now: Waiting<Q, A> | null;
  began: number;
  limit: NodeJS.Timeout | null;
  end: NodeJS.Timeout | null;
  /** What this thread has been given. */
  knows: Set<string>;
  idle: NodeJS.Timeout | null;
}

/** What a question gets at least once its turn has come, in milliseconds. */
const LEAST_TIME = 500;
/** How long a thread may take to heed its stop flag before it is ended. */
const GRACE = 1000;
/** Threads beyond the first are let go after so long without work. */
const IDLE = 60_000;

/**
 * Threads that answer questions one at a time each. A question can be cancelled, has a limit of time, and is
 * stopped or its thread replaced when it is over; others do not wait for it as long as a thread is free.
 */
export class ThreadPool<Q, A, M = null, N = null> {
  private readonly threads: Thread<Q, A>[] = [];
  private queue: Waiting<Q, A>[] = [];
  private next = 1;
  private replacedCount = 0;
  private stoppedCount = 0;

  constructor(private readonly options: PoolOptions<Q, M, N>) {}

  /** How the pool is doing: for /api/health. */
  state(): {
    threads: number;
    busy: number;
    waiting: number;
    longest: number;
    stopped: number;
    replaced: number;
  } {
    const busy = this.threads.filter((t) => t.now);
    const longest = Math.max(0, ...busy.map((t) => Math.round(performance.now() - t.began)));
    return {
      threads: this.threads.length,
      busy: busy.length,
      waiting: this.queue.length,
      longest,
      stopped: this.stoppedCount,
      replaced: this.replacedCount,
    };
  }

  /**
   * Asks a question. Rejects with an HttpError: 499 when `signal` aborts, 503 when it took too long, 400
   * where it cannot be answered.
   */
  ask(question: Q, owner = "", signal?: AbortSignal): Promise<A> {
    return new Promise<A>((resolve, reject) => {
      if (signal?.aborted) return reject(cancelled());
      const abort = () => this.abandon(waiting);
      const waiting: Waiting<Q, A> = {
        id: this.next++,
        question,
        owner,
        heavy: this.options.isHeavy(question),
        asked: performance.now(),
        patience: null,
        resolve,
        reject,
        left: () => signal?.removeEventListener("abort", abort),
      };
      signal?.addEventListener("abort", abort, { once: true });
      waiting.patience = setTimeout(() => this.giveUp(waiting), this.options.limit());
      this.queue.push(waiting);
      this.dispatch();
    });
  }

  /** Lets go of a question for which no thread was free in time. */
  private giveUp(waiting: Waiting<Q, A>): void {
    if (!this.queue.includes(waiting)) return;
    this.queue = this.queue.filter((w) => w !== waiting);
    waiting.left();
    waiting.reject(
      new HttpError(
        503,
        "busy",
        "Cavlo is busy with other work, and this waited too long for its turn. It can be asked again in a moment.",
      ),
    );
  }

  private abandon(waiting: Waiting<Q, A>): void {
    this.queue = this.queue.filter((w) => w !== waiting);
    if (waiting.patience) clearTimeout(waiting.patience);
    waiting.reject(cancelled());
    const thread = this.threads.find((t) => t.now === waiting);
    if (thread) this.stop(thread, STOP.cancelled);
  }

  private dispatch(): void {
    for (const waiting of [...this.queue]) {
      const thread = this.freeThread(waiting);
      if (!thread) continue;
      this.queue = this.queue.filter((w) => w !== waiting);
      this.begin(thread, waiting);
    }
  }

  /**
   * A thread for a question, or null where it has to wait. The first threads are asked first, since they
   * remember most.
   */
  private freeThread({ heavy, owner }: Waiting<Q, A>): Thread<Q, A> | null {
    const { most } = this.options;
    const busy = this.threads.filter((t) => t.now);
    if (heavy && busy.filter((t) => t.now?.heavy).length >= Math.max(1, most - 1)) return null;
    if (most > 1 && busy.filter((t) => t.now?.owner === owner).length >= most - 1) return null;
    const free = this.threads.find((t) => !t.now);
    if (free) return free;
    return this.threads.length < most ? this.start() : null;
  }

  private start(): Thread<Q, A> {
    const shared = new SharedArrayBuffer(4);
    const worker = this.options.start(shared);
    worker.unref();
    const thread: Thread<Q, A> = {
      worker,
      stop: new Int32Array(shared),
      now: null,
      began: 0,
      limit: null,
      end: null,
      knows: new Set(),
      idle: null,
    };
    worker.on("message", (message: FromThread<A, N>) => this.hear(thread, message));
    worker.on("error", (error) => this.lose(thread, error));
    worker.on("exit", () => this.lose(thread, new Error("a worker thread ended")));
    this.threads.push(thread);
    return thread;
  }

  private begin(thread: Thread<Q, A>, waiting: Waiting<Q, A>): void {
    thread.now = waiting;
    thread.began = performance.now();
    if (waiting.patience) clearTimeout(waiting.patience);
    if (thread.idle) clearTimeout(thread.idle);
    thread.worker.ref();
    Atomics.store(thread.stop, 0, STOP.none);
    const left = this.options.limit() - (thread.began - waiting.asked);
    thread.limit = setTimeout(() => this.stop(thread, STOP.tooLong), Math.max(LEAST_TIME, left));
    const more = this.options.moreFor?.(waiting.question, thread.knows) ?? null;
    const memory = this.options.handOver?.(waiting.question) ?? [];
    thread.worker.postMessage({ id: waiting.id, question: waiting.question, more }, memory);
  }

  /** Asks a thread to stop what it does, and ends it where it does not heed. */
  private stop(thread: Thread<Q, A>, reason: number): void {
    this.stoppedCount++;
    Atomics.store(thread.stop, 0, reason);
    thread.end ??= setTimeout(() => {
      const { now } = thread;
      this.replacedCount++;
      this.forget(thread);
      void thread.worker.terminate();
      now?.left();
      now?.reject(
        reason === STOP.tooLong ? new HttpError(503, "too_long", this.options.tooLong) : cancelled(),
      );
      this.dispatch();
    }, GRACE);
  }

  private hear(thread: Thread<Q, A>, message: FromThread<A, N>): void {
    if (message.news !== undefined) this.options.onNews?.(message.news, thread.knows);
    const { now } = thread;
    if (!now || now.id !== message.id) return;
    this.free(thread);
    now.left();
    if ("answer" in message) now.resolve(message.answer);
    else if ("error" in message)
      now.reject(new HttpError(message.error.status, message.error.code, message.error.message));
    else now.reject(Object.assign(new Error(message.fault.message), { code: message.fault.code }));
    this.dispatch();
  }

  private free(thread: Thread<Q, A>): void {
    thread.now = null;
    for (const timer of [thread.limit, thread.end]) if (timer) clearTimeout(timer);
    thread.limit = null;
    thread.end = null;
    thread.worker.unref();
    if (this.threads[0] === thread) return;
    thread.idle = setTimeout(() => {
      if (thread.now) return;
      this.forget(thread);
      void thread.worker.terminate();
    }, IDLE);
    thread.idle.unref();
  }

  private forget(thread: Thread<Q, A>): void {
    const at = this.threads.indexOf(thread);
    if (at >= 0) this.threads.splice(at, 1);
    for (const timer of [thread.limit, thread.end, thread.idle]) if (timer) clearTimeout(timer);
  }

  private lose(thread: Thread<Q, A>, error: unknown): void {
    if (!this.threads.includes(thread)) return;
    const { now } = thread;
    this.replacedCount++;
    this.forget(thread);
    now?.left();
    now?.reject(
      isOutOfMemory(error)
        ? new HttpError(
            503,
            "too_large",
            "This needs more memory than there is for it. Filter the rows, or split by a column with fewer values.",
          )
        : error,
    );
    this.dispatch();
  }

  /** Tells every thread something between its questions, and notes what it no longer knows. */
  tell(message: unknown, forget: (knows: Set<string>) => void): void {
    for (const { worker, knows } of this.threads) {
      forget(knows);
      worker.postMessage(message);
    }
  }

  /** Ends all threads. */
  async close(): Promise<void> {
    const threads = [...this.threads];
    for (const thread of threads) this.forget(thread);
    await Promise.all(threads.map((t) => t.worker.terminate()));
  }
}

const cancelled = () => new HttpError(499, "cancelled", "Nobody waits for this any more.");
