import { readFile } from "node:fs/promises";
import { expect, type Page, test } from "@playwright/test";
import { goTo, openDemo, openEmpty, openVisual, saved } from "./steps";

test("the demo is there at the first start and shows its numbers on a board", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("link", { name: "Quillhaven Ferries" }).first().click();
  await expect(page.getByRole("heading", { name: "sailings" })).toBeVisible();
  await goTo(page, "Boards");
  await expect(
    page.getByRole("img", { name: /Passengers by route: donut of Passengers, total 5/ }),
  ).toBeVisible();
  await expect(
    page.getByRole("img", { name: /On-time departures: gauge of On-time rate, .* target 92/ }),
  ).toBeVisible();
});

test("a project file goes out and comes back with everything in it", async ({ page }) => {
  await openDemo(page);
  await page.getByLabel("Project name").fill("Ferries to carry");
  await page.getByLabel("Project name").press("Enter");
  await goTo(page, "Hand-off");
  await page.getByRole("radio", { name: /^Project/ }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Take the project file" }).click(),
  ]);
  expect(download.suggestedFilename()).toBe("Ferries to carry.cavlo.json");
  const file = await readFile(await download.path());
  await page.goto("/");
  await page
    .getByLabel("Project file")
    .setInputFiles({ name: "carried.cavlo.json", mimeType: "application/json", buffer: file });
  await page.waitForURL(/\/p\/[^/]+\/data/);
  await expect(page.getByLabel("Project name")).toHaveValue("Ferries to carry");
  await goTo(page, "Boards");
  await expect(page.getByRole("img", { name: /total 5/ }).first()).toBeVisible();
});

test("a file that is no project is refused with a sentence", async ({ page }) => {
  await page.goto("/");
  await page.getByLabel("Project file").setInputFiles({
    name: "odd.json",
    mimeType: "application/json",
    buffer: Buffer.from(`{"document": {"format": "something else"}}`),
  });
  await expect(page.getByText(/not a project file/)).toBeVisible();
});

test("a reload keeps everything, and undo and redo walk over the whole document", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await openVisual(page, "Passengers by route");
  await page
    .getByRole("region", { name: "Visual", exact: true })
    .getByLabel("Title", { exact: true })
    .fill("Carried by route");
  await page
    .getByRole("region", { name: "Visual", exact: true })
    .getByLabel("Title", { exact: true })
    .press("Enter");
  await saved(page);
  await page.reload();
  await expect(
    page.getByRole("region", { name: "Visual", exact: true }).getByLabel("Title", { exact: true }),
  ).toHaveValue("Carried by route");
  const hole = page.getByRole("region", { name: "Ring" }).getByLabel("Hole", { exact: true });
  await hole.fill("40");
  await hole.press("Enter");
  await expect(hole).toHaveValue("40%");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(hole).toHaveValue("62%");
  await page.getByRole("button", { name: "Redo" }).click();
  await expect(hole).toHaveValue("40%");
});

test("a window with nothing unsaved takes what another saved, at once", async ({ page, context }) => {
  const id = await openEmpty(page);
  const other = await context.newPage();
  await other.goto(`/p/${id}/data`);
  await other.getByLabel("Project name").fill("Named elsewhere");
  await other.getByLabel("Project name").press("Enter");
  await expect(page.getByLabel("Project name")).toHaveValue("Named elsewhere");
});

test("two windows merge what touches different things, show the rest in words, and each still undoes its own, after a reload too", async ({
  page,
  context,
}) => {
  // This window hears nothing of the other one before it saves itself.
  await page.route("**/api/events", (route) => route.abort());
  const id = await openDemo(page);
  await goTo(page, "Visuals");
  const other = await context.newPage();
  await other.goto(`/p/${id}/visuals`);
  const subtitle = (of: Page) => of.getByRole("combobox", { name: "Subtitle", exact: true });
  const title = (of: Page) => of.getByRole("combobox", { name: "Title", exact: true });
  await subtitle(other).fill("Said elsewhere");
  await subtitle(other).press("Enter");
  await saved(other);
  await title(page).fill("Said here");
  await title(page).press("Enter");
  await saved(page);
  await expect(subtitle(page)).toHaveValue("Said elsewhere");
  await expect(title(page)).toHaveValue("Said here");
  await expect(title(other)).toHaveValue("Said here");

  // Undo takes back what this window did, and leaves what the other one did; after a reload too.
  await page.reload();
  const undo = page.getByRole("button", { name: "Undo", exact: true });
  await expect(undo).toHaveAttribute("title", /Title/);
  await undo.click();
  await expect(title(page)).toHaveValue("{measure} by {split}");
  await expect(subtitle(page)).toHaveValue("Said elsewhere");
  await saved(page);
  await expect(title(other)).toHaveValue("{measure} by {split}");

  // Both say something else of the same.
  await title(other).fill("Theirs");
  await title(other).press("Enter");
  await saved(other);
  await title(page).fill("Ours");
  await title(page).press("Enter");
  await page.getByRole("button", { name: "Look at both" }).click();
  const both = page.getByRole("dialog", { name: "Changed in both" });
  await expect(both.getByRole("radio", { name: /^This window.*“Ours”/ })).toBeVisible();
  await expect(both.getByRole("button", { name: "Keep what is chosen" })).toBeDisabled();
  await both.getByRole("radio", { name: /^The other window.*“Theirs”/ }).click();
  await both.getByRole("button", { name: "Keep what is chosen" }).click();
  await expect(title(page)).toHaveValue("Theirs");
  await saved(page);
  // What was not taken can't be undone, and that is said.
  await undo.click();
  await expect(page.getByText(/can't be undone: another window changed the same/)).toBeVisible();
  await expect(title(page)).toHaveValue("Theirs");
});

test("a window that falls behind is told, and nothing is overwritten", async ({ page, context }) => {
  // This window hears nothing of the other one before it saves itself.
  await page.route("**/api/events", (route) => route.abort());
  const id = await openEmpty(page);
  // It has looked for what is newer, as every window does when it opens, before the other one saves.
  await expect(page.getByRole("heading", { name: "Begin with a table" })).toBeVisible();
  const other = await context.newPage();
  await other.goto(`/p/${id}/data`);
  await other.getByLabel("Project name").fill("Named in the other window");
  await other.getByLabel("Project name").press("Enter");
  await saved(other);
  await page.getByLabel("Project name").fill("Named here");
  await page.getByLabel("Project name").press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "changed in another window" })).toBeVisible();
  await page.getByRole("button", { name: "Keep mine as a new project" }).click();
  await expect(page.getByLabel("Project name")).toHaveValue("Named here (this window)");
  await other.reload();
  await expect(other.getByLabel("Project name")).toHaveValue("Named in the other window");
});

test("a click on the screen that is being left does not throw one back", async ({ page }) => {
  await openDemo(page);
  for (const [from, list] of [
    ["Hand-off", "What is taken out"],
    ["Visuals", "Visuals"],
  ] as const) {
    await goTo(page, from);
    const steps = page.getByRole("navigation", { name: "Steps" });
    const chosen = page
      .getByRole("navigation", { name: list })
      .getByRole("button", { name: "On time by route" });
    await expect(chosen).toBeVisible();
    // Both clicks in one task: the address has changed by the first, the screen has not.
    const left = await chosen.elementHandle();
    await steps.getByRole("link", { name: "Boards" }).evaluate((link: HTMLElement, button) => {
      link.click();
      (button as HTMLElement).click();
    }, left);
    await expect(steps.getByRole("link", { name: "Boards" })).toHaveAttribute("aria-current", "page");
    await expect(page.getByRole("navigation", { name: "Boards" })).toBeVisible();
    expect(new URL(page.url()).pathname).toMatch(/\/boards$/);
  }
});

test("a project is duplicated with its tables, and found by its name among many", async ({ page }) => {
  await openDemo(page);
  await page.getByLabel("Project name").fill("Harbour season");
  await page.keyboard.press("Enter");
  await saved(page);
  await page.goto("/");
  await page.getByRole("button", { name: "Duplicate Harbour season", exact: true }).first().click();
  const copy = page.getByRole("link", { name: "Harbour season copy", exact: true }).first();
  await expect(copy).toBeVisible();
  for (let i = 0; i < 6; i++) {
    await page.request.post("/api/projects", {
      data: { name: `Other ${i}` },
      headers: { origin: new URL(page.url()).origin },
    });
  }
  await page.reload();
  await page.getByLabel("Find a project").fill("season COPY");
  await expect(page.getByRole("link", { name: /^Other/ })).toHaveCount(0);
  await copy.click();
  await expect(page.getByRole("table", { name: "sailings" })).toBeVisible();
});

test("removing for good is asked about, and can be left", async ({ page }) => {
  await openEmpty(page);
  const name = page.getByLabel("Project name");
  await name.fill("Short lived");
  await name.press("Enter");
  await saved(page);
  await page.goto("/");
  await page.getByRole("button", { name: "Remove Short lived" }).click();
  const purge = page.getByRole("button", { name: /Short lived …$/ });
  await purge.click();
  const asked = page.getByRole("alertdialog");
  await expect(asked.getByText("This cannot be taken back.")).toBeVisible();
  await asked.getByRole("button", { name: "Keep it" }).click();
  await expect(purge).toBeFocused();
  await purge.click();
  await asked.getByRole("button", { name: /Short lived for good/ }).click();
  await expect(purge).toBeHidden();
});
