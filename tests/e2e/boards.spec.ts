import { expect, test } from "@playwright/test";
import { newInput, newInputControl } from "@/core/project/defaults";
import { addControl, changeDocument, goTo, openDemo, saved } from "./steps";

test("visuals go on a new board; a filter and a goal stepper change what they show", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Boards");
  await page.getByRole("button", { name: "New board" }).click();
  await page.getByRole("button", { name: "Arrange" }).click();
  await expect(page.getByText("Press Arrange to put visuals, filters and inputs on it.")).toBeVisible();
  await page.getByRole("button", { name: "Arrange" }).click();
  const panel = page.getByRole("complementary", { name: "Put on the board" });
  for (const name of ["Passengers by route", "On-time departures", "Passengers against the target"])
    await panel.getByRole("button", { name: `Add ${name}` }).click();
  await addControl(panel, "sailings · date by year");
  await addControl(panel, "Punctuality target");
  await page.getByRole("button", { name: "Arrange" }).click();
  const donut = page.getByRole("img", { name: /Passengers by route: donut/ });
  const gauge = page.getByRole("img", { name: /On-time departures: gauge/ });
  await expect(donut).toHaveAttribute("aria-label", /total 5.299.291/);
  await page.getByRole("group", { name: "Year" }).getByRole("button", { name: "2025" }).click();
  await expect(donut).not.toHaveAttribute("aria-label", /total 5.299.291/);
  await expect(gauge).toHaveAttribute("aria-label", /target 92/);
  await page.getByRole("button", { name: "Punctuality target down" }).click();
  await expect(gauge).toHaveAttribute("aria-label", /target 91/);
  await expect(gauge.getByText("Target 91.0\u2009%")).toBeVisible();
  const goal = page.getByRole("spinbutton", { name: "Punctuality target" });
  await goal.fill("150");
  await goal.press("Enter");
  await expect(goal).toHaveValue("100\u2009%");
});

test("tiles are moved, resized and removed by keys, and undo brings them back", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Boards");
  await page.getByRole("button", { name: "Arrange" }).click();
  const tile = page.getByRole("group", { name: /Tile Passengers against the target/ });
  const before = await tile.boundingBox();
  await tile.focus();
  await page.keyboard.press("Shift+ArrowLeft");
  await expect.poll(async () => (await tile.boundingBox())?.width).toBeLessThan((before?.width ?? 0) - 40);
  await page.keyboard.press("Delete");
  await expect(tile).toHaveCount(0);
  await page.getByRole("banner").getByRole("button", { name: "Undo" }).click();
  await expect(tile).toBeVisible();
  await saved(page);
});

test("a board draws mark for mark what the server writes, and a mark says under the pointer what it is", async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, "Boards");
  const donut = page.getByRole("img", { name: /Passengers by route: donut/ });
  await expect(donut.locator("path").first()).toBeVisible();
  const { width, height } = (await donut.boundingBox()) ?? { width: 0, height: 0 };
  const written = await (
    await page.request.get(
      `/api/projects/${id}/visuals/passengers-by-route.svg?width=${Math.round(width)}&height=${Math.round(height)}`,
    )
  ).text();
  const outlines = [...written.matchAll(/<path[^>]* d="([^"]+)"/g)].map((m) => m[1]);
  const drawn = await donut
    .locator("path")
    .evaluateAll((paths) => paths.map((path) => path.getAttribute("d") ?? ""));
  expect(drawn.length).toBeGreaterThan(6);
  // The server writes the ground of the picture too, which on a board is the tile's.
  expect(outlines.slice(-drawn.length)).toEqual(drawn);
  const segment = donut.locator("path[data-mark][fill='#1f7a6d']").first();
  const box = await segment.boundingBox();
  if (!box) throw new Error("the donut is not drawn");
  await page.mouse.move(box.x + box.width * 0.56, box.y + box.height * 0.44);
  await expect(page.getByRole("tooltip")).toContainText("Ferrow Isle");
  await page.mouse.move(5, 5);
  await expect(page.getByRole("tooltip")).toBeHidden();
});

test("a board is presented without the frame, on a phone in one column", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Boards");
  await page.getByRole("button", { name: "Present" }).click();
  await expect(page.getByRole("navigation", { name: "Steps" })).toHaveCount(0);
  await page.setViewportSize({ width: 390, height: 844 });
  await expect
    .poll(async () => (await page.getByRole("img", { name: /Passengers by route/ }).boundingBox())?.width)
    .toBeGreaterThan(340);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.keyboard.press("Escape");
  await expect(page.getByRole("navigation", { name: "Steps" })).toHaveCount(1);
});

test("a visual is put on a board from where it is drawn, and the board takes a filter by its own split", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await page.getByRole("button", { name: "Put on a board" }).click();
  const boards = page.getByRole("group", { name: "Boards to put it on" });
  await boards.getByRole("button", { name: "Routes compared" }).click();
  await expect(boards).toBeHidden();
  await page.getByRole("button", { name: "Open Routes compared" }).click();
  await expect(page.getByRole("img", { name: /donut of Passengers/ })).toBeVisible();
  await page.getByRole("button", { name: "Add a filter", exact: true }).click();
  const columns = page.getByRole("group", { name: "Filter the board by" }).getByRole("button");
  await expect(columns.first()).toHaveText(/^sailings · /);
  await columns.getByText("sailings · vessel").click();
  await expect(page.getByRole("group", { name: "Vessel" })).toBeVisible();
});

test("among many boards one is found by its name, and what is done with a board stays in sight", async ({
  page,
}) => {
  const id = await openDemo(page);
  await changeDocument(page, id, ({ boards }) => ({
    boards: [
      ...boards,
      ...Array.from({ length: 40 }, (_, i) => ({ ...boards[i % 2], id: `copy-${i}`, name: `Copy ${i}` })),
    ],
  }));
  const strip = page.getByRole("navigation", { name: "Boards", exact: true });
  for (const width of [1280, 390]) {
    await page.setViewportSize({ width, height: 800 });
    await page.goto(`/p/${id}/boards?board=copy-30`);
    await expect(strip.getByRole("button", { name: "Copy 30" })).toBeInViewport();
    for (const name of ["Arrange", "Present", "New board", "Add a filter"])
      await expect(page.getByRole("button", { name, exact: true })).toBeInViewport();
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  }
  await page.getByRole("button", { name: "Find one of 42 boards" }).click();
  await page.getByRole("dialog", { name: "Find a board" }).getByRole("combobox").fill("copy 7");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Copy 7" })).toBeVisible();
  await expect(strip.getByRole("button", { name: "Copy 7" })).toBeInViewport();
  // So is one to put a visual on.
  await goTo(page, "Visuals");
  await page.getByRole("button", { name: "Put on a board" }).click();
  const choices = page.getByRole("group", { name: "Boards to put it on" });
  await choices.getByPlaceholder("Find a board").fill("copy 31");
  await expect(choices.getByText(/^Copy \d+$/)).toHaveText(["Copy 31"]);
  await choices.getByText("Copy 31").click();
  await expect(page.getByText(/ is on Copy 31\.$/)).toBeVisible();
});

test("among many visuals one is found by its name, where they are made and where they are taken out", async ({
  page,
}) => {
  const id = await openDemo(page);
  await changeDocument(page, id, ({ visuals }) => ({
    visuals: [
      ...visuals,
      ...Array.from({ length: 60 }, (_, i) => ({
        ...visuals[i % visuals.length],
        id: `copy-${i}`,
        name: `Copy ${i}`,
      })),
    ],
  }));
  await page.goto(`/p/${id}/visuals?visual=copy-50`);
  const list = page.getByRole("navigation", { name: "Visuals" });
  await expect(list.getByRole("button", { name: /^Copy 50/ })).toBeInViewport({ ratio: 1 });
  await expect(page.getByRole("button", { name: "New visual" })).toBeInViewport({ ratio: 1 });
  const find = page.getByRole("searchbox", { name: "Find a visual" });
  await find.fill("COPY 59");
  await expect(list.getByRole("button", { name: /^Copy/ })).toHaveCount(1);
  await list.getByRole("button", { name: "Copy 59" }).click();
  await expect(page.getByRole("textbox", { name: "Name", exact: true })).toHaveValue("Copy 59");
  await find.fill("nobody has this");
  await expect(page.getByText("Nothing has that name.")).toBeVisible();
  await find.fill("");
  await expect(list.getByRole("button", { name: "Copy 59" })).toBeInViewport({ ratio: 1 });

  await page.goto(`/p/${id}/hand-off?visual=copy-40`);
  const what = page.getByRole("navigation", { name: "What is taken out" });
  await expect(what.getByRole("button", { name: /^Copy 40/ })).toBeInViewport({ ratio: 1 });
  await page.getByRole("searchbox", { name: "Find a board or a visual" }).fill("season");
  await what.getByRole("button", { name: "Season at a glance" }).click();
  await expect(what.getByRole("button", { name: "Season at a glance" })).toHaveAttribute(
    "aria-current",
    "true",
  );
});

test("where a project or a board is full, nothing more is added, it says so, and all stays saved", async ({
  page,
}) => {
  const id = await openDemo(page);
  const { boards } = await changeDocument(page, id, ({ inputs, boards: [first, ...others] }) => {
    const copies = Array.from({ length: 99 - others.length }, (_, i) => ({
      ...others[0],
      id: `b${i}`,
      name: `B${i}`,
    }));
    const more = Array.from({ length: 20 }, (_, i) =>
      newInput({ id: `i${i}`, name: `i${i}`, label: `I${i}`, type: "number", value: i }),
    );
    const controls = more.map((input) => newInputControl({ id: `c-${input.id}`, input: input.id }));
    return {
      inputs: [...inputs, ...more],
      boards: [{ ...first, controls }, ...others, ...copies],
    };
  });
  expect(boards).toHaveLength(100);
  await page.goto(`/p/${id}/boards`);
  await page.getByRole("button", { name: "Add a filter", exact: true }).click();
  const columns = page.getByRole("group", { name: "Filter the board by" });
  await columns.getByText("sailings · vessel").click();
  await expect(page.getByText("A board has at most 20 controls. Remove some first.")).toBeVisible();
  await expect(page.getByRole("group", { name: "Vessel" })).toHaveCount(0);
  await page.getByRole("button", { name: "New board", exact: true }).click();
  await expect(page.getByText("A project has at most 100 boards. Remove some first.")).toBeVisible();
  await expect(page.getByRole("heading", { name: boards[0].name })).toBeVisible();
  await expect(page.getByRole("toolbar", { name: "Arrange" })).toHaveCount(0);
  await saved(page);
  await expect(page.getByRole("button", { name: "Undo" })).toBeDisabled();
});
