import { expect, test } from "@playwright/test";
import { changeDocument, choose, csvFile, goTo, openDemo, openEmpty, saved } from "./steps";

test("a measure with a mistake says what is wrong, offers the mend, and answers", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Measures");
  await page.getByRole("button", { name: "New measure" }).click();
  const editor = page.getByRole("textbox", { name: /Formula of New measure/ });
  await editor.fill("sum(pasengers) / 2");
  await expect(page.getByText("Did you mean passengers?").first()).toBeVisible();
  await page.getByRole("button", { name: "Use passengers" }).click();
  await expect(editor).toHaveText("sum(passengers) / 2");
  await expect(
    page.getByRole("region", { name: "Answer table" }).getByRole("row", { name: /Ferrow Isle/ }),
  ).toBeVisible();
  await editor.fill("delay_minutes");
  await expect(page.getByText("delay_minutes has one value per row here").first()).toBeVisible();
  await page.getByRole("button", { name: "Wrap it: avg(delay_minutes)" }).click();
  await choose(page.getByLabel("Split by"), "date by year");
  await expect(
    page.getByRole("region", { name: "Answer table" }).getByRole("row", { name: /2025/ }),
  ).toBeVisible();
});

test("a column that no link leads to says so at its place", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Measures");
  await page.getByRole("button", { name: "New measure" }).click();
  await page
    .getByRole("textbox", { name: /Formula of New measure/ })
    .fill("max(fares.passengers) / count(sailings.route)");
  await expect(page.getByText(/No link leads from sailings to fares/).first()).toBeVisible();
});

test("renaming a measure rewrites every formula that uses it, and one in use cannot vanish", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Measures");
  const list = page.getByRole("navigation", { name: "Measures and inputs" });
  await list.getByRole("button", { name: /^Seats/ }).click();
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Seats");
  await page.getByLabel("Name", { exact: true }).fill("Seats offered");
  await page.getByLabel("Name", { exact: true }).press("Enter");
  await expect(list.getByText("passengers_total / seats_offered")).toBeVisible();
  await page.getByRole("button", { name: "Remove the measure" }).click();
  await expect(page.getByText(/Seats offered is used in Load factor/)).toBeVisible();
});

test("names of columns and inputs are completed", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Measures");
  await page.getByRole("button", { name: "New measure" }).click();
  const editor = page.getByRole("textbox", { name: /Formula of New measure/ });
  await editor.fill("");
  await editor.pressSequentially("sum(fare");
  await page
    .getByRole("listbox", { name: "Completions" })
    .getByRole("option", { name: /fare_revenue/ })
    .click();
  await expect(editor).toHaveText("sum(fare_revenue");
  await editor.pressSequentially(") / :punct");
  await page
    .getByRole("listbox", { name: "Completions" })
    .getByRole("option", { name: /:punctuality_target/ })
    .click();
  await expect(editor).toHaveText("sum(fare_revenue) / :punctuality_target");
});

test("the answers begin with the best: with the lowest where lower is better", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Measures");
  const first = page.getByRole("region", { name: "Answer table" }).getByRole("row").nth(1);
  await expect(first).toContainText("Ferrow Isle");
  await choose(page.getByLabel("Better when"), "lower");
  await expect(first).toContainText("Skerry Light");
});

test("answers are put in order by any column, and back into the order of the answer", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Measures");
  await page
    .getByRole("button", { name: /^Passengers/ })
    .first()
    .click();
  await choose(page.getByLabel("Split by"), "route");
  const table = page.getByRole("region", { name: "Answer table" });
  const first = table.getByRole("row").nth(1).getByRole("cell").first();
  await expect(first).toHaveText("Ferrow Isle");
  await table.getByRole("button", { name: "route" }).click();
  await expect(table.getByRole("columnheader", { name: "route" })).toHaveAttribute("aria-sort", "ascending");
  await expect(first).toHaveText("Ferrow Isle");
  await table.getByRole("button", { name: "route" }).click();
  await expect(first).toHaveText("Upper Lanthorne Landing");
  await table.getByRole("button", { name: "route" }).click();
  await expect(table.getByRole("columnheader", { name: "route" })).toHaveAttribute("aria-sort", "none");
  await expect(first).toHaveText("Ferrow Isle");
});

test("a measure that is used in a hundred places leaves every list within reach", async ({ page }) => {
  const id = await openDemo(page);
  await changeDocument(page, id, ({ visuals, measures }) => ({
    visuals: [
      ...visuals,
      ...Array.from({ length: 100 }, (_, i) => ({ ...visuals[0], id: `copy-${i}`, name: `Copy ${i}` })),
    ],
    measures: [
      ...measures,
      ...Array.from({ length: 60 }, (_, i) => ({
        ...measures[0],
        id: `m-${i}`,
        name: `m_${i}`,
        label: `M ${i}`,
      })),
    ],
  }));
  await page.goto(`/p/${id}/measures`);
  await expect(page.getByText("Copy 99")).toBeAttached();
  for (const name of ["New measure", "New input"])
    await expect(page.getByRole("button", { name, exact: true })).toBeInViewport({ ratio: 1 });
  const list = page.getByRole("navigation", { name: "Measures and inputs" });
  await list.getByRole("button", { name: /^M 59/ }).hover();
  await expect(list.getByRole("button", { name: /^M 59/ })).toBeInViewport({ ratio: 1 });
  await page.getByRole("button", { name: "New measure", exact: true }).click();
  await expect(list.getByRole("button", { name: /^New measure .*count/ })).toBeInViewport({ ratio: 1 });
});

test("a text that is too long stays in its field and says so; nothing of it is cut off", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Measures");
  const note = page.getByRole("textbox", { name: "Note" });
  const long = "n".repeat(501);
  await note.fill(long);
  await expect(page.getByText("It has 501 characters, of 500 at most.")).toBeVisible();
  await note.blur();
  await expect(note).toHaveValue(long);
  await expect(page.getByRole("button", { name: "Undo" })).toBeDisabled();
  await note.fill(long.slice(1));
  await note.blur();
  await expect(page.getByText(/characters, of/)).toHaveCount(0);
  await saved(page);

  await goTo(page, "Data");
  const name = page.getByRole("region", { name: "Table" }).getByLabel("Name", { exact: true });
  await name.fill("t".repeat(121));
  await name.press("Enter");
  await expect(page.getByText("It has 121 characters, of 120 at most.")).toBeVisible();
  await name.press("Escape");
  await saved(page);

  await goTo(page, "Visuals");
  const title = page.getByRole("combobox", { name: "Title", exact: true });
  const words = "w".repeat(301);
  await title.fill(words);
  await title.press("Enter");
  await expect(page.getByText("It has 301 characters, of 300 at most.")).toBeVisible();
  await expect(title).toHaveValue(words);
  await title.press("Escape");
  await expect(title).not.toHaveValue(words);
  await saved(page);
});

test("a measure is tried under a year and by two splits, with the rows behind a group", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Measures");
  const answers = page.getByRole("region", { name: "Answer table" });
  await choose(page.getByLabel("And by"), "date by year");
  await expect(answers.getByRole("row", { name: /^Ferrow Isle · 2026/ })).toBeVisible();
  await page.getByRole("button", { name: "Filter: all rows" }).click();
  await choose(page.getByLabel("Column to filter by"), "date");
  await page.getByRole("button", { name: "Add the filter", exact: true }).click();
  await page.getByRole("checkbox", { name: "2025" }).check();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: "Filter: 2025" })).toBeVisible();
  await expect(answers.getByRole("row", { name: /^Ferrow Isle · 2026/ })).toHaveCount(0);
  const row = answers.getByRole("row", { name: /^Ferrow Isle · 2025/ });
  const count = await row.getByRole("cell").nth(1).textContent();
  await row.getByRole("button", { name: "Rows behind Ferrow Isle · 2025" }).click();
  const sheet = page.getByRole("dialog", { name: "Rows behind Passengers, Ferrow Isle · 2025" });
  await expect(sheet.getByRole("status")).toHaveText(`${count} rows`);
  await page.keyboard.press("Escape");
  await expect(row.getByRole("button")).toBeFocused();
});

test("a measure of a later table is told its table by its names; measures of two tables are split by what they share", async ({
  page,
}) => {
  const id = await openEmpty(page);
  for (const [name, cells] of [
    ["cases.csv", "Region,Cases\nNorth,40\nSouth,60\n"],
    ["deaths.csv", "Region,Deaths,Ward\nNorth,4\nSouth,12\n"],
  ]) {
    await page.locator("input[type=file]").first().setInputFiles(csvFile(name, cells));
    await expect(page.getByRole("navigation", { name: "Tables" }).getByText(name.slice(0, -4))).toBeVisible();
  }
  await goTo(page, "Measures");
  const made = async (label: string, formula: string) => {
    await page.getByRole("button", { name: "New measure" }).first().click();
    await page.getByRole("textbox", { name: "Name", exact: true }).fill(label);
    await page.getByRole("textbox", { name: "Name", exact: true }).press("Enter");
    await page.getByRole("textbox", { name: `Formula of ${label}` }).fill(formula);
  };
  await made("Cases", "sum(Cases)");
  await made("Deaths", "sum(Deaths)");
  await expect(page.getByLabel("From table")).toHaveText("deaths, as its names tell");
  await made("Fatality", "deaths / cases");
  await expect(page.getByLabel("From table")).toHaveText("several, as its names tell");
  const answers = page.getByRole("region", { name: "Answer table" });
  await expect(answers.getByRole("row", { name: /South/ })).toContainText("0.20");
  await made("Regions", "count(distinct Region)");
  await page.getByRole("button", { name: "Those of deaths" }).click();
  await expect(page.getByLabel("From table")).toHaveText("deaths");
  await expect(page.getByText("Whose rows are meant?")).toHaveCount(0);
  // Another program need not name a table either.
  await saved(page);
  const answer = await page.request.post(`/api/projects/${id}/results`, {
    data: { queries: [{ measures: [{ formula: "sum(Deaths)", as: "d" }] }] },
  });
  expect((await answer.json()).results[0].totals).toEqual({ d: 16 });
});
