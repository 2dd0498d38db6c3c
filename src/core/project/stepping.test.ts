import fc from "fast-check";
import { expect, it } from "vitest";
import { NEW_FORMAT, PERCENT_FORMAT } from "../base/number-format";
import { stepOf, stepped } from "./stepping";

const format = NEW_FORMAT;

it("steps on the grid of the minimum and stays within the limits", () => {
  expect(stepped(0.92, -1, { minimum: 0, maximum: 1, step: 0.01, format })).toBe(0.91);
  expect(stepped(0.925, 1, { minimum: 0, maximum: 1, step: 0.01, format })).toBe(0.93);
  expect(stepped(0.925, -1, { minimum: 0, maximum: 1, step: 0.01, format })).toBe(0.92);
  expect(stepped(1, 1, { minimum: 0, maximum: 1, step: 0.01, format })).toBe(1);
  expect(stepped(5, -1, { minimum: 5, maximum: null, step: 3, format })).toBe(5);
  expect(stepped(7, 1, { minimum: null, maximum: null, step: null, format })).toBe(8);
});

it("comes back to where it was, a step up and a step down", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -500, max: 500 }),
      fc.constantFrom(0.01, 0.05, 0.1, 0.25, 1, 5),
      (n, step) => {
        const value = Number((n * step).toPrecision(12));
        const limits = { minimum: null, maximum: null, step, format };
        expect(stepped(stepped(value, 1, limits), -1, limits)).toBeCloseTo(value, 9);
      },
    ),
  );
});

it("moves a percent by a point, and what has a range by a readable hundredth of it", () => {
  const without = { minimum: null, maximum: null, step: null };
  expect(stepped(0.15, 1, { ...without, format: PERCENT_FORMAT })).toBe(0.16);
  expect(stepped(0.15, -1, { ...without, format: PERCENT_FORMAT })).toBe(0.14);
  const hundredth = (minimum: number, maximum: number) => stepOf({ minimum, maximum, step: null, format });
  expect(hundredth(0, 1)).toBe(0.01);
  expect(hundredth(0, 42_000)).toBe(200);
  expect(hundredth(10_000, 60_000)).toBe(500);
  expect(hundredth(0, 7)).toBe(0.05);
  expect(stepOf({ minimum: 0, maximum: 1, step: 0.25, format })).toBe(0.25);
});
