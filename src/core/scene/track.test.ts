import { describe, expect, it } from "vitest";
import { drawnZones, sampleData, VALUES } from "../../testing/craft/sample-data";
import { PERCENT_FORMAT } from "../base/number-format";
import { type Visual, visualSchema } from "../project/schema";
import type { VisualData } from "../rows/visual-data";
import { sceneOf } from "../view/picture";
import { keyedValue, valueAt } from "./track";

const data = (total: number, more: Partial<VisualData> = {}) =>
  sampleData([total], { title: "A", subtitle: "", ...more });
const visual = (kind: Visual["kind"], dials: Visual["dials"] = {}) =>
  visualSchema.parse({ id: "v", name: "v", kind, value: "m", dials });
const rate = data(0.6, {
  format: PERCENT_FORMAT,
  target: 0.92,
  minimum: 0,
  maximum: 1,
  zones: drawnZones([
    { to: 0.5, word: "poor", tone: "poor" },
    { to: 0.8, word: "watch", tone: "watch" },
    { to: null, word: "good", tone: "good" },
  ]),
});

const CASES: [string, Visual, VisualData][] = [
  ["donut", visual("donut"), data(5)],
  [
    "donut, turned",
    visual("donut", { "arc.start": 200, "arc.hole": 30, "arc.sweep": 150, "arc.direction": "counter" }),
    data(5),
  ],
  ["gauge", visual("gauge"), rate],
  ["gauge, half", visual("gauge", { "arc.start": 270, "arc.sweep": 180 }), rate],
  ["progress bar", visual("progress bar"), data(80, { target: 120 })],
  ["progress ring", visual("progress ring"), data(80, { target: 120 })],
  ["rounded bars", visual("rounded bars"), sampleData(VALUES)],
  ["rounded bars, to the right", visual("rounded bars", { "bar.direction": "right" }), sampleData(VALUES)],
  ["lollipop", visual("lollipop"), sampleData(VALUES)],
  ["rose", visual("rose"), sampleData(VALUES)],
  ["waffle", visual("waffle"), data(80, { target: 120 })],
];

describe("handles", () => {
  for (const [name, v, d] of CASES) {
    it(`${name}: each stands where its own value is`, () => {
      const { handles } = sceneOf(v, d, undefined, { size: { width: 400, height: 330 } });
      expect(handles.length).toBeGreaterThan(0);
      for (const handle of handles) {
        // At the seam of a full turn both ends of the track are one point.
        const got =
          valueAt(handle, handle.x, handle.y) % (handle.to === 360 ? 360 : Number.POSITIVE_INFINITY);
        expect(Math.abs(got - handle.value), handle.id).toBeLessThanOrEqual(handle.step * 0.51);
      }
    });
  }

  it("stay within their limits, however far the pointer goes", () => {
    for (const [, v, d] of CASES) {
      for (const handle of sceneOf(v, d).handles) {
        for (const [x, y] of [
          [-5000, -5000],
          [5000, 5000],
          [0, 9000],
          [200, 165],
        ]) {
          const value = valueAt(handle, x, y);
          expect(value).toBeGreaterThanOrEqual(Math.min(handle.from, handle.to) - 1e-9);
          expect(value).toBeLessThanOrEqual(Math.max(handle.from, handle.to) + 1e-9);
        }
      }
    }
  });
});

describe("a handle moved by keys", () => {
  const handle = { value: 50, from: 0, to: 95, step: 1 };
  it("goes a step, ten steps, or to an end, and never past it", () => {
    expect(
      ["ArrowUp", "ArrowLeft", "PageUp", "PageDown", "Home", "End"].map((k) => keyedValue(handle, k)),
    ).toEqual([51, 49, 60, 40, 0, 95]);
    expect(keyedValue({ ...handle, value: 90 }, "PageUp")).toBe(95);
    expect(keyedValue({ ...handle, from: 95, to: 0, value: 3 }, "PageDown")).toBe(0);
    expect(keyedValue({ ...handle, value: 0.1, step: 0.2 }, "ArrowUp")).toBe(0.3);
    expect(keyedValue(handle, "Enter")).toBeNull();
    expect(keyedValue(handle, "constructor")).toBeNull();
  });
});
