import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { readFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { dirname, extname, join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { build } from "esbuild";
import { unzipSync } from "fflate";
import { goTo, openDemo, openEmpty } from "./steps";

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

test("the step opens on where one came from, and says what travels before anything goes", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Boards");
  await goTo(page, "Hand-off");
  const list = page.getByRole("navigation", { name: "What is taken out" });
  await expect(list.getByRole("button", { name: "Season at a glance" })).toHaveAttribute(
    "aria-current",
    "true",
  );
  // A board is taken out alive, and not as a picture.
  await expect(page.getByRole("radio", { name: /^Element/ })).toBeChecked();
  await expect(page.getByRole("radio", { name: /^Picture/ })).toBeDisabled();
  const travels = page.getByLabel("What travels", { exact: true });
  await expect(travels).toContainText(/sums by .*sailings\.date by year \(3\).*no rows/);
  await expect(travels).toContainText("all is answered anew");
  const preview = page.frameLocator("iframe[title='Preview in a page']");
  await preview.getByRole("button", { name: "2025", exact: true }).click();
  await expect(preview.getByRole("img", { name: /^Passengers by route/ })).toHaveAccessibleName(
    /total 2 152 487/,
  );
  await expect(page.getByRole("status").filter({ hasText: "change" })).toBeVisible();
  await page.getByRole("radio", { name: "With its rows" }).click();
  await expect(travels).toContainText("114,424 rows of sailings (");
  // Several visuals together, by their boxes.
  await list.getByRole("button", { name: /^Passengers by route/ }).click();
  await list.getByRole("checkbox", { name: "Season progress too" }).check();
  await expect(page.getByRole("radio", { name: /^Code/ })).toBeDisabled();
  await expect(preview.getByRole("img")).toHaveCount(2);
  const code = page.getByRole("region", { name: "the code for Plain page" });
  await expect(code).toContainText('visual="season-progress"');
  await page.getByRole("radio", { name: "React", exact: true }).click();
  await expect(page.getByRole("region", { name: "the code for React" })).toContainText("CavloVisual");
  await page.getByRole("radio", { name: "Own rows", exact: true }).click();
  await expect(page.getByRole("region", { name: "the code for Own rows" })).toContainText("passengers: 1");
});

test("a folder that is taken out stands on any server of files", async ({ page, context }) => {
  await openDemo(page);
  await goTo(page, "Visuals");
  await goTo(page, "Hand-off");
  await page.getByRole("radio", { name: /^Element/ }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: /^Take it out as a folder/ }).click(),
  ]);
  const files = unzipSync(new Uint8Array(await readFile(await download.path())));
  expect(Object.keys(files)).toContain("passengers-by-route.cavlo.json");
  const elsewhere = await context.newPage();
  await elsewhere.route("http://elsewhere.test/**", (route) => {
    const name = new URL(route.request().url()).pathname.slice(1);
    const body = Object.hasOwn(files, name) ? Buffer.from(files[name]) : null;
    const contentType = name.endsWith(".html")
      ? "text/html"
      : name.endsWith(".js")
        ? "text/javascript"
        : undefined;
    return body
      ? route.fulfill({ body, contentType, headers: { "content-security-policy": "default-src 'self'" } })
      : route.fulfill({ status: 404 });
  });
  await elsewhere.goto("http://elsewhere.test/index.html");
  const image = elsewhere.locator("cavlo-visual").getByRole("img");
  await expect(image).toHaveAccessibleName(/^Passengers by route: donut of Passengers, total 5 299 291/);
  await elsewhere.evaluate(() =>
    document.querySelector("cavlo-visual")?.setAttribute("filters", '{"date by year":[2025]}'),
  );
  await expect(image).toHaveAccessibleName(/total 2 152 487/);
});

test("each piece of code that an element is shown with runs as it stands", async ({ browser }) => {
  const context = await browser.newContext({ permissions: ["clipboard-read", "clipboard-write"] });
  const page = await context.newPage();
  await openDemo(page);
  await goTo(page, "Visuals");
  await goTo(page, "Hand-off");
  await page.getByRole("radio", { name: /^Element/ }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: /^Take it out as a folder/ }).click(),
  ]);
  const folder = mkdtempSync(join(tmpdir(), "cavlo-code-"));
  for (const [name, bytes] of Object.entries(
    unzipSync(new Uint8Array(await readFile(await download.path()))),
  )) {
    mkdirSync(dirname(join(folder, name)), { recursive: true });
    writeFileSync(join(folder, name), bytes);
  }
  const copied = async (form: string) => {
    await page.getByRole("radio", { name: form, exact: true }).click();
    await page.evaluate(() => navigator.clipboard.writeText(""));
    await page.getByRole("button", { name: `Copy the code for ${form}` }).click();
    const text = () => page.evaluate(() => navigator.clipboard.readText());
    await expect.poll(text).not.toBe("");
    return text();
  };
  writeFileSync(join(folder, "plain.html"), await copied("Plain page"));
  writeFileSync(join(folder, "rows.html"), await copied("Own rows"));
  writeFileSync(join(folder, "shown.tsx"), await copied("React"));
  writeFileSync(
    join(folder, "app.tsx"),
    `import { createRoot } from "react-dom/client"; import { Shown } from "./shown";
     createRoot(document.body.appendChild(document.createElement("div"))).render(<Shown />);`,
  );
  await build({
    entryPoints: [join(folder, "app.tsx")],
    outfile: join(folder, "app.js"),
    bundle: true,
    format: "esm",
    jsx: "automatic",
    nodePaths: ["node_modules"],
    external: [join(folder, "cavlo.js"), join(folder, "cavlo-board.js")],
    define: { "process.env.NODE_ENV": '"production"' },
  });
  writeFileSync(
    join(folder, "react.html"),
    `<!doctype html><body><script type="module" src="app.js"></script></body>`,
  );
  const elsewhere = await context.newPage();
  await elsewhere.route("http://elsewhere.test/**", async (route) => {
    const name = new URL(route.request().url()).pathname;
    const type = { ".html": "text/html", ".js": "text/javascript", ".json": "application/json" }[
      extname(name)
    ];
    await readFile(join(folder, name)).then(
      (body) => route.fulfill({ body, contentType: type }),
      () => route.fulfill({ status: 404 }),
    );
  });
  const logged: string[] = [];
  elsewhere.on("console", (message) => logged.push(message.text()));
  elsewhere.on("pageerror", (error) => logged.push(`error: ${error.message}`));
  const image = elsewhere.locator("cavlo-visual").getByRole("img");
  for (const name of ["plain", "react"]) {
    await elsewhere.goto(`http://elsewhere.test/${name}.html`);
    await expect(image).toHaveAccessibleName(/^Passengers by route: donut of Passengers, total 5 299 291/);
    await elsewhere.getByRole("listbox", { name: /^Marks of/ }).focus();
    await elsewhere.keyboard.press("ArrowRight");
    await elsewhere.keyboard.press("Enter");
    await expect.poll(() => logged.filter((line) => line === "Ferrow Isle")).toHaveLength(1);
    logged.length = 0;
  }
  // The rows that are shown are one of each type: one passenger.
  await elsewhere.goto("http://elsewhere.test/rows.html");
  await expect(image).toHaveAccessibleName(/^Passengers by route: donut of Passengers, total 1,/);
  expect(logged).toEqual([]);
  rmSync(folder, { recursive: true });
  await context.close();
});

test("an empty project has nothing to take out but itself", async ({ page }) => {
  await openEmpty(page);
  await goTo(page, "Hand-off");
  await expect(page.getByText("There is no visual yet.")).toBeVisible();
  await expect(page.getByRole("radio", { name: /^Element/ })).toBeDisabled();
  await page.getByRole("radio", { name: /^Project/ }).click();
  await expect(page.getByRole("button", { name: "Take the project file" })).toBeVisible();
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
