import { expect, type Page, test } from "@playwright/test";
import { goTo, openDemo } from "./steps";

const stage = (page: Page) => page.getByRole("region", { name: "Stage" });
const dialog = (page: Page) => page.getByRole("dialog", { name: /^Categories of/ });

/** Whether one text of the picture stands above another. */
async function isAbove(page: Page, upper: string, lower: string): Promise<boolean> {
  const [a, b] = await Promise.all([upper, lower].map((t) => stage(page).getByText(t).first().boundingBox()));
  return a !== null && b !== null && a.y < b.y;
}

test("categories are put in order by keyboard, and a colour set once holds in every visual", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await page.getByRole("button", { name: "Order: largest first" }).click();
  await page.getByRole("option", { name: "in an order of my own …" }).click();
  const list = dialog(page).getByRole("list", { name: "Categories" });
  await expect(list.getByRole("listitem").first()).toContainText("Ferrow Isle");
  const grip = list.getByRole("button", { name: "Move Ferrow Isle" });
  await grip.focus();
  await page.keyboard.press("Space");
  await expect(page.getByText(/^Ferrow Isle .*place 1 of 8\.$/)).toBeAttached();
  await page.keyboard.press("ArrowDown");
  await expect(page.getByText("Ferrow Isle over place 2 of 8.")).toBeAttached();
  await page.keyboard.press("Space");
  await expect(list.getByRole("listitem").first()).toContainText("Gannet Sound");
  await list.getByLabel("Colour of Gannet Sound").fill("#112233");
  await expect(list.getByRole("button", { name: "The palette's colour for Gannet Sound" })).toBeVisible();
  await page.keyboard.press("Escape");
  // The focus is where it was before, and the picture has the new order and the colour.
  await expect(page.getByRole("button", { name: "Order: in its own order" })).toBeFocused();
  await expect.poll(() => isAbove(page, "Gannet Sound", "Ferrow Isle")).toBe(true);
  await expect(stage(page).locator("[fill='#112233']").first()).toBeVisible();
  // A visual of its own kind that is made now has the colour too, and so has the column on the Data step.
  await goTo(page, "Data");
  await page.getByRole("button", { name: "routes" }).first().click();
  await page
    .getByRole("columnheader", { name: /^route/ })
    .getByRole("button")
    .first()
    .click();
  await page.getByRole("button", { name: "Order and colours of its categories …" }).click();
  await expect(list.getByLabel("Colour of Gannet Sound")).toHaveValue("#112233");
  await list.getByRole("button", { name: "The palette's colour for Gannet Sound" }).click();
  await dialog(page).getByRole("button", { name: "Sort them again" }).click();
  await expect(list.getByRole("listitem").first()).toContainText("Ferrow Isle");
});

test("rows are put in order by another measure", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await page.getByRole("button", { name: "Order: largest first" }).click();
  await page.getByPlaceholder("Find …").fill("load factor, smallest");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: "Order: by load factor, smallest first" })).toBeVisible();
  // The emptiest route has the first entry of the legend.
  await expect.poll(() => isAbove(page, "Tamsin Reach", "Skerry Light")).toBe(true);
});
