// Elements in a page elsewhere, over the demo: what their modules weigh, the first paint after the script,
// thirty
// of them, a filter over all rows in the page, a file that works alone, and what a page holds that is fed.
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:http";
import { tmpdir } from "node:os";
import { extname, join } from "node:path";
import { brotliCompressSync, constants } from "node:zlib";
import { chromium, type Page } from "@playwright/test";
import { browserOptions } from "../tests/browser-options";
import { median, ms } from "./median";
import { BASE, startServer } from "./server";

const server = await startServer();
const folder = mkdtempSync(join(tmpdir(), "cavlo-elements-"));
process.on("exit", () => rmSync(folder, { recursive: true, force: true }));
cpSync("dist/embed", folder, { recursive: true });

const packed = (name: string) => {
  const text = readFileSync(join(folder, name));
  const params = { [constants.BROTLI_PARAM_SIZE_HINT]: text.length, [constants.BROTLI_PARAM_LGWIN]: 24 };
  return brotliCompressSync(text, { params }).length / 1000;
};
const kb = (n: number) => `${n.toFixed(1)} kB`;
console.log(
  `compressed: cavlo.js with what it shares ${kb(packed("cavlo.js") + packed("cavlo-shared.js"))}, cavlo-board.js ${kb(packed("cavlo-board.js"))} more, cavlo-engine.js ${kb(packed("cavlo-engine.js"))}`,
);

const { projects } = await (await fetch(`${BASE}/api/projects`)).json();
const { id } = projects[0];
async function keep(query: string, file: string): Promise<number> {
  const bytes = Buffer.from(
    await (await fetch(`${BASE}/api/projects/${id}/snapshot?${query}`)).arrayBuffer(),
  );
  writeFileSync(join(folder, file), bytes);
  return bytes.length / 1000;
}
await keep("visuals=passengers-by-route", "visual.cavlo.json");
await keep("visuals=passengers-by-route&travel=rows", "rows.cavlo.json");
for (const travel of ["answers", "rows"])
  console.log(
    `the demo's board as a file that works alone, by ${travel}: ${kb(await keep(`board=season-at-a-glance&form=html&travel=${travel}`, `${travel}.html`))}`,
  );
server.stop();

const TYPES: Record<string, string> = {
  ".html": "text/html",
  ".js": "text/javascript",
  ".json": "application/json",
};
const files = createServer((request, response) => {
  const path = (request.url ?? "/").split("?")[0];
  try {
    const body = readFileSync(join(folder, path));
    // Without a worker the engine stands in the page, whose memory can be told.
    const policy = path === "/fed.html" ? { "content-security-policy": "worker-src 'none'" } : {};
    response.writeHead(200, { "content-type": TYPES[extname(path)] ?? "text/plain", ...policy });
    response.end(body);
  } catch {
    response.writeHead(404).end();
  }
});
await new Promise<void>((resolve) => files.listen(0, "127.0.0.1", resolve));
const address = files.address();
const at = `http://127.0.0.1:${typeof address === "object" && address ? address.port : 0}`;
for (const name of ["page.html", "fed.html"])
  writeFileSync(join(folder, name), "<!doctype html><body></body>");
const browser = await chromium.launch(browserOptions.launchOptions);

/** Elements that are put into a page whose script is there: until all of them are painted. */
const paint = (page: Page, count: number, src: string) =>
  page.evaluate(
    async ([n, from]) => {
      // By a name that the bundler of this file does not follow.
      const module = "/cavlo.js";
      await import(module);
      await fetch(from);
      const began = performance.now();
      const ready = Array.from({ length: n }, () => {
        const element = document.createElement("cavlo-visual");
        Object.assign(element.style, { width: "220px", height: "170px", display: "inline-block" });
        element.setAttribute("src", from);
        element.setAttribute("motion", "none");
        document.body.append(element);
        return new Promise((resolve) => element.addEventListener("ready", resolve, { once: true }));
      });
      await Promise.all(ready);
      await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
      return performance.now() - began;
    },
    [count, src] as const,
  );
for (const count of [1, 30]) {
  const times: number[] = [];
  for (let i = 0; i < 9; i++) {
    const page = await browser.newPage({ viewport: { width: 1600, height: 1200 } });
    await page.goto(`${at}/page.html`);
    times.push(await paint(page, count, "/visual.cavlo.json"));
    await page.close();
  }
  console.log(
    `${count === 1 ? "one element" : `${count} elements`} painted after the script: median ${ms(median(times))}, worst ${ms(Math.max(...times))} of ${times.length}`,
  );
}

const still = await browser.newPage();
await still.goto(`${at}/page.html`);
await paint(still, 1, "/rows.cavlo.json");
const filtered = await still.evaluate(async () => {
  const element = document.querySelector("cavlo-visual") as unknown as EventTarget & { filters: object };
  const routes = ["Ferrow Isle", "North Quay", "Old Pier", "Marl Point", "Gannet Sound"];
  const times: number[] = [];
  for (let i = 0; i < 25; i++) {
    const began = performance.now();
    const changed = new Promise((resolve) => element.addEventListener("change", resolve, { once: true }));
    element.filters = { passengers: { from: i }, route: routes.slice(0, 1 + (i % 5)) };
    await changed;
    times.push(performance.now() - began);
  }
  return times.slice(5);
});
console.log(
  `a filter over the demo's 114,424 rows in the page: median ${ms(median(filtered))}, worst ${ms(Math.max(...filtered))} of ${filtered.length}, from the property to the event`,
);

for (const travel of ["answers", "rows"]) {
  const times: number[] = [];
  for (let i = 0; i < 7; i++) {
    const context = await browser.newContext({ offline: true });
    const page = await context.newPage();
    await page.goto(`file://${folder}/${travel}.html`);
    times.push(
      await page.evaluate(async () => {
        const board = document.querySelector("cavlo-board");
        while (!board?.shadowRoot?.querySelector("[role=img]"))
          await new Promise((resolve) => requestAnimationFrame(resolve));
        return performance.now();
      }),
    );
    await context.close();
  }
  console.log(`the file by ${travel} stands alive: median ${ms(median(times))} of ${times.length}`);
}

const fed = await browser.newPage();
await fed.goto(`${at}/fed.html`);
await paint(fed, 1, "/visual.cavlo.json");
const session = await fed.context().newCDPSession(fed);
const heap = async () => {
  await session.send("HeapProfiler.collectGarbage");
  const { usedSize } = await session.send("Runtime.getHeapUsage");
  return usedSize / 1e6;
};
const feed = (times: number) =>
  fed.evaluate(async (n) => {
    const element = document.querySelector("cavlo-visual") as unknown as EventTarget & { rows: object };
    for (let i = 0; i < n; i++) {
      const sailings = Array.from({ length: 2000 }, (_, k) => ({
        route: `Route ${k % 9}`,
        passengers: (k * 7 + i) % 400,
      }));
      const changed = new Promise((resolve) => element.addEventListener("change", resolve, { once: true }));
      element.rows = { sailings, routes: Array.from({ length: 9 }, (_, k) => ({ route: `Route ${k}` })) };
      await changed;
    }
  }, times);
await feed(60);
const early = await heap();
await feed(540);
console.log(
  `fed 2,000 rows six hundred times, as often as in ten minutes of seconds: ${early.toFixed(1)} MB in use after sixty, ${(await heap()).toFixed(1)} MB at the end`,
);
await browser.close();
files.close();
process.exit(0);
