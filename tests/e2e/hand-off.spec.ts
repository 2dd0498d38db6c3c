import { readFile } from "node:fs/promises";
import { expect, type Page, test } from "@playwright/test";
import { goTo, openDemo } from "./steps";

async function take(page: Page, name: string): Promise<Buffer> {
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: `Take ${name}`, exact: true }).click(),
  ]);
  return readFile(await download.path());
}

test("a picture and its numbers are taken away", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await page
    .getByRole("region", { name: "Visual", exact: true })
    .getByLabel("Title", { exact: true })
    .fill(`<script>alert(1)</script> & "routes"`);
  await page
    .getByRole("region", { name: "Visual", exact: true })
    .getByLabel("Title", { exact: true })
    .press("Enter");
  await goTo(page, "Hand-off");
  const svg = (await take(page, "SVG")).toString("utf8");
  expect(svg).toContain("&lt;script&gt;alert(1)&lt;/script&gt; &amp; &quot;routes&quot;");
  expect(svg).not.toContain("<script>");
  const png = await take(page, "PNG");
  expect(png.subarray(1, 4).toString("latin1")).toBe("PNG");
  // At two pixels to a point, 440 points are 880 pixels.
  expect(png.readUInt32BE(16)).toBe(880);
  await page.getByRole("radio", { name: /^Numbers/ }).click();
  const csv = (await take(page, "CSV")).toString("utf8").split("\r\n");
  expect(csv[0]).toBe("route,passengers_total");
  expect(csv[1]).toMatch(/^Ferrow Isle,\d+$/);
  expect(csv[7]).toMatch(/^Other,\d+$/);
});

test("the stage and the picture that is taken away have the same marks", async ({ page, request }) => {
  const id = await openDemo(page);
  await goTo(page, "Visuals");
  const drawn = page.getByRole("region", { name: "Stage" }).getByRole("img").locator("text");
  await expect(drawn.filter({ hasText: "Ferrow Isle" })).toBeVisible();
  const stage = await drawn.allTextContents();
  const svg = await (await request.get(`/api/projects/${id}/visuals/passengers-by-route.svg`)).text();
  const taken = [...svg.matchAll(/<text[^>]*>([^<]*)<\/text>/g)].map((m) => m[1]);
  expect(taken.toSorted()).toEqual(stage.toSorted());
});
