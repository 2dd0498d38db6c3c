import fc from "fast-check";
import { expect, it } from "vitest";
import { stepped } from "./stepping";

it("steps on the grid of the minimum and stays within the limits", () => {
  expect(stepped(0.92, -1, { minimum: 0, maximum: 1, step: 0.01 })).toBe(0.91);
  expect(stepped(0.925, 1, { minimum: 0, maximum: 1, step: 0.01 })).toBe(0.93);
  expect(stepped(0.925, -1, { minimum: 0, maximum: 1, step: 0.01 })).toBe(0.92);
  expect(stepped(1, 1, { minimum: 0, maximum: 1, step: 0.01 })).toBe(1);
  expect(stepped(5, -1, { minimum: 5, maximum: null, step: 3 })).toBe(5);
  expect(stepped(7, 1, { minimum: null, maximum: null, step: null })).toBe(8);
});

it("comes back to where it was, a step up and a step down", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -500, max: 500 }),
      fc.constantFrom(0.01, 0.05, 0.1, 0.25, 1, 5),
      (n, step) => {
        const value = Number((n * step).toPrecision(12));
        const limits = { minimum: null, maximum: null, step };
        expect(stepped(stepped(value, 1, limits), -1, limits)).toBeCloseTo(value, 9);
      },
    ),
  );
});
