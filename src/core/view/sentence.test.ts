import { describe, expect, it } from "vitest";
import { KINDS } from "../kinds";
import { newInput, newMeasure, newVisual } from "../project/defaults";
import { emptyProject, type Project, tableSchema, type Visual } from "../project/schema";
import { type PhraseToken, say, sentenceText, tokenKeys } from "./sentence";

const table = tableSchema.parse({
  id: "t",
  name: "trips",
  rows: 1,
  source: { file: "t.csv" },
  columns: [
    { name: "route", reading: { type: "text" } },
    { name: "date", reading: { type: "date" } },
  ],
});
const project: Project = {
  ...emptyProject("P"),
  tables: [table],
  measures: ["Riders", "Seats"].map((label) =>
    newMeasure({ id: label, name: label.toLowerCase(), label, table: "trips", formula: "count(*)" }),
  ),
  inputs: [newInput({ id: "goal", name: "goal", label: "Goal", type: "number", value: 90 })],
};
const tokens = (more: Partial<Visual>, labels: string[] = []) =>
  say({
    visual: newVisual({ id: "v", name: "V", kind: "donut", value: "Riders", ...more }),
    project,
    scale: { minimum: 0, maximum: 100 },
    pictured: labels.map((label) => ({ key: label, label })),
  });
const said = (more: Partial<Visual>, labels?: string[]) => sentenceText(tokens(more, labels));
const phrases = (more: Partial<Visual>) =>
  tokens(more).filter((t): t is PhraseToken => typeof t !== "string");

describe("the sentence of a visual", () => {
  it("says what a donut is made from", () => {
    expect(said({ split: { column: "route" }, keep: { first: 6, others: true }, more: ["Seats"] })).toBe(
      "Show riders and seats as a donut, split by route, then …, and within each by …, largest first, " +
        "keeping the first 6 and Other, with pictures …, for all rows.",
    );
  });

  it("says a gauge with its goal, its range and its zones, in the measure's format", () => {
    const zones: Visual["zones"] = [
      { to: 70, word: "poor", tone: "poor" },
      { to: 85, word: "watch", tone: "watch" },
      { to: null, word: "good", tone: "good" },
    ];
    expect(said({ kind: "gauge", target: { input: "goal" }, minimum: { number: 10 }, zones })).toBe(
      "Show riders as a gauge against goal 90, from 10 to 100, with zones at 70 and 85, for all rows.",
    );
    expect(said({ kind: "gauge" })).toContain("against a target …, from 0 to 100, with zones …");
  });

  it("has a key for each token that no other has, and that stays while others come and go", () => {
    const zones: Visual["zones"] = [
      { to: 70, word: "poor", tone: "poor" },
      { to: null, word: "good", tone: "good" },
    ];
    const keys = (change: Partial<Visual>) => tokenKeys(tokens(change));
    const gauge = keys({ kind: "gauge", target: { input: "goal" }, zones });
    expect(new Set(gauge).size).toBe(gauge.length);
    const kept = gauge.filter((key) => key.startsWith("{") && !key.includes("zones"));
    expect(kept.length).toBeGreaterThan(4);
    expect(keys({ kind: "gauge", target: { input: "goal" } })).toEqual(expect.arrayContaining(kept));
  });

  it("says a course over time, heads, pictures and filters", () => {
    expect(said({ kind: "number", split: { column: "date", by: "month" } })).toContain("over date by month");
    expect(
      said(
        { kind: "lollipop", split: { column: "route" }, pictures: { A: "icon:ship" }, headSize: "Seats" },
        ["A", "B"],
      ),
    ).toMatch(/heads sized by seats, .*, with pictures in 1 head, for all rows/);
    expect(said({ filters: [{ column: "route", in: ["A", "B"] }] })).toContain("for A and B.");
  });

  it("says what is gone, and what is not said yet", () => {
    expect(said({ value: "gone" })).toContain("Show a measure …");
    expect(said({ split: { column: "lost" } })).toContain("split by lost, which is gone");
    expect(phrases({ value: null }).find((p) => p.label === "Measure")?.tone).toBe("missing");
    expect(
      phrases({ target: { input: "goal" }, kind: "gauge" }).find((p) => p.label === "Target")?.tone,
    ).toBe("input");
  });

  it.each(KINDS.map((k) => [k.label, k] as const))("has a phrase for each role of: %s", (_, kind) => {
    const labels = phrases({ kind: kind.id, split: { column: "route" } }).map((p) => p.label);
    expect(new Set(labels).size).toBe(labels.length);
    const words: Record<string, string> = {
      value: "Measure",
      split: "Split",
      series: "Series",
      more: "Add a measure",
      second: "Second value",
      headSize: "Head size",
      pictures: "Pictures",
      comparison: "Comparison",
      target: "Target",
      range: "Maximum",
      end: "Maximum",
      baseline: "Baseline",
      zones: "Zones",
      keep: "Keep",
      order: "Order",
    };
    for (const role of kind.roles) expect(labels, role).toContain(words[role]);
  });
});
