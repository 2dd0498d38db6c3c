import { readFile } from "node:fs/promises";
import { expect, type Locator, type Page, test } from "@playwright/test";
import { csvFile, openEmpty } from "./steps";

const TRIPS = [
  "line,stop,riders",
  ...["North", "South", "Ring"].flatMap((line, i) =>
    ["Quay", "Mill", "Gate"].map((stop, j) => `${line},${line} ${stop},${10 * (i + 1) + j}`),
  ),
].join("\n");

/** Presses what has a role and a name, as who sees nothing of the page does. */
async function press(what: Locator, key = "Enter"): Promise<void> {
  await what.focus();
  await what.press(key);
}
const goBy = (page: Page, step: string) =>
  press(page.getByRole("navigation", { name: "Steps" }).getByRole("link", { name: step }));

test("the whole job is done by roles, names and keys alone: file, measure, visual, board, pick, step, rows behind, hand-off", async ({
  page,
}) => {
  await openEmpty(page);
  await page.getByLabel("File with a table").setInputFiles(csvFile("trips.csv", TRIPS));
  await expect(page.getByRole("navigation", { name: "Steps" })).toBeVisible();
  await goBy(page, "Measures");
  await press(page.getByRole("button", { name: "New measure", exact: true }).first());
  // The focus is in its name.
  await page.keyboard.press("Control+a");
  await page.keyboard.type("Riders");
  await page.keyboard.press("Enter");
  const formula = page.getByRole("textbox", { name: /^Formula of/ });
  await formula.focus();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("sum(riders)");
  await expect(page.getByRole("region", { name: "Answer table" }).getByRole("row").nth(1)).toBeVisible();

  await goBy(page, "Visuals");
  const gallery = page.getByRole("region", { name: "New visual" });
  await press(gallery.getByRole("button", { name: "Donut", exact: true }));
  const stage = page.getByRole("region", { name: "Stage" });
  await expect(stage.getByRole("img", { name: /donut of .*, total 189, 3 segments/i })).toBeVisible();
  // Each mark is said, with its place among them.
  const mark = stage.getByRole("listbox", { name: /^Marks of/ }).getByRole("option", { name: /^Ring/ });
  await expect(mark).toHaveAttribute("aria-setsize", "3");
  await press(page.getByRole("button", { name: /^Steps down: then/ }));
  await expect(page.getByRole("option", { name: "stop", exact: true })).toBeVisible();
  await page.keyboard.type("stop");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: "Steps down 1: then stop" })).toBeVisible();
  await press(page.getByRole("button", { name: "Put on a new board" }));
  await press(page.getByRole("button", { name: "Open New board" }));
  await expect(page.getByRole("heading", { level: 1, name: "New board" })).toBeVisible();

  // A mark is picked as an object, as assistive technology presses it; what that changed is said.
  const marks = page.getByRole("listbox", { name: /^Marks of/ });
  await marks.getByRole("option", { name: /^Ring/ }).dispatchEvent("click");
  await expect(page.getByRole("status").filter({ hasText: /^Picked line: Ring/ })).toHaveCount(1);
  await expect(marks.getByRole("option", { name: /^Ring/ })).toHaveAttribute("aria-selected", "true");
  await expect(page.getByRole("img", { name: /Picked: Ring\.$/ })).toBeVisible();
  await marks.focus();
  await page.keyboard.press("Home");
  await page.keyboard.press("Shift+F10");
  await press(page.getByRole("menuitem", { name: /^Step down in Ring/ }));
  await expect(page.getByRole("navigation", { name: "Stepped down from" })).toContainText("Ring");
  await expect(page.getByRole("status").filter({ hasText: /^Riders 93, before 189/ })).toHaveCount(1);
  await press(page.getByRole("button", { name: /^More of/ }));
  await press(page.getByRole("menuitem", { name: /^Rows behind/ }).first());
  const sheet = page.getByRole("dialog", { name: /^Rows behind/ });
  await expect(sheet.getByRole("status")).toContainText("3 rows");
  await page.keyboard.press("Escape");
  await expect(sheet).toBeHidden();

  await goBy(page, "Hand-off");
  await press(
    page.getByRole("navigation", { name: "What is taken out" }).getByRole("button", { name: /by line/ }),
  );
  await press(page.getByRole("radio", { name: /^Numbers/ }), " ");
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    press(page.getByRole("button", { name: "Take CSV", exact: true })),
  ]);
  expect(await readFile(await download.path(), "utf8")).toMatch(/Ring,93/);
});
