import { expect, test } from "@playwright/test";
import { choose, csvFile, goTo, openDemo, openEmpty } from "./steps";

test("a CSV comes in with its types, and a wrong guess is mended", async ({ page }) => {
  await openEmpty(page);
  await page
    .getByLabel("File with a table")
    .setInputFiles(
      csvFile(
        "stops.csv",
        "Stop;Opened;Riders\r\nNorth Steps;01.02.2024;1.234,5\r\nEast Gate;03.02.2024;87,25\r\n<b>West</b>;04.02.2024;\r\n",
      ),
    );
  await expect(page.getByRole("heading", { name: "stops" })).toBeVisible();
  const table = page.getByRole("table", { name: "stops" });
  await expect(table.getByRole("cell", { name: "1234.5" })).toBeVisible();
  await expect(table.getByRole("cell", { name: "2024-02-01" })).toBeVisible();
  await expect(table.getByRole("cell", { name: "<b>West</b>" })).toBeVisible();
  await table.getByRole("button", { name: "Opened", exact: true }).click();
  await expect(page.getByLabel("Read as")).toHaveText("date, day first");
  await choose(page.getByLabel("Read as"), "date mdy");
  await expect(table.getByRole("cell", { name: "2024-01-02" })).toBeVisible();
  await page.getByRole("banner").getByRole("button", { name: "Undo" }).click();
  await expect(table.getByRole("cell", { name: "2024-02-01" })).toBeVisible();
});

test("cells that do not fit their type are counted and shown, not lost", async ({ page }) => {
  await openEmpty(page);
  await page
    .getByLabel("File with a table")
    .setInputFiles(csvFile("odd.csv", "what,amount\na,1\nb,2\nc,lots\n"));
  const table = page.getByRole("table", { name: "odd" });
  await table.getByRole("button", { name: "amount", exact: true }).click();
  await choose(page.getByLabel("Read as"), "number .");
  const asks = page.getByRole("alert").filter({ hasText: "would count as empty" });
  await expect(asks).toContainText("1 cell does not read");
  await asks.getByRole("button", { name: "Leave it" }).click();
  await expect(page.getByLabel("Read as")).toHaveText("text");
  await choose(page.getByLabel("Read as"), "number .");
  await asks.getByRole("button", { name: "Read it so" }).click();
  const counted = page.getByRole("alert").filter({ hasText: "1 cell does not read as number" });
  await expect(counted.getByRole("listitem")).toHaveText(["lotsrow 3"]);
  await expect(table.getByRole("cell", { name: "lots" })).toBeVisible();
});

test("a broken file is refused with the row, and nothing is left of it", async ({ page }) => {
  await openEmpty(page);
  await page.getByLabel("File with a table").setInputFiles(csvFile("broken.csv", "a,b\n1,2\n3,4,5\n"));
  await expect(
    page.getByRole("alert").filter({ hasText: "Row 3 has 3 cells, but the head has 2" }),
  ).toBeVisible();
  await expect(page.getByRole("heading", { name: "Begin with a table" })).toBeVisible();
});

test("the first row can be said to be data, and the file is read again", async ({ page }) => {
  await openEmpty(page);
  await page.getByLabel("File with a table").setInputFiles(csvFile("plain.csv", "north,steps\nsouth,gate\n"));
  const table = page.getByRole("table", { name: "plain" });
  await expect(table.getByRole("columnheader", { name: /north/ })).toBeVisible();
  await choose(page.getByLabel("First row"), "false");
  await expect(table.getByRole("columnheader", { name: /column_1/ })).toBeVisible();
  await expect(table.getByRole("cell", { name: "north" })).toBeVisible();
});

test("rows are found and sorted", async ({ page }) => {
  await openDemo(page);
  const table = page.getByRole("table", { name: "sailings" });
  await expect(table.getByRole("cell", { name: "Ferrow Isle" }).first()).toBeVisible();
  await page.getByLabel("Find in rows").fill("upper lanthorne");
  await expect(table.getByRole("cell", { name: "Upper Lanthorne Landing" }).first()).toBeVisible();
  await page.getByLabel("Find in rows").fill("");
  await table.getByRole("button", { name: "Sort by passengers" }).click();
  await table.getByRole("button", { name: "Sort by passengers" }).click();
  await expect(table.getByRole("row").nth(1).getByRole("cell").nth(4)).toHaveText("120");
});

test("a file is dropped anywhere, shows progress, and is cancelled without a trace", async ({ page }) => {
  await openEmpty(page);
  await expect(page.getByRole("heading", { name: "Begin with a table" })).toBeVisible();
  // Slow enough to be caught under way: the rows are many, the file is made in the page.
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.items.add(
      new File(
        [`name,amount,when\n${"something longer,123.45,2026-01-02\n".repeat(1_500_000)}`],
        "large.csv",
        { type: "text/csv" },
      ),
    );
    window.dispatchEvent(new DragEvent("dragover", { dataTransfer: data, bubbles: true, cancelable: true }));
    window.dispatchEvent(new DragEvent("drop", { dataTransfer: data, bubbles: true, cancelable: true }));
  });
  await expect(page.getByRole("progressbar", { name: "Bringing in large.csv" })).toBeVisible();
  await page.getByRole("button", { name: "Cancel" }).click();
  await expect(page.getByRole("progressbar")).toHaveCount(0);
  await expect(page.getByRole("heading", { name: "Begin with a table" })).toBeVisible();
  await page.getByLabel("File with a table").setInputFiles(csvFile("small.csv", "a,b\nx,1\n"));
  await expect(page.getByRole("table", { name: "small" }).getByRole("cell", { name: "x" })).toBeVisible();
});

test("a table that comes in takes nobody's view: it offers to be shown, and a step opens what was last worked on", async ({
  page,
}) => {
  await openEmpty(page);
  const files = page.getByLabel("File with a table");
  await files.setInputFiles(csvFile("first.csv", "a,b\nx,1\n"));
  await expect(page.getByRole("cell", { name: "x", exact: true })).toBeVisible();
  await files.setInputFiles(csvFile("second.csv", "c,d\nwest,2\n"));
  const list = page.getByRole("navigation", { name: "Tables" });
  await expect(list.getByRole("button", { name: /second/ })).toBeVisible();
  await expect(page.getByRole("cell", { name: "x", exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Show it" }).click();
  await expect(page.getByRole("cell", { name: "west", exact: true })).toBeVisible();
  // A notice that leads to where somebody is goes, and so does one whose edit is taken back.
  await files.setInputFiles(csvFile("third.csv", "e\nz\n"));
  await expect(page.getByText("third is here: 1 row.")).toBeVisible();
  await list.getByRole("button", { name: /third/ }).click();
  await expect(page.getByText("third is here: 1 row.")).toBeHidden();
  await goTo(page, "Measures");
  await goTo(page, "Data");
  await expect(page.getByRole("cell", { name: "z", exact: true })).toBeVisible();
  await page.reload();
  await goTo(page, "Measures");
  await goTo(page, "Data");
  await expect(page.getByRole("cell", { name: "z", exact: true })).toBeVisible();
});
