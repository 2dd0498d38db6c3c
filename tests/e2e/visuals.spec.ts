import { expect, type Page, test } from "@playwright/test";
import { changeDocument, choose, goTo, openDemo, openVisual, saved } from "./steps";

async function newVisual(page: Page, measure: string, kind: string) {
  await page.getByRole("button", { name: "New visual" }).click();
  await choose(page.getByLabel("Show", { exact: true }), measure);
  await page
    .getByRole("region", { name: "New visual" })
    .getByRole("button", { name: kind, exact: true })
    .click();
}
const stage = (page: Page) => page.getByRole("region", { name: "Stage" });

test("a donut from nothing: split, first three and Other, the segment under the pointer in the centre", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await newVisual(page, "Fare revenue", "Donut");
  await page.getByRole("button", { name: /^Split:/ }).click();
  await page.getByRole("option", { name: "vessel", exact: true }).click();
  await page.getByRole("button", { name: /^Keep:/ }).click();
  await page.getByRole("textbox", { name: "The first" }).fill("3");
  await page.keyboard.press("Enter");
  await expect(stage(page).getByRole("img")).toHaveAttribute(
    "aria-label",
    /donut of Fare revenue, total €30.*4 segments/,
  );
  await expect(stage(page).locator("svg").getByText("Other")).toBeVisible();
  // The share stands in the middle of its segment.
  const box = await stage(page)
    .getByText(/^\d+.%$/)
    .first()
    .boundingBox();
  if (!box) throw new Error("no share is drawn");
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await expect(
    stage(page)
      .locator("svg")
      .getByText(/· \d+(\.\d)?.%$/),
  ).toBeVisible();
});

test("a gauge from nothing: target, range and zones by keyboard, a handle by arrow keys", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await newVisual(page, "Load factor", "Gauge");
  await expect(stage(page).getByRole("img")).toHaveAttribute(
    "aria-label",
    /gauge of Load factor, 53\.\d.% on a scale from 0\.0.% to 100\.0.%\.$/,
  );
  await page.getByRole("button", { name: /^Target:/ }).focus();
  await page.keyboard.press("Enter");
  await page.getByLabel("A number").fill("60");
  await page.keyboard.press("Enter");
  // It could be 60 % or 6,000 %: the likeliest is one more Enter away, and the other beside it.
  await expect(page.getByRole("button", { name: "60\u2009%", exact: true })).toBeFocused();
  await expect(page.getByRole("button", { name: /^6\s000\s%$/ })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(stage(page).getByRole("img")).toHaveAttribute("aria-label", /target 60\.0/);
  await page.getByRole("button", { name: "with zones …" }).click();
  await expect(stage(page).getByRole("img")).toHaveAttribute("aria-label", /in the zone poor/);
  const edge = stage(page).getByRole("slider", { name: "Edge of poor" });
  await edge.focus();
  for (let i = 0; i < 2; i++) await page.keyboard.press("PageDown");
  await expect(edge).toHaveAttribute("aria-valuetext", "zone 50.0\u2009%");
  await expect(stage(page).getByRole("img")).toHaveAttribute("aria-label", /in the zone watch/);
});

test("a progress bar from nothing, and what it does past its goal", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await newVisual(page, "Passengers", "Progress bar");
  const picture = stage(page).getByRole("img");
  await expect(picture).toHaveAttribute(
    "aria-label",
    /progress bar of Passengers against 6.000.000, 5.299.291 \(88.%\)/,
  );
  await page.getByRole("button", { name: /^Target:/ }).click();
  await page.getByLabel("A number").fill("4000000");
  await page.keyboard.press("Enter");
  await expect(picture).toHaveAttribute("aria-label", /132.%.*past the target/);
  await expect(
    stage(page)
      .locator("svg")
      .getByText(/past the target/),
  ).toBeVisible();
  await choose(page.getByLabel("Past the target", { exact: true }), "extend");
  await saved(page);
  await page.getByRole("button", { name: "Zero", exact: true }).click();
  await expect(picture).toHaveAttribute("aria-label", /0 \(0.%\)/);
});

test("changing the kind keeps the dials and phrases that both kinds have", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await openVisual(page, "Passengers by route");
  await page.getByRole("button", { name: /^Kind:/ }).click();
  await page.getByRole("option", { name: "Progress bar" }).click();
  await expect(stage(page).getByRole("img")).toHaveAttribute(
    "aria-label",
    /progress bar of Passengers, Ferrow Isle/,
  );
  await page.getByRole("button", { name: /^Kind:/ }).click();
  await page.getByRole("option", { name: "Donut" }).click();
  await expect(stage(page).getByText("passengers", { exact: true })).toBeVisible();
});

test("a template with an unknown name says so and is not taken", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  const title = page
    .getByRole("region", { name: "Visual", exact: true })
    .getByLabel("Title", { exact: true });
  await title.fill("Carried: {totl}");
  await title.press("Enter");
  await expect(page.getByText("Did you mean {total}?")).toBeVisible();
  await title.press("Escape");
  await expect(title).toHaveValue("{measure} by {split}");
});

test("a handle is dragged with the pointer, and the picture and the dial follow", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  const hole = stage(page).getByRole("slider", { name: "Hole" });
  await expect(hole).toHaveAttribute("aria-valuenow", "62");
  // Where it stands is read once nothing around it moves any more.
  await hole.hover();
  const box = await hole.boundingBox();
  const picture = await stage(page).getByRole("img").boundingBox();
  if (!box || !picture) throw new Error("the handle is not drawn");
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  // The handle stands at the lower edge of the hole: towards the middle the hole shrinks.
  await page.mouse.move(x, y - 15, { steps: 3 });
  await page.mouse.move(x, y - 30, { steps: 3 });
  await page.mouse.up();
  const now = Number(await hole.getAttribute("aria-valuenow"));
  expect(now).toBeGreaterThan(30);
  expect(now).toBeLessThan(50);
  await expect(page.getByRole("region", { name: "Ring" }).getByRole("textbox", { name: "Hole" })).toHaveValue(
    `${now}%`,
  );
  await page.getByRole("banner").getByRole("button", { name: "Undo" }).click();
  await expect(hole).toHaveAttribute("aria-valuenow", "62");
});

test("filters in the sentence: nothing is lost before a value is ticked; a text, a linked column and a stretch of dates", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  const total = (text: RegExp) => expect(stage(page).getByRole("img")).toHaveAttribute("aria-label", text);
  await total(/total 5.299.291/);
  await page.getByRole("button", { name: /^Filter:/ }).click();
  await choose(page.getByLabel("Column to filter by"), "route");
  await page.getByRole("button", { name: "Add the filter", exact: true }).click();
  await total(/total 5.299.291/);
  const route = page.getByRole("group", { name: "Filter on route" });
  await route.getByRole("checkbox", { name: "Old Pier" }).check();
  await expect(page.getByRole("button", { name: "Filter: Old Pier" })).toBeVisible();
  await route.getByRole("checkbox", { name: "Old Pier" }).uncheck();
  await total(/total 5.299.291/);
  await choose(route.getByLabel("How route is filtered"), "contains");
  await route.getByLabel("Text in route").fill("quay");
  await route.getByLabel("Text in route").press("Enter");
  await total(/donut of Passengers, total [\d\u2009]+, 1 segment/);
  await page.getByRole("button", { name: "Remove the filter on route" }).click();
  await choose(page.getByLabel("Column to filter by"), "routes.landing");
  await page.getByRole("button", { name: "Add the filter", exact: true }).click();
  await page.getByRole("checkbox", { name: "Marl Ramp" }).check();
  await total(/1 segment/);
  await page.getByRole("button", { name: "Remove the filter on routes.landing" }).click();
  await choose(page.getByLabel("Column to filter by"), "date");
  await page.getByRole("button", { name: "Add the filter", exact: true }).click();
  const date = page.getByRole("group", { name: "Filter on date" });
  await choose(date.getByLabel("How date is filtered"), "relative");
  await expect(
    page.getByRole("button", { name: "Filter: date: the last 3 months of its dates" }),
  ).toBeVisible();
  await total(/total [34]\d\d.\d\d\d|total 5\d\d.\d\d\d|total 6\d\d.\d\d\d/);
});

test("a caption is written with names that are offered, and says what they stand for", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  const title = page.getByRole("combobox", { name: "Title", exact: true });
  await title.fill("Fares: {rev");
  const names = page.getByRole("listbox", { name: "Names" });
  await expect(names.getByRole("option", { name: /^revenue/ })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(title).toHaveValue("Fares: {revenue}");
  await title.press("End");
  await title.pressSequentially(", {split} {filters}");
  await page.keyboard.press("Enter");
  await expect(stage(page).getByText(/^Fares: €[\d\u2009.,]+.*, route all rows$/)).toBeVisible();
  // What is unknown is said, and nothing changes; Escape takes the old text back.
  await title.fill("{nobody} {x}");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "nothing called “nobody”" })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(title).toHaveValue("Fares: {revenue}, {split} {filters}");
});

test("a number that can mean a share or a percent is asked about, and edges come from inputs", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await page.getByRole("button", { name: "On-time departures" }).click();
  await page.getByRole("button", { name: "Edge of zone 1: 75.0\u2009%" }).click();
  const edge = page.getByRole("textbox", { name: "Zone 1 ends at", exact: true });
  await edge.fill("0.7");
  await edge.press("Enter");
  await expect(page.getByRole("button", { name: "0.7\u2009%" })).toBeVisible();
  await page.getByRole("button", { name: "70\u2009%" }).click();
  await expect(edge).toHaveValue("70 %");
  await edge.fill("60");
  await edge.press("Enter");
  await expect(page.getByRole("button", { name: /^6\s000\s%$/ })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(edge).toHaveValue("70 %");
  await expect(edge).toBeFocused();
  await page.getByRole("button", { name: "Zone 2 ends at, from a measure or an input" }).click();
  await page.getByRole("option", { name: /^Punctuality target/ }).click();
  await page.keyboard.press("Escape");
  await expect(
    page.getByRole("button", { name: "Edge of zone 2: punctuality target 92\u2009%" }),
  ).toBeVisible();
  // Shares of the range mean the same edge.
  await choose(page.getByRole("combobox", { name: "Edges are" }), "shares of the range");
  await expect(page.getByRole("button", { name: "Edge of zone 1: 70\u2009%" })).toBeVisible();
});

test("an Undo that comes after other edits takes none of them back in its place", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  const list = page.getByRole("navigation", { name: "Visuals" });
  await expect(list.getByRole("button", { name: "Passengers by route" })).toBeVisible();
  await page.getByRole("button", { name: "Remove this visual" }).click();
  await expect(list.getByRole("button", { name: "Passengers by route" })).toBeHidden();
  const name = page.getByRole("region", { name: "Visual", exact: true }).getByLabel("Name", { exact: true });
  await name.fill("Renamed since");
  await name.press("Enter");
  const told = page.getByRole("listitem").filter({ hasText: "is removed." });
  await told.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("Other edits came after it.")).toBeVisible();
  await expect(list.getByRole("button", { name: "Renamed since" })).toBeVisible();
  await expect(list.getByRole("button", { name: "Passengers by route" })).toBeHidden();
});

test("the sentence says to what readers step down: finer stretches first, changed and taken out in place", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  const sentence = page.getByRole("button", { name: /^Steps down/ });
  await expect(sentence).toHaveText(["then vessel", "then date by year", "then …"]);
  await sentence.last().click();
  const choices = page.getByRole("dialog").getByRole("option");
  await expect(choices.first()).toHaveText("date by quarter");
  await choices.filter({ hasText: "date by month" }).click();
  await expect(sentence).toHaveText(["then vessel", "then date by year", "then date by month", "then …"]);
  await sentence.nth(1).click();
  await page.getByRole("option", { name: "Take it out" }).click();
  await expect(sentence).toHaveText(["then vessel", "then date by month", "then …"]);
  await page.getByRole("banner").getByRole("button", { name: "Undo" }).click();
  await expect(sentence).toHaveText(["then vessel", "then date by year", "then date by month", "then …"]);
});

test("a dial says what the picture has in its place, and refuses what lies past its ends", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await openVisual(page, "Season progress");
  const reading = page.getByRole("region", { name: "Number and caption" });
  const size = reading.getByLabel("Size", { exact: true });
  await size.fill("300");
  await expect(reading.getByText("From 9 px to 120 px.")).toBeVisible();
  await size.press("Enter");
  await expect(size).toHaveValue("300");
  await size.fill("120 px");
  await size.press("Enter");
  await expect(reading.getByText(/^Drawn at \d+ px at this size$/)).toBeVisible();
  await expect(reading.getByLabel("Size slider")).toHaveAttribute(
    "aria-valuetext",
    /120 px, Drawn at \d+ px/,
  );
  await size.fill("20");
  await size.press("Enter");
  await expect(reading.getByText(/^Drawn at/)).toHaveCount(0);
});

test("the number in the middle is of the ring that is pointed at, by keyboard too", async ({ page }) => {
  const id = await openDemo(page);
  await changeDocument(page, id, (document) => ({
    visuals: document.visuals.map((v) =>
      v.id === "passengers-by-route" ? { ...v, more: ["sailings_run"], series: null } : v,
    ),
  }));
  await page.goto(`/p/${id}/visuals?visual=passengers-by-route`);
  const stage = page.getByRole("region", { name: "Stage" });
  const picture = stage.getByRole("img");
  await expect(picture).toHaveAttribute(
    "aria-label",
    /^Passengers and Sailings run by route: donut with 2 rings/,
  );
  const marks = stage.getByRole("listbox", { name: /^Marks of/ });
  await marks.focus();
  const options = marks.getByRole("option");
  const seen = new Set<string>();
  for (let i = 0; i < 9; i++) {
    await page.keyboard.press("ArrowRight");
    // The mark that the keys have come to is the one that is told.
    await expect(marks).toHaveAttribute(
      "aria-activedescendant",
      (await options.nth(i).getAttribute("id")) ?? "",
    );
    await expect(options.nth(i)).toHaveText(/^.+, (Passengers|Sailings run) [\d\s]+, Share/);
    const [, measure, value] =
      /, (Passengers|Sailings run) ([\d\s]+),/.exec((await options.nth(i).textContent()) ?? "") ?? [];
    await expect(
      picture
        .locator("text")
        .filter({ hasText: new RegExp(`^${value.replaceAll(/\s/g, ".")}$`) })
        .first(),
    ).toBeVisible();
    await expect(picture.locator("text").filter({ hasText: measure }).last()).toBeVisible();
    seen.add(measure);
  }
  expect(seen.size).toBe(2);
});

test("what people call things is found in the gallery and from anywhere, and begins with the dials that make it", async ({
  page,
}) => {
  await openDemo(page);
  await page.getByRole("button", { name: "Go to anything" }).click();
  await page.getByPlaceholder(/make a pie/).fill("speedom");
  await page.getByRole("option", { name: "Speedometer gauge" }).click();
  const gallery = page.getByRole("region", { name: "New visual" });
  await expect(gallery.getByLabel("As", { exact: true })).toHaveValue("Speedometer");
  await gallery.getByLabel("As", { exact: true }).fill("pie");
  await gallery.getByRole("button", { name: "Pie", exact: true }).click();
  await expect(page.getByRole("slider", { name: "Hole", exact: true })).toHaveAttribute("aria-valuenow", "0");
  await expect(page.getByRole("slider", { name: "Hole slider" })).toHaveValue("0");
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue(/ by /);
});
