// In the browser, over the demo (114,424 rows): what each step fetches before it can be used, filter click to
// painted board, a step of the goal, and a dial drag.
import { chromium, type Page } from "@playwright/test";
import { browserOptions } from "../tests/browser-options";
import { median, ms } from "./median";
import { BASE, startServer } from "./server";

const server = await startServer();
const browser = await chromium.launch(browserOptions.launchOptions);
const page = await browser.newPage({ viewport: browserOptions.viewport, reducedMotion: "reduce" });
const { projects } = await (await fetch(`${BASE}/api/projects`)).json();
const id = projects[0].id;

const route = (page: Page) => page.getByText("Ferrow Isle", { exact: true }).first();
const total = (page: Page) => page.getByRole("img", { name: /total 5/ }).first();
/** What shows that a step can be used. */
const STEPS = { data: route, measures: route, visuals: total, boards: total, "hand-off": total };

/** What a step fetches before it can be used, as it comes over the wire into an empty cache, in kB by type. */
async function fetchedBy(step: keyof typeof STEPS): Promise<Map<string, number>> {
  const context = await browser.newContext({ viewport: browserOptions.viewport, reducedMotion: "reduce" });
  const fresh = await context.newPage();
  const session = await context.newCDPSession(fresh);
  await session.send("Network.enable");
  const types = new Map<string, string>();
  const kB = new Map<string, number>();
  session.on("Network.responseReceived", (e) => types.set(e.requestId, e.type));
  session.on("Network.loadingFinished", (e) => {
    const type = types.get(e.requestId) ?? "Other";
    kB.set(type, (kB.get(type) ?? 0) + e.encodedDataLength / 1000);
  });
  await fresh.goto(`${BASE}/p/${id}/${step}`);
  await STEPS[step](fresh).waitFor();
  const until = new Map(kB);
  await context.close();
  return until;
}
for (const step of Object.keys(STEPS) as (keyof typeof STEPS)[]) {
  // The server makes its first answers slowly; what comes in the background would have come meanwhile.
  await fetchedBy(step);
  const kB = await fetchedBy(step);
  const all = [...kB.values()].reduce((sum, n) => sum + n, 0);
  const parts = [...kB].toSorted((a, b) => b[1] - a[1]).map(([type, n]) => `${type} ${n.toFixed(0)}`);
  console.log(`${step} fetches ${all.toFixed(0)} kB before it can be used: ${parts.join(", ")}`);
}

/** From a click to the frame after the picture's description has changed. */
const clickToPaint = (button: string, group: string, picture: string) =>
  page.evaluate(
    ({ button, group, picture }) =>
      new Promise<number>((resolve) => {
        const image = () =>
          [...document.querySelectorAll("[role=img]")]
            .find((e) => e.getAttribute("aria-label")?.startsWith(picture))
            ?.getAttribute("aria-label");
        const before = image();
        const root = group
          ? [...document.querySelectorAll("fieldset")].find(
              (f) => f.querySelector("legend")?.textContent === group,
            )
          : document.body;
        const target = [...(root?.querySelectorAll("button") ?? [])].find(
          (b) => b.textContent === button || b.getAttribute("aria-label") === button,
        );
        const began = performance.now();
        target?.click();
        const look = () =>
          image() === before
            ? requestAnimationFrame(look)
            : requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - began)));
        requestAnimationFrame(look);
      }),
    { button, group, picture },
  );

await page.goto(`${BASE}/p/${id}/boards`);
await total(page).waitFor();
await page.waitForLoadState("networkidle");
const filters: number[] = [];
const routes = ["Ferrow Isle", "Gannet Sound", "Marl Point"];
// Every combination is new to the page, so that each click is answered by the server.
for (const year of ["2024", "2025", "2026", "All"]) {
  await clickToPaint(year, "Year", "Passengers by route");
  for (const route of routes) filters.push(await clickToPaint(route, "Route", "On-time departures"));
}
console.log(
  `filter click to painted board: median ${ms(median(filters))}, worst ${ms(Math.max(...filters))} of ${filters.length}`,
);
const steps: number[] = [];
for (let i = 0; i < 20; i++)
  steps.push(await clickToPaint("Punctuality target down", "Punctuality target", "On-time departures"));
console.log(
  `step of the target to painted board: median ${ms(median(steps))}, worst ${ms(Math.max(...steps))}`,
);

// Thirty visuals that all follow one input: the kinds with a target, and others beside them.
const { project } = await (await fetch(`${BASE}/api/projects/${id}`)).json();
const models = [
  "progress ring",
  "gauge",
  "progress bar",
  "waffle",
  "radial bars",
  "donut",
  "rounded bars",
  "lollipop",
  "rose",
  "number",
];
const thirty = Array.from({ length: 30 }, (_, i) => {
  const kind = models[i % models.length];
  const model = project.document.visuals.find((v: { kind: string }) => v.kind === kind);
  return {
    ...model,
    id: `thirty-${i}`,
    name: `Thirty ${i}`,
    title: `Visual ${i} of {passenger_target}`,
    target: { input: "passenger_target" },
  };
});
const tiles = thirty.map((v, i) => ({
  id: `tile-${i}`,
  type: "visual",
  visual: v.id,
  x: (i % 6) * 2,
  y: Math.floor(i / 6) * 21,
  w: 2,
  h: 21,
}));
const controls = [{ id: "goal-30", type: "input", input: "passenger_target" }];
const document30 = {
  ...project.document,
  visuals: [...project.document.visuals, ...thirty],
  boards: [...project.document.boards, { id: "thirty", name: "Thirty", controls, tiles }],
};
await fetch(`${BASE}/api/projects/${id}`, {
  method: "PUT",
  headers: { "content-type": "application/json", origin: BASE },
  body: JSON.stringify({ revision: project.revision, document: document30 }),
});
await page.setViewportSize({ width: 1280, height: 1500 });
await page.goto(`${BASE}/p/${id}/boards?board=thirty`);
await page.getByRole("img", { name: /^Visual 29 of/ }).waitFor();
await page.waitForLoadState("networkidle");
const repaints: number[] = [];
for (let i = 0; i < 16; i++)
  repaints.push(await clickToPaint("Passenger target down", "Passenger target", "Visual 29 of"));
console.log(
  `30 visuals repainted on a step of an input: median ${ms(median(repaints))}, worst ${ms(Math.max(...repaints))} of ${repaints.length}`,
);
await page.setViewportSize(browserOptions.viewport);

await page.goto(`${BASE}/p/${id}/visuals?visual=passengers-by-route`);
await page.getByRole("region", { name: "Stage" }).getByText("Ferrow Isle", { exact: true }).waitFor();
await page.waitForLoadState("networkidle");
let queries = 0;
page.on("request", (r) => {
  if (r.url().includes("/results")) queries++;
});
const drag = await page.evaluate(
  () =>
    new Promise<{ script: number[]; frame: number[] }>((resolve) => {
      const handle = document.querySelector<HTMLElement>('[role=slider][aria-label="Hole"]');
      const script: number[] = [];
      const frame: number[] = [];
      let left = 60;
      const step = () => {
        const began = performance.now();
        handle?.dispatchEvent(
          new KeyboardEvent("keydown", { key: left % 2 ? "PageUp" : "PageDown", bubbles: true }),
        );
        // A key press is committed and redrawn before the next microtask but one; the frame is painted before
        // the next task.
        Promise.resolve().then(() => Promise.resolve().then(() => script.push(performance.now() - began)));
        setTimeout(() => {
          frame.push(performance.now() - began);
          if (--left > 0) requestAnimationFrame(step);
          else resolve({ script, frame });
        });
      };
      requestAnimationFrame(step);
    }),
);
console.log(
  `dial step: script ${ms(median(drag.script))}, with the painted frame ${ms(median(drag.frame))} (medians of ${drag.frame.length}); queries asked: ${queries}`,
);
await browser.close();
server.stop();
process.exit(0);
