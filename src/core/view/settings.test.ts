import { describe, expect, it } from "vitest";
import { newFilter } from "../project/defaults";
import type { Setting } from "../project/schema";
import { allOf, filterOfSetting, isOfForm, isSameSetting, keepsAll, valuesIn } from "./settings";
import { SPANS, spansFrom, spanText } from "./spans";

const FORMS = ["buttons", "list", "stretch", "text"] as const;
const relative: Setting = { relative: { unit: "month", from: -3, to: -1, anchor: "newest" } };

describe("what a filter is set to", () => {
  it("keeps all in every form where nothing is set, and asks for no filter then", () => {
    for (const as of FORMS) {
      const all = allOf({ as });
      expect(keepsAll(all)).toBe(true);
      expect(isOfForm({ as }, all)).toBe(true);
      const control = newFilter({ id: "f", label: "F", table: "t", column: "a.b", as });
      expect(filterOfSetting(control, all)).toBeNull();
    }
    expect(keepsAll({ contains: " " })).toBe(true);
    expect(keepsAll({ in: [null] })).toBe(false);
    expect(keepsAll({ from: 0, to: null })).toBe(false);
    expect(keepsAll(relative)).toBe(false);
  });

  it("is of one form and not of another", () => {
    expect(FORMS.map((as) => isOfForm({ as }, { in: [false] }))).toEqual([true, true, false, false]);
    expect(FORMS.map((as) => isOfForm({ as }, relative))).toEqual([false, false, true, false]);
    expect(FORMS.map((as) => isOfForm({ as }, { contains: "x" }))).toEqual([false, false, false, true]);
  });

  it("is the same whatever the order of its values, and tells their types apart", () => {
    expect(isSameSetting({ in: ["a", null] }, { in: [null, "a"] })).toBe(true);
    expect(isSameSetting({ in: [true] }, { in: ["true"] })).toBe(false);
    expect(isSameSetting({ in: [] }, { contains: "" })).toBe(true);
    expect(isSameSetting({ from: 1, to: null }, { from: 1, to: 2 })).toBe(false);
    expect(isSameSetting(relative, relative)).toBe(true);
    expect(valuesIn(relative)).toEqual([]);
  });
});

it("spans are called what a reader calls them, by today or by the newest row", () => {
  const said = SPANS.map((span) => spanText({ ...span, anchor: "today" }));
  expect(said).toContain("the last 3 months");
  expect(said).toContain("this year");
  expect(new Set(said).size).toBe(SPANS.length);
  expect(spanText({ unit: "month", from: -3, to: -1, anchor: "newest" })).toBe(
    "the 3 months before that of the newest row",
  );
  expect(spanText({ unit: "month", from: -2, to: 0, anchor: "newest" })).toBe(
    "the last 3 months, with the newest row",
  );
  // What is offered by the newest row holds it, but for the one stretch before.
  const offered = spansFrom("newest").map((span) => spanText({ ...span, anchor: "newest" }));
  expect(offered).toContain("the last 3 months, with the newest row");
  expect(offered).not.toContain("the 3 months before that of the newest row");
  expect(new Set(offered).size).toBe(offered.length);
});
