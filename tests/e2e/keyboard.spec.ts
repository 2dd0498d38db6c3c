import { expect, type Locator, type Page, test } from "@playwright/test";
import { choose, goTo, openDemo } from "./steps";

/** Goes on with the Tab key until something has the focus. */
async function tabTo(page: Page, goal: Locator, most = 120): Promise<void> {
  for (let i = 0; i < most; i++) {
    await page.keyboard.press("Tab");
    const isThere = (await goal.count()) > 0;
    if (isThere && (await goal.first().evaluate((e) => e === document.activeElement))) return;
  }
  throw new Error(`Tab did not lead to ${goal} in ${most} steps.`);
}

/** Goes somewhere through the list of everything. */
async function goBy(page: Page, name: string): Promise<void> {
  await page.keyboard.press("Control+k");
  await expect(page.getByRole("combobox", { name: "Go to anything" })).toBeFocused();
  await page.keyboard.type(name);
  await page.keyboard.press("Enter");
}

test("a gauge with zones comes on a board by keyboard alone, and is read mark by mark there", async ({
  page,
}) => {
  await page.goto("/");
  await tabTo(page, page.getByRole("button", { name: "Load the demo" }));
  await page.keyboard.press("Enter");
  await expect(page.getByRole("cell").first()).toBeVisible();
  await goBy(page, "visuals");
  await expect(page.getByRole("region", { name: "Stage" })).toBeVisible();
  // The list is one stop: its items are gone through by arrows.
  await tabTo(page, page.getByRole("button", { name: "Passengers by route" }));
  await page.keyboard.press("Tab");
  await expect(page.getByRole("button", { name: "New visual" })).toBeFocused();
  await page.keyboard.press("Enter");
  const gallery = page.getByRole("region", { name: "New visual" });
  await tabTo(page, gallery.getByRole("combobox", { name: "Show" }));
  await page.keyboard.press("Enter");
  await expect(page.getByRole("option", { selected: true })).toBeFocused();
  await page.keyboard.type("on-t");
  await expect(page.getByRole("option", { name: /On-time/i })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(gallery.getByRole("combobox", { name: "Show" })).toHaveText(/On-time/i);
  await tabTo(page, gallery.getByRole("button", { name: "Gauge", exact: true }));
  await page.keyboard.press("Enter");
  const stage = page.getByRole("region", { name: "Stage" });
  await expect(stage.getByRole("img", { name: /gauge/i })).toBeVisible();
  const zones = page.getByRole("button", { name: /^with zones|zones/ }).first();
  await tabTo(page, zones);
  await page.keyboard.press("Enter");
  // Three zones to begin with; the first edge is typed anew.
  const edge = page.getByRole("button", { name: /^Edge of zone 1/ });
  await tabTo(page, edge);
  await page.keyboard.press("Enter");
  const end = page.getByRole("textbox", { name: "Zone 1 ends at" });
  await tabTo(page, end);
  await page.keyboard.press("Control+a");
  await page.keyboard.type("60 %");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: /^Edge of zone 1: 60/ })).toBeFocused();
  const put = page.getByRole("button", { name: "Put on a board" });
  await tabTo(page, put);
  await page.keyboard.press("Enter");
  await tabTo(page, page.getByRole("button", { name: "A new board" }));
  await page.keyboard.press("Enter");
  await goBy(page, "New board");
  await expect(page.getByRole("heading", { name: "New board" })).toBeVisible();
  await expect(page.getByRole("img", { name: /gauge/i })).toBeVisible();
  await tabTo(page, page.getByRole("listbox", { name: /^Marks of/ }));
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("tooltip")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("tooltip")).toBeHidden();
});

test("marks are walked through by arrows with their numbers, picked with Enter, and stand in a table", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  const picture = page.getByRole("region", { name: "Stage" }).getByRole("img");
  await expect(picture.locator("text").filter({ hasText: "Ferrow Isle" })).toBeVisible();
  // Each mark is an object with its name and place, and the one that the keys have come to is told.
  const marks = page.getByRole("listbox", { name: "Marks of Passengers by route" });
  const isAt = async (name: RegExp) => {
    const mark = marks.getByRole("option", { name });
    await expect(marks).toHaveAttribute("aria-activedescendant", (await mark.getAttribute("id")) ?? "");
    return mark;
  };
  await marks.focus();
  await page.keyboard.press("ArrowRight");
  const first = await isAt(/^Ferrow Isle, Passengers 1\s321\s014, Share 25\s%$/);
  await expect(first).toHaveAttribute("aria-posinset", "1");
  await expect(first).toHaveAttribute("aria-setsize", "7");
  await page.keyboard.press("End");
  await isAt(/^Other/);
  await page.keyboard.press("Home");
  await isAt(/^Ferrow Isle/);
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  const table = page.getByRole("group", { name: "Numbers: Passengers by route" });
  await expect(table.getByRole("row")).toHaveCount(8);
  await expect(table.getByRole("row", { name: /^North Quay 1\s145\s029 22\s%$/ })).toBeVisible();
  await goTo(page, "Boards");
  const donut = page.getByRole("img", { name: /^Passengers by route/ });
  await expect(donut.locator("text").filter({ hasText: "Ferrow Isle" })).toBeVisible();
  await marks.focus();
  await page.keyboard.press("ArrowRight");
  // The menu of a mark stays that mark's after Escape.
  await page.keyboard.press("Shift+F10");
  await expect(page.getByRole("menu", { name: "Ferrow Isle" })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(marks).toBeFocused();
  await page.keyboard.press("Shift+F10");
  await expect(page.getByRole("menu", { name: "Ferrow Isle" })).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.press("Enter");
  const picked = page.getByRole("group", { name: "Picked" });
  await expect(picked).toContainText("route: Ferrow Isle");
  await expect(marks.getByRole("option", { name: /^Ferrow Isle/ })).toHaveAttribute("aria-selected", "true");
  // Picks, steps and rows behind are in the numbers as a table too.
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  const numbers = page.getByRole("region", { name: "Numbers: Passengers by route" });
  await numbers.getByRole("button", { name: "North Quay" }).press("Enter");
  await expect(page.getByRole("menuitem", { name: /^Step down in North Quay/ })).toBeVisible();
  await expect(page.getByRole("menuitem", { name: "Rows behind North Quay" })).toBeVisible();
  await page.getByRole("menuitem", { name: "Pick North Quay", exact: true }).press("Enter");
  await expect(picked).toContainText("route: North Quay");
});

test("lists are one stop, F6 goes between areas, handles and dials go to their ends", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  const stage = page.getByRole("region", { name: "Stage" });
  await expect(stage).toBeVisible();
  const list = page.getByRole("navigation", { name: "Visuals" });
  await list.getByRole("button", { name: "Passengers by route" }).focus();
  await page.keyboard.press("ArrowDown");
  await expect(list.getByRole("button", { name: "On-time departures" })).toBeFocused();
  await page.keyboard.press("Home");
  await page.keyboard.press("F6");
  await expect(stage.locator(":focus")).toBeVisible();
  await page.keyboard.press("Shift+F6");
  await expect(list.getByRole("button", { name: "Passengers by route" })).toBeFocused();
  const hole = stage.getByRole("slider", { name: /Hole/ });
  await hole.focus();
  await page.keyboard.press("Home");
  await expect(hole).toHaveAttribute("aria-valuenow", "0");
  await page.keyboard.press("PageUp");
  await expect(hole).toHaveAttribute("aria-valuenow", "10");
  const dial = page.getByRole("slider", { name: "Gap slider", exact: true });
  await dial.focus();
  await page.keyboard.press("End");
  await expect(dial).toHaveAttribute("aria-valuetext", "16 px");
  await expect(page.getByText("Room between segments; it takes nothing from what they show.")).toBeVisible();
});

test("items have a menu: renamed, duplicated and removed, with the focus kept", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Boards");
  const boards = page.getByRole("navigation", { name: "Boards" });
  const first = boards.getByRole("button").first();
  const name = (await first.textContent()) ?? "";
  await first.click({ button: "right" });
  await page.getByRole("menuitem", { name: "Duplicate" }).click();
  const copy = boards.getByRole("button", { name: `${name} copy` });
  await expect(copy).toHaveAttribute("aria-current", "true");
  await copy.focus();
  await page.keyboard.press("Shift+F10");
  await page.getByRole("menuitem", { name: "Rename …" }).press("Enter");
  await expect(page.getByRole("textbox", { name: "New name" })).toBeFocused();
  await page.keyboard.type("Quarterly");
  await page.keyboard.press("Enter");
  const renamed = boards.getByRole("button", { name: "Quarterly" });
  await expect(renamed).toBeFocused();
  await renamed.click({ button: "right" });
  await page.getByRole("menuitem", { name: "Remove" }).click();
  await expect(renamed).toBeHidden();
  await page.getByRole("button", { name: "Undo", exact: true }).first().click();
  await expect(renamed).toBeVisible();
});

test("the guide and the keys open inside the application", async ({ page }) => {
  await openDemo(page);
  await page.getByRole("button", { name: "Help" }).click();
  const help = page.getByRole("dialog", { name: "Help" });
  await expect(help.getByText("go to the next area of the screen")).toBeVisible();
  const [guide] = await Promise.all([
    page.waitForEvent("popup"),
    help.getByRole("link", { name: "Designing a visual" }).click(),
  ]);
  await expect(guide.getByRole("heading", { level: 1, name: "Designing a visual" })).toBeVisible();
  const picture = guide.getByRole("img").first();
  expect(await picture.evaluate((e: HTMLImageElement) => e.decode().then(() => e.naturalWidth))).toBe(1280);
});

test("what is cut is told whole on hover and on focus, and Escape takes it away", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  const long = "A name that is far too long for a list of pictures, and goes on for a while";
  const name = page.getByRole("region", { name: "Visual", exact: true }).getByLabel("Name", { exact: true });
  await name.fill(long);
  await name.press("Enter");
  const item = page.getByRole("navigation", { name: "Visuals" }).getByRole("button", { name: long });
  await item.hover();
  await expect(page.getByRole("tooltip", { name: long })).toBeVisible();
  await page.mouse.move(600, 400);
  await expect(page.getByRole("tooltip", { name: long })).toBeHidden();
  await name.focus();
  await page.keyboard.press("Shift+F6");
  await page.keyboard.press("Shift+F6");
  await item.focus();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowUp");
  await expect(page.getByRole("tooltip", { name: long })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("tooltip", { name: long })).toBeHidden();
  await expect(item).toHaveAttribute("title", long);
});

test("a date is typed or chosen from a calendar by keys", async ({ page }) => {
  await openDemo(page);
  await expect(page.getByRole("cell").first()).toBeVisible();
  await choose(page.getByRole("combobox", { name: "How date is filtered" }), "range");
  const from = page.getByRole("textbox", { name: "From" });
  await from.fill("yesterday");
  await from.press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "Write a date as 2026-05-01." })).toBeVisible();
  await from.fill("2026-03-31");
  await from.press("Enter");
  await page.getByRole("button", { name: "Calendar: From" }).press("Enter");
  await expect(page.getByRole("button", { name: /March 31.*selected/ })).toBeFocused();
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("Enter");
  await expect(from).toHaveValue("2026-03-30");
  await expect(page.getByRole("button", { name: "Calendar: From" })).toBeFocused();
  await expect(page.getByRole("cell", { name: "2026-03-30" }).first()).toBeVisible();
});
