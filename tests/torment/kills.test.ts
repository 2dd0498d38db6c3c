import { spawnSync } from "node:child_process";
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, it } from "vitest";
import { endAllServers, json, lastLine, OwnServer, withTable } from "../own-server";
import { figure, LONG, randomFrom, SEED, times } from "./extent";

const random = randomFrom(SEED + 2);
const int = (most: number) => Math.floor(random() * most);
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
afterAll(endAllServers);

/** How soon a full disk is told, in milliseconds: in a check beside other work, that it is told at all. */
const REFUSED_WITHIN = LONG ? 5000 : 60_000;

const KILLS = times(3, 200);
it(`${KILLS} kills in the middle of saves, imports and registering lose nothing that was acknowledged`, async () => {
  const server = new OwnServer();
  await server.start();
  const { project } = await withTable(server.base, "route,n\nFerrow,1\n");
  const acknowledged = new Set<string>();
  let revision = 0;
  const counts = { save: 0, register: 0, import: 0 };
  const unclaimed = join(server.data, "unclaimed");
  const files = () =>
    new Set([
      ...readdirSync(join(server.data, "tables")),
      ...(existsSync(unclaimed) ? readdirSync(unclaimed) : []),
    ]);
  for (let kill = 0; kill < KILLS; kill++) {
    const moment = (["save", "register", "import"] as const)[kill % 3];
    counts[moment]++;
    const { project: now } = await (await fetch(`${server.base}/api/projects/${project}`)).json();
    revision = now.revision;
    let stopped = false;
    const saving = (async () => {
      while (!stopped) {
        const answer = await fetch(
          `${server.base}/api/projects/${project}`,
          json("PUT", { revision, document: { ...now.document, name: `Saved ${revision + 1}` } }),
        ).catch(() => null);
        const saved = answer?.ok ? await answer.json().catch(() => null) : null;
        // The answer may be cut off by the kill: then the save was not acknowledged.
        if (!saved) return;
        revision = saved.project.revision;
      }
    })();
    const importing = (async () => {
      while (!stopped) {
        const answer = await fetch(`${server.base}/api/projects/${project}/tables?name=k${kill}.csv`, {
          method: "POST",
          body: `n\n${"7\n".repeat(50 + int(3000))}`,
        })
          .then(lastLine)
          .catch(() => null);
        if (answer?.table) acknowledged.add(answer.table.id);
        else return;
      }
    })();
    if (moment === "register") {
      // The note of a new table is written just before it is registered.
      const before = files();
      for (
        let tries = 0;
        tries < 3000 && ![...files()].some((f) => f.endsWith(".about.json") && !before.has(f));
        tries++
      )
        await pause(1);
    } else await pause(moment === "save" ? 40 + int(300) : 200 + int(900));
    await server.stop();
    stopped = true;
    await Promise.all([saving, importing]);
    const whole = [...files()].filter((f) => f.endsWith(".sqlite") && !f.includes(".part"));
    await server.start();
    // Whatever table was whole on the disk before is still there: registered, or moved aside.
    const still = files();
    for (const file of whole) expect(still.has(file), `${file} after kill ${kill}`).toBe(true);
    const { project: after } = await (await fetch(`${server.base}/api/projects/${project}`)).json();
    expect([revision, revision + 1], `kill ${kill}`).toContain(after.revision);
    for (const id of acknowledged)
      expect(existsSync(join(server.data, "tables", `${id}.sqlite`)), `${id} after kill ${kill}`).toBe(true);
  }
  const verified = await server.run("--verify");
  expect(verified.out).toContain("is as it was written");
  figure(
    `kills: ${KILLS} (${counts.save} during saves, ${counts.register} at registering, ${counts.import} during imports), ${acknowledged.size} tables acknowledged and kept, ${revision} saves, nothing lost`,
  );
});

const DAMAGES = times(6, 200);
it(`${DAMAGES} damaged bytes in every kind of file are told or mended, and never answered wrong`, async () => {
  const server = new OwnServer();
  await server.start();
  const { project, table } = await withTable(
    server.base,
    `route,n\n${Array.from({ length: 4000 }, (_, i) => `r${i % 7},${i}`).join("\n")}\n`,
  );
  const right = (4000 * 3999) / 2;
  const ask = async () => {
    const answer = await fetch(
      `${server.base}/api/projects/${project}/results`,
      json("POST", {
        queries: [{ table: "t", measures: [{ formula: "sum(n)", as: "n" }], splits: [{ column: "route" }] }],
      }),
    );
    const body = await answer.json();
    return answer.status === 200 ? (body.results[0].error ?? body.results[0].totals.n) : body.error;
  };
  expect(await ask()).toBe(right);
  await server.stop();
  const base = join(server.data, "tables", table);
  const columns = readdirSync(`${base}.columns`).map((f) => join(`${base}.columns`, f));
  const kinds: [string, string[]][] = [
    ["columns", columns],
    ["rows", [`${base}.sqlite`]],
    ["source", [`${base}.source`]],
    ["about", [`${base}.about.json`]],
    ["database", [join(server.data, "cavlo.sqlite")]],
    ["folder", [join(server.data, "folder.json")]],
  ];
  const seen: Record<string, number> = {};
  const note = (what: string) => {
    seen[what] = (seen[what] ?? 0) + 1;
  };
  for (let i = 0; i < DAMAGES; i++) {
    const [kind, paths] = kinds[i % kinds.length];
    const path = paths[int(paths.length)];
    if (!existsSync(path)) continue;
    const sound = readFileSync(path);
    // What the database has not yet put into its main file stands beside it.
    const beside =
      kind === "database"
        ? ["-wal", "-shm"]
            .map((end) => path + end)
            .filter((f) => existsSync(f))
            .map((f) => [f, readFileSync(f)] as const)
        : [];
    const bad = Buffer.from(sound);
    const at = int(bad.length);
    bad[at] ^= 1 + int(255);
    writeFileSync(path, random() < 0.15 ? bad.subarray(0, at) : bad);
    // Columns are read again from the rows where these are what was damaged.
    const aside = kind === "rows" ? columns.map((c) => [c, readFileSync(c)] as const) : [];
    for (const [c] of aside) rmSync(c, { force: true });
    const started = await server.start().then(
      () => true,
      () => false,
    );
    if (!started) note(`${kind}: refused to start`);
    else {
      const answer = await ask();
      if (typeof answer === "object") {
        expect(answer.message, `${kind} byte ${at}`).toMatch(
          /damaged|is gone|There is no such project|not stored/,
        );
        expect(answer.code, `${kind} byte ${at}: ${answer.message}`).not.toBe("internal");
        note(`${kind}: told`);
      } else {
        expect(answer, `${kind} byte ${at}`).toBe(right);
        note(`${kind}: right`);
      }
    }
    await server.stop();
    if (kind === "database") for (const end of ["-wal", "-shm"]) rmSync(path + end, { force: true });
    writeFileSync(path, sound);
    for (const [file, bytes] of [...aside, ...beside]) writeFileSync(file, bytes);
  }
  await server.start();
  expect(await ask()).toBe(right);
  figure(
    `damaged bytes: ${DAMAGES}, ${Object.entries(seen)
      .map(([what, n]) => `${what} ${n}`)
      .join(", ")}`,
  );
});

/** A folder on a disk of so many megabytes, or null where no disk can be made here. */
function smallDisk(megabytes: number): { path: string; end: () => void } | null {
  const path = join(tmpdir(), `cavlo-disk-${process.pid}`);
  mkdirSync(path, { recursive: true });
  if (spawnSync("mount", ["-t", "tmpfs", "-o", `size=${megabytes}m`, "tmpfs", path]).status !== 0)
    return null;
  return { path, end: () => void spawnSync("umount", ["-l", path]) };
}

it("a full disk is told in words, nothing is lost, and everything goes on when there is room", async (context) => {
  const disk = smallDisk(24);
  if (!disk) return context.skip();
  try {
    const server = new OwnServer(join(disk.path, "data"));
    await server.start();
    const { project } = await withTable(server.base, "route,n\nFerrow,1\nQuay,2\n");
    const filler = join(disk.path, "filler");
    writeFileSync(filler, Buffer.alloc(18_000_000));
    const began = performance.now();
    const refused = await lastLine(
      await fetch(`${server.base}/api/projects/${project}/tables?name=big.csv`, {
        method: "POST",
        body: `n,t\n${Array.from({ length: 400_000 }, (_, i) => `${i},text ${i}`).join("\n")}\n`,
      }),
    );
    const took = performance.now() - began;
    expect(refused.error?.code).toBe("disk_full");
    expect(refused.error?.message).toContain("free some room");
    expect(took).toBeLessThan(REFUSED_WITHIN);
    expect(readdirSync(join(server.data, "tables")).filter((f) => /part|upload/.test(f))).toEqual([]);
    // Fill what is left, so that saving fails too.
    const left = join(disk.path, "left");
    try {
      for (let n = 0; n < 100_000; n++)
        writeFileSync(left, Buffer.alloc(n < 500 ? 40_000 : 512), { flag: "a" });
    } catch {
      // Now it is full.
    }
    let { revision, document } = (await (await fetch(`${server.base}/api/projects/${project}`)).json())
      .project;
    const save = async (name: string) =>
      fetch(
        `${server.base}/api/projects/${project}`,
        json("PUT", { revision, document: { ...document, name, pictures: [] } }),
      );
    let full: Response | null = null;
    for (let i = 0; i < 2000 && !full; i++) {
      const answer = await save(`Full ${i} ${"x".repeat(90)}`);
      if (answer.ok) revision = (await answer.json()).project.revision;
      else full = answer;
    }
    expect(full?.status).toBe(507);
    expect(await full?.text()).toContain("The disk with the data folder is full");
    expect((await (await fetch(`${server.base}/api/projects/${project}`)).json()).project.revision).toBe(
      revision,
    );
    rmSync(left, { force: true });
    rmSync(filler, { force: true });
    const taken = await save("There is room");
    expect(taken.status).toBe(200);
    revision = (await taken.json()).project.revision;
    figure(
      `full disk: import refused in ${Math.round(took)} ms, saving refused with 507 and taken again when there was room (${statSync(server.data).isDirectory() ? "folder whole" : ""})`,
    );
    // A folder that is gone for a while.
    renameSync(server.data, `${server.data}-away`);
    // A connection that was kept may end just then; a server that is there answers the second time.
    const gone = await save("Gone").catch(() => save("Gone"));
    expect(gone.status).toBe(503);
    expect((await gone.json()).error.code).toBe("folder_gone");
    renameSync(`${server.data}-away`, server.data);
    const back = await save("Back");
    expect(back.status, await back.clone().text()).toBe(200);
    await server.stop();
  } finally {
    disk.end();
  }
});
