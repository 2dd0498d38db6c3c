import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const PORT = 4541;
export const BASE = `http://127.0.0.1:${PORT}`;

/** Starts the built application on a data folder of its own; `stop` ends it and removes the folder. */
export async function startServer(more: string[] = []): Promise<{ stop: () => void }> {
  const data = mkdtempSync(join(tmpdir(), "cavlo-bench-"));
  const child: ChildProcess = spawn(
    "node",
    ["dist/serve.mjs", "--port", String(PORT), "--data", data, ...more],
    {
      env: { ...process.env, NODE_ENV: "production" },
      stdio: "ignore",
    },
  );
  for (let i = 0; ; i++) {
    if (
      await fetch(`${BASE}/api/health`)
        .then((r) => r.ok)
        .catch(() => false)
    )
      break;
    if (i > 300) throw new Error("the server did not start");
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  return {
    stop: () => {
      child.kill("SIGKILL");
      rmSync(data, { recursive: true, force: true });
    },
  };
}
