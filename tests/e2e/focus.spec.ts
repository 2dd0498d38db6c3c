import { expect, type Page, test } from "@playwright/test";
import { goTo, openDemo } from "./steps";

/** Whether the focus is somewhere, and not on the page as a whole. */
const isKept = (page: Page) =>
  expect
    .poll(() => page.evaluate(() => document.activeElement !== document.body), {
      message: "the focus is lost",
    })
    .toBe(true);
/** Presses what has a name, by keyboard. */
async function press(page: Page, role: "button" | "link", name: string | RegExp): Promise<void> {
  const found = page.getByRole(role, { name }).first();
  await found.focus();
  await page.keyboard.press("Enter");
}

test("nothing that is made, opened, presented or removed drops the focus to the page", async ({ page }) => {
  await page.goto("/");
  await press(page, "button", "New project");
  await page.waitForURL(/\/data/);
  await expect(page.getByRole("heading", { name: "Begin with a table" })).toBeVisible();
  await isKept(page);
  await openDemo(page);
  await goTo(page, "Visuals");
  await press(page, "button", "New visual");
  await press(page, "button", /^Waffle$/);
  await expect(page.getByRole("region", { name: "Stage" })).toBeVisible();
  await isKept(page);
  const count = await page.getByRole("navigation", { name: "Visuals" }).getByRole("button").count();
  await press(page, "button", "Remove this visual");
  await isKept(page);
  // Another press removes no other visual.
  await expect(page.getByRole("button", { name: "Remove this visual" })).not.toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("navigation", { name: "Visuals" }).getByRole("button")).toHaveCount(count - 1);
  await goTo(page, "Boards");
  await press(page, "button", "New board");
  await isKept(page);
  await press(page, "button", "Remove the board New board");
  await isKept(page);
  await goTo(page, "Measures");
  await press(page, "button", "New measure");
  await expect(page.getByRole("textbox", { name: "Name", exact: true })).toBeFocused();
  await goTo(page, "Boards");
  await press(page, "button", "Present");
  await expect(page.getByRole("button", { name: "Close" })).toBeVisible();
  await isKept(page);
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: "Present" })).toBeVisible();
  await isKept(page);
});
