import { expect, type Page, test } from "@playwright/test";
import { newInput, newInputControl } from "@/core/project/defaults";
import { changeDocument, choose, csvFile, goTo, openDemo, openEmpty, saved } from "./steps";

const donutOf = (page: Page) => page.getByRole("img", { name: /Passengers by route: donut/ });
const gaugeOf = (page: Page) => page.getByRole("img", { name: /On-time departures: gauge/ });

/** Puts a filter by a column on the demo's first board. */
async function withFilter(page: Page, column: string): Promise<string> {
  const id = await openDemo(page);
  await goTo(page, "Boards");
  await expect(donutOf(page).locator("path").first()).toBeVisible();
  await page.getByRole("button", { name: "Add a filter", exact: true }).click();
  await page
    .getByRole("group", { name: "Filter the board by" })
    .getByRole("button", { name: column, exact: true })
    .click();
  return id;
}

test("a stretch of numbers is set by two thumbs that keep the focus, over a histogram, and reset", async ({
  page,
}) => {
  await withFilter(page, "sailings · delay_minutes");
  const from = page.getByRole("slider", { name: "Delay minutes from" });
  const to = page.getByRole("slider", { name: "Delay minutes to" });
  await expect(from).toBeEnabled();
  const group = page.getByRole("group", { name: "Delay minutes" });
  await expect(group.locator("svg rect")).toHaveCount(24);
  await from.focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press("ArrowRight");
  await expect(from).toBeFocused();
  await expect(from).toHaveValue("3");
  await expect(page).toHaveURL(/from\.[\w-]+=3/);
  await expect(donutOf(page)).not.toHaveAttribute("aria-label", /total 5.299.291/);
  // One thumb does not pass the other.
  await to.focus();
  await page.keyboard.press("Home");
  await expect(to).toHaveValue("3");
  await page.keyboard.press("End");
  await from.focus();
  await page.keyboard.press("Home");
  await expect(donutOf(page)).toHaveAttribute("aria-label", /total 5.299.291/);
  // All that was one thing: a step back is before it.
  await page.goBack();
  await expect(page).not.toHaveURL(/from\./);
});

for (const place of ["in the application", "on a page of its own"] as const)
  test(`a thumb that is dragged is one step of going back, ${place}`, async ({ page }) => {
    const id = await withFilter(page, "sailings · delay_minutes");
    if (place === "on a page of its own") {
      await saved(page);
      const { project } = await (await page.request.get(`/api/projects/${id}`)).json();
      await page.goto(`/p/${id}/present/${project.document.boards[0].id}`);
    }
    const from = page.getByRole("slider", { name: "Delay minutes from" });
    await expect(from).toBeEnabled();
    await expect(donutOf(page)).toHaveAttribute("aria-label", /total 5.299.291/);
    const steps = () => page.evaluate(() => window.history.length);
    const before = await steps();
    const begun = await from.inputValue();
    const { x, y, width, height } = (await from.boundingBox()) as NonNullable<
      Awaited<ReturnType<typeof from.boundingBox>>
    >;
    await page.mouse.move(x + 4, y + height / 2);
    await page.mouse.down();
    const values = new Set<string>();
    for (let i = 1; i <= 8; i++) {
      await page.mouse.move(x + 4 + (i * width) / 16, y + height / 2);
      values.add(await from.inputValue());
    }
    await page.mouse.up();
    expect(values.size).toBeGreaterThan(5);
    await expect(page).toHaveURL(new RegExp(`from\\.[\\w-]+=${await from.inputValue()}(&|$)`));
    await expect(donutOf(page)).not.toHaveAttribute("aria-label", /total 5.299.291/);
    expect(await steps()).toBe(before + 1);
    await page.goBack();
    await expect(page).not.toHaveURL(/from\./);
    await expect(donutOf(page)).toHaveAttribute("aria-label", /total 5.299.291/);
    // Though it still has the focus, the thumb goes back too.
    await expect(from).toHaveValue(begun);
  });

test("a list finds a value by its name, has the counts of the rows that are left, and takes several", async ({
  page,
}) => {
  await withFilter(page, "sailings · vessel");
  await page.getByRole("button", { name: "Arrange" }).click();
  const row = page.getByRole("group", { name: "Control Vessel" });
  await choose(row.getByLabel("Form of Vessel"), "List with search");
  await page.getByRole("button", { name: "Arrange" }).click();
  const list = page.getByRole("button", { name: /^Vessel: / });
  await list.click();
  const find = page.getByRole("searchbox", { name: "Find in Vessel" });
  await expect(find).toBeFocused();
  await find.fill("bess");
  const entries = page.getByRole("group", { name: "Vessel", exact: true }).getByRole("checkbox");
  await expect(entries).toHaveCount(1);
  await expect(page.getByText(/20.533/)).toBeVisible();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Space");
  await expect(page.getByRole("checkbox", { name: /Old Bess/ })).toBeChecked();
  await find.fill("tern");
  await page.getByRole("checkbox", { name: /^Tern/ }).check();
  await page.keyboard.press("Escape");
  await expect(list).toHaveText("Old Bess, Tern");
  await expect(donutOf(page)).not.toHaveAttribute("aria-label", /total 5.299.291/);
  // Under a route that a vessel never sails, it is not offered.
  await page.getByRole("group", { name: "Route" }).getByRole("button", { name: "Ferrow Isle" }).click();
  await list.click();
  await expect(page.getByText(/20.533/)).toHaveCount(0);
});

test("dates are a stretch in words or from day to day, counted from the newest row or from today", async ({
  page,
}) => {
  await withFilter(page, "sailings · vessel");
  await page.getByRole("button", { name: "Arrange" }).click();
  await choose(page.getByLabel("Form of Year"), "Dates");
  await page.getByRole("button", { name: "Arrange" }).click();
  const dates = page.getByRole("button", { name: /^Year: / });
  await dates.click();
  // Counted from the newest row, a stretch holds that row's month.
  await page.getByRole("radio", { name: "the last 3 months, with the newest row", exact: true }).check();
  await expect(dates).toHaveText("Apr – Jun 2026: the last 3 months, with the newest row");
  await expect(page).toHaveURL(/span\.year=month\+-2\+0\+newest/);
  await expect(donutOf(page)).not.toHaveAttribute("aria-label", /total 5.299.291/);
  await page.keyboard.press("Escape");
  await dates.click();
  await page.getByLabel("Year from").fill("2025-03-01");
  await expect(dates).toHaveText("from 2025-03-01");
  await expect(page).toHaveURL(/from\.year=2025-03-01/);
  await page.reload();
  await expect(dates).toHaveText("from 2025-03-01");
});

test("a control does not reach a tile that it leaves, and one over a column that went says so, with a mend", async ({
  page,
}) => {
  const id = await withFilter(page, "sailings · vessel");
  await page.getByRole("button", { name: "Arrange" }).click();
  const row = page.getByRole("group", { name: "Control Year" });
  // Wherever its button stands, a list opens into the window.
  await page.setViewportSize({ width: 1280, height: 560 });
  await row.getByRole("button", { name: "reaches 5 of 5" }).click();
  await expect(page.getByRole("group", { name: "Tiles that Year reaches" })).toBeInViewport({ ratio: 0.9 });
  await page
    .getByRole("group", { name: "Tiles that Year reaches" })
    .getByRole("checkbox", { name: "Passengers by route" })
    .uncheck();
  await page.keyboard.press("Escape");
  await expect(row.getByRole("button", { name: "reaches 4 of 5" })).toBeVisible();
  await page.getByRole("button", { name: "Move Vessel forward" }).click();
  await page.getByRole("button", { name: "Arrange" }).click();
  const gauge = await gaugeOf(page).getAttribute("aria-label");
  await page.getByRole("group", { name: "Year" }).getByRole("button", { name: "2026" }).click();
  await expect(gaugeOf(page)).not.toHaveAttribute("aria-label", gauge ?? "");
  await expect(donutOf(page)).toHaveAttribute("aria-label", /total 5.299.291/);
  await expect(page.getByText("whole for Year")).toBeVisible();
  await saved(page);

  const { project } = await (await page.request.get(`/api/projects/${id}`)).json();
  const { document, revision } = project;
  for (const control of document.boards[0].controls) if (control.id === "route") control.column = "gone";
  const put = await page.request.put(`/api/projects/${id}`, { data: { document, revision } });
  expect(put.status()).toBe(200);
  await page.goto(`/p/${id}/boards`);
  await expect(page.getByText("sailings has no column gone any more")).toBeVisible();
  await expect(donutOf(page)).toHaveAttribute("aria-label", /total 5.299.291/);
  await page.getByRole("button", { name: "Arrange" }).click();
  await expect(page.getByText("Remove this filter, or bring the column back.")).toBeVisible();
  await page.getByRole("button", { name: "Remove the control Route" }).click();
  await expect(page.getByText("any more")).toHaveCount(0);
});

test("a text is looked for as it is typed, in a table that nobody made for it", async ({ page }) => {
  await openEmpty(page);
  const rows = Array.from({ length: 400 }, (_, i) => `"name, ${i} <b>","${i % 7 ? "x" : ""}",${i}`);
  await page
    .getByLabel("File with a table")
    .setInputFiles(csvFile("odd.csv", `constructor,true,__proto__\n${rows.join("\n")}\n`));
  await page.getByRole("link", { name: "Draw this table" }).click();
  await page.getByRole("button", { name: /^Number/ }).click();
  await page.getByRole("button", { name: "Put on a new board" }).click();
  await page.getByRole("button", { name: /^Open New board/ }).click();
  await page.getByRole("button", { name: "Add a filter", exact: true }).click();
  await page.getByRole("button", { name: "constructor", exact: true }).click();
  await page.getByRole("button", { name: "Arrange" }).click();
  await choose(page.getByLabel("Form of Constructor"), "Text");
  await page.getByRole("button", { name: "Arrange" }).click();
  const picture = page.getByRole("region", { name: "Board" }).getByRole("img").first();
  const before = await picture.getAttribute("aria-label");
  const field = page.getByRole("searchbox", { name: "Constructor contains" });
  await field.fill("39 <B>");
  await expect(picture).not.toHaveAttribute("aria-label", before ?? "");
  await expect(page).toHaveURL(/with\.[\w-]+=39/);
  // Though it has the focus, the field goes back too; what is being typed stays.
  await expect(field).toBeFocused();
  await page.goBack();
  await expect(picture).toHaveAttribute("aria-label", before ?? "");
  await expect(field).toHaveValue("");
  await page.goForward();
  await expect(field).toHaveValue("39 <B>");
  await field.fill("");
  await expect(picture).toHaveAttribute("aria-label", before ?? "");
  // A text that is cut to its longest ends in a whole character.
  const long = `${"a".repeat(199)}😀`;
  await field.fill(long.slice(0, 199));
  await expect(page).toHaveURL(/with\.[\w-]+=a{199}/);
  await page.goto(page.url().replace(/a{199}/, encodeURIComponent(long)));
  await expect(field).toHaveValue("a".repeat(199));
  await expect(picture).not.toHaveAttribute("aria-label", before ?? "");
});

test("a text and a date that are typed keep what is being typed, and follow who goes back", async ({
  page,
}) => {
  const id = await openDemo(page);
  const { boards } = await changeDocument(page, id, ({ inputs, boards: [first, ...others] }) => {
    const more = [
      newInput({ id: "note", name: "note", label: "Note", type: "text", value: "none" }),
      newInput({ id: "day", name: "day", label: "Day", type: "date", value: "2026-05-04" }),
    ];
    const controls = more.map((i) => newInputControl({ id: `c-${i.id}`, input: i.id }));
    return {
      inputs: [...inputs, ...more],
      boards: [{ ...first, controls: [...first.controls, ...controls] }, ...others],
    };
  });
  await page.goto(`/p/${id}/present/${boards[0].id}`);
  const note = page.getByRole("textbox", { name: "Note" });
  const day = page.getByLabel("Day", { exact: true });
  await note.fill("half");
  await note.press("Enter");
  await expect(page).toHaveURL(/=half/);
  await day.fill("2026-06-01");
  await day.press("Enter");
  await expect(page).toHaveURL(/2026-06-01/);
  await expect(day).toBeFocused();
  await page.goBack();
  await expect(day).toHaveValue("2026-05-04");
  await note.focus();
  await page.goBack();
  await expect(page).not.toHaveURL(/=half/);
  await expect(note).toHaveValue("none");
  await note.fill("being typed");
  await page.goForward();
  await expect(page).toHaveURL(/=half/);
  await expect(note).toHaveValue("being typed");
  await note.press("Escape");
  await expect(note).toHaveValue("half");
});
