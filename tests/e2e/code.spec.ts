import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { expect, type Page, test } from "@playwright/test";
import { build } from "esbuild";
import pixelmatch from "pixelmatch";
import { PNG } from "pngjs";
import { createElement, type FunctionComponent } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import { openDemo } from "./steps";

/** At most so many of a hundred pixels may differ where one browser draws the same picture in two ways. */
const SAME = 0.5;

interface Kept {
  id: string;
  name: string;
  kind: string;
  size: { width: number; height: number };
}

/** One visual of each kind of the demo. */
async function oneOfEach(page: Page, id: string): Promise<Kept[]> {
  const { project } = await (await page.request.get(`/api/projects/${id}`)).json();
  const kinds = new Map<string, Kept>();
  for (const v of project.document.visuals as Kept[]) if (!kinds.has(v.kind)) kinds.set(v.kind, v);
  expect(kinds.size).toBe(12);
  return [...kinds.values()];
}

/** The code of a visual as the step gives it: copied with its button. */
async function copied(page: Page, visual: Kept, form: "HTML" | "Chart option"): Promise<string> {
  // Only a page in front reads the clipboard.
  await page.bringToFront();
  await page
    .getByRole("navigation", { name: "What is taken out" })
    .getByRole("button", { name: new RegExp(`^${visual.name}`) })
    .click();
  await page.evaluate(() => navigator.clipboard.writeText(""));
  await page.getByRole("radio", { name: form, exact: true }).click();
  await page.getByRole("button", { name: `Copy the code as ${form}` }).click();
  const text = () => page.evaluate(() => navigator.clipboard.readText());
  await expect.poll(text).not.toBe("");
  return text();
}

const share = (a: PNG, b: PNG): number =>
  (pixelmatch(a.data, b.data, undefined, a.width, a.height, { threshold: 0.25 }) / (a.width * a.height)) *
  100;

test("code that is copied draws the picture, in every kind: as HTML, and with the chart library alone", async ({
  browser,
}) => {
  test.setTimeout(240_000);
  const context = await browser.newContext({ permissions: ["clipboard-read", "clipboard-write"] });
  const page = await context.newPage();
  const id = await openDemo(page);
  const { origin } = new URL(page.url());
  const sheet = await context.newPage();
  // A page of this server, so that its type families are there; nothing of the application stays in it.
  await sheet.goto(`${origin}/guide/interface`);
  await sheet.waitForLoadState("networkidle");
  await page.goto(`/p/${id}/hand-off?as=code`);
  const library = readFileSync("node_modules/echarts/dist/echarts.min.js", "utf8");
  const far: string[] = [];
  for (const visual of await oneOfEach(page, id)) {
    const { width, height } = visual.size;
    await sheet.setViewportSize({ width, height });
    const shot = async (body: string, run?: () => Promise<void>): Promise<PNG> => {
      await sheet.bringToFront();
      await sheet.evaluate(async (html) => {
        document.body.innerHTML = html;
        document.body.style.cssText = "margin:0;background:#fff";
        await document.fonts.ready;
      }, body);
      await run?.();
      return PNG.sync.read(await sheet.screenshot());
    };
    const svg = await (await page.request.get(`/api/projects/${id}/visuals/${visual.id}.svg`)).text();
    const wanted = await shot(svg);
    const html = await copied(page, visual, "HTML");
    const asHtml = share(wanted, await shot(html));
    const option = await copied(page, visual, "Chart option");
    const asOption = share(
      wanted,
      await shot(`<div id="chart" style="width:${width}px;height:${height}px"></div>`, async () => {
        await sheet.evaluate(
          async ([code, script]) => {
            // The script of the library, as a page of somebody's loads it; once.
            if (!("echarts" in window)) new Function(script).call(window);
            const module = (await import(
              URL.createObjectURL(new Blob([code], { type: "text/javascript" }))
            )) as { option: object };
            const { echarts } = window as unknown as {
              echarts: { init: (...args: unknown[]) => { setOption: (option: object) => void } };
            };
            echarts
              .init(document.getElementById("chart"), null, { renderer: "svg" })
              .setOption(module.option);
          },
          [option, library],
        );
        await expect(sheet.locator("#chart svg path").first()).toBeAttached();
      }),
    );
    for (const [form, found] of [
      ["HTML", asHtml],
      ["option", asOption],
    ] as const)
      if (found > SAME) far.push(`${visual.kind} as ${form}: ${found.toFixed(2)} %`);
  }
  await context.close();
  expect(far).toEqual([]);
});

/** What an SVG draws: outlines, places and texts in their order, without the names that a file has. */
const drawn = (svg: string): string[] =>
  [...svg.matchAll(/ (?:d|cx|cy|r|x|y|transform|font-size|offset|stop-color)="([^"]*)"|>([^<]+)</g)].map(
    ([, value, text]) => value ?? text,
  );

test("a component that is taken out draws the same with nothing but React, and other rows when it gets them", async ({
  page,
}) => {
  test.setTimeout(120_000);
  const id = await openDemo(page);
  const folder = mkdtempSync(join(tmpdir(), "cavlo-components-"));
  for (const visual of await oneOfEach(page, id)) {
    const code = await (await page.request.get(`/api/projects/${id}/visuals/${visual.id}.tsx`)).text();
    const file = join(folder, `${visual.id}.tsx`);
    writeFileSync(file, code);
    const imported = [...code.matchAll(/^import .* from "([^"]+)";$/gm)].map(([, from]) => from);
    expect([...new Set(imported)], visual.kind).toEqual(["react"]);
    const outfile = join(folder, `${visual.id}.cjs`);
    await build({
      entryPoints: [file],
      outfile,
      bundle: true,
      format: "cjs",
      platform: "node",
      nodePaths: ["node_modules"],
    });
    const { default: module } = (await import(pathToFileURL(outfile).href)) as {
      default: Record<string, unknown>;
    };
    const name = Object.keys(module).find((key) => typeof module[key] === "function") ?? "";
    const Shown = module[name] as FunctionComponent<Record<string, unknown>>;
    const example = module[`${name}Example`] as { rows: Record<string, unknown>[] } & Record<string, unknown>;
    const svg = await (await page.request.get(`/api/projects/${id}/visuals/${visual.id}.svg`)).text();
    const unnamed = (all: string[]) => all.filter((text) => !text.startsWith(visual.name));
    const said = [...svg.matchAll(/<(?:title|desc)>([^<]*)</g)].map(([, text]) => text);
    const wanted = unnamed(drawn(svg)).filter((text) => !said.includes(text));
    const found = (props: Record<string, unknown>) => {
      const markup = renderToStaticMarkup(createElement(Shown, props));
      return unnamed(drawn(markup.replace(/<desc>[^<]*<\/desc>/, "")));
    };
    expect(found(example), visual.kind).toEqual(wanted.filter((text) => !text.startsWith("first-")));
    const [first, ...others] = example.rows;
    const measure = Object.keys(first).at(-1) ?? "";
    const changed = { ...example, rows: [{ ...first, [measure]: Number(first[measure]) / 2 }, ...others] };
    expect(found(changed), visual.kind).not.toEqual(wanted);
    expect(found({ ...example, rows: [] }).length, visual.kind).toBeGreaterThan(0);
  }
  rmSync(folder, { recursive: true });
});
