import { Worker } from "node:worker_threads";
import { afterEach, describe, expect, it } from "vitest";
import { HttpError } from "../http/errors";
import { ThreadPool } from "./pool";

/** What a thread of these tests is asked to do. */
type Question =
  | { say: string }
  /** Works until the stop flag is set, then says so. */
  | { until: "stop" }
  /** Works and heeds nothing. */
  | { until: "ended" }
  | { fail: "error" | "fault" | "exit" | "memory" };

const THREAD = `
const { parentPort, workerData } = require("node:worker_threads");
const stop = new Int32Array(workerData);
parentPort.on("message", ({ id, question: q }) => {
  if (q.fail === "exit") process.exit(3);
  for (const all = []; q.fail === "memory"; ) all.push(new Array(100_000).fill(all.length / 3));
  const problems = {
    error: { error: { status: 400, code: "bad", message: "No." } },
    fault: { fault: { code: "ENOSPC", message: "full" } },
  };
  if (q.fail) return parentPort.postMessage({ id, ...problems[q.fail] });
  while (q.until && !(q.until === "stop" && Atomics.load(stop, 0))) Atomics.wait(stop, 0, 0, 20);
  const reason = Atomics.load(stop, 0);
  const error = { status: reason === 1 ? 499 : 503, code: "stopped", message: "" };
  if (reason) return parentPort.postMessage({ id, error });
  parentPort.postMessage({ id, answer: q.say });
});
`;

const pools: ThreadPool<Question, string>[] = [];
const pool = (most: number, limit = 60_000) => {
  const made = new ThreadPool<Question, string>({
    start: (stop) =>
      new Worker(THREAD, {
        eval: true,
        workerData: stop,
        resourceLimits: { maxOldGenerationSizeMb: 64 },
      }),
    most,
    limit: () => limit,
    tooLong: "This took too long.",
    isHeavy: (question) => "until" in question,
  });
  pools.push(made);
  return made;
};
/** What a question ended with: its answer, or the status and code of its problem. */
const endOf = (asked: Promise<string>) =>
  asked.catch((error: unknown) =>
    error instanceof HttpError
      ? `${error.status} ${error.code}`
      : `fault ${(error as { code?: string }).code ?? (error as Error).message}`,
  );
afterEach(async () => {
  await Promise.all(pools.splice(0).map((p) => p.close()));
});

describe("a pool of threads", () => {
  it("answers everyone, with no more threads than it may have", async () => {
    const asked = pool(3);
    const names = Array.from({ length: 40 }, (_, i) => `q${i}`);
    const answers = names.map((say, i) => asked.ask({ say }, `owner ${i % 5}`));
    expect(asked.state()).toMatchObject({ threads: 3, busy: 3, waiting: 37 });
    expect(await Promise.all(answers)).toEqual(names);
    expect(asked.state()).toMatchObject({ busy: 0, waiting: 0, stopped: 0, replaced: 0 });
  });

  it("keeps a thread free of heavy questions, and one free of any single owner", async () => {
    const asked = pool(3);
    const stop = new AbortController();
    const heavy = [1, 2, 3].map(() => endOf(asked.ask({ until: "stop" }, "greedy", stop.signal)));
    expect(asked.state()).toMatchObject({ busy: 2, waiting: 1 });
    const light = asked.ask({ say: "light" }, "greedy");
    expect(asked.state()).toMatchObject({ busy: 2, waiting: 2 });
    expect(await asked.ask({ say: "hello" }, "modest")).toBe("hello");
    expect(asked.state()).toMatchObject({ busy: 2, waiting: 2 });
    stop.abort();
    expect(await Promise.all(heavy)).toEqual(["499 cancelled", "499 cancelled", "499 cancelled"]);
    expect(await light).toBe("light");
  });

  it("stops what takes too long, and replaces a thread that heeds nothing", async () => {
    const asked = pool(1, 300);
    await asked.ask({ say: "awake" });
    expect(await endOf(asked.ask({ until: "stop" }))).toBe("503 stopped");
    expect(asked.state()).toMatchObject({ replaced: 0, stopped: 1 });
    expect(await endOf(asked.ask({ until: "ended" }))).toBe("503 too_long");
    expect(asked.state()).toMatchObject({ replaced: 1, stopped: 2 });
    expect(await asked.ask({ say: "anew" })).toBe("anew");
  });

  it("says busy to who waited too long for a turn, and takes up nothing of who had left before", async () => {
    const asked = pool(1, 200);
    const stop = new AbortController();
    const first = endOf(asked.ask({ until: "ended" }, "a"));
    const waited = endOf(asked.ask({ say: "late" }, "b"));
    const left = endOf(asked.ask({ say: "gone" }, "c", stop.signal));
    stop.abort();
    expect(await left).toBe("499 cancelled");
    expect(await waited).toBe("503 busy");
    expect(asked.state().waiting).toBe(0);
    expect(await endOf(asked.ask({ say: "never" }, "d", AbortSignal.abort()))).toBe("499 cancelled");
    expect(await first).toBe("503 too_long");
  });

  it("tells errors and faults apart, and outlives a thread that ends", async () => {
    const asked = pool(2);
    expect(await endOf(asked.ask({ fail: "error" }))).toBe("400 bad");
    expect(await endOf(asked.ask({ fail: "fault" }))).toBe("fault ENOSPC");
    expect(await endOf(asked.ask({ fail: "exit" }))).toBe("fault a worker thread ended");
    expect(asked.state()).toMatchObject({ busy: 0, replaced: 1 });
    expect(await asked.ask({ say: "fine" })).toBe("fine");
  });

  it("says of what needs more memory than a thread may have that it is too large, and goes on", async () => {
    const asked = pool(1);
    expect(await endOf(asked.ask({ fail: "memory" }))).toBe("503 too_large");
    expect(await asked.ask({ say: "fine" })).toBe("fine");
    expect(asked.state()).toMatchObject({ busy: 0, replaced: 1 });
  });
});
