import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { casesOf, visualOf } from "../../testing/craft/cases";
import { sampleData, seriesData } from "../../testing/craft/sample-data";
import { KINDS } from "../kinds";
import { dashStretches } from "../kinds/anatomy/surface";
import { type Segment, stackOf } from "../kinds/capsule-stack/stack";
import { petalRadius } from "../kinds/rose/scene";
import { cellAt, largestRemainder } from "../kinds/waffle/cells";
import { type Rect, type Sector, textsOf } from "../scene/marks";
import { drawSector, SvgPath } from "../scene/outline";
import { sceneOf } from "./picture";

const share = fc.double({ min: 0, max: 1, noNaN: true });

describe("dashes", () => {
  it("cover exactly the share they stand for, in their order and without overlap", () => {
    fc.assert(
      fc.property(
        share,
        share,
        fc.integer({ min: 1, max: 80 }),
        fc.double({ min: 0.1, max: 0.7, noNaN: true }),
        (a, b, count, gap) => {
          const [from, to] = [Math.min(a, b), Math.max(a, b)];
          const dashes = dashStretches(from, to, count, gap);
          const drawn = dashes.reduce((sum, d) => sum + d.to - d.from, 0);
          expect(drawn / (1 - gap)).toBeCloseTo(to - from, 6);
          for (const [i, d] of dashes.entries()) {
            expect(d.to).toBeGreaterThan(d.from);
            if (i > 0) expect(d.from).toBeGreaterThan(dashes[i - 1].to);
          }
        },
      ),
    );
  });
});

describe("caps", () => {
  it("never lengthen an arc: no point of its outline lies before its start or past its end", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 359, noNaN: true }),
        fc.double({ min: 0.5, max: 355, noNaN: true }),
        fc.double({ min: 10, max: 200, noNaN: true }),
        fc.double({ min: 0.1, max: 0.95, noNaN: true }),
        (start, sweep, outer, hole) => {
          const inner = outer * hole;
          const cap = (outer - inner) / 2;
          const shape: Pick<Sector, "cx" | "cy" | "inner" | "outer" | "start" | "end" | "inset" | "corners"> =
            {
              cx: 0,
              cy: 0,
              inner,
              outer,
              start,
              end: start + sweep,
              inset: 0,
              corners: [cap, cap, cap, cap],
            };
          const path = new SvgPath();
          drawSector(path, shape);
          for (const [, x, y] of path.toString().matchAll(/(-?[\d.]+) (-?[\d.]+)(?=[A-Z]|$)/g)) {
            const [px, py] = [Number(x), Number(y)];
            const distance = Math.hypot(px, py);
            expect(distance).toBeLessThanOrEqual(outer + 0.01);
            if (distance < 0.5) continue;
            const off = (((((Math.atan2(px, -py) * 180) / Math.PI - start) % 360) + 540) % 360) - 180;
            const slack = (0.05 / distance) * (180 / Math.PI);
            const inside = (off >= -slack && off <= sweep + slack) || off + 360 <= sweep + slack;
            expect(inside, `${px} ${py} is at ${off} of ${sweep}`).toBe(true);
          }
        },
      ),
      { numRuns: 200 },
    );
  });
});

const cells = fc.array(fc.option(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { nil: null }), {
  minLength: 1,
  maxLength: 8,
});

describe("stacks", () => {
  it("close: each segment begins where the one before it ends, and the sides add up to their values", () => {
    fc.assert(
      fc.property(cells, fc.boolean(), (values, asShares) => {
        const stack = stackOf(values, asShares);
        const absolute = values.reduce<number>((sum, v) => sum + Math.abs(v ?? 0), 0);
        for (const sign of [1, -1]) {
          const side = stack.filter((s) => Math.sign(s.value) === sign);
          let at = 0;
          for (const s of side) {
            expect(s.from).toBe(at);
            at = s.to;
          }
          const sum = values.reduce<number>(
            (total, v) => total + (Math.sign(v ?? 0) === sign ? (v ?? 0) : 0),
            0,
          );
          expect(at).toBeCloseTo(asShares ? (absolute > 0 ? sum / absolute : 0) : sum, asShares ? 9 : 3);
        }
        const rounded = (end: keyof Segment["outermost"]) => stack.filter((s) => s.outermost[end]);
        // A stack has two round ends: one far end a side, and a near end where there is one side only.
        if (stack.length) expect(rounded("far").length + rounded("near").length).toBe(2);
        for (const s of rounded("far")) expect(s.value).not.toBe(0);
      }),
    );
  });

  it("gaps never turn a visible segment negative, whatever its size", () => {
    fc.assert(
      fc.property(
        fc.array(cells, { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 96, max: 900 }),
        fc.double({ min: 0, max: 12, noNaN: true }),
        (grid, width, gap) => {
          const scene = sceneOf(visualOf("capsule stack", { "bar.gap": gap }), seriesData(grid), undefined, {
            size: { width, height: Math.round(width * 0.7) },
          });
          for (const m of scene.marks.filter((k): k is Rect => k.type === "rect"))
            expect(Math.min(m.width, m.height), m.id).toBeGreaterThanOrEqual(0);
          const donut = sceneOf(
            visualOf("donut", { "arc.gap": gap }),
            sampleData(grid[0].map((v) => (v === null ? null : Math.abs(v)))),
            undefined,
            {
              size: { width, height: width },
            },
          );
          for (const m of donut.marks.filter((k): k is Sector => k.type === "sector"))
            expect(m.end, m.id).toBeGreaterThanOrEqual(m.start);
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe("waffle", () => {
  it("the cells of several parts add up to the grid, each within one cell of its share; ties go by order", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 1e12, noNaN: true }), { minLength: 1, maxLength: 20 }),
        fc.integer({ min: 1, max: 400 }),
        (values, total) => {
          const given = largestRemainder(values, total);
          const sum = values.reduce((a, b) => a + b, 0);
          expect(given.reduce((a, b) => a + b, 0)).toBe(Math.max(...values) > 0 ? total : 0);
          if (sum > 0)
            for (const [i, g] of given.entries())
              expect(Math.abs(g - (values[i] / sum) * total)).toBeLessThanOrEqual(1 + 1e-6);
        },
      ),
    );
    expect(largestRemainder([1, 1, 1], 10)).toEqual([4, 3, 3]);
    expect(largestRemainder([0, 0], 10)).toEqual([0, 0]);
  });

  it("every cell of the grid is filled once, in any order from any corner", () => {
    for (const order of ["row", "column"])
      for (const corner of ["bottom left", "top left", "bottom right", "top right"]) {
        const seen = new Set(
          Array.from({ length: 35 }, (_, n) => JSON.stringify(cellAt(n, 5, 7, order, corner))),
        );
        expect(seen.size).toBe(35);
        expect(cellAt(0, 5, 7, order, corner)).toEqual({
          column: corner.endsWith("left") ? 0 : 6,
          row: corner.startsWith("top") ? 0 : 4,
        });
      }
  });
});

it("a petal's area, or its length, is in proportion to its value", () => {
  fc.assert(
    fc.property(share, fc.double({ min: 0, max: 50, noNaN: true }), (s, hole) => {
      const r = 120;
      expect((petalRadius(s, hole, r, "area") ** 2 - hole ** 2) / (r ** 2 - hole ** 2)).toBeCloseTo(s, 9);
      expect((petalRadius(s, hole, r, "length") - hole) / (r - hole)).toBeCloseTo(s, 9);
    }),
  );
});

it("no text of a picture has two spaces side by side, which SVG draws as one and others as two", () => {
  for (const { id } of KINDS)
    for (const { name, data, dials, look } of casesOf(id))
      for (const text of textsOf(sceneOf(visualOf(id, dials, look), data)))
        expect(text, `${id}: ${name}`).not.toMatch(/ {2}/);
});
