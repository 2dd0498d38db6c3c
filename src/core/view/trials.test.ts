import { describe, expect, it } from "vitest";
import { sampleData } from "../../testing/craft/sample-data";
import { PERCENT_FORMAT } from "../base/number-format";
import { newVisual } from "../project/defaults";
import type { VisualData } from "../rows/visual-data";
import { trialsOf } from "./trials";

const donut = newVisual({ id: "v", name: "V", kind: "donut", value: "m", split: { column: "route" } });
const gauge = newVisual({ id: "v", name: "V", kind: "gauge", value: "m" });
const by = (trials: ReturnType<typeof trialsOf>, id: string): VisualData => {
  const found = trials.find((t) => t.id === id);
  if (!found) throw new Error(`no trial ${id}`);
  return found.data;
};

describe("the trials of a visual that is split", () => {
  const trials = trialsOf(donut, sampleData([30, 20, 10]));

  it("are six, each with its rows and their sum", () => {
    expect(trials.map((t) => t.id)).toEqual(["zero", "one", "dominant", "negative", "crowd", "empty"]);
    for (const { id, data } of trials) {
      if (id === "empty") continue;
      expect(data.total, id).toBeCloseTo(data.rows.reduce((sum, r) => sum + (r.value ?? 0), 0));
    }
  });

  it("are what their names say", () => {
    expect(by(trials, "zero").rows.map((r) => r.value)).toEqual([0, 0, 0]);
    expect(by(trials, "one").rows).toHaveLength(1);
    expect(by(trials, "crowd").rows).toHaveLength(40);
    expect(new Set(by(trials, "crowd").rows.map((r) => r.key)).size).toBe(40);
    expect(by(trials, "negative").rows.filter((r) => (r.value ?? 0) < 0)).toHaveLength(1);
    const [first, ...others] = by(trials, "dominant").rows.map((r) => r.value as number);
    expect(first).toBeGreaterThan(50 * Math.max(...others));
    expect(by(trials, "empty").rows).toEqual([]);
  });

  it("keep what stands beside a value in its proportion, and leave the data as they are", () => {
    const data = sampleData([30, 20]);
    data.rows[0] = { ...data.rows[0], second: 60, cells: [10, 20] };
    const before = structuredClone(data);
    const dominant = by(trialsOf(donut, data), "dominant").rows[0];
    expect(dominant.second).toBe(2 * (dominant.value as number));
    expect(dominant.cells.map((c) => (c as number) / (dominant.value as number))).toEqual([1 / 3, 2 / 3]);
    expect(data).toEqual(before);
  });
});

describe("the trials of a visual of one value", () => {
  it("stand around its goal", () => {
    const trials = trialsOf(gauge, sampleData([50], { target: 200 }));
    const rounded = trials.map(({ data }) =>
      data.total === null ? null : Math.round(data.total * 1e6) / 1e6,
    );
    expect(rounded).toEqual([0, 199, 200, 224, -40, null]);
  });

  it("stand around the end of the scale without a goal, and around 100 % for a percent", () => {
    expect(by(trialsOf(gauge, sampleData([5], { maximum: 10, target: null })), "goal").total).toBe(10);
    expect(
      by(trialsOf(gauge, sampleData([0.5], { format: PERCENT_FORMAT, target: null })), "goal").total,
    ).toBe(1);
  });

  it("tell templates the value of the trial", () => {
    const names = by(trialsOf(gauge, sampleData([50], { target: 200 })), "past").names;
    const value = (name: string) => (names[name] as { value: number }).value;
    expect(value("share")).toBeCloseTo(1.12);
    expect(value("value")).toBeCloseTo(224);
  });
});

it("there are none while something is missing", () => {
  expect(trialsOf(gauge, { ...sampleData([1]), problem: "Choose a measure" })).toEqual([]);
});
