import { expect, test } from "@playwright/test";
import { addControl, choose, csvFile, goTo, openDemo, openEmpty } from "./steps";

test("a test fails where it is broken: at the measure, on the step and at the visuals behind it; and passes again", async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, "Measures");
  const list = page.getByRole("navigation", { name: "Measures and inputs" });
  await list.getByRole("button", { name: /^Load factor/ }).click();
  const proofs = page.getByRole("region", { name: "Tests" });
  await expect(proofs.getByText("passes for all 8")).toBeVisible();
  await proofs.getByLabel("Upper limit").fill("60");
  await proofs.getByLabel("Upper limit").press("Enter");
  await proofs.getByRole("button", { name: "60\u2009%", exact: true }).click();
  await expect(proofs.getByLabel("Upper limit")).toBeFocused();
  await expect(proofs.getByRole("status")).toHaveText(
    /Fails: Ferrow Isle is 64\.4.%, above 60\.0.%; 2 of 8 are outside\./,
  );
  await expect(page.getByRole("banner").getByRole("img", { name: "1 test fails" })).toBeVisible();
  await expect(
    list.getByRole("button", { name: /^Load factor/ }).getByRole("img", { name: "a test fails" }),
  ).toBeVisible();

  await goTo(page, "Visuals");
  const seats = page
    .getByRole("navigation", { name: "Visuals" })
    .getByRole("button", { name: /Seats taken by route/ });
  await expect(seats.getByRole("img", { name: "1 finding" })).toBeVisible();
  await seats.click();
  const notice = page.getByRole("status").filter({ hasText: "A test of Load factor fails" });
  await expect(notice).toContainText("Ferrow Isle");
  await notice.getByRole("link", { name: "Load factor" }).click();
  await page.getByRole("banner").getByRole("button", { name: "Undo" }).click();
  await expect(proofs.getByText("passes for all 8")).toBeVisible();
  await expect(page.getByRole("banner").getByRole("img", { name: "1 test fails" })).toHaveCount(0);
});

test("an expected value and the total of another measure are proved after every change of the data", async ({
  page,
}) => {
  await openEmpty(page);
  await page
    .getByLabel("File with a table")
    .setInputFiles(csvFile("trips.csv", "stop,riders\nNorth,10\nEast,20\n"));
  await expect(page.getByRole("table", { name: "trips" })).toBeVisible();
  await goTo(page, "Measures");
  const list = page.getByRole("navigation", { name: "Measures and inputs" });
  await list.getByRole("button", { name: "New measure" }).click();
  await page.getByRole("textbox", { name: /^Formula of/ }).fill("sum(riders)");
  await expect(page.getByText(/, now 30/)).toBeVisible();
  const proofs = page.getByRole("region", { name: "Tests" });
  await proofs.getByRole("button", { name: "Add a test" }).click();
  await page.getByRole("menuitem", { name: "a value under a filter" }).click();
  await proofs.getByLabel("Expected value").fill("20");
  await proofs.getByLabel("Expected value").press("Enter");
  await expect(proofs.getByRole("status")).toHaveText("Fails: is 30.00, not 20.00; off by 10.00.");
  await proofs.getByRole("button", { name: /^Filter:/ }).click();
  await choose(page.getByLabel("Column to filter by"), "stop");
  await page.getByRole("button", { name: "Add the filter", exact: true }).click();
  await page.getByRole("checkbox", { name: "East" }).check();
  await page.keyboard.press("Escape");
  await expect(proofs.getByRole("status")).toHaveText("passes: 20.00");

  await list.getByRole("button", { name: "New measure", exact: true }).last().click();
  // The editor of the measure before stands there until the new one is shown.
  await expect(page.getByRole("textbox", { name: /^Formula of/ })).toHaveText("count(*)");
  await page.getByRole("textbox", { name: /^Formula of/ }).fill("sum(riders) filter (where stop <> 'South')");
  await proofs.getByRole("button", { name: "Add a test" }).click();
  await page.getByRole("menuitem", { name: "the total of another measure" }).click();
  await expect(proofs.getByRole("status")).toHaveText("Choose the other measure.");
  await choose(proofs.getByLabel("The other measure"), "New measure");
  await expect(proofs.getByRole("status")).toHaveText("passes: 30.00");
  await goTo(page, "Data");
  await page.getByLabel("Append rows").setInputFiles(csvFile("more.csv", "stop,riders\nSouth,5\n"));
  await expect(page.getByRole("table", { name: "trips" }).getByRole("cell", { name: "South" })).toBeVisible();
  await expect(page.getByRole("banner").getByRole("img", { name: "1 test fails" })).toBeVisible();
});

test("an input is chosen from a list, or from what stands in a column", async ({ page }) => {
  await openDemo(page);
  await goTo(page, "Measures");
  const list = page.getByRole("navigation", { name: "Measures and inputs" });
  await list.getByRole("button", { name: "New input" }).click();
  await choose(page.getByLabel("Holds a"), "text");
  await choose(page.getByLabel("Choices"), "what stands in routes.route");
  await page.getByLabel("Set to").fill("Old Pier");
  await page.getByLabel("Set to").press("Enter");
  await goTo(page, "Boards");
  await page.getByRole("button", { name: "Arrange" }).click();
  await addControl(page.getByRole("complementary", { name: "Put on the board" }), "New input");
  const control = page.getByRole("combobox", { name: "New input", exact: true });
  await expect(control).toHaveValue("Old Pier");
  await control.selectOption("Tamsin Reach");
  await expect(control).toHaveValue("Tamsin Reach");

  await goTo(page, "Measures");
  await list
    .getByRole("button", { name: /^New input/ })
    .first()
    .click();
  await choose(page.getByLabel("Choices"), "a list");
  await page.getByLabel("One a line").fill("North Quay\nOld Pier\nNorth Quay");
  await page.getByLabel("One a line").blur();
  await expect(page.getByLabel("One a line")).toHaveValue("North Quay\nOld Pier");
});
