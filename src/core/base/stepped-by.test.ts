import fc from "fast-check";
import { expect, it } from "vitest";
import { steppedBy } from "./stepped-by";

it("goes on and back, round at both ends, and to the ends at once", () => {
  expect(
    ["ArrowRight", "ArrowDown", "ArrowLeft", "ArrowUp", "Home", "End"].map((k) => steppedBy(k, 1, 3)),
  ).toEqual([2, 2, 0, 0, 0, 2]);
  expect(steppedBy("ArrowRight", 2, 3)).toBe(0);
  expect(steppedBy("ArrowLeft", 0, 3)).toBe(2);
  expect(steppedBy("ArrowRight", -1, 3)).toBe(0);
  expect(steppedBy("a", 1, 3)).toBeNull();
  expect(steppedBy("Home", 0, 0)).toBeNull();
});

it("never leaves the list, wherever it was when the data changed", () => {
  const key = fc.constantFrom("ArrowRight", "ArrowDown", "ArrowLeft", "ArrowUp", "Home", "End");
  fc.assert(
    fc.property(key, fc.integer({ min: -1, max: 50 }), fc.integer({ min: 1, max: 20 }), (k, at, count) => {
      const next = steppedBy(k, Math.min(at, count - 1), count);
      expect(next).toBeGreaterThanOrEqual(0);
      expect(next).toBeLessThan(count);
    }),
  );
});
