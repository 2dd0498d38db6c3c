import { expect, type Page, test } from "@playwright/test";
import { goTo, openEmpty } from "./steps";

const TRIPS = [
  "trip_id,stop,line,on,riders,late",
  ...Array.from({ length: 120 }, (_, i) => {
    const stop = `Stop ${String((i * 7) % 30).padStart(2, "0")}`;
    const line = ["North", "South", "Harbour", "Ring"][i % 4];
    const on = new Date(Date.UTC(2025, i % 12, 1 + (i % 28))).toISOString().slice(0, 10);
    return `T${i},${stop},${line},${on},${(i * 13) % 90},${i % 3 === 0}`;
  }),
].join("\n");

/** Drops a file on the page, as one that is dragged from a folder. */
async function drop(page: Page, name: string, content: string): Promise<void> {
  const data = await page.evaluateHandle(
    ([file, text]) => {
      const transfer = new DataTransfer();
      transfer.items.add(new File([text], file, { type: "text/csv" }));
      return transfer;
    },
    [name, content],
  );
  await page.dispatchEvent("main h1", "drop", { dataTransfer: data });
}

test("from an empty project to a donut on a board with a filter in eight interactions at most", async ({
  page,
}) => {
  await openEmpty(page);
  await expect(page.getByRole("heading", { name: "Begin with a table" })).toBeVisible();
  let interactions = 0;
  const doing = async (work: Promise<unknown>) => {
    interactions++;
    await work;
  };
  await doing(drop(page, "trips.csv", TRIPS));
  await doing(page.getByRole("link", { name: "Draw this table" }).click());
  const gallery = page.getByRole("region", { name: "New visual" });
  await expect(gallery.getByRole("button", { name: "Sum of riders" })).toHaveAttribute(
    "aria-pressed",
    "true",
  );
  await doing(gallery.getByRole("button", { name: "Donut", exact: true }).click());
  await expect(page.getByRole("region", { name: "Stage" }).getByRole("img")).toHaveAttribute(
    "aria-label",
    /donut of Sum of riders.*4 segments/,
  );
  await doing(page.getByRole("button", { name: "Put on a new board" }).click());
  await doing(page.getByRole("button", { name: "Open New board" }).click());
  await expect(page.getByRole("heading", { name: "New board" })).toBeVisible();
  await doing(page.getByRole("button", { name: "Add a filter", exact: true }).click());
  const columns = page.getByRole("group", { name: "Filter the board by" });
  await doing(columns.getByRole("button", { name: "line" }).click());
  const filter = page.getByRole("group", { name: "Line" });
  await filter.getByRole("button", { name: "North" }).click();
  await expect(page.getByRole("img", { name: /donut of Sum of riders.*1 segment/ })).toBeVisible();
  expect(interactions).toBe(7);
});

test("a table that is pasted on the empty Visuals step is drawn there; the measure comes and goes with the visual", async ({
  page,
}) => {
  await openEmpty(page);
  await goTo(page, "Visuals");
  await expect(page.getByRole("heading", { name: "A visual begins with a table" })).toBeVisible();
  await page.evaluate(() => {
    const clipboardData = new DataTransfer();
    clipboardData.setData("text/plain", "region\tsales\nEast\t4\nWest\t6\n");
    document.body.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData, bubbles: true, cancelable: true }),
    );
  });
  const gallery = page.getByRole("region", { name: "New visual" });
  await gallery.getByRole("button", { name: "Rounded bars", exact: true }).click();
  await expect(page.getByRole("region", { name: "Stage" }).getByRole("img")).toHaveAttribute(
    "aria-label",
    /rounded bars of Sum of sales, West 6, East 4/,
  );
  await page.getByRole("banner").getByRole("button", { name: "Undo" }).click();
  await expect(gallery.getByRole("button", { name: "Sum of sales" })).toBeVisible();
  await goTo(page, "Measures");
  await expect(page.getByRole("button", { name: /^Sum of sales/ })).toHaveCount(0);
});
