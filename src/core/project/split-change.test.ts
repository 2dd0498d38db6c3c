import { expect, it } from "vitest";
import type { Visual } from "./schema";
import { orderAfter } from "./split-change";

const BY_SIZE: Visual["order"] = { by: "value", order: "desc" };
const BY_TIME: Visual["order"] = { by: "split", order: "asc" };
const route = { column: "route" };
const month = { column: "date", by: "month" as const };
const year = { column: "date", by: "year" as const };

it("dates stand in order of time, and other rows by size, unless somebody chose an order", () => {
  const after = (split: Visual["split"], order: Visual["order"], next: Visual["split"]) =>
    orderAfter({ split, order }, next);
  expect(after(route, BY_SIZE, month)).toEqual(BY_TIME);
  expect(after(null, BY_SIZE, month)).toEqual(BY_TIME);
  expect(after(month, BY_TIME, route)).toEqual(BY_SIZE);
  expect(after(month, BY_TIME, year)).toEqual(BY_TIME);
  // Chosen: the smallest first, by another measure, months by size, routes in their own order.
  const smallest: Visual["order"] = { by: "value", order: "asc" };
  expect(after(route, smallest, month)).toEqual(smallest);
  const byOther: Visual["order"] = { by: { measure: "m" }, order: "desc" };
  expect(after(route, byOther, month)).toEqual(byOther);
  expect(after(month, BY_SIZE, year)).toEqual(BY_SIZE);
  expect(after(route, BY_TIME, { column: "vessel" })).toEqual(BY_TIME);
  expect(after(month, BY_TIME, null)).toEqual(BY_TIME);
});
