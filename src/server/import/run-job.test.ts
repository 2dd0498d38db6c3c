import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from "vitest";
import { settings } from "../settings";
import { tableFiles } from "../store/table-files";
import { runJob } from "./run-job";

/** A thread that does what its file says, in the place of one that reads files. */
const THREAD = `
import { readFileSync } from "node:fs";
import { parentPort } from "node:worker_threads";
const acts = {
  "reads it": () => parentPort.postMessage({ done: "read" }),
  "finds a problem": () => parentPort.postMessage({ problem: "It holds no table." }),
  "meets a fault": () => parentPort.postMessage({ fault: { code: "ENOSPC", message: "full" } }),
  "goes on for ever": () => parentPort.postMessage({ progress: 0.5 }),
  "goes on three times": () => {
    for (const part of [1, 2, 3])
      setTimeout(() => parentPort.postMessage({ progress: part / 10 }), 400 * part);
  },
  "is out of memory": () => {
    throw Object.assign(new Error("no more"), { code: "ERR_WORKER_OUT_OF_MEMORY" });
  },
  "breaks": () => {
    throw new Error("broken");
  },
  "ends": () => process.exit(0),
};
parentPort.on("message", ({ path }) => acts[readFileSync(path, "utf8")]());
`;

const before = { ...settings };
beforeAll(() => {
  settings.root = mkdtempSync(join(tmpdir(), "cavlo-jobs-"));
  settings.data = settings.root;
  for (const folder of ["dist", "tables"]) mkdirSync(join(settings.root, folder));
  writeFileSync(join(settings.root, "dist", "import-worker.mjs"), THREAD);
});
afterEach(() => void vi.useRealTimers());
afterAll(() => {
  rmSync(settings.root, { recursive: true });
  Object.assign(settings, before);
});

/** Has a file read by a thread that does so; rows that it had begun to write stand already. */
function importing(act: string, progress = () => {}, signal?: AbortSignal) {
  const { upload, part } = tableFiles("new");
  writeFileSync(upload, act);
  writeFileSync(part, "half of it");
  return runJob(
    { type: "table", id: "new", path: upload, file: "new.csv", options: {} },
    { progress, signal },
  );
}
const isLeft = () => ["upload", "part"].some((name) => existsSync(tableFiles("new")[name as "part"]));

describe("an import", () => {
  it("gives what its thread read, and leaves the files to who asked", async () => {
    expect(await importing("reads it")).toBe("read");
    expect(isLeft()).toBe(true);
  });

  it.each([
    ["finds a problem", { status: 422, code: "bad_file", message: "It holds no table." }],
    [
      "is out of memory",
      { status: 422, code: "too_large", message: /more memory than there is.*fewer columns/ },
    ],
    ["meets a fault", { code: "ENOSPC", message: "full" }],
    ["breaks", { message: "broken" }],
    ["ends", { message: "the import thread ended before its time" }],
  ])("whose thread %s says so, and nothing of the table is left", async (act, said) => {
    const message = typeof said.message === "string" ? said.message : expect.stringMatching(said.message);
    await expect(importing(act)).rejects.toMatchObject({ ...said, message });
    expect(isLeft()).toBe(false);
  });

  it("that makes no progress for too long is given up: what may be is said, not what was not looked at", async () => {
    vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
    let met = 0;
    const given = importing("goes on three times", () => met++);
    const said = given.catch((error: unknown) => error);
    // From the last progress on it has eight seconds for a small file.
    for (const times of [1, 2, 3]) {
      // The time of this thread stands still meanwhile.
      while (met < times) await new Promise((resolve) => setImmediate(resolve));
      vi.advanceTimersByTime(7_000);
      expect(isLeft()).toBe(true);
    }
    vi.advanceTimersByTime(2_000);
    expect(await said).toMatchObject({
      status: 422,
      code: "bad_file",
      message: expect.stringMatching(/no progress.*it may be broken.*or need more memory/),
    });
    expect(isLeft()).toBe(false);
  });

  it("that is cancelled ends its thread and leaves nothing", async () => {
    const cancel = new AbortController();
    const given = importing("goes on for ever", () => cancel.abort(), cancel.signal);
    await expect(given).rejects.toMatchObject({ status: 499, code: "cancelled" });
    expect(isLeft()).toBe(false);
    await expect(importing("reads it", undefined, cancel.signal)).rejects.toMatchObject({ status: 499 });
  });
});
