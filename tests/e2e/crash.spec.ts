import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "@playwright/test";

const PORT = 4532;
const base = `http://127.0.0.1:${PORT}`;

async function start(data: string): Promise<ChildProcess> {
  const child = spawn("node", ["dist/serve.mjs", "--port", String(PORT), "--data", data, "--no-demo"], { env: { ...process.env, NODE_ENV: "production" }, stdio: "ignore" });
  await expect(async () => expect((await fetch(`${base}/api/health`)).ok).toBe(true)).toPass({ timeout: 30_000 });
  return child;
}

async function killHard(child: ChildProcess): Promise<void> {
  const ended = new Promise((resolve) => child.once("exit", resolve));
  child.kill("SIGKILL");
  await ended;
}

const json = (method: string, body: unknown) => ({ method, headers: { "content-type": "application/json" }, body: JSON.stringify(body) });

/** A CSV that comes slowly and does not end, so that the import is certainly under way when the process dies. */
function endless(): ReadableStream<Uint8Array> {
  const chunk = new TextEncoder().encode("abc,1\n".repeat(20_000));
  return new ReadableStream({ pull: (controller) => new Promise((resolve) => setTimeout(() => resolve(controller.enqueue(chunk)), 20)) });
}

test("kill -9 in the middle of saves and of an import loses nothing saved and leaves nothing half-done", async () => {
  test.setTimeout(120_000);
  const data = mkdtempSync(join(tmpdir(), "cavlo-crash-"));
  let server = await start(data);
  const { project } = await (await fetch(`${base}/api/projects`, json("POST", { name: "Before the crash" }))).json();
  const { project: full } = await (await fetch(`${base}/api/projects/${project.id}`)).json();

  for (let round = 0; round < 3; round++) {
    // An import and a run of saves are under way when the process is killed.
    const upload = fetch(`${base}/api/projects/${project.id}/tables?name=big.csv`, { method: "POST", body: endless(), duplex: "half" } as RequestInit).catch(() => null);
    await expect(() => expect(readdirSync(join(data, "tables")).some((f) => f.includes("upload"))).toBe(true)).toPass({ timeout: 15_000 });
    const now = await (await fetch(`${base}/api/projects/${project.id}`)).json();
    let revision: number = now.project.revision;
    let acknowledged = revision;
    let killed = false;
    const saving = (async () => {
      while (!killed) {
        try {
          const response = await fetch(`${base}/api/projects/${project.id}`, json("PUT", { revision, document: { ...full.document, name: `Saved ${revision + 1}` } }));
          if (!response.ok) return;
          revision = (await response.json()).project.revision;
          acknowledged = revision;
        } catch {
          return;
        }
      }
    })();
    await expect(() => expect(acknowledged).toBeGreaterThan(now.project.revision + 5)).toPass({ timeout: 15_000 });
    await killHard(server);
    killed = true;
    await Promise.all([saving, upload]);

    server = await start(data);
    expect(readdirSync(join(data, "tables"))).toEqual([]);
    const after = await (await fetch(`${base}/api/projects/${project.id}`)).json();
    // What was acknowledged is there; at most one save more was committed without its answer arriving.
    expect([acknowledged, acknowledged + 1]).toContain(after.project.revision);
    expect(after.project.document.name).toBe(`Saved ${after.project.revision}`);
  }
  await killHard(server);
  rmSync(data, { recursive: true });
});
