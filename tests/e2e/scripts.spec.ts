import { expect, test } from "@playwright/test";
import { csvFile, openEmpty } from "./steps";

test("names of other scripts are written in the fonts that ship, on the page and in the SVG that carries them", async ({
  page,
}) => {
  const asked: string[] = [];
  page.on("request", (request) => asked.push(new URL(request.url()).pathname));
  await openEmpty(page);
  expect(asked.filter((path) => path.endsWith("east-asian.css"))).toEqual([]);
  await page
    .getByLabel("File with a table")
    .setInputFiles(csvFile("ports.csv", "port,boats\n부산항,4\nΠειραιάς,7\n码头,2\n"));
  await expect(page.getByRole("cell", { name: "부산항" })).toBeVisible();
  // The families are loaded for these names, whatever the machine has installed.
  await expect
    .poll(() => asked.filter((path) => /^\/fonts\/noto-sans-(kr|sc|greek).*\.woff2$/.test(path)).length)
    .toBeGreaterThanOrEqual(3);
  await page.getByRole("link", { name: "Draw this table" }).click();
  await page.getByRole("button", { name: /^Donut/ }).click();
  await page.getByRole("navigation", { name: "Steps" }).getByRole("link", { name: "Hand-off" }).click();
  const take = async () => {
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: "Take SVG", exact: true }).click(),
    ]);
    const stream = await download.createReadStream();
    return Buffer.concat(await stream.toArray()).toString("utf8");
  };
  expect(await take()).not.toContain("@font-face");
  await page.getByLabel("The SVG carries its fonts").check();
  const svg = await take();
  expect(svg).toMatch(/font-family:&#39;Noto Sans KR&#39;;[^}]*data:font\/woff2/);
  expect(svg).toMatch(/<title>[^<]+<\/title>/);
  expect(svg).toContain('data-row="부산항"');
  // Seen by itself, without the application and its style, the name is as wide as its own font makes it.
  await page.setContent(svg);
  const loaded = await page.evaluate(async () => {
    await document.fonts.ready;
    return [...document.fonts]
      .filter((f) => f.status === "loaded")
      .map((f) => f.family.replaceAll(/["']/g, ""));
  });
  expect(loaded).toContain("Noto Sans KR");
});
