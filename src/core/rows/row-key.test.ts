import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { categoryKey, type RowSubject, rowKey, subjectOf } from "./row-key";

const value = fc.oneof(
  fc.constant(null),
  fc.boolean(),
  fc.double({ noNaN: true, noDefaultInfinity: true }).map((n) => n + 0),
  fc.string({ unit: "binary" }),
  fc.constantFrom("", "null", "true", "0", "constructor", "other", "whole", "category:1", "\ud800"),
);
const subject: fc.Arbitrary<RowSubject> = fc.oneof(
  value.map((v) => ({ type: "category" as const, value: v })),
  fc.string().map((id) => ({ type: "measure" as const, id })),
  fc.constantFrom<RowSubject[]>({ type: "other" }, { type: "no match" }, { type: "whole" }),
);

describe("keys of rows", () => {
  it("give back what they stand for, with the type of its value", () => {
    fc.assert(
      fc.property(subject, (s) => {
        expect(subjectOf(rowKey(s))).toEqual(s);
      }),
    );
  });
  it("are the same for the same subject and for no other", () => {
    fc.assert(
      fc.property(subject, subject, (a, b) => {
        expect(rowKey(a) === rowKey(b)).toBe(JSON.stringify(a) === JSON.stringify(b));
      }),
    );
  });
  it("tell values apart that are written alike", () => {
    const alike = [null, "null", true, "true", 1, "1", "", "other"];
    expect(new Set(alike.map(categoryKey)).size).toBe(alike.length);
    expect(categoryKey("other")).not.toBe(rowKey({ type: "other" }));
  });
});
