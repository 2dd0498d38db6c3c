import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { request as httpRequest } from "node:http";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { endAllServers, json, OwnServer, withTable } from "../own-server";
import { choose, csvFile, goTo, openDemo, openEmpty, saved } from "./steps";

test.afterEach(endAllServers);

test("while the server is away: steps open, edits are kept and said, and everything is saved when it is back", async ({
  page,
}) => {
  test.setTimeout(120_000);
  const server = new OwnServer();
  await server.start();
  await page.goto(server.base);
  await page.getByRole("button", { name: "Load the demo" }).click();
  await page.waitForURL(/\/data/);
  const project = new URL(page.url()).pathname.split("/")[2];
  await goTo(page, "Boards");
  await expect(page.getByRole("img").first()).toBeVisible();
  // The other screens are fetched in the background: nothing more comes for a while once they are there.
  let before = -1;
  await expect(async () => {
    const now = await page.evaluate(() => performance.getEntriesByType("resource").length);
    const still = now === before;
    before = now;
    expect(still).toBe(true);
  }).toPass({ intervals: [4000], timeout: 60_000 });
  await server.stop();
  await expect(page.getByRole("alert").filter({ hasText: "does not answer since" })).toBeVisible();
  // The pictures stay as they were.
  await expect(page.getByRole("img").first()).toBeVisible();
  await goTo(page, "Measures");
  await expect(page.getByRole("textbox", { name: "Find a measure or an input" })).toBeVisible();
  await page.getByRole("textbox", { name: "Project name" }).fill("Renamed while away");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "are not saved" })).toContainText(
    "kept in this browser",
  );
  await server.start();
  await saved(page);
  await expect(page.getByText(/are not saved|does not answer/)).toHaveCount(0);
  expect((await (await fetch(`${server.base}/api/projects/${project}`)).json()).project.name).toBe(
    "Renamed while away",
  );
});

test("edits that a closed window could not save are offered when the project is opened again", async ({
  context,
  page,
}) => {
  test.setTimeout(120_000);
  const server = new OwnServer();
  await server.start();
  await page.goto(server.base);
  await page.getByRole("button", { name: "New project", exact: true }).click();
  await page.waitForURL(/\/data/);
  await saved(page);
  await server.stop();
  await page.getByRole("textbox", { name: "Project name" }).fill("Never saved");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "are not saved" })).toBeVisible();
  const address = page.url();
  await page.close({ runBeforeUnload: false });
  await server.start();
  const again = await context.newPage();
  await again.goto(address);
  const offer = again.getByRole("alert").filter({ hasText: "were never saved" });
  await expect(offer).toBeVisible();
  await expect(again.getByRole("textbox", { name: "Project name" })).toHaveValue("New project");
  await offer.getByRole("button", { name: "Put them back" }).click();
  await expect(again.getByRole("textbox", { name: "Project name" })).toHaveValue("Never saved");
  await saved(again);
  await again.reload();
  await expect(again.getByRole("textbox", { name: "Project name" })).toHaveValue("Never saved");
  await expect(again.getByText("were never saved")).toHaveCount(0);
});

test("a removed project comes back by Undo and from the list, and an open window is told at once", async ({
  page,
  context,
}) => {
  const id = await openEmpty(page);
  const name = `To delete ${id}`;
  await page.getByRole("textbox", { name: "Project name" }).fill(name);
  await page.keyboard.press("Enter");
  await saved(page);
  const other = await context.newPage();
  await other.goto("/");
  await other.getByRole("button", { name: `Remove ${name}` }).click();
  await expect(page.getByRole("alert").filter({ hasText: "removed in another window" })).toBeVisible();
  await other.getByRole("button", { name: "Undo" }).click();
  await expect(other.getByRole("link", { name })).toBeVisible();
  await expect(page.getByText("removed in another window")).toHaveCount(0);
  await other.getByRole("button", { name: `Remove ${name}` }).click();
  await expect(page.getByRole("alert").filter({ hasText: "removed in another window" })).toBeVisible();
  await other.getByRole("button", { name: `Bring back ${name}` }).click();
  await expect(other.getByRole("link", { name })).toBeVisible();
});

test("what a file leaves open is said, and one click reads it the other way; a date is read by a pattern of one's own", async ({
  page,
}) => {
  await openEmpty(page);
  await page
    .getByLabel("File with a table")
    .setInputFiles(
      csvFile("odd.csv", "weight,on,day\n1.234,01/05/2026,31|12|99\n2.345,02/06/2026,30|11|98\n"),
    );
  const said = page.getByRole("status").filter({ hasText: "It could be" });
  await expect(said).toContainText("“1.234” is 1.234 now, 1234 then");
  await page.getByRole("button", { name: "Read “weight” the other way" }).click();
  await expect(
    page
      .getByRole("gridcell", { name: "1234", exact: true })
      .or(page.getByText("1234", { exact: true }))
      .first(),
  ).toBeVisible();
  await expect(said).toContainText("“weight” is read as number, decimal comma now.");
  // What was said of the first reading does not come back for a third one.
  await choose(page.getByLabel("Read as"), "text");
  await expect(said).toContainText("“weight” is read as text now.");
  // What was said stays while another step is looked at.
  await goTo(page, "Measures");
  await goTo(page, "Data");
  await expect(page.getByRole("button", { name: "Read “on” the other way" })).toBeVisible();
  await page.getByText("day", { exact: true }).first().click();
  await choose(page.getByLabel("Read as"), "own pattern");
  await page.getByLabel("Pattern").fill("DD|MM|YY");
  await expect(page.getByText("Write the year as yyyy")).toBeVisible();
  await page.getByLabel("Pattern").fill("dd|MM|yy");
  await page.getByRole("button", { name: "Use it" }).click();
  await expect(page.getByText("1999-12-31").first()).toBeVisible();
});

test("an import goes on while another step is looked at", async ({ page }) => {
  await openEmpty(page);
  const rows = Array.from({ length: 250_000 }, (_, i) => `${i},name ${i},${i % 97}`).join("\n");
  await page.getByLabel("File with a table").setInputFiles(csvFile("long.csv", `id,name,n\n${rows}\n`));
  await goTo(page, "Measures");
  await expect(
    page.getByRole("navigation", { name: "Steps" }).getByRole("link", { name: /Data/ }),
  ).toContainText("%");
  await goTo(page, "Data");
  await expect(page.getByRole("navigation", { name: "Tables" }).getByText("250 000")).toBeVisible({
    timeout: 60_000,
  });
});

test("three hundred measures show their values, and one that fails is its own problem only", async ({
  page,
  request,
}) => {
  test.setTimeout(120_000);
  const id = await openDemo(page);
  const { project } = await (await request.get(`/api/projects/${id}`)).json();
  const [model] = project.document.measures;
  const many = Array.from({ length: 300 }, (_, i) => ({
    ...model,
    id: `many${i}`,
    name: `many_${i}`,
    label: `Many ${i}`,
    table: "sailings",
    formula:
      i === 150
        ? "sum(nothing)"
        : i === 0
          ? "count(*)"
          : i === 151
            ? "count(*)"
            : `(many_${i - 1} + many_${i - 1}) / 2`,
    proofs: [],
    format: { ...model.format, style: "number" },
  }));
  const answer = await request.put(`/api/projects/${id}`, {
    data: {
      revision: project.revision,
      document: { ...project.document, measures: [...project.document.measures, ...many] },
    },
  });
  expect(answer.status()).toBe(200);
  await page.goto(`/p/${id}/measures`);
  const list = page.getByRole("navigation", { name: "Measures and inputs" });
  await expect(list.getByRole("button", { name: /^Many 299/ })).toContainText(/114.424/);
  await expect(list.getByRole("button", { name: /^Many 150/ })).toContainText("problem");
  await expect(list.getByRole("button", { name: /^Many 149/ })).toContainText(/114.424/);
});

test("a query that takes too long is stopped, and others are answered meanwhile", async () => {
  test.setTimeout(120_000);
  const server = new OwnServer();
  await server.start({ CAVLO_QUERY_SECONDS: "3" });
  const rows = Array.from({ length: 300_000 }, (_, i) => `${i},t${i}`).join("\n");
  const { project } = await withTable(server.base, `n,t\n${rows}\n`);
  const ask = (queries: unknown[]) =>
    fetch(`${server.base}/api/projects/${project}/results`, json("POST", { queries }));
  const slow = {
    table: "t",
    measures: Array.from({ length: 50 }, (_, i) => ({
      formula: `max(${"replace(".repeat(60)}concat(t, '${i}')${", '1', '11')".repeat(60)})`,
      as: `m${i}`,
    })),
  };
  const began = Date.now();
  const [hung, quick] = await Promise.all([
    ask([slow]),
    (async () => {
      await new Promise((resolve) => setTimeout(resolve, 300));
      const asked = Date.now();
      const answer = await (await ask([{ table: "t", measures: [{ formula: "count(*)", as: "n" }] }])).json();
      return { answer, took: Date.now() - asked };
    })(),
  ]);
  expect(Date.now() - began).toBeLessThan(5000 + 1500);
  const body = await hung.json();
  const error = hung.status === 200 ? body.results[0].error : body.error;
  expect(["too_long", "limit"]).toContain(error.code);
  expect(quick.answer.results[0].totals.n).toBe(300_000);
  expect(quick.took).toBeLessThan(2500);
  // A client that goes away takes its query with it.
  const cancel = new AbortController();
  const gone = fetch(`${server.base}/api/projects/${project}/results`, {
    ...json("POST", { queries: [slow] }),
    signal: cancel.signal,
  }).catch(() => null);
  await new Promise((resolve) => setTimeout(resolve, 500));
  cancel.abort();
  await gone;
  await expect(async () =>
    expect((await (await fetch(`${server.base}/api/health`)).json()).compute.busy).toBe(0),
  ).toPass({ timeout: 2500 });
  expect(
    (await (await ask([{ table: "t", measures: [{ formula: "sum(n)", as: "n" }] }])).json()).results[0].totals
      .n,
  ).toBe((300_000 * 299_999) / 2);
});

test("what a client says of a table is held against what is stored", async ({ request }) => {
  const { project } = await (await request.post("/api/projects", { data: { demo: true } })).json();
  const { project: full } = await (await request.get(`/api/projects/${project.id}`)).json();
  const [first, ...others] = full.document.tables;
  for (const rows of [0, first.rows + 1, 1e9]) {
    const tables = [{ ...first, rows }, ...others];
    const { document } = full;
    const draft = { tables, links: document.links, measures: document.measures, inputs: document.inputs };
    const asked = await request.post(`/api/projects/${project.id}/results`, {
      data: { queries: [{ table: first.name, measures: [{ formula: "count(*)", as: "n" }] }], draft },
    });
    expect(asked.status()).toBe(400);
    expect((await asked.json()).error.message).toContain("is stored with");
    expect(
      (
        await request.put(`/api/projects/${project.id}`, {
          data: { revision: 1, document: { ...document, tables } },
        })
      ).status(),
    ).toBe(400);
  }
});

test("one process a folder; everything can be verified, backed up while it runs, and restored by one command", async () => {
  test.setTimeout(120_000);
  const server = new OwnServer();
  await server.start();
  const { project, table } = await withTable(server.base, "route,n\nFerrow,1\nQuay,2\n");
  const before = readdirSync(server.data).sort();
  const second = await server.run("--port", "0");
  expect(second.code).toBe(1);
  expect(second.out).toContain("in use by another Cavlo (process");
  expect(readdirSync(server.data).sort()).toEqual(before);
  expect(await server.run("--verify")).toMatchObject({
    code: 0,
    out: expect.stringContaining("is as it was written"),
  });
  const backup = join(server.data, "..", `cavlo-test-${process.pid}.zip`);
  expect((await server.run("--backup", backup)).code).toBe(0);
  expect((await server.run("--backup", backup)).out).toContain("is there already");
  const overHttp = await fetch(`${server.base}/api/backup`);
  expect(overHttp.headers.get("content-type")).toBe("application/zip");
  expect((await overHttp.arrayBuffer()).byteLength).toBeGreaterThan(1000);
  const answer = async (base: string, id: string) =>
    (
      await (
        await fetch(
          `${base}/api/projects/${id}/results`,
          json("POST", { queries: [{ table: "t", measures: [{ formula: "sum(n)", as: "n" }] }] }),
        )
      ).json()
    ).results[0].totals.n;
  // Damage is found, said plainly, and mended from what is sound.
  await server.stop();
  const rows = join(server.data, "tables", `${table}.sqlite`);
  const bytes = readFileSync(rows);
  const at = bytes.indexOf("Ferrow");
  bytes[at] ^= 1;
  writeFileSync(rows, bytes);
  const found = await server.run("--verify");
  expect(found.code).toBe(1);
  expect(found.out).toContain(
    "The rows of t in Kept: stretch 1 of 1 is not what was written. Its kept file is sound",
  );
  rmSync(join(server.data, "tables", `${table}.columns`), { recursive: true });
  await server.start();
  const asked = await (await fetch(`${server.base}/api/projects/${project}/tables/t/rows`)).json();
  expect(asked.error.message).toContain("The rows of the table t are damaged on the disk");
  const reread = (
    await (await fetch(`${server.base}/api/projects/${project}/tables/t/reread`, json("POST", {}))).text()
  )
    .trim()
    .split("\n");
  expect(JSON.parse(reread.at(-1) as string).table.rows).toBe(2);
  await server.stop();
  const fresh = new OwnServer();
  const restored = await fresh.run("--restore", backup);
  expect(restored).toMatchObject({ code: 0, out: expect.stringContaining("Restored: Kept") });
  await fresh.start();
  expect(await answer(fresh.base, project)).toBe(3);
  await fresh.stop();
  // Once more beside what is there: under another name, with tables of its own.
  expect((await fresh.run("--restore", backup)).out).toContain("Restored: Kept (restored)");
  await fresh.start();
  const { projects } = await (await fetch(`${fresh.base}/api/projects`)).json();
  expect(projects).toHaveLength(2);
  for (const p of projects) expect(await answer(fresh.base, p.id)).toBe(3);
  rmSync(backup);
});

test("a start without the main database deletes nothing, and the tables are brought back in the interface", async ({
  page,
}) => {
  test.setTimeout(120_000);
  const server = new OwnServer();
  await server.start();
  const { table } = await withTable(server.base, "route,n\nFerrow,1\nQuay,2\n");
  await server.stop();
  mkdirSync(join(server.data, "away"));
  for (const end of ["", "-wal", "-shm"]) {
    try {
      renameSync(join(server.data, `cavlo.sqlite${end}`), join(server.data, "away", `cavlo.sqlite${end}`));
    } catch {
      // It was closed without them.
    }
  }
  for (let round = 0; round < 2; round++) {
    await server.start();
    await server.stop();
  }
  const unclaimed = join(server.data, "unclaimed");
  const kept = [
    ...readdirSync(join(server.data, "tables")),
    ...(existsSync(unclaimed) ? readdirSync(unclaimed) : []),
  ].filter((f) => f.startsWith(table));
  expect(kept.some((f) => f.endsWith(".sqlite"))).toBe(true);
  await server.start();
  await page.goto(server.base);
  await page.getByRole("button", { name: "Bring back 1 table of Kept" }).click();
  await page.getByRole("link", { name: "Kept (brought back)" }).click();
  await expect(page.getByText("Ferrow").first()).toBeVisible();
});

test("while a query runs the last picture stays, dimmed, with a mark that it is being computed", async ({
  page,
}) => {
  const id = await openDemo(page);
  await page.goto(`/p/${id}/boards`);
  const board = page.getByRole("region", { name: "Board" });
  const picture = board.getByRole("img").first();
  await expect(picture).toHaveAccessibleName(/[0-9]/);
  const before = await picture.getAttribute("aria-label");
  let release = () => {};
  const held = new Promise<void>((resolve) => {
    release = resolve;
  });
  await page.route("**/results", async (route) => {
    await held;
    await route.continue();
  });
  await page.getByRole("button", { name: "2025", exact: true }).first().click();
  await expect(board.getByText("computing").first()).toBeVisible();
  expect(await picture.getAttribute("aria-label")).toBe(before);
  release();
  await expect(board.getByText("computing")).toHaveCount(0);
  await expect(picture).not.toHaveAccessibleName(before as string);
});

test("odd methods are told that they are not answered", async ({ baseURL }) => {
  const { hostname, port } = new URL(baseURL as string);
  for (const method of ["TRACE", "OPTIONS", "PATCH", "PROPFIND"]) {
    const answer = await new Promise<{ status?: number; allow?: string }>((resolve, reject) =>
      httpRequest({ hostname, port, method, path: "/api/projects" }, (response) => {
        response.resume();
        resolve({ status: response.statusCode, allow: response.headers.allow });
      })
        .on("error", reject)
        .end(),
    );
    expect(answer, method).toEqual({ status: 405, allow: "GET, HEAD, POST, PUT, DELETE" });
  }
});

test("a picture that is opened by its own address has its styles and the fonts that it carries", async ({
  page,
}) => {
  const problems: string[] = [];
  page.on("console", (m) => m.type() === "error" && problems.push(m.text()));
  const { project } = await (await page.request.post("/api/projects", { data: { demo: true } })).json();
  await page.goto(`/api/projects/${project.id}/visuals/passengers-by-route.svg?fonts=1`);
  await expect
    .poll(() => page.evaluate(() => [...document.fonts].map((f) => f.status)))
    .toEqual(expect.arrayContaining(["loaded"]));
  await page.goto(`/api/projects/${project.id}/picture`);
  await expect(page.locator("svg").first()).toBeVisible();
  expect(problems).toEqual([]);
});

test("every page has a policy under which only its own scripts run", async ({ page }) => {
  const problems: string[] = [];
  page.on("console", (m) => m.type() === "error" && problems.push(m.text()));
  const response = await page.goto("/");
  const policy = response?.headers()["content-security-policy"] ?? "";
  const nonce = /'nonce-([^']+)'/.exec(policy)?.[1];
  expect(policy).toContain("object-src 'none'");
  expect(policy).not.toMatch(/script-src[^;]*unsafe/);
  expect(await page.evaluate(() => [...document.scripts].every((s) => s.nonce !== ""))).toBe(true);
  expect((await page.goto("/"))?.headers()["content-security-policy"]).not.toContain(nonce as string);
  const ran = await page.evaluate(() => {
    const script = document.createElement("img");
    script.setAttribute("onerror", "window.smuggled = true");
    script.src = "data:image/png;base64,AAAA";
    document.body.append(script);
    return new Promise((resolve) => setTimeout(() => resolve("smuggled" in window), 300));
  });
  expect(ran).toBe(false);
  for (const [address, policyOf] of [
    ["/", "script-src"],
    ["/api/health", "default-src 'none'"],
  ]) {
    const { headers } = await page.request.get(address).then((r) => ({ headers: r.headers() }));
    expect(headers["content-security-policy"]).toContain(policyOf);
    expect(headers["x-content-type-options"]).toBe("nosniff");
    expect(headers["cross-origin-resource-policy"]).toBe("same-origin");
    expect(headers["cross-origin-opener-policy"]).toBe("same-origin");
  }
  expect(problems.filter((p) => !p.includes("onerror") && !p.includes("inline event handler"))).toEqual([]);
});
