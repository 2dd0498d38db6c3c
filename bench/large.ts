// In the browser, at sizes that a project may reach one day: a table of 300 columns scrolled, 300 measures
// and 200 visuals gone through, a board of 40 tiles, and pages opened cold.
import { type Browser, chromium, type Page } from "@playwright/test";
import { browserOptions } from "../tests/browser-options";
import { median, ms } from "./median";
import { BASE, startServer } from "./server";

const PICTURE = "main [role=img] svg path";

async function ownPage(browser: Browser): Promise<Page> {
  const context = await browser.newContext({
    viewport: browserOptions.viewport,
    reducedMotion: "reduce",
    baseURL: BASE,
  });
  const page = await context.newPage();
  // When the first shape of a picture stands, in milliseconds since the page was asked for.
  await page.addInitScript((picture) => {
    const look = () => {
      if (document.querySelector(picture)) (window as { stood?: number }).stood ??= performance.now();
      else requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  }, PICTURE);
  return page;
}
const stoodAt = async (page: Page): Promise<number> => {
  await page.waitForFunction(() => (window as { stood?: number }).stood !== undefined);
  return page.evaluate(() => (window as { stood?: number }).stood as number);
};

/** Steps of a scroll, one a frame: how long frames took, the middle one and the 95th of a hundred. */
const scroll = (page: Page, dx: number, dy: number) =>
  page.evaluate(
    async ([x, y]) => {
      const rows = document.querySelector('[role=region][aria-label^="Rows of"]') as HTMLElement;
      const times: number[] = [];
      for (let i = 0, last = performance.now(); i < 100; i++) {
        rows.scrollBy(x, y);
        const now = await new Promise<number>((resolve) =>
          requestAnimationFrame(() => resolve(performance.now())),
        );
        times.push(now - last);
        last = now;
      }
      times.sort((a, b) => a - b);
      return [times[50], times[95]];
    },
    [dx, dy],
  );

/** Clicks, and gives how long it took until something is there and painted. */
const until = (page: Page, click: string, there: string) =>
  page.evaluate(
    ([button, wanted]) =>
      new Promise<number>((resolve) => {
        const began = performance.now();
        document.querySelector<HTMLElement>(button)?.click();
        const look = () =>
          document.querySelector(wanted)
            ? requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - began)))
            : requestAnimationFrame(look);
        requestAnimationFrame(look);
      }),
    [click, there],
  );

const server = await startServer();
const browser = await chromium.launch(browserOptions.launchOptions);
const { projects } = await (await fetch(`${BASE}/api/projects`)).json();
const demo = (await (await fetch(`${BASE}/api/projects/${projects[0].id}`)).json()).project.document;
const json = (body: unknown) => ({
  method: "POST",
  headers: { "content-type": "application/json" },
  body: JSON.stringify(body),
});

for (const step of ["visuals", "boards"]) {
  const times: number[] = [];
  for (let i = 0; i < 5; i++) {
    const page = await ownPage(browser);
    await page.goto(`/p/${projects[0].id}/${step}`, { waitUntil: "commit" });
    times.push(await stoodAt(page));
    await page.context().close();
  }
  console.log(`${step}, in a browser that has nothing of it: first shape after ${ms(median(times))}`);
}

const many = {
  ...demo,
  name: "Many",
  visuals: Array.from({ length: 200 }, (_, i) => ({
    ...demo.visuals[i % demo.visuals.length],
    id: `v${i}`,
    name: `Visual ${i}`,
  })),
  measures: [
    ...demo.measures,
    ...Array.from({ length: 300 - demo.measures.length }, (_, i) => ({
      ...demo.measures[i % demo.measures.length],
      id: `m${i}`,
      name: `more_${i}`,
      label: `More ${i}`,
      proofs: [],
    })),
  ],
  boards: [
    {
      id: "forty",
      name: "Forty",
      controls: demo.boards[0].controls,
      tiles: Array.from({ length: 40 }, (_, i) => ({
        id: `t${i}`,
        type: "visual",
        visual: `v${i}`,
        x: (i % 4) * 3,
        y: Math.floor(i / 4) * 35,
        w: 3,
        h: 35,
      })),
    },
  ],
};
const copy = await (
  await fetch(`${BASE}/api/projects/${projects[0].id}/copy`, json({ document: many }))
).json();
const page = await ownPage(browser);
await page.goto(`/p/${copy.project.id}/visuals`);
await stoodAt(page);
await page.waitForTimeout(4000);
const palette: number[] = [];
for (let i = 0; i < 6; i++) {
  palette.push(await until(page, "[aria-label='Go to anything']", "[role=dialog] [role=option]"));
  await page.keyboard.press("Escape");
  await page.waitForSelector("[role=dialog]", { state: "detached" });
}
console.log(`list of everything, 500 things: first ${ms(palette[0])}, then ${ms(median(palette.slice(1)))}`);
const switches: number[] = [];
for (const i of [1, 3, 5, 8, 13, 21, 34, 55, 89]) {
  const item = `nav[aria-label=Visuals] [data-item][title="Visual ${i}"]`;
  // Until it is the chosen one and its picture stands on the stage, which begins empty.
  const stands = `body:has(${item}[aria-current=true]) section[aria-label=Stage] [role=img] svg path`;
  switches.push(await until(page, item, stands));
  await page.waitForTimeout(700);
}
console.log(`another of 200 visuals: median ${ms(median(switches))}, worst ${ms(Math.max(...switches))}`);
const began = performance.now();
await page.goto(`/p/${copy.project.id}/boards`, { waitUntil: "commit" });
await page.waitForFunction(
  () =>
    [...document.querySelectorAll("main [role=img]")].filter((e) => e.querySelector("svg path")).length >= 40,
);
console.log(`a board of 40 tiles, opened anew: ${ms(performance.now() - began)}`);

const names = Array.from({ length: 300 }, (_, i) => `column_${i}`);
const rows = Array.from({ length: 2000 }, (_, r) => names.map((_n, c) => (r * 31 + c * 17) % 1000).join(","));
await page.goto("/");
await page.getByRole("button", { name: "New project", exact: true }).click();
await page.getByLabel("File with a table").setInputFiles({
  name: "wide.csv",
  mimeType: "text/csv",
  buffer: Buffer.from([names.join(","), ...rows].join("\n")),
});
await page.getByRole("cell").first().waitFor();
await page.waitForTimeout(3000);
for (const [way, dx, dy] of [
  ["down", 0, 90],
  ["across", 120, 0],
] as const) {
  const [middle, late] = await scroll(page, dx, dy);
  console.log(`300 columns x 2,000 rows scrolled ${way}: frame ${ms(middle)}, 95th of 100 ${ms(late)}`);
}
await browser.close();
server.stop();
process.exit(0);
