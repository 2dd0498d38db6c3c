import fc from "fast-check";
import { expect, it } from "vitest";
import { isTyped, meaningsOf, writeTyped } from "./typed-number";

it("reads numbers as people type them; a percent with or without its sign", () => {
  expect(meaningsOf("92", true)).toEqual([0.92]);
  expect(meaningsOf("92 %", true)).toEqual([0.92]);
  expect(meaningsOf("86,4%", true)).toEqual([0.864]);
  expect(meaningsOf("92", false)).toEqual([92]);
  expect(meaningsOf("0.7", false)).toEqual([0.7]);
  expect(meaningsOf("1 200", false)).toEqual([1200]);
  for (const text of ["lots", "", "7 of 8"]) expect(isTyped(text, true), text).toBe(false);
});

it("of a percent, a number up to 1 without a sign can be a share or a percent, and both are given", () => {
  expect(meaningsOf("0.7", true)).toEqual([0.7, 0.007]);
  expect(meaningsOf("-0,5", true)).toEqual([-0.5, -0.005]);
  expect(meaningsOf("1", true)).toEqual([1, 0.01]);
  expect(meaningsOf("0", true)).toEqual([0]);
  expect(meaningsOf("0.7 %", true)).toEqual([0.007]);
});

it("what it writes it reads again, and as one thing", () => {
  fc.assert(
    fc.property(fc.integer({ min: -1e7, max: 1e7 }), fc.boolean(), (n, percent) => {
      const value = n / 1000;
      const [read, ...others] = meaningsOf(writeTyped(value, percent), percent);
      expect(read).toBeCloseTo(value, 9);
      expect(others).toEqual([]);
    }),
  );
});
