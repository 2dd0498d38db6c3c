import { expect, type Page, test } from "@playwright/test";
import { goTo, openDemo } from "./steps";

const donutOf = (page: Page) => page.getByRole("img", { name: /Passengers by route: donut/ });
const sheetOf = (page: Page) => page.getByRole("dialog", { name: /^Rows behind/ });

/** Opens the rows behind a mark of the donut by keyboard: the first, or the last with End. */
async function behindMark(page: Page, key: "Home" | "End", name: string) {
  await page.getByRole("listbox", { name: "Marks of Passengers by route" }).focus();
  await page.keyboard.press(key);
  await page.keyboard.press("Shift+F10");
  await page.getByRole("menuitem", { name: `Rows behind ${name}`, exact: true }).click();
  await expect(sheetOf(page)).toBeVisible();
}

test("the rows behind a segment add up to it, are sorted, found in and taken, and the focus comes back", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Boards");
  await expect(donutOf(page).locator("path").first()).toBeVisible();
  await behindMark(page, "Home", "Ferrow Isle");
  const sheet = sheetOf(page);
  await expect(sheet.getByRole("heading")).toHaveText("Rows behind Ferrow Isle");
  // The figure of the segment, and the sum below its column.
  await expect(sheet.locator("tfoot")).toContainText(/1.321.014/);
  await expect(sheet).toContainText("Ferrow Isle");
  await expect(sheet).toContainText("Passengers: ");
  const firstRow = sheet.locator("tbody tr[aria-rowindex='2']");
  await expect(firstRow).toContainText("Ferrow Isle");

  const sort = sheet.getByRole("button", { name: "passengers", exact: true });
  await sort.click();
  await sort.click();
  await expect(sheet.getByRole("columnheader", { name: "passengers" })).toHaveAttribute(
    "aria-sort",
    "descending",
  );
  await expect(sort).toBeFocused();
  await sheet.getByRole("searchbox", { name: "Find in the rows" }).fill("Old Bess");
  await expect(sheet.getByRole("status")).toContainText(/rows of .+ rows/);
  await expect(firstRow).toContainText("Old Bess");
  // Far down, what is not there yet is asked for.
  await sheet.getByRole("region", { name: "Rows of sailings" }).evaluate((list) => {
    list.scrollTop = list.scrollHeight / 2;
  });
  await expect
    .poll(() => sheet.locator("tbody tr[aria-rowindex]").nth(5).textContent())
    .toContain("Old Bess");

  const [file] = await Promise.all([
    page.waitForEvent("download"),
    sheet.getByRole("link", { name: "Take CSV" }).click(),
  ]);
  const text = Buffer.concat(await (await file.createReadStream()).toArray()).toString("utf8");
  const [head, ...rows] = text.trim().split("\n");
  const at = head.trim().split(",").indexOf("passengers");
  const total = rows.reduce((sum, row) => sum + Number(row.split(",")[at]), 0);
  expect(total).toBe(1_321_014);
  await page.keyboard.press("Escape");
  await expect(sheet).toHaveCount(0);
  await expect(page.getByRole("listbox", { name: "Marks of Passengers by route" })).toBeFocused();
});

test("the rows behind Other and behind a ratio: all that made it, with its formula and numbers put in", async ({
  page,
}) => {
  const id = await openDemo(page);
  await page.goto(`/p/${id}/present/season-at-a-glance`);
  await expect(page.getByRole("button", { name: "Close" })).toBeVisible();
  await behindMark(page, "End", "Other");
  await expect(sheetOf(page).locator("tfoot")).toContainText(/382.452/);
  await expect(sheetOf(page)).toContainText("route without 6 values");
  await sheetOf(page).getByRole("button", { name: "Close the rows" }).click();

  await page.getByRole("button", { name: "More of On-time departures" }).focus();
  await page.keyboard.press("Enter");
  await page.getByRole("menuitem", { name: "Rows behind On-time departures" }).click();
  await expect(sheetOf(page)).toContainText(/98.323 \/ nullif\(112.457, 0\) = 87\.4/);
  // Escape closes the rows, and not the page that they lie over.
  await page.keyboard.press("Escape");
  await expect(sheetOf(page)).toHaveCount(0);
  await expect(page.getByRole("button", { name: "Close" })).toBeVisible();
});

test("hidden columns have no cells, no sums and no place in files, and a server that is away is said", async ({
  page,
}) => {
  const id = await openDemo(page);
  const at = `/api/projects/${id}`;
  const { project } = await (await page.request.get(at)).json();
  const { document, revision } = project;
  const sailings = document.tables.find((t: { name: string }) => t.name === "sailings");
  for (const c of sailings.columns) if (c.name === "fare_revenue") c.hidden = true;
  expect((await page.request.put(at, { data: { document, revision } })).status()).toBe(200);
  const query = { measures: [{ id: "passengers_total" }] };
  const asked = await page.request.post(`${at}/behind`, { data: { query: { ...query, table: "sailings" } } });
  const told = await asked.text();
  expect(told).toContain('"operating_cost"');
  expect(told).not.toContain("fare_revenue");
  // Its numbers are found where it is shown, and only others' where it is not.
  const found = async (more: string) => {
    const rows = await page.request.get(`${at}/tables/sailings/rows?limit=1&find=430.93${more}`);
    return (await rows.json()).page.total;
  };
  expect(await found("&visible=1")).toBeLessThan(await found(""));
  for (const path of ["rows?visible=1&limit=1", "export?format=csv&visible=1"])
    expect(await (await page.request.get(`${at}/tables/sailings/${path}`)).text()).not.toContain(
      "fare_revenue",
    );
  const unknown = encodeURIComponent('[{"column":"nowhere","in":[1]}]');
  const refused = await page.request.get(`${at}/tables/sailings/rows?limit=1&filters=${unknown}`);
  expect(refused.status()).toBe(400);
  expect(await refused.text()).toContain("no column “nowhere” to filter by");

  await goTo(page, "Boards");
  await expect(donutOf(page).locator("path").first()).toBeVisible();
  await page.route("**/behind", (route) => route.abort());
  await behindMark(page, "Home", "Ferrow Isle");
  await expect(sheetOf(page).getByRole("status")).toHaveText(/^The server is away\./);
});
