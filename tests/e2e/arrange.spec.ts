import { readFileSync } from "node:fs";
import { expect, type Locator, type Page, test } from "@playwright/test";
import { addControl, choose, csvFile, goTo, openDemo, openEmpty, saved } from "./steps";

const panelOf = (page: Page) => page.getByRole("complementary", { name: "Put on the board" });
const tileOf = (page: Page, name: string) => page.getByRole("group", { name: new RegExp(`^Tile ${name}`) });
const boxOf = async (of: Locator) => {
  const box = await of.boundingBox();
  if (!box) throw new Error("it is not shown");
  return box;
};

async function arrangeDemo(page: Page): Promise<string> {
  const id = await openDemo(page);
  await goTo(page, "Boards");
  await page.getByRole("button", { name: "Arrange" }).click();
  await expect(tileOf(page, "Passengers by route")).toBeVisible();
  return id;
}

/** Drags from the lower middle of a tile by so much. */
async function drag(page: Page, tile: Locator, to: { x: number; y: number }): Promise<void> {
  const { x, y, width, height } = await boxOf(tile);
  await page.mouse.move(x + width / 2, y + height - 24);
  await page.mouse.down();
  await page.mouse.move(x + width / 2 + 10, y + height - 30);
  await page.mouse.move(to.x, to.y, { steps: 8 });
}

/** What is drawn on a board: the outlines of each visual, and where it stands in the board's own pixels. */
const drawn = (page: Page) =>
  page.evaluate(() => {
    const sheet = document.querySelector(".board-sheet");
    if (!sheet) return [];
    const origin = sheet.getBoundingClientRect();
    const scale = origin.width / (sheet as HTMLElement).offsetWidth;
    return [...document.querySelectorAll(".board-host svg")].map((svg) => {
      const box = svg.getBoundingClientRect();
      const at = [box.left - origin.left, box.top - origin.top, box.width, box.height].map((n) =>
        Math.round(n / scale),
      );
      const paths = [...svg.querySelectorAll("path")].map((p) => p.getAttribute("d"));
      return { at, paths };
    });
  });

for (const [width, label] of [
  ["fluid", "Fluid width"],
  ["1440", "1440 px wide"],
] as const)
  test(`what is arranged is presented mark for mark at the same places, ${label}`, async ({ page }) => {
    await page.setViewportSize({ width: 1280, height: 800 });
    await arrangeDemo(page);
    if (width !== "fluid") await choose(page.getByRole("combobox", { name: "Design width" }), label);
    await expect.poll(async () => (await drawn(page)).filter((d) => d.paths.length > 0).length).toBe(5);
    const arranged = await drawn(page);
    await page.getByRole("button", { name: "Present", exact: true }).click();
    await expect(page.getByRole("navigation", { name: "Steps" })).toHaveCount(0);
    await expect.poll(() => drawn(page)).toEqual(arranged);
    expect(arranged.flatMap((d) => d.paths).length).toBeGreaterThan(20);
  });

test("a tile is dragged to where there is room: nothing else moves, and what it leaves stays free", async ({
  page,
}) => {
  await arrangeDemo(page);
  const [moved, other] = [tileOf(page, "text"), tileOf(page, "Sailings by power")];
  const before = await boxOf(other);
  const from = await boxOf(moved);
  const to = { x: from.x + from.width / 2, y: from.y + from.height + 120 };
  await drag(page, moved, to);
  const seen = await boxOf(page.locator(".arranged-landing"));
  // The hand slips by three rows as it lets go: the tile lands where it was seen to.
  await moved.dispatchEvent("pointerup", { clientX: to.x, clientY: to.y + 26, pointerId: 1 });
  await page.mouse.up();
  await expect(page.locator(".arranged-landing")).toHaveCount(0);
  await expect.poll(async () => Math.abs((await boxOf(moved)).y - seen.y)).toBeLessThan(2);
  expect((await boxOf(moved)).y).toBeGreaterThan(from.y + 40);
  // The board is as high as before where it has more rows, so only the order of places tells.
  expect((await boxOf(other)).x).toBe(before.x);
  expect((await boxOf(moved)).y).toBeGreaterThan((await boxOf(other)).y + (await boxOf(other)).height);
  await expect(page.getByRole("banner").getByRole("button", { name: "Undo" })).toBeEnabled();
  // Closed up, no free row is left, and nothing more is offered.
  const closeUp = page.getByRole("button", { name: "Close up" });
  await closeUp.click();
  await expect(closeUp).toHaveCount(0);
  const { y, height } = await boxOf(other);
  expect(Math.abs((await boxOf(moved)).y - y - height)).toBeLessThan(30);
});

test("a drop on the middle of a tile swaps both, and Escape takes a drag back", async ({ page }) => {
  await arrangeDemo(page);
  const [bar, gauge] = [tileOf(page, "Passengers against the target"), tileOf(page, "On-time departures")];
  const [small, large] = [await boxOf(bar), await boxOf(gauge)];
  const middle = { x: large.x + large.width / 2, y: large.y + large.height / 2 };
  await drag(page, bar, middle);
  await expect(page.getByText("Swap places")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.mouse.up();
  await expect(page.getByText("Swap places")).toBeHidden();
  expect(await boxOf(bar)).toEqual(small);
  await drag(page, bar, middle);
  await page.mouse.up();
  await expect.poll(() => boxOf(bar)).toEqual(large);
  expect(await boxOf(gauge)).toEqual(small);
  await page.getByRole("banner").getByRole("button", { name: "Undo" }).click();
  await expect.poll(() => boxOf(bar)).toEqual(small);
});

test("several tiles are selected by a stretch around them, lined up, copied to another board and removed", async ({
  page,
}) => {
  await arrangeDemo(page);
  const [donut, bar] = [tileOf(page, "Passengers by route"), tileOf(page, "Passengers against the target")];
  const from = await boxOf(donut);
  const right = await boxOf(bar);
  // From the free corner above the tiles, over the two of the first row.
  await page.mouse.move(from.x + 2, from.y - 6);
  await page.mouse.down();
  await page.mouse.move(from.x + 40, from.y + 30);
  await page.mouse.move(right.x - 30, from.y + 60, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByText("2 selected")).toBeVisible();
  await bar.click({ modifiers: ["Shift"] });
  await expect(page.getByText("3 selected")).toBeVisible();
  await page.getByRole("button", { name: "As high as the first" }).click();
  await expect.poll(async () => (await boxOf(bar)).height).toBeCloseTo((await boxOf(donut)).height, 0);
  await page.getByRole("button", { name: "Copy", exact: true }).click();
  await page.getByRole("button", { name: "New board" }).click();
  await page.getByRole("button", { name: "Paste" }).click();
  await expect(page.getByRole("group", { name: /^Tile/ })).toHaveCount(3);
  await page.keyboard.press("Escape");
  await page.getByRole("region", { name: "Board" }).focus();
  await page.keyboard.press("Control+a");
  await expect(page.getByText("3 selected")).toBeVisible();
  await page.keyboard.press("Delete");
  await expect(page.getByRole("group", { name: /^Tile/ })).toHaveCount(0);
  await expect(page.getByRole("region", { name: "Board" })).toBeFocused();
  await page.getByRole("button", { name: "Undo" }).last().click();
  await expect(page.getByRole("group", { name: /^Tile/ })).toHaveCount(3);
  await saved(page);
});

test("arrow keys move what is selected, and what it passes goes back to its place", async ({ page }) => {
  await arrangeDemo(page);
  const [bar, arcs] = [tileOf(page, "Passengers against the target"), tileOf(page, "Sailings by power")];
  const panel = panelOf(page);
  await bar.focus();
  await page.keyboard.press("Space");
  await expect(bar).toHaveAccessibleName(/, selected/);
  await expect(panel.getByLabel("Row", { exact: true })).toHaveValue("1");
  for (let i = 0; i < 9; i++) await page.keyboard.press("Control+ArrowDown");
  await expect(panel.getByLabel("Row", { exact: true })).toHaveValue("64");
  await expect(page.getByText("Column 10, row 64, 3 by 21")).toBeAttached();
  await page.keyboard.press("Shift+ArrowLeft");
  await expect(panel.getByLabel("Wide")).toHaveValue("2");
  // What stood below it was never pushed away for good.
  await arcs.click();
  await expect(panel.getByLabel("Row", { exact: true })).toHaveValue("22");
  await panel.getByLabel("Row", { exact: true }).fill("0");
  await panel.getByLabel("Row", { exact: true }).press("Enter");
  await expect(panel.getByText("1 to 7001.")).toBeVisible();
});

test("a section holds tiles together, on a screen and on a phone, in an order and with heights of its own", async ({
  page,
}) => {
  const id = await arrangeDemo(page);
  const panel = panelOf(page);
  await tileOf(page, "On-time departures").click();
  await tileOf(page, "Passengers against the target").click({ modifiers: ["Control"] });
  await page.getByRole("button", { name: "Put a section around" }).click();
  await panel.getByRole("textbox", { name: "Title" }).fill("On time & full");
  await panel.getByRole("textbox", { name: "Title" }).press("Enter");
  const section = tileOf(page, "section On time & full");
  const [around, gauge] = [await boxOf(section), await boxOf(tileOf(page, "On-time departures"))];
  expect(gauge.x > around.x && gauge.y > around.y && gauge.x + gauge.width < around.x + around.width).toBe(
    true,
  );
  // It is dragged by its heading, and what lies in it stands in it as before.
  const within = { x: gauge.x - around.x, y: gauge.y - around.y };
  await page.mouse.move(around.x + 120, around.y + 12);
  await page.mouse.down();
  await page.mouse.move(around.x + 120, around.y + 60);
  await page.mouse.move(around.x + 120, around.y + 160, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => (await boxOf(section)).y).toBeGreaterThan(around.y + 60);
  const [moved, inside] = [await boxOf(section), await boxOf(tileOf(page, "On-time departures"))];
  expect(Math.abs(inside.x - moved.x - within.x)).toBeLessThan(2);
  expect(Math.abs(inside.y - moved.y - within.y)).toBeLessThan(12);
  await page.getByRole("banner").getByRole("button", { name: "Undo" }).click();
  await expect.poll(() => boxOf(section)).toEqual(around);
  await panel.getByText("Order on a phone").first().click();
  const order = panel.getByRole("list", { name: "Order on a phone" }).getByRole("listitem");
  await expect(order.first()).toContainText("Passengers by route");
  await panel.getByRole("button", { name: "Move section On time & full up on a phone" }).click();
  await expect(order.first()).toContainText("section On time & full");
  await expect(order.nth(1)).toContainText("On-time departures");
  await panel.getByRole("textbox", { name: "Rows of On-time departures on a phone" }).fill("60");
  await panel.getByRole("textbox", { name: "Rows of On-time departures on a phone" }).press("Enter");
  await page.getByRole("button", { name: "Phone", exact: true }).click();
  await expect.poll(async () => (await boxOf(tileOf(page, "On-time departures"))).height).toBe(60 * 8 - 12);
  await saved(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`/p/${id}/present/season-at-a-glance`);
  const heading = page.getByRole("heading", { name: "On time & full" });
  await expect(heading).toBeVisible();
  const picture = page.getByRole("img", { name: /On-time departures: gauge/ });
  await expect.poll(async () => (await boxOf(picture)).height).toBe(60 * 8 - 12);
  const donut = page.getByRole("img", { name: /Passengers by route: donut/ });
  expect((await boxOf(heading)).y).toBeLessThan((await boxOf(picture)).y);
  expect((await boxOf(picture)).y).toBeLessThan((await boxOf(donut)).y);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test("a text has marks and names that follow what is picked, and nothing of it runs", async ({ page }) => {
  const id = await arrangeDemo(page);
  const panel = panelOf(page);
  await tileOf(page, "text").click();
  const field = panel.getByRole("textbox", { name: "Text" });
  await field.fill(
    "## Now\n**{passengers_total}** of {picked} in {today:yyyy}\n\n- [more](https://example.com/)\n- [bad](javascript:window.ran=1)\n\n<img src=x onerror=window.ran=1>",
  );
  await field.blur();
  await saved(page);
  await page.getByRole("button", { name: "Arrange" }).click();
  const text = page.getByRole("heading", { name: "Now", level: 3 }).locator("..");
  await expect(text).toContainText(/5.299.291 of all in 20\d\d/);
  await expect(text.getByRole("link", { name: "more" })).toHaveAttribute("href", "https://example.com/");
  await expect(text.getByRole("link")).toHaveCount(1);
  await expect(text).toContainText("<img src=x onerror=window.ran=1>");
  await page
    .getByRole("img", { name: /Passengers by route: donut/ })
    .getByText("North Quay")
    .click();
  await expect(text).toContainText(/1.145.029 of North Quay/);
  const address = new URL(page.url()).search;
  await page.goto(`/p/${id}/present/season-at-a-glance${address}`);
  await expect(page.getByText(/1.145.029 of North Quay/)).toBeVisible();
  expect(await page.evaluate(() => (window as { ran?: number }).ran)).toBeUndefined();
});

test("a board has pictures, lines and plain tables, and a look of its own for all its visuals", async ({
  page,
}) => {
  const id = await arrangeDemo(page);
  const panel = panelOf(page);
  await panel.getByRole("button", { name: "A line" }).click();
  await expect(tileOf(page, "line")).toBeVisible();
  await panel.getByRole("button", { name: "A picture" }).click();
  await panel.getByLabel("Picture file").setInputFiles({
    name: "mark.svg",
    mimeType: "image/svg+xml",
    buffer: readFileSync("public/mark.svg"),
  });
  await panel.getByRole("textbox", { name: "What it shows" }).fill("The mark of the line");
  await panel.getByRole("textbox", { name: "What it shows" }).press("Enter");
  await tileOf(page, "Passengers by route").click();
  await choose(panel.getByRole("combobox", { name: "Drawn as" }), "a plain table");
  await panel.getByText("Look of the board").click();
  await choose(panel.getByRole("combobox", { name: "Palette" }), "Orchard");
  await choose(panel.getByRole("combobox", { name: "Tile frame" }), "none");
  await saved(page);
  await page.goto(`/p/${id}/present/season-at-a-glance`);
  await expect(page.getByRole("img", { name: "The mark of the line" })).toBeVisible();
  await expect(page.getByRole("separator")).toHaveCount(1);
  const table = page.getByRole("region", { name: "Numbers: Passengers by route" });
  await expect(table.getByRole("row", { name: /North Quay/ })).toContainText(/1.145.029/);
  const arcs = page.getByRole("img", { name: /Sailings by power: donut/ });
  await expect(arcs.locator("path[fill='#4b813f']").first()).toBeVisible();
  await expect(page.locator(".board-picture").filter({ has: arcs })).toHaveCSS(
    "outline-color",
    "rgba(0, 0, 0, 0)",
  );
  // The visual itself keeps its own look.
  await page.goto(`/p/${id}/visuals?visual=energy-mix`);
  await expect(page.getByRole("img", { name: /Sailings by power: donut/ }).first()).toBeVisible();
  const own = await (await page.request.get(`/api/projects/${id}/visuals/energy-mix.svg`)).text();
  expect(own).toContain("#1f7a6d");
});

test("a board made for one width is scaled to another window, and fills a phone unscaled", async ({
  page,
}) => {
  const id = await arrangeDemo(page);
  await choose(page.getByRole("combobox", { name: "Design width" }), "1920 px wide");
  await saved(page);
  await page.setViewportSize({ width: 1280, height: 720 });
  await page.goto(`/p/${id}/present/season-at-a-glance`);
  const donut = page.getByRole("img", { name: /Passengers by route: donut/ });
  await expect(donut.locator("path").first()).toBeVisible();
  const before = await boxOf(donut);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(1280);
  // A mark is found under the pointer, and says so beside it.
  const segment = await boxOf(donut.locator("path[data-mark][fill='#1f7a6d']").first());
  await page.mouse.move(segment.x + segment.width * 0.56, segment.y + segment.height * 0.44);
  await expect(page.getByRole("tooltip")).toContainText("Ferrow Isle");
  const tip = await boxOf(page.getByRole("tooltip"));
  expect(tip.x).toBeLessThan(before.x + before.width + 20);
  await page.setViewportSize({ width: 1920, height: 1080 });
  await expect.poll(async () => Math.round((await boxOf(donut)).width)).toBe(Math.round(before.width * 1.5));
  await page.setViewportSize({ width: 390, height: 844 });
  await expect.poll(async () => (await boxOf(donut)).width).toBeGreaterThan(340);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test("boards are walked through by themselves, until somebody stays", async ({ page }) => {
  const id = await openDemo(page);
  await page.goto(`/p/${id}/present/season-at-a-glance?theme=night`);
  await page.getByRole("button", { name: "Walk through boards" }).click();
  const walk = page.getByRole("group", { name: "Walk through boards" });
  await walk.getByRole("checkbox", { name: "Routes compared" }).uncheck();
  await walk.getByRole("button", { name: "Start the walk" }).click();
  await expect(walk.getByText("Choose two boards or more.")).toBeVisible();
  await walk.getByRole("checkbox", { name: "Routes compared" }).check();
  await walk.getByLabel("Seconds for each board").fill("5");
  await walk.getByRole("button", { name: "Start the walk" }).click();
  await expect(page.getByRole("heading", { name: "Routes compared", level: 1 })).toBeVisible();
  await expect(page).toHaveURL(/present\/routes\?walk=season-at-a-glance&walk=routes&every=5&theme=night$/);
  await expect(page.getByRole("img", { name: /Margin by route/ })).toBeVisible();
  await expect(page.getByRole("heading", { name: "Season at a glance", level: 1 })).toBeVisible();
  await page.getByRole("button", { name: "Walking through boards" }).click();
  await walk.getByRole("button", { name: "Stay on Season at a glance" }).click();
  await expect(page).toHaveURL(/present\/season-at-a-glance\?theme=night$/);
  await expect(page.getByRole("button", { name: "Walk through boards" })).toBeVisible();
});

test("a control has a width, values stand in a menu, and a stretch of time goes to the minute", async ({
  page,
}) => {
  await openEmpty(page);
  await page
    .getByLabel("File with a table")
    .setInputFiles(
      csvFile(
        "gates.csv",
        "at,gate\n2026-03-01 08:00:00,A\n2026-03-01 08:29:00,A\n2026-03-01 08:30:40,B\n2026-03-01 17:00:00,C\n2026-03-02 09:00:00,\n",
      ),
    );
  await page.getByRole("link", { name: "Draw this table" }).click();
  await page.getByRole("button", { name: /^Number/ }).click();
  await page.getByRole("button", { name: "Put on a new board" }).click();
  await page.getByRole("button", { name: /^Open New board/ }).click();
  await page.getByRole("button", { name: "Arrange" }).click();
  const panel = panelOf(page);
  await addControl(panel, "at");
  await addControl(panel, "gate");
  await choose(panel.getByRole("combobox", { name: "Form of Gate" }), "Menu");
  await panel.getByRole("checkbox", { name: "several" }).uncheck();
  await choose(panel.getByRole("combobox", { name: "Width of Gate" }), "Wide");
  await page.getByRole("button", { name: "Arrange" }).click();
  const gate = page.getByRole("group", { name: "Gate", exact: true });
  expect((await boxOf(gate)).width).toBeGreaterThan(330);
  await page.getByRole("button", { name: "At: All" }).click();
  await page.getByLabel("At from", { exact: true }).fill("2026-03-01");
  await page.getByLabel("At to", { exact: true }).fill("2026-03-01");
  await page.getByLabel("At to, time").fill("08:30");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: "At: 2026-03-01 – 2026-03-01 08:30" })).toBeVisible();
  await gate.getByRole("button", { name: "Gate: All" }).click();
  const values = page.getByRole("radiogroup", { name: "Gate" });
  await expect(values.getByRole("radio")).toHaveCount(2);
  await expect(values.getByText("A")).toBeVisible();
  await values.getByRole("radio").first().click();
  await expect(values).toBeHidden();
  await expect(gate.getByRole("button", { name: /^Gate: [AB]$/ })).toBeVisible();
});

test("a board has one shape: read, arranged and presented, its tiles have the same size in the same window", async ({
  page,
}) => {
  // Higher than the board is made for, so that its rows grow.
  await page.setViewportSize({ width: 1600, height: 1200 });
  const id = await openDemo(page);
  const sizes = (tiles: string) =>
    page.locator(tiles).evaluateAll((all) =>
      all
        .map((tile) => tile.getBoundingClientRect())
        .map(({ width, height }) => `${Math.round(width)} x ${Math.round(height)}`)
        .sort(),
    );
  await goTo(page, "Boards");
  await expect(page.getByRole("img", { name: /On-time departures/ }).first()).toBeVisible();
  const read = await sizes(".board-tile");
  expect(read).toHaveLength(6);
  expect(read).not.toContain("510 x 324");
  await page.getByRole("button", { name: "Arrange" }).click();
  await page.getByRole("button", { name: "True size" }).click();
  await expect.poll(() => sizes(".arranged-tile")).toEqual(read);
  await page.goto(`/p/${id}/present/season-at-a-glance`);
  await expect.poll(() => sizes(".board-tile")).toEqual(read);
});
