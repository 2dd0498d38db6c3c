import { execFileSync } from "node:child_process";
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import { tmpdir } from "node:os";
import { extname, join, resolve } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { build } from "esbuild";
import { openDemo } from "./steps";

const TYPES: Record<string, string> = {
  ".html": "text/html; charset=utf-8",
  ".js": "text/javascript",
  ".json": "application/json",
  ".css": "text/css",
  ".woff2": "font/woff2",
};

/** A server of files with the strictest policy: the pages of somebody else. */
async function serveFolder(folder: string): Promise<{ at: string; server: Server }> {
  const server = createServer((request, response) => {
    try {
      const path = decodeURIComponent((request.url ?? "/").split("?")[0]);
      const body = readFileSync(join(folder, path));
      response.writeHead(200, {
        "content-type": TYPES[extname(path)] ?? "text/plain",
        "content-security-policy": "default-src 'self'",
      });
      response.end(body);
    } catch {
      response.writeHead(404).end();
    }
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const address = server.address();
  return { at: `http://127.0.0.1:${typeof address === "object" && address ? address.port : 0}`, server };
}

let folder = "";
let elsewhere: { at: string; server: Server };

test.beforeAll(async ({ browser }) => {
  folder = mkdtempSync(join(tmpdir(), "cavlo-pages-"));
  cpSync("examples", folder, { recursive: true });
  cpSync("dist/embed", join(folder, "embed"), { recursive: true });
  await build({
    entryPoints: [join(folder, "react/app.tsx")],
    outfile: join(folder, "react/app.js"),
    bundle: true,
    format: "esm",
    jsx: "automatic",
    nodePaths: ["node_modules"],
    // The modules are fetched from where they stand, so that they find their engine and fonts beside them.
    external: [join(folder, "embed/cavlo.js"), join(folder, "embed/cavlo-board.js")],
    define: { "process.env.NODE_ENV": '"production"' },
  });
  const page = await browser.newPage();
  const id = await openDemo(page);
  const snapshot = async (query: string, file: string) => {
    const response = await page.request.get(`/api/projects/${id}/snapshot?${query}`);
    expect(response.ok()).toBe(true);
    writeFileSync(join(folder, file), await response.body());
  };
  const by = encodeURIComponent(JSON.stringify([{ column: "sailings.date", by: "year" }]));
  await snapshot("board=season-at-a-glance", "season.cavlo.json");
  await snapshot("board=season-at-a-glance&travel=rows", "season-rows.cavlo.json");
  await snapshot(`visuals=passengers-by-route,on-time-by-route&by=${by}`, "passengers.cavlo.json");
  await page.close();
  elsewhere = await serveFolder(folder);
});
test.afterAll(() => {
  elsewhere.server.close();
  rmSync(folder, { recursive: true });
});

/** Opens a page elsewhere; whatever it complains of is collected. */
async function openPage(page: Page, path: string): Promise<string[]> {
  const complaints: string[] = [];
  page.on("pageerror", (error) => complaints.push(error.message));
  page.on("console", (message) => {
    if (message.type() === "error" && !message.location().url.endsWith("favicon.ico"))
      complaints.push(message.text());
  });
  await page.goto(`${elsewhere.at}/${path}`);
  return complaints;
}

const picture = (page: Page, name: RegExp) => page.getByRole("img", { name });

test("a plain page with the strictest policy shows a visual and a board that answer each other", async ({
  page,
}) => {
  const complaints = await openPage(page, "plain/index.html");
  const visual = page.locator("cavlo-visual");
  const board = page.locator("cavlo-board");
  await expect(visual.getByRole("img")).toHaveAccessibleName(/total 2 152 487/);
  await expect(board.getByRole("img", { name: /^Passengers by route/ })).toHaveAccessibleName(
    /total 5 299 291/,
  );
  // By keyboard, as on a board: to the first mark, which is said, and picked.
  const marks = visual.getByRole("listbox", { name: /^Marks of/ });
  await marks.focus();
  await page.keyboard.press("ArrowRight");
  const first = marks.getByRole("option", { name: /^Ferrow Isle/ });
  await expect(marks).toHaveAttribute("aria-activedescendant", (await first.getAttribute("id")) ?? "");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Picked: Ferrow Isle")).toBeVisible();
  await expect(board.getByRole("button", { name: "Ferrow Isle" })).toHaveAttribute("aria-pressed", "true");
  await expect(board.getByRole("img", { name: /^Passengers by route/ })).toHaveAccessibleName(
    /total 1 321 014/,
  );
  // Its reader goes on from there.
  await board.getByRole("button", { name: "2024", exact: true }).click();
  await expect(board.getByRole("img", { name: /^Passengers by route/ })).not.toHaveAccessibleName(
    /1 321 014/,
  );
  await board.getByRole("button", { name: "More of Passengers by route" }).click();
  await expect(board.getByRole("menu")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(board.getByRole("menu")).toHaveCount(0);
  // Nothing was written outside of the shadow roots.
  expect(await page.evaluate(() => [...document.body.children].map((e) => e.localName))).toEqual([
    "h1",
    "p",
    "cavlo-visual",
    "cavlo-board",
  ]);
  expect(complaints).toEqual([]);
});

test("a board elsewhere draws what it draws here, by answers and by rows", async ({ page, browser }) => {
  const texts = (of: Page, host: string) =>
    of
      .locator(`${host} .board-visual`)
      .evaluateAll((all) =>
        all.map((tile) =>
          [...tile.querySelectorAll(".board-host svg text, .board-host svg path")].map(
            (mark) => mark.textContent || mark.getAttribute("fill"),
          ),
        ),
      );
  const here = await browser.newPage({ reducedMotion: "reduce", viewport: { width: 1296, height: 2000 } });
  const id = await openDemo(here);
  await here.goto(`/p/${id}/present/season-at-a-glance?only.year=2025`);
  await expect(picture(here, /^Passengers by route/)).toHaveAccessibleName(/total 2 152 487/);
  const wanted = await texts(here, "#board");
  await page.emulateMedia({ reducedMotion: "reduce" });
  await page.setViewportSize({ width: 1296, height: 2000 });
  for (const file of ["season", "season-rows"]) {
    writeFileSync(
      join(folder, `${file}.html`),
      `<!doctype html><script type="module" src="embed/cavlo-board.js"></script><cavlo-board src="${file}.cavlo.json"></cavlo-board>`,
    );
    await openPage(page, `${file}.html`);
    await page.getByRole("button", { name: "2025", exact: true }).click();
    await expect(picture(page, /^Passengers by route/)).toHaveAccessibleName(/total 2 152 487/);
    const marks = await texts(page, "cavlo-board");
    expect(marks.length).toBe(wanted.length);
    // The same words and colours, mark for mark; places follow the room that there is.
    expect(marks.map((m) => m.toSorted())).toEqual(wanted.map((m) => m.toSorted()));
  }
  await here.close();
});

test("rows that a page gives are computed in it, every second, and what is wrong with them is said", async ({
  page,
}) => {
  const complaints = await openPage(page, "feed/index.html");
  const visual = page.locator("cavlo-visual");
  await expect(visual.getByRole("img")).toHaveAccessibleName(/total 100,/);
  await expect(visual.getByRole("img")).toHaveAccessibleName(/total 300,/);
  await expect(page.getByRole("status").filter({ hasText: /sailings/ })).toBeVisible();
  const give = (rows: string) =>
    page.evaluate(`clearInterval(9); document.querySelector("cavlo-visual").rows = ${rows}`);
  const stopped = page.evaluate(() => {
    for (let i = 1; i < 100; i++) clearInterval(i);
  });
  await stopped;
  await give(`{ sailings: [{ route: "A", date: "2025-01-01" }], routes: [] }`);
  await expect(
    page.getByText("rows.sailings lacks the column passengers; it has route, date.").first(),
  ).toBeVisible();
  await expect(visual.getByRole("img")).toBeVisible();
  await give(
    `{ sailings: [{ route: "A", passengers: "many", date: "2025-01-01" }], routes: [{ route: "A" }] }`,
  );
  await expect(
    page.getByText(/rows.sailings.passengers is of numbers, but row 1 holds "many"/).first(),
  ).toBeVisible();
  await give(`{ sailings: { route: ["A"], passengers: new Float64Array(6e6), date: [] }, routes: [] }`);
  await expect(visual.getByText(/All columns of a table are of one length/)).toBeVisible();
  await give("7");
  await expect(visual.getByText(/rows is no object/)).toBeVisible();
  await give(`{ sailings: [], routes: [] }`);
  await expect(visual.getByText(/rows is no object/)).toHaveCount(0);
  // What cannot be read stands as empty, and that goes on being said.
  await give(
    `{ sailings: [{ route: "A", passengers: 4 }, { route: "B", passengers: "many" }], routes: [{ route: "A" }, { route: "B" }] }`,
  );
  await expect(visual.getByRole("img")).toHaveAccessibleName(/total 4,/);
  await expect(
    visual.getByText(/1 of its cells are not and stand as empty: row 2 holds "many"/),
  ).toBeVisible();
  // As columns, and as typed arrays.
  await give(
    `{ sailings: { route: ["A", "B"], passengers: Float64Array.of(5, 7), date: [new Date(), null] }, routes: { route: ["A", "B"] } }`,
  );
  await expect(visual.getByRole("img")).toHaveAccessibleName(/total 12,/);
  // And back to what travelled.
  await give("null");
  await expect(visual.getByRole("img")).toHaveAccessibleName(/total 5 299 291/);
  expect(complaints).toEqual([]);
});

test("what reads dates by patterns is fetched where a formula asks for it", async ({ page }) => {
  const id = await openDemo(page);
  const { project } = await (await page.request.get(`/api/projects/${id}`)).json();
  const { document, revision } = project;
  document.measures.find((m: { id: string }) => m.id === "passengers_total").formula =
    "sum(passengers) filter (where to_date('03.2025', 'MM.yyyy') <= date)";
  const put = await page.request.put(`/api/projects/${id}`, { data: { document, revision } });
  expect(put.ok()).toBe(true);
  const query = "visuals=passengers-by-route&travel=rows";
  const snapshot = await (await page.request.get(`/api/projects/${id}/snapshot?${query}`)).text();
  writeFileSync(join(folder, "patterns.cavlo.json"), snapshot);
  writeFileSync(
    join(folder, "patterns.html"),
    `<!doctype html><title>Patterns</title><script type="module" src="embed/cavlo.js"></script>
     <cavlo-visual src="patterns.cavlo.json" visual="passengers-by-route"></cavlo-visual>`,
  );
  const fetched: string[] = [];
  page.on("request", (request) => fetched.push(request.url()));
  const complaints = await openPage(page, "patterns.html");
  const shown = page.locator("cavlo-visual").getByRole("img");
  await expect(shown).toBeVisible();
  await page.evaluate(() => {
    const rows = [
      { route: "A", passengers: 4, date: "2025-03-01" },
      { route: "B", passengers: 5, date: "2025-02-28" },
      { route: "C", passengers: 6, date: "2025-04-01" },
      { route: "B", passengers: 7, date: "2026-01-01" },
    ];
    const routes = ["A", "B", "C"].map((route) => ({ route }));
    Object.assign(window.document.querySelector("cavlo-visual") as object, {
      rows: { sailings: rows, routes },
    });
  });
  await expect(shown).toHaveAccessibleName(/total 17,/);
  expect(fetched.filter((url) => url.endsWith("cavlo-patterns.js"))).toHaveLength(1);
  expect(complaints).toEqual([]);
});

test("the component of React follows its props and tells of picks", async ({ page }) => {
  const complaints = await openPage(page, "react/index.html");
  const image = page.locator("cavlo-visual").getByRole("img");
  await expect(image).toHaveAccessibleName(/^Passengers by route/);
  const first = await image.getAttribute("aria-label");
  await page.getByLabel("Year").selectOption("2025");
  await expect(image).toHaveAccessibleName(/total 2 152 487/);
  expect(await image.getAttribute("aria-label")).not.toBe(first);
  await page.getByRole("listbox", { name: /^Marks of/ }).focus();
  await page.keyboard.press("End");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Picked: Other")).toBeVisible();
  expect(complaints).toEqual([]);
});

test("attributes, properties and methods do what they say, and what cannot be done is said", async ({
  page,
}) => {
  writeFileSync(
    join(folder, "api.html"),
    `<!doctype html><script type="module" src="embed/cavlo.js"></script>
     <cavlo-visual src="passengers.cavlo.json" visual="On time by route" theme="night"></cavlo-visual>`,
  );
  await openPage(page, "api.html");
  const visual = page.locator("cavlo-visual");
  const image = visual.getByRole("img");
  await expect(image).toHaveAccessibleName(/^On time by route/);
  const told = await page.evaluate(() => {
    const element = document.querySelector("cavlo-visual") as HTMLElement & {
      toSVG(): string;
      toPNG(): Promise<Blob>;
      numbers(): { columns: string[]; rows: unknown[][] }[];
    };
    const [{ columns, rows }] = element.numbers();
    return { svg: element.toSVG().slice(0, 4), columns, rows: rows.length };
  });
  expect(told).toEqual({ svg: "<svg", columns: ["route", "on_time_rate"], rows: 8 });
  const refused = await page.evaluate(() =>
    (document.querySelector("cavlo-visual") as unknown as { toPNG(): Promise<Blob> }).toPNG().then(
      () => "drawn",
      (error: Error) => error.message,
    ),
  );
  expect(refused).toContain("img-src data:");
  const set = (attribute: string, value: string) =>
    page.evaluate(([a, v]) => document.querySelector("cavlo-visual")?.setAttribute(a, v), [attribute, value]);
  await set("locale", "de-DE");
  await expect(visual.locator("svg text").filter({ hasText: /\d,\d/ }).first()).toBeVisible();
  await set("visual", "gone");
  await expect(
    visual.getByText("The snapshot has no visual gone. It has Passengers by route, On time by route."),
  ).toBeVisible();
  await set("visual", "passengers-by-route");
  await expect(image).toHaveAccessibleName(/^Passengers by route/);
  await set("filters", "{");
  await expect(visual.getByText("The attribute filters is no JSON: {")).toBeVisible();
  await set("filters", '{"year":[2024]}');
  await expect(visual.getByText("The attribute filters is no JSON")).toHaveCount(0);
  await set("src", "nowhere.cavlo.json");
  await expect(visual.getByText(/cannot be had \(status 404\)/)).toBeVisible();
  const whole = readFileSync(join(folder, "passengers.cavlo.json"), "utf8");
  writeFileSync(join(folder, "cut.cavlo.json"), whole.slice(0, -40));
  await set("src", "cut.cavlo.json");
  await expect(visual.getByText(/not whole: its end is missing/)).toBeVisible();
});

test("a board gives its picture, and a page says how round frames are and in which colours controls stand", async ({
  page,
}) => {
  writeFileSync(
    join(folder, "look.html"),
    `<!doctype html><link rel="stylesheet" href="look.css"><script type="module" src="embed/cavlo-board.js"></script><cavlo-board src="season.cavlo.json"></cavlo-board>`,
  );
  writeFileSync(
    join(folder, "look.css"),
    "cavlo-board { --cavlo-radius: 3px; --cavlo-ink: rgb(1, 2, 3) } cavlo-board::part(head) { background: rgb(9, 8, 7) }",
  );
  await openPage(page, "look.html");
  const board = page.locator("cavlo-board");
  await expect(board.locator("[part=picture]").first()).toHaveCSS("border-radius", "3px");
  await expect(board.getByRole("heading", { name: "Season at a glance" })).toHaveCSS("color", "rgb(1, 2, 3)");
  await expect(board.locator("header")).toHaveCSS("background-color", "rgb(9, 8, 7)");
  const svg = await page.evaluate(() => document.querySelector("cavlo-board")?.toSVG() ?? "");
  expect(svg.match(/<svg/g)?.length).toBe(6);
  expect(svg).toContain("<title>Season at a glance</title>");
  expect(svg).toContain("Ferrow Isle");
});

test("a board of a width of its own is scaled to its room, and takes no more than that", async ({ page }) => {
  const snapshot = JSON.parse(readFileSync(join(folder, "season.cavlo.json"), "utf8"));
  snapshot.project.boards[0].width = 1440;
  writeFileSync(join(folder, "wide.cavlo.json"), JSON.stringify(snapshot));
  writeFileSync(
    join(folder, "wide.html"),
    `<!doctype html><script type="module" src="embed/cavlo-board.js"></script><cavlo-board src="wide.cavlo.json"></cavlo-board><p>After it</p>`,
  );
  await page.setViewportSize({ width: 1000, height: 800 });
  await openPage(page, "wide.html");
  const last = page.locator("cavlo-board .board-tile").last();
  await expect(page.locator("cavlo-board").getByRole("img", { name: /^Passengers by route/ })).toBeVisible();
  const gap = async () => {
    const [tile, after] = [await last.boundingBox(), await page.getByText("After it").boundingBox()];
    return (after?.y ?? 0) - ((tile?.y ?? 0) + (tile?.height ?? 0));
  };
  await expect.poll(gap).toBeLessThan(60);
  expect(await gap()).toBeGreaterThan(0);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(1000);
  await page.setViewportSize({ width: 600, height: 800 });
  await expect.poll(gap).toBeGreaterThan(0);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(600);
});

test("the declarations take what the examples do, and refuse what no element has", () => {
  const wrong = join(folder, "react", "wrong.tsx");
  writeFileSync(
    wrong,
    `import { CavloVisual } from "../embed/cavlo-react.js";\nexport const w = <CavloVisual src={3} />;\n`,
  );
  const plain = join(folder, "plain.ts");
  writeFileSync(
    plain,
    `import "./embed/cavlo-board.js";
     const board = document.querySelector("cavlo-board")!;
     board.filters = { Route: ["Old Pier"] };
     board.rows = { sailings: { route: ["A"], passengers: Float64Array.of(1) } };
     board.addEventListener("pick", ({ detail }) => detail.picked.map((p) => p.value));
     void board.toPNG(2).then((blob) => blob.size);`,
  );
  const check = (...files: string[]) =>
    execFileSync(
      "node",
      [
        "node_modules/typescript/bin/tsc",
        ...["--noEmit", "--strict", "--ignoreConfig", "--skipLibCheck", "false", "--jsx", "react-jsx"],
        ...[
          "--module",
          "esnext",
          "--moduleResolution",
          "bundler",
          "--target",
          "es2023",
          "--lib",
          "es2023,dom,dom.iterable",
        ],
        ...files,
      ],
      { encoding: "utf8" },
    );
  symlinkSync(resolve("node_modules"), join(folder, "node_modules"));
  expect(check(plain, join(folder, "react", "app.tsx"))).toBe("");
  expect(() => check(wrong)).toThrow();
});

test("pictures are laid out in a family of the page's own, by its widths", async ({ page }) => {
  const cuts = ["400", "700"].map((w) => `${w}=assets/fonts/source-serif-4-latin-${w}.ttf`);
  const widths = execFileSync("node", ["scripts/make-widths.mjs", "House Serif", ...cuts], {
    encoding: "utf8",
  });
  writeFileSync(join(folder, "house.json"), widths);
  writeFileSync(
    join(folder, "family.js"),
    `import { registerFamily } from "./embed/cavlo.js";
     registerFamily(await (await fetch("house.json")).json());
     document.querySelector("cavlo-visual").family = "House Serif";`,
  );
  writeFileSync(
    join(folder, "family.html"),
    `<!doctype html><cavlo-visual src="passengers.cavlo.json"></cavlo-visual><script type="module" src="family.js"></script>`,
  );
  await openPage(page, "family.html");
  const svg = page.locator("cavlo-visual svg").first();
  await expect(svg).toHaveAttribute("font-family", /^'House Serif'/);
  const name = page.locator("cavlo-visual svg text").filter({ hasText: "Upper Lanthorne" });
  const places = () => name.first().getAttribute("x");
  const own = await places();
  await page.evaluate(() => document.querySelector("cavlo-visual")?.setAttribute("family", ""));
  await expect(svg).not.toHaveAttribute("font-family", /House/);
  expect(await places()).not.toBe(own);
  await page.evaluate(() => document.querySelector("cavlo-visual")?.setAttribute("family", "Nowhere Sans"));
  await expect(page.getByText("The family Nowhere Sans is not known here.")).toBeVisible();
});

test("a snapshot in the page, or as text, is read once, and filtered as any other", async ({ page }) => {
  const text = readFileSync(join(folder, "passengers.cavlo.json"), "utf8");
  writeFileSync(
    join(folder, "within.html"),
    `<!doctype html><script type="module" src="embed/cavlo.js"></script>
     <cavlo-visual src="#held" filters='{"year":[2025]}'></cavlo-visual>
     <script type="application/json" id="held">${text.replaceAll("<", "\\u003c")}</script>`,
  );
  await openPage(page, "within.html");
  const image = page.locator("cavlo-visual").getByRole("img");
  await expect(image).toHaveAccessibleName(/total 2 152 487/);
  // By a text that the page gives itself; how often it is told that numbers are others is counted.
  const changes = await page.evaluate(async (given) => {
    const element = document.querySelector("cavlo-visual") as HTMLElementTagNameMap["cavlo-visual"];
    let told = 0;
    element.addEventListener("change", () => told++);
    const next = () => new Promise((resolve) => element.addEventListener("change", resolve, { once: true }));
    const first = next();
    element.snapshot = given;
    await first;
    const second = next();
    element.filters = { year: [2024] };
    await second;
    await new Promise((resolve) => setTimeout(resolve, 300));
    return told;
  }, text);
  expect(changes).toBe(2);
  await expect(image).not.toHaveAccessibleName(/total 2 152 487/);
  // What comes late from an address that is not wanted any more has no say.
  await page.route("**/slow.cavlo.json", async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 400));
    await route.fulfill({ status: 404 });
  });
  await page.evaluate(async () => {
    const element = document.querySelector("cavlo-visual") as HTMLElementTagNameMap["cavlo-visual"];
    element.snapshot = null;
    element.src = "slow.cavlo.json";
    await new Promise((resolve) => setTimeout(resolve, 50));
    element.src = "passengers.cavlo.json";
    await new Promise((resolve) => setTimeout(resolve, 700));
  });
  await expect(page.getByText(/cannot be had/)).toHaveCount(0);
  await expect(image).toBeVisible();
});

test("nothing is done before an element is near, several share what they fetch, and one that goes lets go", async ({
  page,
}) => {
  writeFileSync(
    join(folder, "many.html"),
    `<!doctype html><html dir="rtl"><link rel="stylesheet" href="many.css"><script type="module" src="embed/cavlo.js"></script>
     <cavlo-visual src="passengers.cavlo.json"></cavlo-visual><cavlo-visual src="passengers.cavlo.json"></cavlo-visual>
     <div class="far"></div><cavlo-visual id="far" src="passengers.cavlo.json"><svg viewBox="0 0 10 10"><title>first</title></svg></cavlo-visual></html>`,
  );
  writeFileSync(join(folder, "many.css"), ".far { height: 4000px }");
  const fetched: string[] = [];
  page.on("request", (request) => fetched.push(new URL(request.url()).pathname));
  await openPage(page, "many.html");
  await expect(picture(page, /^Passengers by route/)).toHaveCount(2);
  expect(fetched.filter((p) => p.endsWith("passengers.cavlo.json"))).toHaveLength(1);
  // What is shown was answered already: no engine is fetched for it.
  expect(fetched.some((p) => p.includes("engine"))).toBe(false);
  await expect(page.locator("#far").getByTitle("first").or(page.locator("#far svg"))).toHaveCount(1);
  await page.evaluate(() => document.getElementById("far")?.scrollIntoView());
  await expect(picture(page, /^Passengers by route/)).toHaveCount(3);
  await page.evaluate(() => {
    const [first, second] = document.querySelectorAll("cavlo-visual");
    second.after(first);
    document.getElementById("far")?.remove();
  });
  await expect(picture(page, /^Passengers by route/)).toHaveCount(2);
});

test("a file that works alone stays alive from a disk, without a network", async ({ browser, page }) => {
  const id = await openDemo(page);
  const response = await page.request.get(
    `/api/projects/${id}/snapshot?board=season-at-a-glance&form=html&travel=rows`,
  );
  const file = join(folder, "alone.html");
  writeFileSync(file, await response.body());
  const context = await browser.newContext({ offline: true });
  const alone = await context.newPage();
  const problems: string[] = [];
  alone.on("pageerror", (error) => problems.push(error.message));
  alone.on("request", (request) => {
    if (!/^(file|blob|data):/.test(request.url())) problems.push(request.url());
  });
  await alone.goto(`file://${file}`);
  const image = picture(alone, /^Passengers by route/);
  await expect(image).toHaveAccessibleName(/total 5 299 291/);
  await alone.getByRole("button", { name: "2025", exact: true }).click();
  await expect(image).toHaveAccessibleName(/total 2 152 487/);
  await alone
    .getByRole("button", { name: "Increase Passenger target" })
    .or(alone.getByRole("button", { name: /passenger target/i }))
    .last()
    .click();
  await alone.getByRole("listbox", { name: "Marks of Passengers by route" }).focus();
  await alone.keyboard.press("ArrowRight");
  await alone.keyboard.press("Enter");
  await expect(alone.getByRole("group", { name: "Picked" })).toContainText("Ferrow Isle");
  await expect(picture(alone, /^Sailings by power/)).toBeVisible();
  expect(problems).toEqual([]);
  // One that was cut short says so, wherever it was cut.
  const whole = readFileSync(file, "utf8");
  for (const share of [0.5, 0.999]) {
    const cut = join(folder, `cut-${share}.html`);
    writeFileSync(cut, whole.slice(0, Math.floor(whole.length * share)));
    await alone.goto(`file://${cut}`);
    await expect(alone.getByText("This file is not whole: its end is missing.")).toBeVisible();
  }
  await context.close();
});
