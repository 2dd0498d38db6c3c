import AxeBuilder from "@axe-core/playwright";
import { expect, type Page, test } from "@playwright/test";
import { goTo, openDemo, openVisual } from "./steps";

async function problems(page: Page) {
  const { violations } = await new AxeBuilder({ page }).analyze();
  return violations.map(
    (v) =>
      `${v.id}: ${v.nodes
        .slice(0, 3)
        .map((n) => n.target.join(" "))
        .join(" | ")}`,
  );
}

for (const theme of ["light", "night"]) {
  test(`no screen has an accessibility problem of any weight, ${theme}`, async ({ page }) => {
    // Fourteen screens are searched through, each with hundreds of elements.
    test.setTimeout(300_000);
    await page.addInitScript((name) => localStorage.setItem("cavlo.theme", name), theme);
    await page.goto("/");
    await expect(page.getByRole("link", { name: "Quillhaven Ferries" }).first()).toBeVisible();
    expect(await problems(page)).toEqual([]);
    await openDemo(page);
    await expect(page.getByRole("cell", { name: "Ferrow Isle" }).first()).toBeVisible();
    expect(await problems(page)).toEqual([]);
    await page.getByRole("button", { name: /^Links/ }).click();
    await expect(page.getByText("all 114\u2009424 rows match").first()).toBeVisible();
    expect(await problems(page), "links").toEqual([]);
    for (const step of ["Measures", "Visuals", "Boards", "Hand-off"] as const) {
      await goTo(page, step);
      await expect(page.getByText("Ferrow Isle", { exact: true }).first()).toBeVisible();
      expect(await problems(page), step).toEqual([]);
    }
    await goTo(page, "Boards");
    await page.getByRole("button", { name: "Arrange" }).click();
    const panel = page.getByRole("complementary", { name: "Put on the board" });
    await panel.getByRole("button", { name: "A section" }).click();
    await panel.getByRole("button", { name: "A text" }).click();
    await panel.getByText("Look of the board").click();
    await panel.getByText("Order on a phone").first().click();
    await page.keyboard.press("Escape");
    await expect(page.getByText("1 selected")).toBeVisible();
    expect(await problems(page), "arranging").toEqual([]);
    await goTo(page, "Visuals");
    await openVisual(page, "On time by route");
    await page
      .getByRole("complementary", { name: "Dials" })
      .getByRole("button", { name: /^Palette:/ })
      .click();
    await expect(page.getByRole("dialog", { name: "Palettes" })).toBeVisible();
    expect(await problems(page), "rules and palettes").toEqual([]);
    await page.keyboard.press("Escape");
    await page.keyboard.press("Escape");
    await goTo(page, "Measures");
    await page.getByLabel("Better when").click();
    await expect(page.getByRole("listbox").getByRole("option").first()).toBeVisible();
    expect(await problems(page), "a list of a field").toEqual([]);
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: "Help" }).click();
    expect(await problems(page), "help").toEqual([]);
    await page.keyboard.press("Escape");
    await page.keyboard.press("Control+k");
    await page.keyboard.type("nothing of that name");
    await expect(page.getByText("Nothing has that name.")).toBeVisible();
    expect(await problems(page), "an empty list").toEqual([]);
    await page.keyboard.press("Escape");
    const project = new URL(page.url()).pathname.split("/").slice(0, 3).join("/");
    await page.goto(`${project}/present/season-at-a-glance`);
    await page.getByRole("button", { name: "More of On-time departures" }).click({ timeout: 15_000 });
    await expect(page.getByRole("menuitem").first()).toBeVisible();
    expect(await problems(page), "presented").toEqual([]);
    await page.keyboard.press("Escape");
    await page.goto("/guide/interface");
    await expect(page.getByRole("heading", { name: "HTTP interface" })).toBeVisible();
    expect(await problems(page), "guide").toEqual([]);
    await page.goto(`${project}/contact-sheet`);
    await expect(page.getByRole("rowheader", { name: "Number" })).toBeVisible();
    expect(await problems(page), "contact sheet").toEqual([]);
  });
}
