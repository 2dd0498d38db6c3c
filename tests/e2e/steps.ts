import { type Browser, expect, type Locator, type Page } from "@playwright/test";
import type { Project } from "@/core/project/schema";

/** Loads a demo project of its own from the list of projects, as a person would. */
export async function openDemo(page: Page): Promise<string> {
  await page.goto("/");
  await page.getByRole("button", { name: "Load the demo" }).click();
  await page.waitForURL(/\/p\/[^/]+\/data/);
  return new URL(page.url()).pathname.split("/")[2];
}

/** Makes an empty project from the list of projects. */
export async function openEmpty(page: Page): Promise<string> {
  await page.goto("/");
  await page.getByRole("button", { name: "New project", exact: true }).click();
  await page.waitForURL(/\/p\/[^/]+\/data/);
  return new URL(page.url()).pathname.split("/")[2];
}

/** Goes to one of the five steps by its link in the header. */
export async function goTo(
  page: Page,
  step: "Data" | "Measures" | "Visuals" | "Boards" | "Hand-off",
): Promise<void> {
  const link = page.getByRole("navigation", { name: "Steps" }).getByRole("link", { name: step });
  await link.click();
  // The address changes at once; the step is marked when its screen stands.
  await expect(link).toHaveAttribute("aria-current", "page");
}

/** Opens a visual by its name on the list of the step, and waits until the dials are its own. */
export async function openVisual(page: Page, name: string): Promise<void> {
  await page.getByRole("navigation", { name: "Visuals" }).getByRole("button", { name }).click();
  const dials = page.getByRole("complementary", { name: "Dials" });
  await expect(
    dials.getByRole("region", { name: "Visual", exact: true }).getByLabel("Name", { exact: true }),
  ).toHaveValue(name);
  await expect(dials.locator("[inert]")).toHaveCount(0);
}

/** Waits until everything is saved. */
export async function saved(page: Page): Promise<void> {
  await expect(page.getByRole("banner").getByText("Saved", { exact: true })).toBeVisible();
}

export function csvFile(name: string, content: string | Buffer) {
  return {
    name,
    mimeType: "text/csv",
    buffer: Buffer.isBuffer(content) ? content : Buffer.from(content, "utf8"),
  };
}

/** Chooses from a list by what an option is called, or by its value where names would say less. */
export async function choose(list: Locator, option: string): Promise<void> {
  await list.click();
  const options = list.page().getByRole("listbox");
  const valued = options.locator(`[role=option][data-value=${JSON.stringify(option)}]`);
  await options.getByRole("option", { name: option, exact: true }).or(valued).first().click();
}

/** Puts a column or an input above a board as a control, in what holds the button for it. */
export async function addControl(within: Locator, text: string): Promise<void> {
  await within.getByRole("button", { name: "Add a filter", exact: true }).click();
  await within
    .getByRole("group", { name: "Filter the board by" })
    .getByRole("button", { name: text, exact: true })
    .click();
}

/** Changes the saved document of a project as another program would, and gives it as it is then. */
export async function changeDocument(
  page: Page,
  id: string,
  change: (document: Project) => Partial<Project>,
): Promise<Project> {
  const { project } = await (await page.request.get(`/api/projects/${id}`)).json();
  const document = { ...project.document, ...change(project.document) };
  const answer = await page.request.put(`/api/projects/${id}`, {
    data: { revision: project.revision, document },
    headers: { origin: new URL(page.url()).origin },
  });
  expect(answer.status()).toBe(200);
  return document;
}

/**
 * Opens a board's own page in a browser that runs no scripts, once the server draws `visual` in time: a page
 * does not wait for answers while the machine is busy, and without scripts nothing asks for them later.
 */
export async function openWithoutScripts(browser: Browser, address: string, visual: (page: Page) => Locator) {
  const context = await browser.newContext({ javaScriptEnabled: false });
  const page = await context.newPage();
  await expect(async () => {
    await page.goto(address);
    await expect(visual(page)).toBeVisible({ timeout: 1000 });
  }).toPass();
  return { page, close: () => context.close() };
}
