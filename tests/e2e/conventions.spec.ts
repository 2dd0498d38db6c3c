import { expect, test } from "@playwright/test";
import { choose, goTo, openDemo } from "./steps";

test("a project has its calendar and its words, in every picture, and undo takes them back", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  const stage = page.getByRole("region", { name: "Stage" });
  await page.getByRole("button", { name: "Departures by quarter" }).click();
  await expect(stage.getByText("Q1", { exact: true })).toBeVisible();
  const opener = page.getByRole("button", { name: "Calendar and language" });
  await opener.click();
  const dialog = page.getByRole("dialog", { name: "Calendar and language" });
  await dialog.getByLabel("before the number of a quarter").fill("Quarter ");
  await page.keyboard.press("Enter");
  await choose(dialog.getByLabel("Years begin in"), "April");
  await dialog.getByLabel("Time zone of today").fill("Nowhere/Else");
  await page.keyboard.press("Enter");
  await expect(dialog.getByRole("alert")).toHaveText(/Write a time zone such as/);
  await dialog.getByLabel("the end of a scale that nobody named").fill("Full");
  await page.keyboard.press("Enter");
  await expect(dialog.getByRole("alert").last()).toHaveText("Keep {value} in it: this is filled in.");
  await dialog.getByRole("button", { name: "Close" }).click();
  await expect(opener).toBeFocused();
  await expect(stage.getByText(/^Quarter\s?4/).first()).toBeVisible();
  await page.getByRole("banner").getByRole("button", { name: "Undo" }).click();
  await page.getByRole("banner").getByRole("button", { name: "Undo" }).click();
  await expect(stage.getByText("Q1", { exact: true })).toBeVisible();
});

test("the list of everything gives the focus back when it is closed", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  const opener = page.getByRole("button", { name: "Go to anything" });
  await opener.click();
  await expect(page.getByRole("combobox", { name: "Go to anything" })).toBeFocused();
  await page.keyboard.press("Escape");
  await expect(opener).toBeFocused();
  // On a narrow screen it is in the menu, and the calendar and the language are found there and here.
  await page.setViewportSize({ width: 390, height: 800 });
  await page.getByRole("button", { name: "More", exact: true }).click();
  await expect(page.getByRole("menuitem", { name: "Calendar and language" })).toBeVisible();
  await page.getByRole("menuitem", { name: "Go to anything" }).click();
  await page.getByRole("combobox", { name: "Go to anything" }).fill("calendar");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog", { name: "Calendar and language" })).toBeVisible();
});
