import { readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { choose, csvFile, goTo, openDemo, openEmpty, saved } from "./steps";

const file = (name: string, content: string) => ({
  ...csvFile(name, content),
  mimeType: "application/octet-stream",
});

test("tables are linked as proposed, and a measure is split through the link with rows that match nothing", async ({
  page,
}) => {
  await openEmpty(page);
  await page
    .getByLabel("File with a table")
    .setInputFiles([
      csvFile("trips.csv", "stop,riders\nNorth,10\nEast,20\nNorth,5\nLost,3\n"),
      file("stops.json", '[{"stop": "North", "zone": "A"}, {"stop": "East", "zone": "B"}]'),
    ]);
  // The table that came last takes nobody's view.
  await expect(page.getByRole("table", { name: "trips" })).toBeVisible();
  await page.getByRole("button", { name: "Show it" }).last().click();
  await expect(page.getByRole("table", { name: "stops" }).getByRole("cell", { name: "East" })).toBeVisible();
  await page.getByRole("button", { name: /^Links/ }).click();
  await expect(page.getByRole("region", { name: "Proposed links" })).toContainText("trips.stop → stops.stop");
  await page.getByRole("button", { name: "Add the link from trips to stops" }).click();
  await expect(page.getByRole("region", { name: "Links between tables" })).toContainText(
    "75.0 % of 4 rows match; 1 have no match: “Lost”",
  );
  await expect(page.getByRole("img", { name: "2 tables, 1 links" })).toBeVisible();
  await choose(page.getByLabel("From many rows"), "stops.stop");
  await choose(page.getByLabel("To one row"), "trips.stop");
  await page.getByRole("button", { name: "Link", exact: true }).click();
  await expect(page.getByText("linked in a circle: trips → stops → trips")).toBeVisible();

  await goTo(page, "Measures");
  await page
    .getByRole("navigation", { name: "Measures and inputs" })
    .getByRole("button", { name: "New measure" })
    .click();
  await choose(page.getByLabel("From table"), "trips");
  await page.getByRole("textbox", { name: /^Formula of/ }).fill("sum(riders)");
  await choose(page.getByLabel("Split by"), "stops.zone");
  const answers = page.getByRole("region", { name: "Answer table" });
  await expect(answers.getByRole("row").filter({ hasText: "B" })).toContainText("20");
  await expect(answers.getByRole("row").filter({ hasText: "(no match)" })).toContainText("3");
});

test("a derived column is written with a mend, split by, and cannot vanish while it is used", async ({
  page,
}) => {
  await openEmpty(page);
  await page
    .getByLabel("File with a table")
    .setInputFiles(csvFile("trips.csv", "stop,riders\nNorth,10\nEast,20\nNorth,5\n"));
  await page.getByRole("button", { name: "Derive a column" }).click();
  const panel = page.getByRole("region", { name: "Column new_column" });
  await panel
    .getByRole("textbox", { name: "Formula of new_column" })
    .fill("case when rider > 8 then 'many' else 'few' end");
  await panel.getByRole("button", { name: "Use riders" }).click();
  const table = page.getByRole("table", { name: "trips" });
  await expect(table.getByRole("cell", { name: "many" })).toHaveCount(2);
  await panel.getByLabel("Name").fill("size");
  await panel.getByLabel("Name").press("Enter");
  await page.getByRole("region", { name: "Rows to show" }).getByRole("checkbox", { name: "few" }).check();
  await expect(table.getByRole("cell", { name: "East" })).toHaveCount(0);
  await page.getByRole("button", { name: "Show all of size" }).click();
  await expect(table.getByRole("cell", { name: "East" })).toBeVisible();

  await goTo(page, "Measures");
  await page
    .getByRole("navigation", { name: "Measures and inputs" })
    .getByRole("button", { name: "New measure" })
    .click();
  await page.getByRole("textbox", { name: /^Formula of/ }).fill("count(*) filter (where size = 'many')");
  await expect(page.getByText(/, now 2/)).toBeVisible();
  await goTo(page, "Data");
  await page.getByRole("table", { name: "trips" }).getByRole("button", { name: "size", exact: true }).click();
  await page.getByRole("button", { name: "Remove size" }).click();
  await expect(page.getByText("size is used in New measure")).toBeVisible();
});

test("a newer file takes the place of a table after what no longer fits is listed; rows are appended; a column is hidden", async ({
  page,
}) => {
  await openEmpty(page);
  await page
    .getByLabel("File with a table")
    .setInputFiles(csvFile("trips.csv", "stop,riders\nNorth,10\nEast,20\n"));
  const table = page.getByRole("table", { name: "trips" });
  await expect(table.getByRole("cell", { name: "East" })).toBeVisible();
  await goTo(page, "Measures");
  await page
    .getByRole("navigation", { name: "Measures and inputs" })
    .getByRole("button", { name: "New measure" })
    .click();
  await page.getByRole("textbox", { name: /^Formula of/ }).fill("sum(riders)");
  await expect(page.getByText(/, now 30/)).toBeVisible();
  await goTo(page, "Data");
  await page.getByLabel("Append rows").setInputFiles(csvFile("may.csv", "riders,stop\n7,West\n"));
  await expect(table.getByRole("cell", { name: "West" })).toBeVisible();
  await page.getByLabel("Append rows").setInputFiles(csvFile("june.csv", "stop,people\nWest,7\n"));
  await expect(page.getByText("it lacks riders and has people besides")).toBeVisible();

  await page.getByLabel("Replace the file").setInputFiles(csvFile("new.csv", "stop,people\nWest,7\n"));
  const misfits = page.getByRole("alert").filter({ hasText: "not everything fits" });
  await expect(misfits).toContainText("riders is not in the new file; used in New measure");
  await misfits.getByRole("button", { name: "Leave it" }).click();
  await expect(table.getByRole("cell", { name: "West" })).toBeVisible();
  await page.getByLabel("Replace the file").setInputFiles(csvFile("new.csv", "stop,riders\nSouth,70\n"));
  await expect(table.getByRole("cell", { name: "South" })).toBeVisible();
  await goTo(page, "Measures");
  await expect(page.getByText(/, now 70/)).toBeVisible();

  await goTo(page, "Data");
  await table.getByRole("button", { name: "riders", exact: true }).click();
  await page.getByRole("button", { name: "Hide riders" }).click();
  await expect(page.getByText("1 columns · 1 hidden")).toBeVisible();
});

test("cells are pasted from a spreadsheet, and the table is taken out again", async ({ page }) => {
  await openEmpty(page);
  await expect(page.getByRole("heading", { name: "Begin with a table" })).toBeVisible();
  await page.evaluate(() => {
    const clipboardData = new DataTransfer();
    clipboardData.setData("text/plain", "stop\triders\nNorth\t10\nEast\t20\n");
    document.body.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData, bubbles: true, cancelable: true }),
    );
  });
  await expect(page.getByRole("table", { name: "pasted" }).getByRole("cell", { name: "East" })).toBeVisible();
  const panel = page.getByRole("region", { name: "Table", exact: true });
  await choose(panel.getByLabel("Format"), "ndjson");
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    panel.getByRole("button", { name: "Take it out" }).click(),
  ]);
  expect(download.suggestedFilename()).toBe("pasted.ndjson");
  expect(readFileSync(await download.path(), "utf8")).toBe(
    '{"stop":"North","riders":10}\n{"stop":"East","riders":20}\n',
  );
});

test("the demo's plan meets its sailings by route and by week", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Measures");
  await page
    .getByRole("navigation", { name: "Measures and inputs" })
    .getByRole("button", { name: /Plan attainment/ })
    .click();
  const answers = page.getByRole("region", { name: "Answer table" });
  await expect(answers.getByRole("row")).toHaveCount(10);
  await expect(answers.getByRole("row").nth(1)).toContainText("%");
  await choose(page.getByLabel("Split by"), "date by week");
  await expect(answers.getByRole("row").filter({ hasText: "Week 1, 2024" })).toContainText("%");
  await choose(page.getByLabel("Split by"), "routes.landing");
  await expect(answers.getByRole("row").filter({ hasText: "Ferrow Stairs" })).toContainText("%");
});

test("taking away a link, a type or a table says what it breaks", async ({ page }) => {
  await openDemo(page);
  await page.getByRole("button", { name: /^Links/ }).click();
  await page.getByRole("button", { name: "Remove the link from sailings to routes" }).click();
  await expect(page.getByText("is removed. Passenger kilometres no longer works without it.")).toBeVisible();
  await expect(page.getByRole("region", { name: "Proposed links" })).toContainText(
    "sailings.route → routes.route",
  );
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect(page.getByRole("region", { name: "Links between tables" })).toContainText(
    "sailings.route → routes.route",
  );
  await page.getByRole("navigation", { name: "Tables" }).getByRole("button", { name: "survey" }).click();
  await page
    .getByRole("table", { name: "survey" })
    .getByRole("button", { name: "score", exact: true })
    .click();
  await choose(page.getByLabel("Read as"), "text");
  await expect(page.getByText("score is text now; Traveller score does not work with that.")).toBeVisible();
  await page.getByRole("banner").getByRole("button", { name: "Undo" }).click();
  await expect(page.getByLabel("Read as")).toHaveText("number");
  await page.getByRole("button", { name: "Remove the table" }).click();
  await expect(
    page.getByText("survey is used by Traveller score. Remove or change what uses it first."),
  ).toBeVisible();
});

test("a table of 300 columns draws only what is seen; a column is found by its name", async ({ page }) => {
  await openEmpty(page);
  const names = Array.from({ length: 300 }, (_, i) => `column_${String(i + 1).padStart(3, "0")}`);
  const row = (r: number) => names.map((_, c) => r * 300 + c).join(",");
  const rows = Array.from({ length: 200 }, (_, r) => row(r));
  await page
    .getByLabel("File with a table")
    .setInputFiles(csvFile("wide.csv", [names.join(","), ...rows].join("\n")));
  await expect(page.getByRole("cell", { name: "300", exact: true })).toBeVisible();
  expect(await page.getByRole("cell").count()).toBeLessThan(500);
  await page.getByRole("button", { name: "Find a column" }).click();
  await page.getByPlaceholder("A part of its name").fill("col 250");
  await page.keyboard.press("Enter");
  const head = page.getByRole("columnheader", { name: /column_250/ });
  await expect(head).toBeInViewport();
  await expect(head).toHaveAttribute("aria-colindex", "251");
  await expect(page.getByLabel("Name", { exact: true }).first()).toHaveValue("column_250");
  // Row 2 of column 250, counted from zero: 1 x 300 + 249.
  await expect(page.getByRole("cell", { name: "549", exact: true })).toBeInViewport();
  await page.getByRole("button", { name: "Sort by column_250" }).click();
  await page.getByRole("button", { name: "Sort by column_250" }).click();
  await expect(head).toHaveAttribute("aria-sort", "descending");
  await expect(page.getByRole("cell", { name: String(199 * 300 + 249), exact: true })).toBeInViewport();
  // What is chosen from hundreds is found by a part of its name.
  await goTo(page, "Measures");
  await page.getByRole("button", { name: "New measure" }).first().click();
  const split = page.getByRole("combobox", { name: "Split by" });
  await split.click();
  await page.getByPlaceholder("Find …").fill("299");
  await page.keyboard.press("Enter");
  await expect(split).toHaveText("column_299");
  await expect(split).toBeFocused();
});

test("a small table is typed, changed in place, and taken back by undo", async ({ page }) => {
  await openEmpty(page);
  await page.getByRole("button", { name: "Type a table" }).click();
  const grid = page.getByRole("grid", { name: "Cells" });
  await expect(grid.getByRole("columnheader", { name: "Name of column 1" })).toBeFocused();
  await page.keyboard.type("month\n2026-01\n2026-02\n");
  await grid.getByRole("columnheader", { name: "Name of column 2" }).click();
  await page.keyboard.type("target\n100\n120\n");
  // A second table is not begun over what is not saved.
  await page.getByRole("button", { name: "Type a table" }).click();
  await expect(page.getByText("Save the cells first")).toBeVisible();
  // What is typed waits while another step is looked at.
  await goTo(page, "Measures");
  await expect(grid).toBeHidden();
  await goTo(page, "Data");
  await grid.getByRole("gridcell", { name: "target, row 2: 120" }).click();
  await page.keyboard.press("Control+z");
  await expect(grid.getByRole("gridcell", { name: "target, row 2:" })).toHaveText("");
  await page.keyboard.press("Control+y");
  await page.getByRole("button", { name: "Save the cells" }).click();
  await expect(page.getByText("2 rows · 2 columns")).toBeVisible();
  await expect(page.getByRole("cell", { name: "120", exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Change cells" }).click();
  await grid.getByRole("gridcell", { name: "target, row 2: 120" }).dblclick();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("many\n");
  await page.getByRole("button", { name: "Save the cells" }).click();
  // The column stays one of numbers: what is no number is marked, not lost.
  await expect(page.getByRole("cell", { name: "many" })).toBeVisible();
  await expect(page.getByRole("columnheader", { name: /target.*1 unread/ })).toBeVisible();
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect(page.getByRole("cell", { name: "120", exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Change cells" }).click();
  await page.getByRole("button", { name: "Remove the column month" }).click();
  await page.getByRole("button", { name: "Remove the column target" }).click();
  await page.getByRole("button", { name: "Save the cells" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "A table needs a column." })).toBeVisible();
  await page.getByRole("button", { name: "Do not save" }).click();
  await expect(page.getByRole("cell", { name: "120", exact: true })).toBeVisible();
});

test("a table is typed along its rows by keyboard alone, and a block of it filled, cleared and pasted", async ({
  page,
  context,
}) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await openEmpty(page);
  await page.getByRole("button", { name: "Type a table" }).click();
  const grid = page.getByRole("grid", { name: "Cells" });
  await expect(grid.getByRole("columnheader", { name: "Name of column 1" })).toBeFocused();
  for (const text of ["route", "wanted", "North", "40", "South", "50", "West", "60"]) {
    await page.keyboard.type(text);
    await page.keyboard.press(text === "60" ? "Enter" : "Tab");
  }
  for (const [row, cells] of [
    ["North", "40"],
    ["South", "50"],
    ["West", "60"],
  ].entries()) {
    await expect(grid.getByRole("gridcell", { name: `route, row ${row + 1}: ${cells[0]}` })).toBeVisible();
    await expect(grid.getByRole("gridcell", { name: `wanted, row ${row + 1}: ${cells[1]}` })).toBeVisible();
  }
  // The fourth row is where Enter led, in the column where the row was begun.
  await expect(grid.getByRole("gridcell", { name: "route, row 4:" })).toBeFocused();
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("Shift+ArrowRight");
  await page.keyboard.press("Control+d");
  await expect(grid.getByRole("gridcell", { name: "wanted, row 3: 50" })).toBeVisible();
  await page.keyboard.press("Control+c");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("Control+v");
  await expect(grid.getByRole("gridcell", { name: "route, row 4: South" })).toBeVisible();
  await page.keyboard.press("Shift+ArrowRight");
  await page.keyboard.press("Delete");
  await expect(grid.getByRole("gridcell", { name: "wanted, row 4:" })).toHaveText("");
  await page.keyboard.press("Control+z");
  await page.getByRole("button", { name: "Save the cells" }).click();
  await expect(page.getByText("4 rows · 2 columns")).toBeVisible();
});

test("a table with a column a month is turned into one with a row a month, and drawn by month", async ({
  page,
}) => {
  await openEmpty(page);
  const months = ["2025-01", "2025-02", "2025-03"];
  await page
    .getByLabel("File with a table")
    .setInputFiles(csvFile("visits.csv", `quay,${months.join(",")},note\nNorth,10,20,30,a\nEast,1,2,,b\n`));
  await expect(page.getByRole("table", { name: "visits" })).toBeVisible();
  const open = page.getByRole("button", { name: "Turn columns into rows" });
  await open.click();
  const dialog = page.getByRole("dialog", { name: "Turn columns into rows" });
  for (const month of months) await expect(dialog.getByRole("checkbox", { name: month })).toBeChecked();
  await expect(dialog.getByRole("checkbox", { name: "note" })).not.toBeChecked();
  await expect(dialog.getByRole("status")).toHaveText("2 rows become 6, with quay, note, column and value.");
  await dialog.getByLabel("Names go to").fill("Quay");
  await expect(dialog.getByRole("status")).toContainText("“Quay” already");
  await expect(dialog.getByRole("button", { name: "Make the table" })).toBeDisabled();
  await dialog.getByLabel("Names go to").fill("m".repeat(101));
  await expect(dialog.getByRole("status")).toContainText("at most 100 characters");
  // Left without an answer, nothing has happened.
  await page.keyboard.press("Escape");
  await expect(open).toBeFocused();
  await open.click();
  await dialog.getByLabel("Names go to").fill("month");
  await dialog.getByLabel("Cells go to").fill("visitors");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Show it" }).click();
  const table = page.getByRole("table", { name: "visits_in_rows" });
  await expect(table.getByRole("row").nth(2)).toContainText(/North.*a.*2025-02.*20/);
  await expect(page.getByText("6 rows · 4 columns")).toBeVisible();
  await saved(page);

  await goTo(page, "Measures");
  await page
    .getByRole("navigation", { name: "Measures and inputs" })
    .getByRole("button", { name: "New measure" })
    .click();
  await choose(page.getByLabel("From table"), "visits_in_rows");
  await page.getByRole("textbox", { name: /^Formula of/ }).fill("sum(visitors)");
  await choose(page.getByLabel("Split by"), "month by month");
  const answers = page.getByRole("region", { name: "Answer table" });
  await expect(answers.getByRole("row").filter({ hasText: "Feb 2025" })).toContainText("22");
});

test("titles above the head are left out, said, and had back", async ({ page }) => {
  await openEmpty(page);
  await page
    .getByLabel("File with a table")
    .setInputFiles(
      csvFile(
        "takings.csv",
        "Takings of the quays;;;\nAs of;May;;\n\nquay;month;n;m\nNorth;May;12;1\nEast;May;7;2\n",
      ),
    );
  await expect(page.getByText("A row above the head was left out")).toHaveCount(0);
  await expect(
    page.getByText("2 rows above the head were left out: “Takings of the quays”, “As of May”."),
  ).toBeVisible();
  const table = page.getByRole("table", { name: "takings" });
  await expect(table.getByRole("columnheader", { name: /^quay/ })).toBeVisible();
  const above = page.getByLabel("Left out above");
  await expect(above).toHaveValue("2");
  await above.fill("many");
  await expect(page.getByText("Write how many rows are left out above the table: 0 to 999.")).toBeVisible();
  await above.fill("3");
  await above.press("Enter");
  await expect(table.getByRole("columnheader", { name: /^North/ })).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(table.getByRole("columnheader", { name: /^quay/ })).toBeVisible();
  await expect(above).toHaveValue("2");
});
