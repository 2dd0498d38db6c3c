// Picks and a dragged thumb on a board of twelve visuals, in the browser: from the click to the whole board's
// answer on the screen, before its cells are gathered and after. node bench/run.mjs picks [rows]
import { chromium, type Page } from "@playwright/test";
import { PLAIN_FORMAT } from "@/core/base/number-format";
import { newFilter, newMeasure, newVisual } from "@/core/project/defaults";
import { browserOptions } from "../tests/browser-options";
import { madeProject } from "./made-project";
import { median, ms } from "./median";
import { BEGAN, CHANGED, untilOnScreen } from "./on-screen";
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

/** An act in the page, until every picture but the first has another description and is on the screen. */
const act = (what: "pick" | "thumb", at: number) =>
  page.evaluate(
    ([kind, step, began, changed]) =>
      new Promise<void>((resolve) => {
        const pictures = [...document.querySelectorAll("[role=img]")].slice(1);
        const before = pictures.map((p) => p.getAttribute("aria-label"));
        const marks = document.querySelectorAll("[role=img]")[0].querySelectorAll("path[data-mark]");
        const thumb = document.querySelector<HTMLInputElement>("input[aria-label='Delay from']");
        const watch = new MutationObserver(() => {
          if (!pictures.every((p, i) => p.getAttribute("aria-label") !== before[i])) return;
          watch.disconnect();
          performance.mark(changed);
          requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(resolve, 50)));
        });
        watch.observe(document.body, { subtree: true, attributeFilter: ["aria-label"] });
        performance.mark(began);
        if (kind === "pick") marks[step].dispatchEvent(new MouseEvent("click", { bubbles: true }));
        else if (thumb) {
          thumb.value = String(step);
          thumb.dispatchEvent(new Event("input", { bubbles: true }));
        }
      }),
    [what, at, BEGAN, CHANGED] as const,
  );
/** The same for some of them, one after the other: milliseconds each. */
const acts = (what: "pick" | "thumb", from: number, to: number) =>
  untilOnScreen(page, async () => {
    for (let i = from; i < to; i++) await act(what, i);
  });
const told = (label: string, took: number[]) =>
  console.log(
    `${label.padEnd(44)} median ${ms(median(took)).padStart(8)}, worst ${ms(Math.max(...took)).padStart(8)} of ${took.length}`,
  );
const picks = () => acts("pick", 0, 8);
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
told("a step of a dragged thumb", await acts("thumb", -4, 26));
const { cells } = await (await fetch(`${BASE}/api/health`)).json();
console.log(`cells answered ${cells.answered}, scanned ${cells.scanned}`);
await browser.close();
server.stop();
process.exit(0);
