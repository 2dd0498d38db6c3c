import { expect, type Page, test } from "@playwright/test";
import { changeDocument, goTo, openDemo, openWithoutScripts } from "./steps";

const GLANCE = "season-at-a-glance";
const donutOf = (page: Page) => page.getByRole("img", { name: /Passengers by route: donut/ });

/** The demo as a project of this test's own, saved, with the address of its first board alone. */
async function boardAlone(page: Page): Promise<string> {
  const id = await openDemo(page);
  return `/p/${id}/present/${GLANCE}`;
}

test("a board on its own page stands as the server draws it before any script runs", async ({
  page,
  browser,
}) => {
  const address = await boardAlone(page);
  const alone = new URL(address, page.url()).href;
  const { page: still, close } = await openWithoutScripts(browser, alone, donutOf);
  await expect(still.getByRole("heading", { name: "Season at a glance" })).toBeVisible();
  await expect(donutOf(still)).toHaveAttribute("aria-label", /total 5.299.291/);
  await expect(donutOf(still).locator("path").nth(6)).toBeVisible();
  await expect(still.getByRole("group", { name: "Route" }).getByText("5 more")).toBeVisible();
  const ground = () => still.evaluate(() => getComputedStyle(document.body).backgroundColor);
  expect(await ground()).toBe("rgb(243, 240, 232)");
  await still.goto(`${alone}?theme=night`);
  expect(await ground()).toBe("rgb(16, 24, 25)");
  await expect(donutOf(still).locator("[fill='#172123']").first()).toBeVisible();
  await close();
});

test("a board on its own page answers as in the application, carries its own script alone, and closes to its board", async ({
  page,
}) => {
  const address = await boardAlone(page);
  await goTo(page, "Boards");
  const year = page.getByRole("group", { name: "Year" }).getByRole("button", { name: "2025" });
  await year.click();
  await expect(donutOf(page)).not.toHaveAttribute("aria-label", /total 5.299.291/);
  const inApplication = await donutOf(page).getAttribute("aria-label");

  await page.goto(address);
  await expect(page.getByRole("button", { name: "Close" })).toBeVisible();
  // Asked of the page itself: what the page before still fetches is none of its own.
  const scripts = await page.evaluate(() =>
    performance
      .getEntriesByType("resource")
      .map((entry) => new URL(entry.name).pathname)
      .filter((path) => path.endsWith(".js")),
  );
  // The script, and beside it what it shares with what is fetched later.
  const [own, ...beside] = scripts.toSorted();
  expect(own).toMatch(/\/present\/board-\w+\.js$/);
  expect(beside.length).toBeGreaterThan(0);
  for (const part of beside) expect(part).toMatch(/\/present\/part-\w+\.js$/);
  await expect(donutOf(page)).toHaveAttribute("aria-label", /total 5.299.291/);
  await year.click();
  await expect(donutOf(page)).toHaveAttribute("aria-label", inApplication ?? "");
  await expect(year).toHaveAttribute("aria-pressed", "true");
  await expect(year).toBeFocused();

  const gauge = page.getByRole("img", { name: /On-time departures: gauge/ });
  await page.getByRole("button", { name: "Punctuality target down" }).click();
  await expect(gauge).toHaveAttribute("aria-label", /target 91/);
  const target = page.getByRole("spinbutton", { name: "Punctuality target" });
  await target.fill("150");
  await target.press("Enter");
  await expect(target).toHaveValue("100\u2009%");

  await page.getByRole("listbox", { name: "Marks of Passengers by route" }).focus();
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("tooltip")).toContainText("Ferrow Isle");
  await page.keyboard.press("Enter");
  const picked = page.getByRole("group", { name: "Picked" });
  await expect(picked).toContainText("route: Ferrow Isle");
  // The first Escape leaves the mark, the second lets go of what is picked, the third leaves the page.
  await page.keyboard.press("Escape");
  await expect(page.getByRole("tooltip")).toBeHidden();
  await expect(picked).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(picked).toBeHidden();
  await page.keyboard.press("Escape");
  // What was changed by controls goes along.
  await page.waitForURL(/\/boards\?board=season-at-a-glance&only\.[^&]+=2025/);
});

test("a filter on its own page is one stop of the Tab key, has a list of the rest, and waits for the server", async ({
  page,
}) => {
  const address = await boardAlone(page);
  // What would answer in the page does not come.
  await page.route("**/cells/bytes", (route) => route.abort());
  await page.goto(address);
  const route = page.getByRole("group", { name: "Route", exact: true });
  await route.getByRole("button", { name: "All" }).focus();
  await page.keyboard.press("End");
  await expect(route.getByRole("button", { name: "5 more" })).toBeFocused();
  await page.keyboard.press("Enter");
  const list = page.getByRole("group", { name: "Values of Route" });
  await list.getByRole("checkbox", { name: "Old Pier" }).check();
  await expect(donutOf(page)).toHaveAttribute("aria-label", /1 segment/);
  await page.keyboard.press("Escape");
  await expect(list).toBeHidden();
  await expect(route.getByRole("button", { name: "Old Pier" })).toHaveAttribute("aria-pressed", "true");

  await page.route("**/results", (route) => route.abort());
  await route.getByRole("button", { name: "Gannet Sound" }).click();
  await expect(page.getByText("computing").first()).toBeVisible();
  await expect(donutOf(page)).toHaveAttribute("aria-label", /1 segment: .*Old Pier|Old Pier/);
  await page.unroute("**/results");
  await expect(donutOf(page)).toHaveAttribute("aria-label", /Gannet Sound/, { timeout: 15_000 });
  await expect(page.getByText("computing")).toHaveCount(0);
});

test("who opens a board as it is presented gets it alone; one that is not there is said in words", async ({
  page,
}) => {
  const address = await boardAlone(page);
  await goTo(page, "Boards");
  await page.getByRole("button", { name: "Present" }).click();
  await expect(page.getByRole("button", { name: "Close" })).toBeVisible();
  await page.reload();
  await page.waitForURL(`**${address}*`);
  await expect(donutOf(page)).toBeVisible();
  const gone = await page.goto(address.replace(GLANCE, "constructor"));
  expect(gone?.status()).toBe(404);
  const said = page.getByRole("main");
  await expect(said.getByRole("heading", { level: 1 })).toHaveText("This board cannot be shown");
  await expect(said.getByText("There is no such board.")).toBeVisible();
  await page.getByRole("link", { name: "To the project" }).click();
  await page.waitForURL(/\/boards/);
});

test("what a board that is looked at may ask is gathered, and then answered without a scan", async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, "Boards");
  const cells = async () => (await (await page.request.get("/api/health")).json()).cells;
  await expect(donutOf(page)).toHaveAttribute("aria-label", /total 5.299.291/);
  const ask = async () => {
    const { results } = await (
      await page.request.post(`/api/projects/${id}/results`, {
        data: {
          queries: [
            {
              measures: [{ id: "passengers_total" }],
              splits: [{ column: "route" }],
              filters: [{ column: "sailings.date", by: "year", in: [2025] }],
            },
          ],
        },
      })
    ).json();
    return { ...results[0], ms: 0 };
  };
  const scanned = await ask();
  expect(scanned.rows).toBeGreaterThan(5);
  // Asked ten times in a row: boards that others look at meanwhile are answered too, but not so often.
  const TIMES = 10;
  const fromCells = async () => {
    const { answered } = await cells();
    for (let i = 0; i < TIMES; i++) expect(await ask()).toEqual(scanned);
    return (await cells()).answered - answered;
  };
  await expect.poll(fromCells, { timeout: 30_000 }).toBeGreaterThanOrEqual(TIMES);
});

test("a board that is filtered answers in its page, also while the server is away, until something is changed", async ({
  page,
  context,
}) => {
  const address = await boardAlone(page);
  await page.goto(address);
  const year = (name: string) => page.getByRole("group", { name: "Year" }).getByRole("button", { name });
  const said = () => donutOf(page).getAttribute("aria-label");
  await expect(donutOf(page)).toHaveAttribute("aria-label", /total 5.299.291/);
  const came = page.waitForResponse((r) => r.url().endsWith("/cells/bytes") && r.status() === 200);
  await year("2024").click();
  await came;
  await expect(donutOf(page)).not.toHaveAttribute("aria-label", /total 5.299.291/);
  let asked = 0;
  page.on("request", (request) => {
    if (request.url().endsWith("/results")) asked++;
  });
  // The server's answers to the same, told apart from what was known before by another route.
  await page.getByRole("group", { name: "Route" }).getByRole("button", { name: "Gannet Sound" }).click();
  await year("2025").click();
  await expect(
    page.getByRole("group", { name: "Year" }).getByRole("button", { name: "2025" }),
  ).toHaveAttribute("aria-pressed", "true");
  const inPage = await said();
  expect(asked).toBe(0);
  await page.reload();
  await expect(donutOf(page)).toHaveAttribute("aria-label", inPage ?? "");

  const again = page.waitForResponse((r) => r.url().endsWith("/cells/bytes") && r.status() === 200);
  await year("2026").click();
  await again;
  await page.waitForLoadState("networkidle");
  const before = await said();
  await context.setOffline(true);
  await year("2024").click();
  await expect(donutOf(page)).not.toHaveAttribute("aria-label", before ?? "");
  await expect(page.getByText("computing")).toHaveCount(0);
  await context.setOffline(false);

  await changeDocument(page, address.split("/")[2], ({ measures }) => ({
    measures: measures.map((m) =>
      m.name === "passengers_total" ? { ...m, formula: `0 * (${m.formula}) + 7` } : m,
    ),
  }));
  await year("2025").click();
  await expect(donutOf(page)).toHaveAttribute("aria-label", /total 7\b/);
});

test("a board in the application answers in its page too once it is filtered, and after going back", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Boards");
  await expect(donutOf(page)).toHaveAttribute("aria-label", /total 5.299.291/);
  const year = (name: string) => page.getByRole("group", { name: "Year" }).getByRole("button", { name });
  const came = page.waitForResponse((r) => r.url().endsWith("/cells/bytes") && r.status() === 200);
  await year("2024").click();
  await came;
  const of2024 = /total 2.064.989/;
  await expect(donutOf(page)).toHaveAttribute("aria-label", of2024);
  await page.waitForLoadState("networkidle");
  let asked = 0;
  page.on("request", (request) => {
    if (/\/(results|cells\/bytes)$/.test(request.url())) asked++;
  });
  await year("2024").click();
  await year("2025").click();
  await expect(donutOf(page)).toHaveAttribute("aria-label", /total 2.152.487/);
  await page.goBack();
  await page.goBack();
  await expect(donutOf(page)).toHaveAttribute("aria-label", of2024);
  await year("2026").click();
  await expect(donutOf(page)).not.toHaveAttribute("aria-label", of2024);
  expect(asked).toBe(0);
});

test("a board whose project is removed meanwhile says so where it would have answered", async ({ page }) => {
  const address = await boardAlone(page);
  await page.goto(address);
  await expect(page.getByRole("button", { name: "Close" })).toBeVisible();
  const removed = await page.request.delete(`/api/projects/${address.split("/")[2]}`, {
    headers: { origin: new URL(page.url()).origin },
  });
  expect(removed.ok()).toBe(true);
  await page.getByRole("group", { name: "Year" }).getByRole("button", { name: "2024" }).click();
  await expect(page.getByRole("img", { name: /was removed/ }).first()).toBeVisible();
  await expect(page.getByText("computing")).toHaveCount(0);
});

test("a board that answers in its page says that its project was removed, too", async ({ page }) => {
  const address = await boardAlone(page);
  const origin = new URL(page.url()).origin;
  await page.goto(address);
  const came = page.waitForResponse((r) => r.url().endsWith("/cells/bytes") && r.status() === 200);
  await page.getByRole("group", { name: "Year" }).getByRole("button", { name: "2024" }).click();
  await came;
  await page.waitForLoadState("networkidle");
  const removed = await page.request.delete(`/api/projects/${address.split("/")[2]}`, {
    headers: { origin },
  });
  expect(removed.ok()).toBe(true);
  // Each time something that was not met before, since the page may hear of it a moment later.
  const names = ["Ferrow Isle", "Gannet Sound", "Marl Point"];
  await expect(async () => {
    const name = names.shift() ?? "";
    await page.getByRole("group", { name: "Route", exact: true }).getByRole("button", { name }).click();
    await expect(page.getByRole("img", { name: /was removed/ }).first()).toBeVisible({ timeout: 1000 });
  }).toPass({ timeout: 10_000 });
});

test("names that would be markup stand as they are written", async ({ page }) => {
  const id = await openDemo(page);
  const hostile = `</script><img src=x onerror="document.title='caught'">&amp;'`;
  const { project } = await (await page.request.get(`/api/projects/${id}`)).json();
  const { visuals, boards, inputs } = project.document;
  const document = {
    ...project.document,
    name: hostile,
    visuals: visuals.map((v: object) => ({ ...v, name: hostile, title: hostile })),
    inputs: inputs.map((i: object) => ({ ...i, label: hostile })),
    boards: boards.map((b: { tiles: object[]; controls: object[] }) => ({
      ...b,
      name: hostile,
      tiles: [...b.tiles, { id: "text", type: "text", text: hostile, x: 0, y: 90, w: 4, h: 2 }],
      controls: b.controls.map((c) => ("label" in c ? { ...c, label: hostile } : c)),
    })),
  };
  const saved = await page.request.put(`/api/projects/${id}`, {
    data: { revision: project.revision, document },
    headers: { origin: new URL(page.url()).origin },
  });
  expect(saved.ok()).toBe(true);
  await page.goto(`/p/${id}/present/${GLANCE}`);
  await expect(page.getByRole("button", { name: "Close" })).toBeVisible();
  await expect(page.getByRole("heading", { name: hostile })).toBeVisible();
  await expect(page.getByText(hostile, { exact: true }).last()).toBeVisible();
  await expect(page.locator("img")).toHaveCount(0);
  expect(await page.title()).toBe(`${hostile} · ${hostile}`);
});

test("names of other scripts are written in the fonts that ship, on a page of its own too", async ({
  page,
}) => {
  const id = await openDemo(page);
  const { project } = await (await page.request.get(`/api/projects/${id}`)).json();
  const { document, revision } = project;
  document.boards[0].name = "码头 부산항";
  const put = await page.request.put(`/api/projects/${id}`, { data: { document, revision } });
  expect(put.status()).toBe(200);
  const fonts: string[] = [];
  page.on("request", (request) => fonts.push(new URL(request.url()).pathname));
  await page.goto(`/p/${id}/present/${GLANCE}`);
  await expect(page.getByRole("heading", { name: "码头 부산항" })).toBeVisible();
  await expect
    .poll(() => fonts.filter((path) => /noto-sans-(kr|sc).*\.woff2$/.test(path)).length)
    .toBeGreaterThanOrEqual(2);
});

test("a finger picks what it touches", async ({ page, browser }) => {
  const address = await boardAlone(page);
  const phone = await browser.newContext({
    hasTouch: true,
    viewport: { width: 390, height: 844 },
    baseURL: new URL(page.url()).origin,
  });
  const touched = await phone.newPage();
  await touched.goto(address);
  await expect(touched.getByRole("button", { name: "Close" })).toBeVisible();
  const segment = donutOf(touched).locator("path[data-mark][fill='#1f7a6d']").first();
  const box = await segment.boundingBox();
  if (!box) throw new Error("the donut is not drawn");
  await touched.touchscreen.tap(box.x + box.width * 0.56, box.y + box.height * 0.44);
  await expect(touched.getByRole("group", { name: "Picked" })).toContainText("route: Ferrow Isle");
  expect(await touched.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await phone.close();
});

test("a presented board fills the screen whatever its shape, its pointer rests, and print leaves nothing cut", async ({
  page,
}) => {
  const address = await boardAlone(page);
  await page.setViewportSize({ width: 1280, height: 1400 });
  await page.goto(address);
  await expect(page.getByRole("button", { name: "Full screen" })).toBeVisible();
  const lowest = () =>
    page
      .locator(".board-tile")
      .evaluateAll((all) => Math.max(...all.map((t) => t.getBoundingClientRect().bottom)));
  // All but the room that the application's own head takes, so that it has one shape there and here.
  await expect.poll(lowest).toBeGreaterThan(1360 - 93);
  // Back to a low screen: tiles are no smaller than they were made for, and the board scrolls.
  await page.setViewportSize({ width: 1280, height: 600 });
  await expect.poll(lowest).toBeLessThan(760);
  await page.mouse.move(600, 300);
  await expect(page.locator(".board-rests")).toHaveCount(1);
  await page.mouse.move(610, 310);
  await expect(page.locator(".board-rests")).toHaveCount(0);

  await page.emulateMedia({ media: "print" });
  await page.setViewportSize({ width: 1046, height: 717 });
  await expect(page.getByRole("button", { name: "Close" })).toBeHidden();
  const cut = await page.locator(".board-stage").evaluateAll((all) =>
    all.filter((stage) => {
      const room = stage.getBoundingClientRect();
      const drawn = stage.querySelector("svg")?.getBoundingClientRect();
      return !drawn || drawn.right > room.right + 1 || drawn.bottom > room.bottom + 1;
    }),
  );
  expect(cut).toHaveLength(0);
  const body = page.getByRole("region", { name: "Board" });
  expect(await body.evaluate((b) => getComputedStyle(b).overflowY)).toBe("visible");
  const pdf = await page.pdf({ preferCSSPageSize: true });
  expect(pdf.byteLength).toBeGreaterThan(20_000);
});

test("a board on its own page follows what is saved, keeps what its reader picked, and says as of when it is", async ({
  page,
}) => {
  const id = await openDemo(page);
  await page.goto(`/p/${id}/present/${GLANCE}?pick.energy-mix=electric`);
  await expect(page.getByRole("group", { name: "Picked" })).toContainText("electric");
  await expect(page.getByText(/^as of \d\d:\d\d$/)).toBeVisible();
  const before = await donutOf(page).getAttribute("aria-label");
  const { project } = await (await page.request.get(`/api/projects/${id}`)).json();
  const { document, revision } = project;
  const measure = document.measures.find((m: { id: string }) => m.id === "passengers_total");
  // Other tests look at the same numbers by their first digits.
  measure.formula = "sum(passengers) + 1";
  measure.proofs = [{ id: "p", type: "between", from: 0, to: 10, split: null }];
  const put = await page.request.put(`/api/projects/${id}`, { data: { document, revision } });
  expect(put.status()).toBe(200);
  await expect(donutOf(page)).not.toHaveAttribute("aria-label", before ?? "");
  // A test that fails stands on the tiles that it concerns, and on no other.
  await expect(page.getByText(/^A test of Passengers fails: Passengers is .* above 10/)).toHaveCount(3);
  await expect(page.getByRole("group", { name: "Picked" })).toContainText("electric");
});

test("printed from the application, a board is whole and alone", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Boards");
  await expect(page.getByRole("img", { name: /On-time departures: gauge/ })).toBeVisible();
  await page.setViewportSize({ width: 1100, height: 500 });
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("navigation", { name: "Steps" })).toBeHidden();
  await expect(page.getByRole("button", { name: "Arrange" })).toBeHidden();
  await expect(page.getByRole("heading", { name: "Season at a glance" })).toBeVisible();
  // Nothing scrolls within: the page is as high as the board.
  const lowest = await page
    .locator(".board-tile")
    .evaluateAll((all) => Math.max(...all.map((tile) => tile.getBoundingClientRect().bottom + scrollY)));
  expect(lowest).toBeGreaterThan(600);
  expect(await page.evaluate(() => document.documentElement.scrollHeight)).toBeGreaterThanOrEqual(lowest - 1);
});
