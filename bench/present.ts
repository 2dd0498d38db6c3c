// A presented board on its own page, in the browser over the demo: what it fetches, when it is first painted,
// a click to the painted board from cells, and the frames of thirty visuals on steps of an input.
import { chromium, type Page } from "@playwright/test";
import { browserOptions } from "../tests/browser-options";
import { median, ms } from "./median";
import { BASE, startServer } from "./server";

const server = await startServer();
const browser = await chromium.launch(browserOptions.launchOptions);
const { projects } = await (await fetch(`${BASE}/api/projects`)).json();
const { id } = projects[0];
const { project } = await (await fetch(`${BASE}/api/projects/${id}`)).json();
const inputsOfVisual = (visual: object) =>
  project.document.inputs.filter((i: { id: string }) => JSON.stringify(visual).includes(`"input":"${i.id}"`));
const moved = project.document.visuals.filter((v: object) => inputsOfVisual(v).length > 0);
const thirty = Array.from({ length: 30 }, (_, i) => {
  const visual = moved[i % moved.length];
  return { ...visual, id: `v${i}`, name: `Visual ${i}` };
});
const board = {
  id: "thirty",
  name: "Thirty",
  tiles: thirty.map((v, i) => ({
    id: `t${i}`,
    type: "visual",
    visual: v.id,
    x: (i % 6) * 2,
    y: Math.floor(i / 6) * 14,
    w: 2,
    h: 14,
  })),
  controls: project.document.inputs.map((i: { id: string }) => ({
    id: `c-${i.id}`,
    type: "input",
    input: i.id,
  })),
};
await fetch(`${BASE}/api/projects/${id}`, {
  method: "PUT",
  headers: { "content-type": "application/json" },
  body: JSON.stringify({
    revision: project.revision,
    document: {
      ...project.document,
      visuals: [...project.document.visuals, ...thirty],
      boards: [...project.document.boards, board],
    },
  }),
});

/** What a page fetches, as it comes over the wire, in kB by type; and its first contentful paint. */
async function fetched(address: string): Promise<void> {
  const page = await browser.newPage({ viewport: browserOptions.viewport });
  const session = await page.context().newCDPSession(page);
  await session.send("Network.enable");
  const types = new Map<string, string>();
  const bytes = new Map<string, number>();
  session.on("Network.responseReceived", (e) => types.set(e.requestId, e.type));
  session.on("Network.loadingFinished", (e) => {
    const type = types.get(e.requestId) ?? "";
    bytes.set(type, (bytes.get(type) ?? 0) + e.encodedDataLength / 1000);
  });
  await page.goto(BASE + address);
  await page.getByRole("button", { name: "Close" }).waitFor();
  await page.waitForLoadState("networkidle");
  const all = [...bytes].map(([type, kb]) => `${type} ${kb.toFixed(0)} kB`).join(", ");
  const sum = [...bytes.values()].reduce((a, b) => a + b, 0);
  console.log(`${address}: ${sum.toFixed(0)} kB (${all})`);
  const paints: number[] = [];
  for (let i = 0; i < 7; i++) {
    await page.reload();
    await page.getByRole("button", { name: "Close" }).waitFor();
    paints.push(
      await page.evaluate(() => performance.getEntriesByName("first-contentful-paint")[0]?.startTime ?? 0),
    );
  }
  console.log(`first contentful paint: median ${ms(median(paints))} of ${paints.length}`);
  await page.close();
}
await fetched(`/p/${id}/present/${project.document.boards[0].id}`);

/** From a click to the frame after the description of a picture has changed. */
const clickToPaint = (page: Page, button: string) =>
  page.evaluate(
    (text) =>
      new Promise<number>((resolve) => {
        const said = () => document.querySelector("[role=img]")?.getAttribute("aria-label");
        const before = said();
        const target = [...document.querySelectorAll("button")].find((b) => b.textContent === text);
        const began = performance.now();
        target?.click();
        const look = () =>
          said() === before
            ? requestAnimationFrame(look)
            : requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - began)));
        requestAnimationFrame(look);
      }),
    button,
  );
const still = await browser.newPage({ viewport: browserOptions.viewport, reducedMotion: "reduce" });
await still.goto(`${BASE}/p/${id}/present/${project.document.boards[0].id}`);
await still.getByRole("button", { name: "Close" }).waitFor();
for (;;) {
  const { cells } = await (await fetch(`${BASE}/api/health`)).json();
  if (cells.boards > 0) break;
  await new Promise((resolve) => setTimeout(resolve, 100));
}
const clicks: number[] = [];
for (const year of ["2024", "2025", "2026"]) {
  clicks.push(await clickToPaint(still, year));
  for (const route of ["Ferrow Isle", "Gannet Sound", "Marl Point"])
    clicks.push(await clickToPaint(still, route));
}
const { cells } = await (await fetch(`${BASE}/api/health`)).json();
console.log(
  `a click to the painted board: median ${ms(median(clicks))}, worst ${ms(Math.max(...clicks))} of ${clicks.length}; cells answered ${cells.answered}, scanned ${cells.scanned}, ${(cells.bytes / 1000).toFixed(0)} kB in memory`,
);

const page = await browser.newPage({ viewport: { width: 1600, height: 1000 } });
await page.goto(`${BASE}/p/${id}/present/thirty`);
await page.getByRole("button", { name: "Close" }).waitFor();
const down = page.getByRole("button", { name: / down$/ });
const frames: number[] = [];
for (let i = 0; i < 10; i++) {
  await down.nth(i % (await down.count())).click();
  frames.push(
    ...(await page.evaluate(
      () =>
        new Promise<number[]>((resolve) => {
          const at: number[] = [];
          const look = (now: number) => {
            at.push(now);
            if (at.length < 30) requestAnimationFrame(look);
            else resolve(at.slice(1).map((t, k) => t - at[k]));
          };
          requestAnimationFrame(look);
        }),
    )),
  );
}
const sorted = frames.toSorted((a, b) => a - b);
console.log(
  `thirty visuals, ten steps of an input: a frame takes ${ms(median(frames))} (median), ${ms(sorted[Math.floor(sorted.length * 0.95)])} (95th of 100), ${((frames.filter((f) => f > 17.5).length / frames.length) * 100).toFixed(0)} % above 17.5 ms`,
);
await browser.close();
server.stop();
process.exit(0);
