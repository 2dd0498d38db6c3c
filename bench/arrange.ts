// Dragging a tile across a board of sixty while it is arranged: how much script runs for each frame, and how
// long the frames are. node bench/run.mjs arrange
import { chromium } from "@playwright/test";
import { browserOptions } from "../tests/browser-options";
import { median, ms } from "./median";
import { BASE, startServer } from "./server";

const TILES = 60;
const server = await startServer();
const browser = await chromium.launch(browserOptions.launchOptions);
const { projects } = await (await fetch(`${BASE}/api/projects`)).json();
const { id } = projects[0];
const { project } = await (await fetch(`${BASE}/api/projects/${id}`)).json();
const { visuals } = project.document;
const sixty = {
  id: "sixty",
  name: "Sixty",
  tiles: Array.from({ length: TILES }, (_, i) => ({
    id: `t${i}`,
    type: "visual",
    visual: visuals[i % visuals.length].id,
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
    document: { ...project.document, boards: [...project.document.boards, sixty] },
  }),
});
if (!saved.ok) throw new Error(await saved.text());

const page = await browser.newPage({ viewport: { width: 1600, height: 1000 } });
await page.goto(`${BASE}/p/${id}/boards?board=sixty`);
await page.getByRole("button", { name: "Arrange" }).click();
const tile = page.getByRole("group", { name: /^Tile/ }).first();
await tile.waitFor();
await page.waitForLoadState("networkidle");
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
console.log(
  `dragging among ${TILES} tiles: script a frame median ${ms(median(scripts))}, worst ${worst(scripts)}; a frame median ${ms(median(frames))}, worst ${worst(frames)}, of ${scripts.length}`,
);
await browser.close();
server.stop();
process.exit(0);
