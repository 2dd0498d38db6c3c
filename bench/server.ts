import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const PORT = 4541;
export const BASE = `http://127.0.0.1:${PORT}`;

/** Starts the built application on a data folder, and waits until it answers. */
async function started(data: string, more: string[]): Promise<ChildProcess> {
  const child = spawn("node", ["dist/serve.mjs", "--port", String(PORT), "--data", data, ...more], {
    env: { ...process.env, NODE_ENV: "production" },
    stdio: "ignore",
  });
  for (let i = 0; ; i++) {
    const answers = await fetch(`${BASE}/api/health`)
      .then((r) => r.ok)
      .catch(() => false);
    // What answers must be this one, and not what an earlier run left behind.
    if (child.exitCode !== null) throw new Error(`the server ended; is something else on port ${PORT}?`);
    if (answers) return child;
    if (i > 300) throw new Error("the server did not start");
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

/**
 * Starts the built application on a data folder of its own; `restart` ends it and starts it on the same
 * folder, `stop` ends it and removes the folder, as does the end of the benchmark.
 */
export async function startServer(
  more: string[] = [],
): Promise<{ stop: () => void; restart: () => Promise<void> }> {
  const data = mkdtempSync(join(tmpdir(), "cavlo-bench-"));
  let child = await started(data, more);
  const stop = () => {
    child.kill("SIGKILL");
    rmSync(data, { recursive: true, force: true });
  };
  process.on("exit", stop);
  const restart = async () => {
    const ended = new Promise((resolve) => child.once("exit", resolve));
    child.kill("SIGTERM");
    await ended;
    child = await started(data, more);
  };
  return { stop, restart };
}
