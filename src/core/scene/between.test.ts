import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { FINISHES } from "@/core/kinds/finishes";
import { KINDS } from "@/core/kinds/index";
import { sceneOf } from "@/core/view/picture";
import { casesOf, visualOf } from "@/testing/craft/cases";
import { beginning, markBetween } from "./between";
import type { Mark, Rect, Sector } from "./marks";

const rect: Rect = {
  id: "a",
  part: "bar",
  type: "rect",
  x: 10,
  y: 20,
  width: 100,
  height: 8,
  radii: [4, 4, 4, 4],
  fill: "#000000",
};
const sector: Sector = {
  id: "a",
  part: "ring",
  type: "sector",
  cx: 50,
  cy: 50,
  inner: 20,
  outer: 40,
  start: 90,
  end: 270,
  inset: 1,
  corners: [2, 2, 0, 0],
  fill: "#ff0000",
  grow: "sweep",
};

describe("a mark on its way", () => {
  it("moves its lengths, angles, corners and colours, and is the new one in all else", () => {
    const after = {
      ...rect,
      x: 30,
      width: 50,
      radii: [0, 8, 8, 0] as Rect["radii"],
      fill: "#ffffff",
      part: "b",
    };
    expect(markBetween(rect, after, 0.25)).toEqual({
      ...after,
      x: 15,
      width: 87.5,
      radii: [3, 5, 5, 3],
      fill: "#404040",
      opacity: 1,
    });
    expect(markBetween(sector, { ...sector, end: 300 }, 0.5)).toMatchObject({ start: 90, end: 285 });
  });

  it("enters out of nothing: by its length, from where it grows, or by its opacity", () => {
    expect(beginning(sector)).toMatchObject({ start: 90, end: 90 });
    expect(beginning({ ...rect, grow: "right" })).toMatchObject({ x: 110, width: 0 });
    expect(beginning({ ...rect, grow: "bottom" })).toMatchObject({ y: 28, height: 0 });
    expect(markBetween(undefined, rect, 0)).toMatchObject({ opacity: 0, width: 100 });
    // One that was of another type is another mark.
    expect(markBetween(rect, sector, 0)).toMatchObject({ type: "sector", end: 90 });
  });

  it("begins as the old and ends as the new, for every kind in every finish", () => {
    let moved = 0;
    for (const kind of KINDS) {
      const [first, second] = casesOf(kind.id);
      for (const finish of FINISHES) {
        const scenes = [first, second].map(({ data, dials }) =>
          sceneOf(visualOf(kind.id, dials, { finish: finish.id }), data, undefined, { theme: "light" }),
        );
        const before = new Map<string, Mark>(scenes[0].marks.map((m) => [m.id, m]));
        for (const after of scenes[1].marks) {
          const was = before.get(after.id);
          expect(markBetween(was, after, 1)).toBe(after);
          const half = markBetween(was, after, 0.5);
          const numbers = Object.values(half)
            .flat(2)
            .filter((v) => typeof v === "number");
          expect(numbers.every(Number.isFinite), after.id).toBe(true);
          const atRest = { ...after, opacity: after.opacity ?? 1 };
          if (was && JSON.stringify(half) !== JSON.stringify(atRest)) moved++;
        }
      }
    }
    expect(moved).toBeGreaterThan(100);
  });

  it("never leaves the stretch between the two", () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), fc.integer(), fc.integer(), (share, a, b) => {
        const { x } = markBetween({ ...rect, x: a }, { ...rect, x: b }, share) as Rect;
        expect(x).toBeGreaterThanOrEqual(Math.min(a, b) - 1e-6);
        expect(x).toBeLessThanOrEqual(Math.max(a, b) + 1e-6);
      }),
    );
  });
});
