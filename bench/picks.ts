// Picks and a dragged thumb on a board of twelve visuals, in the browser: from the click to the frame after
// the whole board has answered, before its cells are gathered and after. node bench/run.mjs picks [rows]
import { chromium, type Page } from "@playwright/test";
import { PLAIN_FORMAT } from "@/core/base/number-format";
import { newFilter, newMeasure, newVisual } from "@/core/project/defaults";
import { browserOptions } from "../tests/browser-options";
import { madeProject } from "./made-project";
import { median, ms } from "./median";
import { BASE, startServer } from "./server";

const ROWS = Number(process.argv[3] ?? 1_000_000);
process.env.CAVLO_IMPORT_LIMIT_MB = "2000";
const server = await startServer(["--no-demo"]);
const FORMULAS = [
  "sum(passengers)",
  "avg(delay)",
  "count(*) filter (where passengers > 60) / nullif(count(*), 0)",
  "sum(revenue) / nullif(sum(passengers), 0)",
];
const measures = FORMULAS.map((formula, i) =>
  // With so many decimals every change is told.
  newMeasure({
    id: `m${i}`,
    name: `m${i}`,
    label: `Measure ${i}`,
    table: "rows",
    formula,
    format: { ...PLAIN_FORMAT, decimals: 8 },
  }),
);
const SPLITS = ["route", "channel", "fare_class", "vessel", "day", null];
const visuals = Array.from({ length: 12 }, (_, i) => {
  const column = SPLITS[i % 6];
  const kind = column === null ? "number" : i === 0 ? "donut" : "rounded bars";
  const split = column && { column, ...(column === "day" ? { by: "month" as const } : {}) };
  return newVisual({
    id: `v${i}`,
    name: `Visual ${i}`,
    kind,
    value: `m${i % 4}`,
    ...(split ? { split, keep: { first: 8, others: true } } : {}),
  });
});
const tiles = visuals.map((v, i) => ({
  id: `t${i}`,
  type: "visual",
  visual: v.id,
  aside: false,
  x: (i % 4) * 3,
  y: Math.floor(i / 4) * 28,
  w: 3,
  h: 28,
}));
const controls = [
  newFilter({ id: "delay", label: "Delay", table: "rows", column: "delay", as: "stretch" }),
  newFilter({ id: "class", label: "Class", table: "rows", column: "fare_class" }),
];
const board = { id: "twelve", name: "Twelve", tiles, controls };
const { id } = await madeProject(ROWS, { measures, visuals, boards: [board] });

const browser = await chromium.launch(browserOptions.launchOptions);
const page = await browser.newPage({ viewport: browserOptions.viewport, reducedMotion: "reduce" });
/** The page with all that it shows at first. */
const stands = async () => {
  await page.getByRole("button", { name: "Close" }).waitFor();
  await page.locator("path[data-mark]").nth(8).waitFor();
  await page.waitForLoadState("networkidle");
};
await page.goto(`${BASE}/p/${id}/present/twelve`);
await stands();

/** From an act in the page to the frame after every picture but the first has another description. */
const toPaint = (act: string, at: number) =>
  page.evaluate(
    ([what, step]) =>
      new Promise<number>((resolve) => {
        const pictures = [...document.querySelectorAll("[role=img]")].slice(1);
        const before = pictures.map((p) => p.getAttribute("aria-label"));
        const began = performance.now();
        if (what === "pick") {
          const marks = document.querySelectorAll("[role=img]")[0].querySelectorAll("path[data-mark]");
          marks[step].dispatchEvent(new MouseEvent("click", { bubbles: true }));
        } else {
          const thumb = document.querySelector<HTMLInputElement>("input[aria-label='Delay from']");
          if (thumb) thumb.value = String(step);
          thumb?.dispatchEvent(new Event("input", { bubbles: true }));
        }
        const look = () => {
          const isNew = pictures.every((p, i) => p.getAttribute("aria-label") !== before[i]);
          if (isNew || performance.now() - began > 5000)
            requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - began)));
          else requestAnimationFrame(look);
        };
        requestAnimationFrame(look);
      }),
    [act, at] as const,
  );
const told = (label: string, took: number[]) =>
  console.log(
    `${label.padEnd(44)} median ${ms(median(took)).padStart(8)}, worst ${ms(Math.max(...took)).padStart(8)} of ${took.length}`,
  );
const picks = async () => {
  const took: number[] = [];
  for (let i = 0; i < 8; i++) took.push(await toPaint("pick", i));
  return took;
};
const letGo = (of: Page) => of.keyboard.press("Escape");
told(`${ROWS.toLocaleString("en")} rows: a first pick`, await picks());
told("the same picks, met before", await picks());
await letGo(page);
for (;;) {
  const { cells } = await (await fetch(`${BASE}/api/health`)).json();
  if (cells.boards > 0) {
    console.log(`cells: ${JSON.stringify(cells)}`);
    break;
  }
  await new Promise((resolve) => setTimeout(resolve, 200));
}
await page.reload();
await stands();
told("a pick, its cells gathered", await picks());
await letGo(page);
const steps: number[] = [];
for (let i = -4; i < 26; i++) steps.push(await toPaint("thumb", i));
told("a step of a dragged thumb", steps);
const { cells } = await (await fetch(`${BASE}/api/health`)).json();
console.log(`cells answered ${cells.answered}, scanned ${cells.scanned}`);
await browser.close();
server.stop();
process.exit(0);
