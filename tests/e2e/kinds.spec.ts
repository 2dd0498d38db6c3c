import { expect, type Page, test } from "@playwright/test";
import { choose, goTo, openDemo, openVisual, saved } from "./steps";

const stage = (page: Page) => page.getByRole("region", { name: "Stage" });
const picture = (page: Page) => stage(page).getByRole("img");
const dials = (page: Page) => page.getByRole("complementary", { name: "Dials" });

async function newVisual(page: Page, measure: string, kind: string) {
  await page.getByRole("button", { name: "New visual" }).click();
  await choose(page.getByLabel("Show", { exact: true }), measure);
  await page
    .getByRole("region", { name: "New visual" })
    .getByRole("button", { name: kind, exact: true })
    .click();
}
async function changeKind(page: Page, to: string) {
  await page.getByRole("button", { name: /^Kind:/ }).click();
  await page.getByRole("option", { name: to, exact: true }).click();
}

test("each kind begins in the gallery with one's own measure and says what it shows", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  for (const [kind, measure, says] of [
    ["Progress ring", "Passengers", /progress ring of Passengers against 6.000.000, 5.299.291 \(88.%\)/],
    ["Lollipop", "Load factor", /lollipops of Load factor, Ferrow Isle 64\.4.%/],
    ["Rounded bars", "Fare revenue", /rounded bars of Fare revenue, Ferrow Isle €7\.69/],
    ["Capsule stack", "Passengers", /capsule stack of Passengers, stacked by 2024, 2025, 2026, Ferrow Isle/],
    ["Nested bars", "Seats", /nested bars of Seats and Passengers, Ferrow Isle [\d\u2009]+ with [\d\u2009]+/],
    ["Radial bars", "Load factor", /radial bars of Load factor, a full sweep is 100\.0.%/],
    ["Rose", "Fare revenue", /rose of Fare revenue, the value is the area of a petal/],
    ["Waffle", "Load factor", /waffle of Load factor, 53\.\d.% of 100\.0.% \(53\.\d.%\)/],
    // The punctuality target is a percent as well, and has nothing to do with seats: it is not proposed.
    ["Number", "Load factor", /Load factor 53\.\d.%, over 30 steps/],
  ] as const) {
    await newVisual(page, measure, kind);
    await expect(picture(page)).toHaveAttribute("aria-label", says);
  }
  await saved(page);
});

test("a stack is divided by a series, and loses and regains it with the kind", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await newVisual(page, "Sailings", "Capsule stack");
  await page.getByRole("button", { name: /^Series:/ }).click();
  await page.getByRole("option", { name: "departure", exact: true }).click();
  await expect(picture(page)).toHaveAttribute(
    "aria-label",
    /stacked by on time, up to 10 minutes late, over 10 minutes late, cancelled/,
  );
  await expect(stage(page).locator("svg").getByText("over 10 minutes late")).toBeVisible();
  await changeKind(page, "Rose");
  await expect(picture(page)).toHaveAttribute("aria-label", /rose of Sailings/);
  await expect(page.getByRole("button", { name: /^Series:/ })).toHaveCount(0);
  await changeKind(page, "Rounded bars");
  await expect(picture(page)).toHaveAttribute(
    "aria-label",
    /rounded bars of Sailings, side by side for on time/,
  );
});

test("colours by a rule carry its word and symbol", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await newVisual(page, "Route margin", "Rounded bars");
  await choose(dials(page).getByLabel("Coloured by", { exact: true }), "rule");
  await dials(page).getByRole("button", { name: "Add a rule", exact: true }).click();
  await dials(page).getByLabel("Word of rule 1").fill("loses money");
  await dials(page).getByLabel("Word of rule 1").press("Enter");
  await dials(page).getByRole("button", { name: "Add a rule", exact: true }).click();
  await dials(page).getByLabel("Limit of rule 2", { exact: true }).fill("abc");
  await dials(page).getByLabel("Limit of rule 2", { exact: true }).press("Enter");
  await expect(dials(page).getByText("Write a number")).toBeVisible();
  await dials(page).getByLabel("Limit of rule 2", { exact: true }).fill("1000000");
  await dials(page).getByLabel("Limit of rule 2", { exact: true }).press("Enter");
  await dials(page).getByLabel("Word of rule 2").fill("over a million");
  await dials(page).getByLabel("Word of rule 2").press("Enter");
  await expect(stage(page).locator("svg").getByText("loses money")).toBeVisible();
  await expect(stage(page).locator("svg").getByText("over a million")).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(stage(page).locator("svg").getByText("over a million")).toBeVisible();
});

test("a look is kept as a finish, given to another visual, and changes both", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await openVisual(page, "Passengers by route");
  const finish = page.getByRole("region", { name: "Finish" });
  await finish.getByRole("button", { name: "Embossed" }).click();
  await expect(stage(page).locator("radialGradient").first()).toBeAttached();
  await dials(page).getByLabel("Hole", { exact: true }).fill("30");
  await dials(page).getByLabel("Hole", { exact: true }).press("Enter");
  await finish.getByRole("button", { name: "Keep this look as a finish" }).click();
  await finish.getByLabel("Name of the new finish").fill("Deep");
  await finish.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(finish.getByRole("button", { name: "Deep", exact: true })).toHaveAttribute(
    "aria-pressed",
    "true",
  );
  await openVisual(page, "Sailings by power");
  await finish.getByRole("button", { name: "Deep", exact: true }).click();
  await expect(dials(page).getByLabel("Hole", { exact: true })).toHaveValue("30%");
  await dials(page).getByLabel("Hole", { exact: true }).fill("45");
  await dials(page).getByLabel("Hole", { exact: true }).press("Enter");
  await finish.getByRole("button", { name: "Put the look into it" }).click();
  await openVisual(page, "Passengers by route");
  await expect(dials(page).getByLabel("Hole", { exact: true })).toHaveValue("45%");
  await finish.getByRole("button", { name: "Remove the finish Deep" }).click();
  await expect(finish.getByRole("button", { name: "Embossed" })).toHaveAttribute("aria-pressed", "true");
  await saved(page);
});

test("a palette of one's own; design tokens go out and come in", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await openVisual(page, "Passengers by route");
  await dials(page).getByRole("button", { name: "Palette: Harbour" }).click();
  const palettes = page.getByRole("dialog", { name: "Palettes" });
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    palettes.getByRole("button", { name: "Take tokens" }).click(),
  ]);
  expect(download.suggestedFilename()).toBe("palettes.tokens.json");
  await palettes
    .getByLabel("Design-token file")
    .setInputFiles({ name: "bad.json", mimeType: "application/json", buffer: Buffer.from("{}") });
  await expect(palettes.getByText("No group of this file holds two colours")).toBeVisible();
  const tokens = {
    brand: { $type: "color", a: { $value: "#aa2200" }, b: { $value: "#0044aa" }, c: { $value: "{brand.a}" } },
  };
  await palettes.getByLabel("Design-token file").setInputFiles({
    name: "brand.json",
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify(tokens)),
  });
  await palettes.getByRole("button", { name: "brand", exact: true }).click();
  await expect(stage(page).locator('path[fill="#aa2200"]').first()).toBeAttached();
  await palettes.getByLabel("Colour 1 of brand, light").fill("#226600");
  await expect(stage(page).locator('path[fill="#226600"]').first()).toBeAttached();
  await palettes.getByRole("button", { name: "Remove brand" }).click();
  await expect(stage(page).locator('path[fill="#1f7a6d"]').first()).toBeAttached();
});

test("pictures in heads: an icon, an uploaded SVG that is cleaned, and a file that is no picture", async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, "Visuals");
  await openVisual(page, "On time by route");
  await page.getByRole("button", { name: /^Pictures:/ }).click();
  const phrase = page.getByRole("dialog", { name: "Pictures" });
  await choose(phrase.getByLabel("Picture of Ferrow Isle"), "icon:ship");
  await phrase
    .getByLabel("Picture file")
    .setInputFiles({ name: "notes.txt", mimeType: "text/plain", buffer: Buffer.from("hello") });
  await expect(phrase.getByRole("alert")).toHaveText(/neither a PNG nor an SVG/);
  const svg =
    '<svg viewBox="0 0 10 10" onload="alert(1)"><script>alert(2)</script><circle cx="5" cy="5" r="4" fill="#fff"/></svg>';
  await phrase
    .getByLabel("Picture file")
    .setInputFiles({ name: "dot.svg", mimeType: "image/svg+xml", buffer: Buffer.from(svg) });
  await choose(phrase.getByLabel("Picture of North Quay"), "dot.svg");
  await page.keyboard.press("Escape");
  await expect(stage(page).locator("image")).toHaveAttribute("href", /^data:image\/svg\+xml;base64,/);
  await saved(page);
  const { project } = await (await page.request.get(`/api/projects/${id}`)).json();
  const [stored] = project.document.pictures;
  expect(Buffer.from(stored.href.split(",")[1], "base64").toString()).not.toMatch(/script|onload/);
  // A document with a picture that runs something is refused, and nothing changes.
  const bad = structuredClone(project.document);
  bad.pictures[0].href = `data:image/svg+xml;base64,${Buffer.from(svg).toString("base64")}`;
  const answer = await page.request.put(`/api/projects/${id}`, {
    data: { revision: project.revision, document: bad },
    headers: { origin: new URL(page.url()).origin },
  });
  expect(answer.status()).toBe(400);
  expect((await answer.json()).error.message).toMatch(/pictures 1: .*Upload it again/);
});

test("names stand in the track of rings, and the picture of the segment under the pointer in a donut's centre", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await openVisual(page, "Load factor, bent");
  const drawn = stage(page).locator("svg").getByText("Ferrow Isle");
  await expect(drawn).toBeVisible();
  await choose(dials(page).getByLabel("Place", { exact: true }).first(), "in the track");
  // Rings too thin for letters keep their legend; wider ones take the names in.
  await expect(drawn).toBeVisible();
  for (const [dial, value] of [
    ["Thickness", "22"],
    ["Hole", "20"],
    ["Gap", "1"],
  ]) {
    await dials(page).getByLabel(dial, { exact: true }).first().fill(value);
    await page.keyboard.press("Enter");
  }
  // The name is bent letter by letter.
  await expect(stage(page).getByText("F", { exact: true }).first()).toBeVisible();
  await expect(drawn).toHaveCount(0);
  await openVisual(page, "Passengers by route");
  await page.getByRole("button", { name: /^Pictures:/ }).focus();
  await page.keyboard.press("Enter");
  const phrase = page.getByRole("dialog", { name: "Pictures" });
  await expect(phrase).toContainText("under the pointer");
  await choose(phrase.getByLabel("Picture of North Quay"), "icon:anchor");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: /^Pictures:/ })).toBeFocused();
  const shapes = stage(page).locator("path");
  const [before, box] = [
    await shapes.count(),
    await stage(page)
      .getByText(/^22.%$/)
      .boundingBox(),
  ];
  if (!box) throw new Error("no share is drawn");
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await expect.poll(() => shapes.count()).toBeGreaterThan(before);
});

test("the contact sheet shows every kind in every finish", async ({ page }) => {
  const id = await openDemo(page);
  await page.goto(`/p/${id}/contact-sheet`);
  const sheet = page.getByRole("region", { name: "Contact sheet" });
  await expect(sheet.getByRole("rowheader")).toHaveCount(12);
  await expect(sheet.getByRole("img", { name: /, Plain$/ })).toHaveCount(12);
  await expect(sheet.getByRole("img")).toHaveCount(84);
});
