import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const all = new Set<OwnServer>();

/** Ends every server that a test left running, whether it passed or not. */
export async function endAllServers(): Promise<void> {
  for (const server of all) await server.end();
  all.clear();
}

/** A server of its own, so that it can be stopped and started, killed, and its folder damaged. */
export class OwnServer {
  private child: ChildProcess | null = null;
  /** Where it is served: a free port that is given at the first start, and kept at the next ones. */
  private port = 0;
  constructor(readonly data = mkdtempSync(join(tmpdir(), "cavlo-own-"))) {
    all.add(this);
  }
  get base(): string {
    return `http://127.0.0.1:${this.port}`;
  }
  get pid(): number {
    return this.child?.pid ?? 0;
  }
  /** What the process holds in memory, in megabytes. */
  get memory(): number {
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${this.pid}/status`, "utf8"))?.[1] ?? 0) / 1024;
  }
  /** Starts the process and waits until it says itself where it is: no other server is taken for it. */
  async start(env: Record<string, string> = {}): Promise<void> {
    const child = spawn(
      "node",
      ["dist/serve.mjs", "--port", String(this.port), "--data", this.data, "--no-demo"],
      {
        env: { ...process.env, NODE_ENV: "production", ...env },
        stdio: ["ignore", "pipe", "pipe"],
      },
    );
    this.child = child;
    let out = "";
    this.port = await new Promise<number>((resolve, reject) => {
      const hear = (chunk: Buffer) => {
        out += chunk;
        const ready = /Cavlo is ready: http:\/\/127\.0\.0\.1:(\d+)/.exec(out);
        if (ready) resolve(Number(ready[1]));
      };
      child.stdout.on("data", hear);
      child.stderr.on("data", hear);
      child.once("exit", (code) => reject(new Error(`the server ended with ${code}: ${out}`)));
    });
    // What it says later is not kept.
    for (const stream of [child.stdout, child.stderr]) stream.removeAllListeners("data").resume();
  }
  /** Ends the process at once, in the middle of whatever it does. */
  async stop(): Promise<void> {
    const { child } = this;
    this.child = null;
    if (!child || child.exitCode !== null) return;
    const ended = new Promise((resolve) => child.once("exit", resolve));
    child.kill("SIGKILL");
    await ended;
  }
  /** Runs one of the commands of ./start beside the server or without it. */
  async run(...args: string[]): Promise<{ code: number | null; out: string }> {
    const child = spawn("node", ["dist/serve.mjs", "--data", this.data, ...args], {
      env: { ...process.env, NODE_ENV: "production" },
    });
    let out = "";
    child.stdout.on("data", (chunk) => (out += chunk));
    child.stderr.on("data", (chunk) => (out += chunk));
    return { code: await new Promise((resolve) => child.once("exit", resolve)), out };
  }
  async end(): Promise<void> {
    await this.stop();
    rmSync(this.data, { recursive: true, force: true });
  }
}

export const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { "content-type": "application/json" },
  body: JSON.stringify(body),
});

/** The last line of an import's answer: a table, or an error. */
export async function lastLine(response: Response): Promise<{
  table?: { id: string; name: string; rows: number; columns: unknown[] };
  error?: { code: string; message: string };
}> {
  const text = (await response.text()).trim();
  return JSON.parse(text.slice(text.lastIndexOf("\n") + 1));
}

/** Makes a project with one table called t in it and gives their ids. */
export async function withTable(
  base: string,
  csv: string,
  name = "Kept",
): Promise<{ project: string; table: string }> {
  const { project } = await (await fetch(`${base}/api/projects`, json("POST", { name }))).json();
  const { table } = await lastLine(
    await fetch(`${base}/api/projects/${project.id}/tables?name=t.csv`, { method: "POST", body: csv }),
  );
  const { project: now } = await (await fetch(`${base}/api/projects/${project.id}`)).json();
  await fetch(
    `${base}/api/projects/${project.id}`,
    json("PUT", { revision: now.revision, document: { ...now.document, tables: [{ ...table, name: "t" }] } }),
  );
  return { project: project.id, table: table?.id ?? "" };
}
