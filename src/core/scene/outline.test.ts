import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawRect, drawSector, fittedRadii, type Pen, SvgPath } from "./outline";

type Point = [number, number];

/** A pen that keeps the points of an outline, arcs in fine steps. */
class Tracer implements Pen {
  points: Point[] = [];
  moveTo(x: number, y: number) {
    this.points.push([x, y]);
  }
  lineTo(x: number, y: number) {
    this.points.push([x, y]);
  }
  arc(cx: number, cy: number, r: number, a: number, b: number, anticlockwise = false) {
    const turn = 2 * Math.PI;
    let sweep = b - a;
    if (!anticlockwise && sweep < 0) sweep = ((sweep % turn) + turn) % turn;
    if (anticlockwise && sweep > 0) sweep = -(((-sweep % turn) + turn) % turn);
    for (let i = 0; i <= 120; i++)
      this.points.push([cx + r * Math.cos(a + (sweep * i) / 120), cy + r * Math.sin(a + (sweep * i) / 120)]);
  }
  closePath() {}
}

function area(points: Point[]): number {
  let sum = 0;
  for (let i = 0; i < points.length; i++) {
    const [x, y] = points[i];
    const [u, v] = points[(i + 1) % points.length];
    sum += x * v - u * y;
  }
  return Math.abs(sum / 2);
}

const sectors = fc.record({
  inner: fc.double({ min: 0, max: 90, noNaN: true }),
  thickness: fc.double({ min: 1, max: 60, noNaN: true }),
  start: fc.double({ min: 0, max: 359, noNaN: true }),
  span: fc.double({ min: 0.3, max: 359, noNaN: true }),
  inset: fc.double({ min: 0, max: 4, noNaN: true }),
  corner: fc.double({ min: 0, max: 40, noNaN: true }),
});

describe("sectors", () => {
  it("stay within their ring and their angles, whatever the rounding and the gap", () => {
    fc.assert(
      fc.property(sectors, ({ inner, thickness, start, span, inset, corner }) => {
        const outer = inner + thickness;
        const pen = new Tracer();
        drawSector(pen, {
          cx: 0,
          cy: 0,
          inner,
          outer,
          start,
          end: start + span,
          inset,
          corners: [corner, corner, corner, corner],
        });
        for (const [x, y] of pen.points) {
          const distance = Math.hypot(x, y);
          expect(Number.isFinite(distance)).toBe(true);
          expect(distance).toBeLessThan(outer + 1e-6);
          // The point of a wedge without a hole lies at its centre side.
          if (inner > 15 && span > 8) expect(distance).toBeGreaterThan(inner - 1e-6);
          if (distance > 1 && span < 350) {
            const turn = ((((Math.atan2(x, -y) * 180) / Math.PI - start) % 360) + 360) % 360;
            const off = turn > span ? Math.min(turn - span, 360 - turn) : 0;
            expect((off * Math.PI * distance) / 180).toBeLessThan(0.02);
          }
        }
        expect(area(pen.points)).toBeGreaterThan(0);
      }),
      { numRuns: 500, seed: 7 },
    );
  });

  it("cover the area of their share when they have neither gap nor rounding", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 359, noNaN: true }),
        fc.double({ min: 0, max: 80, noNaN: true }),
        (span, inner) => {
          const pen = new Tracer();
          drawSector(pen, {
            cx: 5,
            cy: -3,
            inner,
            outer: 100,
            start: 20,
            end: 20 + span,
            inset: 0,
            corners: [0, 0, 0, 0],
          });
          const expected = ((100 ** 2 - inner ** 2) * Math.PI * span) / 360;
          expect(Math.abs(area(pen.points) - expected) / expected).toBeLessThan(0.002);
        },
      ),
      { numRuns: 200, seed: 3 },
    );
  });

  it("with round caps end where the value ends", () => {
    const pen = new Tracer();
    drawSector(pen, {
      cx: 0,
      cy: 0,
      inner: 80,
      outer: 100,
      start: 0,
      end: 90,
      inset: 0,
      corners: [10, 10, 10, 10],
    });
    const furthest = Math.max(...pen.points.map(([x, y]) => (Math.atan2(x, -y) * 180) / Math.PI));
    expect(furthest).toBeLessThanOrEqual(90 + 1e-6);
    expect(furthest).toBeGreaterThan(89.9);
  });

  it("make a whole ring with its hole at 360 degrees", () => {
    const pen = new SvgPath();
    drawSector(pen, {
      cx: 50,
      cy: 50,
      inner: 20,
      outer: 40,
      start: 0,
      end: 360,
      inset: 2,
      corners: [5, 5, 5, 5],
    });
    expect(pen.toString().match(/Z/g)).toHaveLength(2);
    expect(pen.toString()).not.toMatch(/NaN|Infinity/);
  });
});

describe("boxes", () => {
  it("shrink all radii together until no two corners meet", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 300, noNaN: true }),
        fc.double({ min: 0.1, max: 60, noNaN: true }),
        fc.array(fc.double({ min: 0, max: 200, noNaN: true }), { minLength: 4, maxLength: 4 }),
        (width, height, radii) => {
          const [a, b, c, d] = fittedRadii({
            width,
            height,
            radii: radii as [number, number, number, number],
          });
          for (const [sum, side] of [
            [a + b, width],
            [d + c, width],
            [a + d, height],
            [b + c, height],
          ])
            expect(sum).toBeLessThanOrEqual(side + 1e-9);
          const pen = new Tracer();
          drawRect(pen, { x: 0, y: 0, width, height, radii: radii as [number, number, number, number] });
          for (const [x, y] of pen.points) {
            expect(x).toBeGreaterThan(-1e-9);
            expect(x).toBeLessThan(width + 1e-9);
            expect(y).toBeGreaterThan(-1e-9);
            expect(y).toBeLessThan(height + 1e-9);
          }
        },
      ),
      { numRuns: 300, seed: 5 },
    );
  });

  it("of no length draw nothing", () => {
    const pen = new SvgPath();
    drawRect(pen, { x: 0, y: 0, width: 0, height: 10, radii: [5, 5, 5, 5] });
    expect(pen.toString()).toBe("");
  });
});
