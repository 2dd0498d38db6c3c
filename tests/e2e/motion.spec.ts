import { expect, type Page, test } from "@playwright/test";
import { choose, goTo, openDemo, openVisual } from "./steps";

/**
 * What the browser shows of a ring at each frame while something changes: the point at which its arc ends,
 * and how many arcs there are.
 */
async function frames(
  page: Page,
  act: () => Promise<void>,
  count: number,
): Promise<{ d: string; arcs: number }[]> {
  await page.evaluate((most) => {
    const seen: { d: string; arcs: number }[] = [];
    Object.assign(window, { seen });
    const look = () => {
      const paths = [...document.querySelectorAll('[aria-label="Stage"] svg path[fill="#1f7a6d"]')];
      seen.push({ d: paths[0]?.getAttribute("d") ?? "", arcs: paths.length });
      if (seen.length < most) requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  }, count);
  await act();
  await page.waitForFunction((most) => (window as unknown as { seen: unknown[] }).seen.length >= most, count);
  return page.evaluate(() => (window as unknown as { seen: { d: string; arcs: number }[] }).seen);
}

/** The angle (0 to 360, clockwise from the top) at which an arc from the top ends, from its path data. */
function endAngle(d: string): number {
  const [, r, large, x, y] = /A([\d.]+) [\d.]+ 0 ([01]) 1 ([\d.-]+) ([\d.-]+)/.exec(d) ?? [];
  const [, sx, sy] = /^M([\d.-]+) ([\d.-]+)/.exec(d) ?? [];
  if (!r) return Number.NaN;
  // The centre stands right under the start.
  const [cx, cy] = [Number(sx), Number(sy) + Number(r)];
  const angle = (Math.atan2(Number(x) - cx, -(Number(y) - cy)) * 180) / Math.PI;
  return large === "1" || angle < 0 ? (angle + 360) % 360 : angle;
}

async function openRing(page: Page): Promise<void> {
  await openDemo(page);
  await goTo(page, "Visuals");
  await openVisual(page, "Season progress");
  const dials = page.getByRole("complementary", { name: "Dials" });
  await choose(dials.getByLabel("Shade", { exact: true }), "flat");
  await choose(dials.getByLabel("Ends", { exact: true }), "flat");
  await dials.getByLabel("On a change", { exact: true }).fill("600");
  await dials.getByLabel("On a change", { exact: true }).press("Enter");
  await expect(page.locator('[aria-label="Stage"] svg path[fill="#1f7a6d"]')).toHaveCount(1);
}
/** Waits until the arc has stood still for a while. */
const atRest = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        let [last, still] = ["", 0];
        const look = () => {
          const d =
            document.querySelector('[aria-label="Stage"] svg path[fill="#1f7a6d"]')?.getAttribute("d") ?? "";
          still = d !== "" && d === last ? still + 1 : 0;
          last = d;
          if (still > 30) resolve();
          else requestAnimationFrame(look);
        };
        look();
      }),
  );
const chooseTrial = (page: Page, name: string) => () =>
  page.getByRole("region", { name: "Trials" }).getByRole("button", { name, exact: true }).click();

test.describe("for those who like motion", () => {
  test.use({ contextOptions: { reducedMotion: "no-preference" } });
  test("a change moves from the old value to the new one without a jump or a flash", async ({ page }) => {
    await openRing(page);
    await atRest(page);
    const before = await page.locator('[aria-label="Stage"] svg path[fill="#1f7a6d"]').getAttribute("d");
    const seen = await frames(page, chooseTrial(page, "Just under the target"), 70);
    expect(seen[0].d).toBe(before);
    // No frame without the arc, and none with two.
    expect(seen.every((f) => f.arcs === 1)).toBe(true);
    const angles = seen.map((f) => endAngle(f.d));
    expect(Math.abs(angles[angles.length - 1] - 0.995 * 360)).toBeLessThan(1);
    for (let i = 1; i < angles.length; i++)
      expect(angles[i] - angles[i - 1], `frame ${i}`).toBeGreaterThan(-0.5);
    expect(new Set(angles.map((a) => a.toFixed(1))).size).toBeGreaterThan(5);
  });
});

test("who asks for reduced motion sees the new value at once", async ({ page }) => {
  await openRing(page);
  await atRest(page);
  const seen = await frames(page, chooseTrial(page, "Just under the target"), 40);
  expect(new Set(seen.map((f) => f.d)).size).toBeLessThanOrEqual(2);
});
