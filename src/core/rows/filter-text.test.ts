import { expect, it } from "vitest";
import { filterText } from "./filter-text";

it("says every filter in words", () => {
  const relative = (from: number, to: number, anchor: "today" | "newest" = "today") =>
    filterText({ column: "date", relative: { unit: "month", from, to, anchor } });
  expect(filterText({ column: "route", in: ["North Quay", null] })).toBe("North Quay and (none)");
  expect(filterText({ column: "route", in: ["a", "b", "c"] })).toBe("3 of route");
  expect(filterText({ column: "ok", in: [true] })).toBe("yes");
  expect(filterText({ column: "route", in: ["a"], noMatch: true })).toBe("a and (no match)");
  expect(filterText({ column: "route", not: ["a"] })).toBe("route without a");
  expect(filterText({ column: "route", not: ["a", "b"] })).toBe("route without a and b");
  expect(filterText({ column: "route", not: ["a", "b"], noMatch: true })).toBe("route without 3 values");
  expect(filterText({ column: "route", not: [] })).toBe("route: all");
  expect(filterText({ column: "route", contains: "quay" })).toBe("route with “quay”");
  expect(filterText({ column: "route", isNull: true })).toBe("route empty");
  expect(filterText({ column: "delay", from: 0, to: 30 })).toBe("delay 0 to 30");
  expect(filterText({ column: "delay", to: 30 })).toBe("delay up to 30");
  expect(relative(0, 0)).toBe("date: this month");
  expect(relative(-3, -1)).toBe("date: the last 3 months");
  expect(relative(-2, 0)).toBe("date: the last 3 months with the present one");
  expect(relative(0, 0, "newest")).toBe("date: the last month of its dates");
  expect(relative(-2, 0, "newest")).toBe("date: the last 3 months of its dates");
  expect(relative(-1, -1, "newest")).toBe("date: the month before the last of its dates");
  expect(relative(-3, -1, "newest")).toBe("date: the 3 months before the last of its dates");
});
