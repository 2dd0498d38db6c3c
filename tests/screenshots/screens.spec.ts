import { expect, type Page, test } from "@playwright/test";

const folder = "docs/screenshots";

/** Waits until nothing is being computed and the letters are there. */
async function settled(page: Page): Promise<void> {
  await expect(page.getByText("computing")).toHaveCount(0);
  await page.evaluate(() => document.fonts.ready);
}

async function open(page: Page, path: string, ready: string | RegExp): Promise<void> {
  const { projects } = await (await page.request.get("/api/projects")).json();
  await page.goto(`/p/${projects[0].id}/${path}`);
  await expect(page.getByText(ready, { exact: true }).first()).toBeVisible();
  await settled(page);
}
const shoot = (page: Page, name: string) => page.screenshot({ path: `${folder}/${name}.png` });

test("the main views", async ({ page }) => {
  await open(page, "data", "Ferrow Isle");
  await page
    .getByRole("table", { name: "sailings" })
    .getByRole("button", { name: "route", exact: true })
    .click();
  await expect(page.getByText("912 distinct")).toBeVisible();
  await expect(page.getByRole("checkbox", { name: "Ferrow Isle" })).toBeVisible();
  await shoot(page, "data");
  await page.getByRole("button", { name: /^Links/ }).click();
  await expect(page.getByText(/all .* rows match/).first()).toBeVisible();
  await shoot(page, "data-links");
  await open(page, "measures?measure=load_factor", "Ferrow Isle");
  await shoot(page, "measures");
  await open(page, "visuals?visual=passengers-by-route", "Ferrow Isle");
  await expect(page.getByText("40 categories")).toBeVisible();
  await shoot(page, "visuals-donut");
  await open(page, "visuals?visual=on-time-departures", "watch");
  await shoot(page, "visuals-gauge");
  await open(page, "visuals?visual=on-time-by-route", "watch");
  await shoot(page, "visuals-lollipop");
  await page.getByRole("button", { name: "New visual" }).click();
  await expect(page.getByRole("heading", { name: "New visual" })).toBeVisible();
  await expect(
    page.getByRole("region", { name: "New visual" }).getByText("2025", { exact: true }).first(),
  ).toBeVisible();
  await shoot(page, "gallery");
  await open(page, "boards", "Ferrow Isle");
  await shoot(page, "boards");
  await open(page, "boards?board=routes", "Ferrow Isle");
  await shoot(page, "boards-routes");
  await open(page, "boards", "Ferrow Isle");
  await page.getByRole("button", { name: "Arrange" }).click();
  await page.getByRole("group", { name: /Tile Passengers by route/ }).click();
  await page.getByRole("group", { name: /Tile On-time departures/ }).click({ modifiers: ["Shift"] });
  await page.getByRole("button", { name: "Put a section around" }).click();
  await page.getByRole("textbox", { name: "Title" }).fill("Who came, and when");
  await page.getByRole("textbox", { name: "Title" }).press("Enter");
  await shoot(page, "boards-arrange");
  // All other pictures are of the demo as it is.
  for (let i = 0; i < 2; i++) await page.getByRole("banner").getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("banner").getByText("Saved", { exact: true })).toBeVisible();
  await open(page, "hand-off?as=element", "Passengers by route");
  await expect(page.getByRole("status").filter({ hasText: "ready" })).toBeVisible();
  await shoot(page, "hand-off");
});

for (const theme of ["light", "night"]) {
  test(`the contact sheet, ${theme}`, async ({ page }) => {
    await page.addInitScript((name) => localStorage.setItem("cavlo.theme", name), theme);
    await page.setViewportSize({ width: 1700, height: 2280 });
    await open(page, "contact-sheet", "Ledger");
    await expect(page.getByRole("img", { name: /, Plain$/ })).toHaveCount(12);
    await shoot(page, theme === "light" ? "contact-sheet" : "contact-sheet-night");
  });
}

const FUEL = `route,litres,taken_on,own_pump,vessel_no
${["Ferrow Isle", "North Quay", "Gannet Sound", "Old Pier", "Marl Point", "Skerry Light"].map((route, i) => `${route},${i + 1}.${340 + 57 * i},0${i + 1}/0${(i % 4) + 5}/2026,${i % 2},0${410 + i}`).join("\n")}
`;

test("what a file leaves open, and what is kept", async ({ page }) => {
  await open(page, "data", "Ferrow Isle");
  await page
    .getByLabel("File with a table")
    .setInputFiles({ name: "fuel.csv", mimeType: "text/csv", buffer: Buffer.from(FUEL) });
  await page.getByRole("button", { name: "Show it" }).click();
  await expect(page.getByRole("button", { name: "Read “litres” the other way" })).toBeVisible();
  await expect(page.getByText("4.511").first()).toBeVisible();
  await settled(page);
  await shoot(page, "data-doubts");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("banner").getByText("Saved", { exact: true })).toBeVisible();
  const { project } = await (
    await page.request.post("/api/projects", { data: { name: "Winter timetable, first draft" } })
  ).json();
  await page.request.delete(`/api/projects/${project.id}`);
  await page.goto("/");
  await page.getByRole("button", { name: "Check everything" }).click();
  await expect(page.getByText("is as it was written")).toBeVisible();
  await shoot(page, "projects");
});

test("the board at night, and on a phone", async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem("cavlo.theme", "night"));
  await open(page, "boards", "Ferrow Isle");
  await shoot(page, "boards-night");
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, "boards?present=1", "Ferrow Isle");
  await shoot(page, "boards-phone");
});

test("what is picked, lit up in the others, and the rows behind it", async ({ page }) => {
  const pick = "pick.passengers-by-route=North+Quay&lit.passengers-by-route=part";
  await open(page, `boards?board=season-at-a-glance&${pick}`, "Ferrow Isle");
  await expect(page.getByText("keeps only what is picked").first()).toBeVisible();
  await settled(page);
  await shoot(page, "boards-picked");
  await page.getByRole("button", { name: "More of On-time departures" }).focus();
  await page.keyboard.press("Enter");
  await page.getByRole("menuitem", { name: "Rows behind On-time departures" }).click();
  await expect(page.getByText("Old Bess").first()).toBeVisible();
  await settled(page);
  await shoot(page, "boards-rows");
});
