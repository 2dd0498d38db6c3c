import { expect, type Locator, type Page, test } from "@playwright/test";
import { goTo, openDemo, openWithoutScripts, saved } from "./steps";

const donutOf = (page: Page) => page.getByRole("img", { name: /Passengers by route: donut/ });
const gaugeOf = (page: Page) => page.getByRole("img", { name: /On-time departures: gauge/ });
const barOf = (page: Page) => page.getByRole("img", { name: /Passengers against the target/ });
const marksOf = (page: Page, name: string) => page.getByRole("listbox", { name: `Marks of ${name}` });
const pickedOf = (page: Page) => page.getByRole("group", { name: "Picked" });
const GLANCE = "season-at-a-glance";

async function glance(page: Page): Promise<string> {
  const id = await openDemo(page);
  await goTo(page, "Boards");
  await expect(donutOf(page).locator("path").first()).toBeVisible();
  return id;
}

/** A point on the first segment, a quarter of the ring from twelve o'clock: its middle lies at 45 degrees. */
async function onFirstSegment(page: Page): Promise<{ x: number; y: number }> {
  const box = await donutOf(page).locator("path[data-mark]").first().boundingBox();
  if (!box) throw new Error("the donut is not drawn");
  return { x: box.x + box.width * 0.56, y: box.y + box.height * 0.44 };
}

/** The name that a legend has in a picture. */
const named = (picture: Locator, name: string) => picture.locator("text", { hasText: name });

test("a click picks a segment: the others answer, its visual stays whole, and the address has it", async ({
  page,
}) => {
  await glance(page);
  const whole = await gaugeOf(page).getAttribute("aria-label");
  const { x, y } = await onFirstSegment(page);
  await page.mouse.click(x, y);
  await expect(pickedOf(page)).toContainText("route: Ferrow Isle");
  await expect(pickedOf(page)).toContainText("from Passengers by route");
  await expect(pickedOf(page)).toContainText("4 visuals answer");
  await expect(page.getByRole("status").filter({ hasText: "Picked route: Ferrow Isle." })).toHaveCount(1);
  await expect(gaugeOf(page)).not.toHaveAttribute("aria-label", whole ?? "");
  await expect(donutOf(page)).toHaveAttribute("aria-label", /total 5.299.291/);
  const answered = await gaugeOf(page).getAttribute("aria-label");
  await expect(page).toHaveURL(/pick\.passengers-by-route=Ferrow\+Isle/);

  // One more by a key that is held, on the legend; then a reload, and back twice.
  await named(donutOf(page), "North Quay").click({ modifiers: ["Control"] });
  await expect(pickedOf(page)).toContainText("route: Ferrow Isle, North Quay");
  await expect(gaugeOf(page)).not.toHaveAttribute("aria-label", answered ?? "");
  await page.reload();
  await expect(pickedOf(page)).toContainText("route: Ferrow Isle, North Quay");
  await page.goBack();
  await expect(pickedOf(page)).not.toContainText("North Quay");
  await expect(gaugeOf(page)).toHaveAttribute("aria-label", answered ?? "");
  await page.goBack();
  await expect(pickedOf(page)).toBeHidden();
  await expect(gaugeOf(page)).toHaveAttribute("aria-label", whole ?? "");
});

test("a pick is made, added to and cleared by keyboard alone, with the focus where it is of use", async ({
  page,
}) => {
  await glance(page);
  await marksOf(page, "Passengers by route").focus();
  await page.keyboard.press("End");
  await expect(page.getByRole("tooltip")).toContainText("Other");
  await page.keyboard.press("Enter");
  await expect(pickedOf(page)).toContainText("route: Other");
  // What that changed is said, with the numbers before.
  await expect(
    page
      .getByRole("status")
      .filter({ hasText: /^On-time rate \d\d\.\d\s%, before 87\.4\s%; .* others changed\.$/ }),
  ).toHaveCount(1);
  // Other is all that has no segment of its own: what is left of the target's 5,299,291.
  await expect(barOf(page)).toHaveAttribute("aria-label", /382.452/);
  await page.keyboard.press("Home");
  await page.keyboard.press("Control+Enter");
  await expect(pickedOf(page)).toContainText("route: Other, Ferrow Isle");
  await expect(barOf(page)).toHaveAttribute("aria-label", /1.703.466/);
  await pickedOf(page).getByRole("button", { name: "Clear route: Other, Ferrow Isle" }).press("Enter");
  await expect(pickedOf(page)).toBeHidden();
  await expect(page.getByRole("listbox", { name: "Marks of Passengers by route" })).toBeFocused();
  await expect(page.getByRole("status").filter({ hasText: "Nothing is picked." })).toHaveCount(1);
});

test("a long press of a finger adds to what is picked, and Escape lets all go", async ({ page }) => {
  await glance(page);
  await named(donutOf(page), "Old Pier").click();
  await expect(pickedOf(page)).toContainText("route: Old Pier");
  const { x, y } = await onFirstSegment(page);
  const device = await page.context().newCDPSession(page);
  await device.send("Input.dispatchTouchEvent", { type: "touchStart", touchPoints: [{ x, y }] });
  await expect(pickedOf(page)).toContainText("route: Old Pier, Ferrow Isle");
  await device.send("Input.dispatchTouchEvent", { type: "touchEnd", touchPoints: [] });
  await expect(pickedOf(page)).toContainText("route: Old Pier, Ferrow Isle");
  await page.keyboard.press("Escape");
  await expect(pickedOf(page)).toBeHidden();
});

test("a copied link gives the same board to others, drawn so before any script runs", async ({
  page,
  browser,
  context,
}) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  const id = await glance(page);
  await page.getByRole("group", { name: "Year" }).getByRole("button", { name: "2025" }).click();
  await named(donutOf(page), "North Quay").click();
  await expect(pickedOf(page)).toContainText("route: North Quay");
  await page.getByRole("button", { name: "Copy the link to this state" }).click();
  await expect(page.getByRole("button", { name: "Copied" })).toBeVisible();
  const link = await page.evaluate(() => navigator.clipboard.readText());
  await expect(gaugeOf(page)).toHaveAttribute("aria-label", /91\.3/);
  const answered = await gaugeOf(page).getAttribute("aria-label");
  const other = await context.newPage();
  await other.goto(link);
  await expect(gaugeOf(other)).toHaveAttribute("aria-label", answered ?? "");
  await expect(pickedOf(other)).toContainText("route: North Quay");

  const alone = new URL(`/p/${id}/present/${GLANCE}${new URL(link).search}`, link).href;
  const { page: bare, close } = await openWithoutScripts(browser, alone, gaugeOf);
  await expect(gaugeOf(bare)).toHaveAttribute("aria-label", answered ?? "");
  await expect(bare.getByText("route: North Quay")).toBeVisible();
  await close();
});

test("an address with nonsense gives the board with what holds, and one line says what does not", async ({
  page,
}) => {
  const id = await glance(page);
  const asked = [
    "pick.passengers-by-route=North+Quay",
    "pick.gone=1",
    "only.nothing=<script>alert(1)</script>",
    "set.on_time_target=lots",
    `only.route=${"x".repeat(300)}`,
  ].join("&");
  let alerted = false;
  page.on("dialog", () => (alerted = true));
  for (const path of ["boards", `present/${GLANCE}`]) {
    await page.goto(`/p/${id}/${path}?board=${GLANCE}&${asked}`);
    await expect(pickedOf(page)).toContainText("route: North Quay");
    const note = page.getByText(/^Left out of the address: /);
    await expect(note).toContainText("choices that this board has not");
    await expect(note).toContainText("of Route, which no row has");
    await page.getByRole("button", { name: "Close this note" }).click();
    await expect(note).toHaveCount(0);
    await expect(pickedOf(page)).toBeVisible();
  }
  expect(alerted).toBe(false);
});

test("a value that no row has is left out of the address, and said", async ({ page }) => {
  const id = await glance(page);
  for (const path of ["boards", `present/${GLANCE}`]) {
    await page.goto(`/p/${id}/${path}?board=${GLANCE}&only.route=Atlantis&only.route=North+Quay`);
    await expect(
      page.getByText("Left out of the address: Atlantis of Route, which no row has."),
    ).toBeVisible();
    await expect(
      page.getByRole("group", { name: "Route" }).getByRole("button", { pressed: true }),
    ).not.toHaveText("All");
    await expect(page).not.toHaveURL(/Atlantis/);
    await expect(barOf(page)).toHaveAttribute("aria-label", /1.145.029/);
  }
});

test("a picked category that went is left out of the address, and the board shows the rest", async ({
  page,
}) => {
  const id = await glance(page);
  for (const path of ["boards", `present/${GLANCE}`]) {
    const pick = "pick.passengers-by-route";
    await page.goto(`/p/${id}/${path}?board=${GLANCE}&${pick}=Atlantis`);
    await expect(page.getByText("Left out of the address: route: Atlantis, which no row has.")).toBeVisible();
    await expect(page).not.toHaveURL(/Atlantis/);
    await expect(pickedOf(page)).toBeHidden();
    await page.goto(`/p/${id}/${path}?board=${GLANCE}&${pick}=Atlantis&${pick}=North+Quay`);
    await expect(pickedOf(page)).toContainText("route: North Quay");
    await expect(barOf(page)).toHaveAttribute("aria-label", /1.145.029/);
  }
});

test("a tile stands aside, and the board begins with what its author has set; a reader changes neither", async ({
  page,
}) => {
  const id = await glance(page);
  await page.getByRole("button", { name: "Arrange" }).click();
  const aside = page.getByRole("button", { name: "On-time departures answers what is picked on others" });
  await aside.click();
  await expect(aside).toHaveAttribute("aria-pressed", "false");
  await page.getByRole("button", { name: "Arrange" }).click();
  const whole = await gaugeOf(page).getAttribute("aria-label");
  await named(donutOf(page), "North Quay").click();
  await expect(pickedOf(page)).toContainText("3 visuals answer, 1 stands aside");
  await expect(barOf(page)).toHaveAttribute("aria-label", /1.145.029/);
  await expect(gaugeOf(page)).toHaveAttribute("aria-label", whole ?? "");

  const year = page.getByRole("group", { name: "Year" }).getByRole("button", { name: "2025" });
  await year.click();
  await expect(barOf(page)).not.toHaveAttribute("aria-label", /1.145.029/);
  await page.getByRole("button", { name: "Begin with this" }).click();
  await expect(page.getByRole("button", { name: "Begin with this" })).toHaveCount(0);
  await saved(page);
  await page.goto(`/p/${id}/boards`);
  await expect(year).toHaveAttribute("aria-pressed", "true");
  await page.getByRole("group", { name: "Year" }).getByRole("button", { name: "All" }).click();
  await page.goto(`/p/${id}/boards?board=${GLANCE}`);
  await expect(year).toHaveAttribute("aria-pressed", "true");
});

test("a double click steps down, a pick there keeps both, the trail leads back up, and the menu does the same", async ({
  page,
}) => {
  await glance(page);
  const { x, y } = await onFirstSegment(page);
  await page.mouse.dblclick(x, y);
  const trail = page.getByRole("navigation", { name: "Stepped down from" });
  await expect(trail).toContainText("Ferrow Isle");
  const vessels = page.getByRole("img", { name: /Passengers by vessel: donut/ });
  await expect(vessels).toHaveAttribute("aria-label", /total 1.321.014/);
  await expect(pickedOf(page)).toBeHidden();
  await expect(page).toHaveURL(/step\.passengers-by-route=Ferrow\+Isle/);
  // A vessel picked there is that of the route alone.
  await marksOf(page, "Passengers by route").focus();
  await page.keyboard.press("Home");
  await page.keyboard.press("Enter");
  await expect(pickedOf(page)).toContainText("from Passengers by route › Ferrow Isle");
  await page.reload();
  await expect(trail).toContainText("Ferrow Isle");
  await expect(pickedOf(page)).toContainText("Passengers by route › Ferrow Isle");
  await trail.getByRole("button", { name: "Passengers by route" }).click();
  await expect(trail).toBeHidden();
  await expect(page.getByRole("listbox", { name: "Marks of Passengers by route" })).toBeFocused();
  await expect(donutOf(page)).toHaveAttribute("aria-label", /total 5.299.291/);

  // By keyboard: the menu of the mark that the arrows have come to.
  await page.keyboard.press("Home");
  await page.keyboard.press("Shift+F10");
  const menu = page.getByRole("menu", { name: "Ferrow Isle" });
  await expect(menu.getByRole("menuitem", { name: "Pick Ferrow Isle", exact: true })).toBeFocused();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(trail).toContainText("Ferrow Isle");
  await page.getByRole("button", { name: "More of Passengers by route" }).focus();
  await page.keyboard.press("Enter");
  await page.getByRole("menuitem", { name: "Step back up" }).click();
  await expect(trail).toBeHidden();
});

test("the others light up the part of what is picked in the scale of their whole, or say that they keep only it", async ({
  page,
}) => {
  await glance(page);
  const power = page.getByRole("img", { name: /Sailings by power: donut/ });
  const whole = await power.getAttribute("aria-label");
  const slices = await power.locator("path[data-mark]").count();
  await named(donutOf(page), "North Quay").click();
  await expect(power).not.toHaveAttribute("aria-label", whole ?? "");
  const way = pickedOf(page).getByRole("button", { name: "Highlight the part of route: North Quay" });
  await expect(way).toHaveAttribute("aria-pressed", "false");
  await way.click();
  await expect(way).toBeFocused();
  await expect(way).toHaveAttribute("aria-pressed", "true");
  // The whole stands, with a part in front of each of its shapes, and says how much of it that is.
  await expect(power).toHaveAttribute("aria-label", whole ?? "");
  await expect.poll(() => power.locator("path[data-mark]").count()).toBeGreaterThan(slices);
  await marksOf(page, "Sailings by power").focus();
  await page.keyboard.press("Home");
  await expect(page.getByRole("tooltip")).toContainText(/Picked\s*\d/);
  // A rate is no part of a rate.
  const gauge = page.locator(".board-visual").filter({ has: gaugeOf(page) });
  await expect(gauge.getByText("keeps only what is picked")).toBeVisible();
  await expect(gaugeOf(page)).toHaveAttribute("aria-label", /91\.6/);
  await page.reload();
  await expect(power).toHaveAttribute("aria-label", whole ?? "");
  await expect(gauge.getByText("keeps only what is picked")).toBeVisible();
  await way.click();
  await expect(power).not.toHaveAttribute("aria-label", whole ?? "");
});
