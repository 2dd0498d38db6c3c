// A board of forty tiles: how long it takes until it can be arranged, and how long the frames are while a
// tile is dragged across it; and while a dial is dragged beside sixty visuals. node bench/run.mjs arrange
import { chromium } from "@playwright/test";
import { browserOptions } from "../tests/browser-options";
import { median, ms } from "./median";
import { BASE, startServer } from "./server";

const TILES = 40;
const VISUALS = 60;
const server = await startServer();
const browser = await chromium.launch(browserOptions.launchOptions);
const { projects } = await (await fetch(`${BASE}/api/projects`)).json();
const { id } = projects[0];
const { project } = await (await fetch(`${BASE}/api/projects/${id}`)).json();
const { visuals } = project.document;
const sixty = Array.from({ length: VISUALS }, (_, i) =>
  i < visuals.length ? visuals[i] : { ...visuals[i % visuals.length], id: `v${i}`, name: `Visual ${i}` },
);
const forty = {
  id: "forty",
  name: "Forty",
  tiles: Array.from({ length: TILES }, (_, i) => ({
    id: `t${i}`,
    type: "visual",
    visual: sixty[i].id,
    x: (i % 6) * 2,
    y: Math.floor(i / 6) * 24,
    w: 2,
    h: 22,
  })),
};
const saved = await fetch(`${BASE}/api/projects/${id}`, {
  method: "PUT",
  headers: { "content-type": "application/json" },
  body: JSON.stringify({
    revision: project.revision,
    document: { ...project.document, boards: [...project.document.boards, forty], visuals: sixty },
  }),
});
if (!saved.ok) throw new Error(await saved.text());

const page = await browser.newPage({ viewport: { width: 1600, height: 1000 } });
/** From a click on Arrange until every tile can be taken in hand, in a board that is already shown. */
const openings: number[] = [];
for (let i = 0; i < 7; i++) {
  await page.goto(`${BASE}/p/${id}/boards?board=forty`);
  await page.waitForFunction(
    (n) => document.querySelectorAll(".board-host svg").length >= n,
    Math.min(TILES, visuals.length),
  );
  await page.waitForLoadState("networkidle");
  openings.push(
    await page.evaluate(async (tiles) => {
      const arrange = [...document.querySelectorAll("button")].find(
        (b) => b.textContent?.trim() === "Arrange",
      );
      const began = performance.now();
      arrange?.click();
      const frame = () => new Promise(requestAnimationFrame);
      while (document.querySelectorAll("[data-tile]").length < tiles) await frame();
      await frame();
      return performance.now() - began;
    }, TILES),
  );
}
console.log(
  `${TILES} tiles can be arranged ${ms(median(openings))} after the click (median of ${openings.length}, worst ${ms(Math.max(...openings))})`,
);
const tile = page.getByRole("group", { name: /^Tile/ }).first();
const session = await page.context().newCDPSession(page);
await session.send("Performance.enable");
const scripted = async () => {
  const { metrics } = await session.send("Performance.getMetrics");
  return (metrics.find((m) => m.name === "ScriptDuration")?.value ?? 0) * 1000;
};
const box = await tile.boundingBox();
if (!box) throw new Error("no tile");
await page.mouse.move(box.x + box.width / 2, box.y + box.height - 20);
await page.mouse.down();
const scripts: number[] = [];
const frames: number[] = [];
for (let i = 1; i <= 120; i++) {
  const before = await scripted();
  // A round over the board, so that many tiles give way and come back.
  const [x, y] = [box.x + 500 + 400 * Math.cos(i / 19), box.y + 300 + 250 * Math.sin(i / 11)];
  await page.mouse.move(x, y);
  const frame = await page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        requestAnimationFrame((a) => requestAnimationFrame((b) => resolve(b - a)));
      }),
  );
  scripts.push((await scripted()) - before);
  frames.push(frame);
}
await page.mouse.up();
const worst = (all: number[]) => ms(Math.max(...all));
const within = (all: number[]) =>
  `${((100 * all.filter((f) => f < 33).length) / all.length).toFixed(0)} % within 33 ms`;
const frameWords = (all: number[]) =>
  `${within(all)}, median ${ms(median(all))}, worst ${worst(all)}, of ${all.length}`;
console.log(
  `dragging among ${TILES} tiles: script a frame median ${ms(median(scripts))}, worst ${worst(scripts)}; frames ${frameWords(frames)}`,
);

await page.goto(`${BASE}/p/${id}/visuals?visual=passengers-by-route`);
await page.getByRole("region", { name: "Stage" }).getByText("Ferrow Isle", { exact: true }).waitFor();
await page.waitForLoadState("networkidle");
const handle = await page.getByRole("slider", { name: "Hole", exact: true }).boundingBox();
if (!handle) throw new Error("no handle");
await page.mouse.move(handle.x + handle.width / 2, handle.y + handle.height / 2);
await page.mouse.down();
const dialFrames: number[] = [];
for (let i = 1; i <= 120; i++) {
  await page.mouse.move(handle.x + 20 * Math.cos(i / 7), handle.y + handle.height / 2 + 20 * Math.sin(i / 7));
  dialFrames.push(
    await page.evaluate(
      () =>
        new Promise<number>((resolve) => {
          requestAnimationFrame((a) => requestAnimationFrame((b) => resolve(b - a)));
        }),
    ),
  );
}
await page.mouse.up();
console.log(`dragging a handle beside ${VISUALS} visuals: frames ${frameWords(dialFrames)}`);
await browser.close();
server.stop();
process.exit(0);
