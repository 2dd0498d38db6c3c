import { expect, type Locator, test } from "@playwright/test";
import pixelmatch from "pixelmatch";
import { PNG } from "pngjs";
import { openDemo } from "./steps";

/**
 * At most so many of a hundred pixels may differ visibly: the two draw the same letters with another
 * smoothing.
 */
const TOLERANCE = 1.5;
const FINISHES = ["plain", "soft", "embossed", "dashed", "night", "outline", "ledger"];

/** A picture's pixels over the white of a page. */
function onWhite(png: PNG): Buffer {
  for (let i = 0; i < png.data.length; i += 4) {
    const a = png.data[i + 3] / 255;
    for (let k = 0; k < 3; k++) png.data[i + k] = Math.round(png.data[i + k] * a + 255 * (1 - a));
    png.data[i + 3] = 255;
  }
  return png.data;
}

test("the server's PNG is what the browser draws, for every kind in every finish", async ({
  browser,
  page,
}) => {
  test.setTimeout(240_000);
  const id = await openDemo(page);
  const { origin } = new URL(page.url());
  const { project } = await (await page.request.get(`/api/projects/${id}`)).json();
  const kinds = new Map<string, { id: string; size: object }>();
  for (const v of project.document.visuals) if (!kinds.has(v.kind)) kinds.set(v.kind, v);
  expect(kinds.size).toBe(12);
  const visuals = [...kinds.values()].flatMap((v) =>
    FINISHES.map((finish) => ({ ...v, id: `${v.id}-${finish}`, finish, size: { width: 320, height: 240 } })),
  );
  const saved = await page.request.put(`/api/projects/${id}`, {
    data: { revision: project.revision, document: { ...project.document, visuals, boards: [] } },
    headers: { origin },
  });
  expect(saved.ok()).toBe(true);
  const far: string[] = [];
  for (const scale of [2, 1, 3, 4]) {
    const sharp = await browser.newContext({
      deviceScaleFactor: scale,
      viewport: { width: 320, height: 240 },
      reducedMotion: "reduce",
    });
    const sheet = await sharp.newPage();
    // A page of the application, so that its type families are there.
    await sheet.goto(`${origin}/`);
    // Until its script has come to rest, it would draw itself over what is put there.
    await sheet
      .getByRole("button", { name: /^Remove / })
      .first()
      .waitFor();
    await sheet.waitForLoadState("networkidle");
    // All finishes at twice the size; at the others one is enough to see that the scale is the only
    // difference.
    for (const visual of scale === 2 ? visuals : visuals.filter((v) => v.finish === "soft")) {
      const address = `${origin}/api/projects/${id}/visuals/${visual.id}`;
      const svg = await (await page.request.get(`${address}.svg`)).text();
      const png = PNG.sync.read(await (await page.request.get(`${address}.png?scale=${scale}`)).body());
      const [width, height] = [320 * scale, 240 * scale];
      expect([png.width, png.height], visual.id).toEqual([width, height]);
      await sheet.evaluate(async (text) => {
        document.body.innerHTML = text;
        document.body.style.cssText = "margin:0;background:#fff";
        await document.fonts.ready;
      }, svg);
      const shot = PNG.sync.read(await sheet.screenshot());
      const different = pixelmatch(onWhite(png), shot.data, undefined, width, height, { threshold: 0.25 });
      const share = (different / (width * height)) * 100;
      if (share > TOLERANCE) far.push(`${visual.id} at ${scale}x: ${share.toFixed(2)} %`);
    }
    await sharp.close();
  }
  expect(far).toEqual([]);
});

/** At most so many of a hundred pixels may differ where one browser draws the same picture in two ways. */
const SAME_BROWSER = 0.5;

test("painter and chart library draw what the server writes, pixel for pixel, in every kind", async ({
  page,
}) => {
  test.setTimeout(180_000);
  const id = await openDemo(page);
  const { origin } = new URL(page.url());
  const { project } = await (await page.request.get(`/api/projects/${id}`)).json();
  const kinds = new Map<string, { id: string; kind: string; finish: string; size: object }>();
  for (const v of project.document.visuals) if (!kinds.has(v.kind)) kinds.set(v.kind, v);
  expect(kinds.size).toBe(12);
  const visuals = [...kinds.values()].map((v, i) => ({
    ...v,
    id: `of-kind-${i}`,
    name: `The ${v.kind}`,
    finish: FINISHES[i % FINISHES.length],
  }));
  const tiles = visuals.map((v, i) => ({
    id: `tile-${v.id}`,
    type: "visual",
    visual: v.id,
    x: (i % 3) * 4,
    y: Math.floor(i / 3) * 28,
    w: 4,
    h: 28,
  }));
  const boards = [{ id: "all", name: "All kinds", tiles, controls: [] }];
  const saved = await page.request.put(`/api/projects/${id}`, {
    data: { revision: project.revision, document: { ...project.document, visuals, boards } },
    headers: { origin },
  });
  expect(saved.ok()).toBe(true);
  await page.emulateMedia({ reducedMotion: "reduce" });
  const far: string[] = [];
  const compare = async (picture: Locator, { id: visual, kind, finish }: (typeof visuals)[0], by: string) => {
    await picture.scrollIntoViewIfNeeded();
    await page.evaluate(() => document.fonts.ready);
    const drawn = PNG.sync.read(await picture.screenshot());
    const size = await picture.evaluate((e) => `width=${e.clientWidth}&height=${e.clientHeight}`);
    const svg = await (await page.request.get(`/api/projects/${id}/visuals/${visual}.svg?${size}`)).text();
    // In the very place of what was drawn, so that nothing differs but who drew it.
    await picture.evaluate((e, text) => {
      (e.firstElementChild as HTMLElement).innerHTML = text;
    }, svg);
    const written = PNG.sync.read(await picture.screenshot());
    // The next one may have gradients and shadows of the same names.
    await picture.evaluate((e) => e.firstElementChild?.replaceChildren());
    const { width, height } = drawn;
    expect([written.width, written.height], visual).toEqual([width, height]);
    const different = pixelmatch(drawn.data, written.data, undefined, width, height, { threshold: 0.1 });
    const share = (different / (width * height)) * 100;
    if (share > SAME_BROWSER) far.push(`${kind} (${finish}) by ${by}: ${share.toFixed(2)} %`);
  };
  await page.goto(`/p/${id}/present/all`);
  await expect(page.locator(".picture:has(svg)")).toHaveCount(12);
  for (const [i, visual] of visuals.entries())
    await compare(page.locator(".picture").nth(i), visual, "painter");
  // Answers that are late must not be taken for what is drawn at last.
  await page.route("**/results", (route) => setTimeout(() => route.continue(), 600));
  for (const visual of visuals) {
    await page.goto(`/p/${id}/visuals?visual=${visual.id}`);
    // Until its numbers are there it stands without them, and after a moment dimmed.
    const picture = page
      .getByRole("region", { name: "Stage" })
      .locator("[aria-busy=false] .picture:has(svg)");
    await expect(picture).toHaveCount(1);
    // The chart library hangs letters on their middle and not on their line, which the browser then puts on
    // whole pixels in another way: where they stand is compared number by number in src/render/fidelity.test.ts.
    await page.addStyleTag({ content: "text, .picture ~ *, button { opacity: 0 }" });
    await compare(picture, visual, "chart library");
  }
  expect(far).toEqual([]);
});
