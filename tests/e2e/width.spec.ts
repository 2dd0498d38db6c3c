import { expect, type Page, test } from "@playwright/test";
import { goTo, openDemo } from "./steps";

const STEPS = ["Data", "Measures", "Visuals", "Boards", "Hand-off"] as const;
const WIDTHS = [
  { width: 390, height: 800 },
  // 1280 x 800 at 200 %.
  { width: 640, height: 400 },
  { width: 768, height: 1024 },
  { width: 1024, height: 720 },
];
const stage = (page: Page) => page.getByRole("region", { name: "Stage" });

for (const size of WIDTHS)
  test(`no step scrolls sideways, and the stage is never lower than 240 px, at ${size.width} x ${size.height}`, async ({
    page,
  }) => {
    await openDemo(page);
    await page.setViewportSize(size);
    for (const step of STEPS) {
      await goTo(page, step);
      await expect(page.locator("main")).not.toContainText("Opening …");
      const beyond = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      expect(beyond, step).toBeLessThanOrEqual(0);
    }
    await goTo(page, "Visuals");
    expect((await stage(page).boundingBox())?.height).toBeGreaterThanOrEqual(240);
  });

test("on a phone the stage stays in view while a dial turns, fitted, and its handles and segments are met", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await page.setViewportSize({ width: 390, height: 800 });
  await expect(stage(page).getByRole("button", { name: /^Fit · \d\d %$/ })).toBeVisible();
  const hole = page.getByRole("complementary", { name: "Dials" }).getByLabel("Hole", { exact: true });
  await hole.fill("56");
  await page.keyboard.press("Enter");
  await expect(stage(page).getByRole("img")).toBeInViewport({ ratio: 0.9 });
  // The share of a segment is where it is drawn, whatever the scale.
  const label = await stage(page)
    .getByText(/^22.%$/)
    .boundingBox();
  if (!label) throw new Error("no share is drawn");
  await page.mouse.move(label.x + label.width / 2, label.y + label.height / 2);
  await expect(stage(page).getByText(/^North Quay · 22.%$/)).toBeVisible();
  const handle = stage(page).getByRole("slider", { name: "Hole" });
  const [from, picture] = [await handle.boundingBox(), await stage(page).getByRole("img").boundingBox()];
  if (!from || !picture) throw new Error("no handle");
  const [x, y] = [from.x + from.width / 2, from.y + from.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y + 20, { steps: 4 });
  await page.mouse.up();
  // The handle is under the pointer, not where an unscaled way would have led it.
  await expect
    .poll(async () => {
      const now = await handle.boundingBox();
      return now && Math.round(Math.abs(now.y + now.height / 2 - (y + 20)));
    })
    .toBeLessThanOrEqual(3);
});
