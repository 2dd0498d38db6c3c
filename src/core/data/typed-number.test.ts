import fc from "fast-check";
import { expect, it } from "vitest";
import { isTyped, meaningsOf, unclear, writeTyped } from "./typed-number";

it("reads numbers as people type them; a percent with its sign", () => {
  expect(meaningsOf("92 %", true)).toEqual([0.92]);
  expect(meaningsOf("86,4%", true)).toEqual([0.864]);
  expect(meaningsOf("92", false)).toEqual([92]);
  expect(meaningsOf("0.7", false)).toEqual([0.7]);
  expect(meaningsOf("1 200", false)).toEqual([1200]);
  for (const text of ["lots", "", "7 of 8"]) expect(isTyped(text, true), text).toBe(false);
});

it("of a percent, a number without a sign can be a share or a percent, and both are given", () => {
  expect(meaningsOf("92", true)).toEqual([0.92, 92]);
  expect(unclear("70", true)).toBe("“70” can be 70 % or 7000 %. Write it with its %.");
  expect([unclear("70 %", true), unclear("70", false), unclear("0", true), unclear("x", true)]).toEqual([
    null,
    null,
    null,
    null,
  ]);
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
