import { expect, test } from "@playwright/test";
import { csvFile, goTo, openDemo, openEmpty } from "./steps";

test("the demo has nothing that the review finds", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  const list = page.getByRole("navigation", { name: "Visuals" });
  await expect(list.getByRole("button", { name: /Electric sailings/ })).toBeVisible();
  await expect(page.getByRole("region", { name: "Stage" }).getByRole("img")).toHaveAttribute(
    "aria-label",
    /total 5.299.291/,
  );
  await expect(list.getByRole("img", { name: /finding/ })).toHaveCount(0);
  await expect(page.getByRole("region", { name: "Review" })).toHaveCount(0);
});

test("a donut of too many slices is said, mended with a click, undone, and left with a reason", async ({
  page,
}) => {
  await openEmpty(page);
  const rows = Array.from({ length: 30 }, (_, i) => `stop ${i},${100 - i * 2}`).join("\n");
  await page.getByLabel("File with a table").setInputFiles(csvFile("trips.csv", `stop,riders\n${rows}\n`));
  await expect(page.getByRole("table", { name: "trips" })).toBeVisible();
  await goTo(page, "Measures");
  const list = page.getByRole("navigation", { name: "Measures and inputs" });
  await list.getByRole("button", { name: "New measure" }).click();
  await page.getByRole("textbox", { name: /^Formula of/ }).fill("sum(riders)");
  await expect(page.getByText(/, now 2/)).toBeVisible();
  await goTo(page, "Visuals");
  await page.getByRole("button", { name: "Donut", exact: true }).click();
  await page.getByRole("button", { name: /^Keep: / }).click();
  await page.getByRole("option", { name: "Keep all of them" }).click();
  const review = page.getByRole("region", { name: "Review" });
  await expect(review.getByRole("status")).toContainText("30 slices are more than can be compared.");
  const thumbnail = page.getByRole("navigation", { name: "Visuals" }).getByRole("img", { name: /finding/ });
  await expect(thumbnail).toBeVisible();
  await review.getByRole("button", { name: "Keep the first 6 and Other" }).first().click();
  await expect(page.getByText("more than can be compared")).toHaveCount(0);
  await page.getByRole("banner").getByRole("button", { name: "Undo" }).click();
  await expect(review.getByRole("status")).toContainText("30 slices");
  const slices = review.getByRole("listitem").filter({ hasText: "30 slices" });
  await slices.getByRole("button", { name: "Leave it" }).click();
  await slices.getByRole("textbox", { name: "Why it is left as it is" }).fill("Every stop has to be seen");
  await page.keyboard.press("Enter");
  await expect(review.getByText("Left as it is: 30 slices")).toContainText("“Every stop has to be seen”");
  await review.getByRole("button", { name: "Look again" }).click();
  await expect(review.getByRole("status")).toContainText("30 slices");
});

test("a ring without a target asks for one; what the gallery proposes is taken or left with a click", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await page.getByRole("button", { name: "New visual" }).click();
  const gallery = page.getByRole("region", { name: "New visual" });
  await expect(gallery.getByText(/^Proposed: against passenger target/).first()).toBeVisible();
  await gallery.getByRole("button", { name: "Leave out what Progress ring proposes" }).click();
  await expect(gallery.getByText(/^Left out: against passenger target/)).toBeVisible();
  await gallery.getByRole("button", { name: "Progress ring", exact: true }).click();
  await expect(page.getByRole("button", { name: /^Target: / })).toHaveText("against a target …");
  await expect(
    page.getByRole("region", { name: "Stage" }).locator("svg").getByText("no target yet"),
  ).toBeVisible();
  await expect(page.getByRole("combobox", { name: "Title", exact: true })).toHaveValue("{measure}");
});

test("a tile that is too small for its visual says so while the board is arranged, and is mended there", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Boards");
  await page.getByRole("button", { name: "Arrange" }).click();
  const tile = page.getByRole("group", { name: /^Tile Passengers by route/ });
  await tile.focus();
  for (let i = 0; i < 2; i++) await page.keyboard.press("Shift+ArrowLeft");
  for (let i = 0; i < 4; i++) await page.keyboard.press("Control+Shift+ArrowUp");
  const badge = page.getByRole("button", { name: "1 finding in Passengers by route" });
  await badge.click();
  await expect(page.getByText(/^Its tile on Season at a glance (leaves|has type)/)).toBeVisible();
  await page.getByRole("button", { name: "Make the tile larger" }).click();
  await expect(badge).toHaveCount(0);
});
