import { describe, expect, it } from "vitest";
import { KINDS, kindOf } from "../kinds";
import { newInput, newMeasure } from "../project/defaults";
import { emptyProject, type Project, tableSchema, visualSchema } from "../project/schema";
import { firstSetUp, proposedIn, withoutProposals } from "./first-set-up";
import { spoken } from "./spoken";

const PERCENT = { style: "percent", decimals: 1 } as const;
const table = (columns: [string, "text" | "date" | "number", boolean?][]) =>
  tableSchema.parse({
    id: "t",
    name: "Trips",
    rows: 10,
    source: { file: "t.csv" },
    columns: columns.map(([name, type, hidden = false]) => ({ name, reading: { type }, hidden })),
  });
const measure = (id: string, format: object = {}) => {
  const made = newMeasure({ id, name: id, label: `The ${id}`, table: "trips", formula: "count(*)" });
  return { ...made, format: { ...made.format, ...format } };
};
const project = (more: Partial<Project>): Project => ({ ...emptyProject("P"), ...more });
const FULL = project({
  tables: [
    table([
      ["secret", "text", true],
      ["route", "text"],
      ["vessel", "text"],
      ["date", "date"],
    ]),
  ],
  measures: [measure("riders"), measure("seats"), measure("rate", PERCENT)],
});

describe("the first set-up of a kind", () => {
  it.each(KINDS.map((k) => [k.label, k] as const))(
    "is a document's visual and says only what it can: %s",
    (_, kind) => {
      const visual = firstSetUp(kind, FULL.measures[0], FULL);
      expect(visualSchema.parse(visual)).toEqual(visual);
      expect(spoken(visual)).toMatchObject({
        split: visual.split,
        series: visual.series,
        second: visual.second,
      });
      expect(visual).toMatchObject({ kind: kind.id, value: "riders", size: kind.firstSize });
    },
  );

  it("splits by the first text that is not hidden, and by years where there is none", () => {
    expect(firstSetUp(kindOf("donut"), FULL.measures[0], FULL).split).toEqual({ column: "route" });
    const dated = project({ tables: [table([["date", "date"]])], measures: FULL.measures });
    expect(firstSetUp(kindOf("rose"), FULL.measures[0], dated).split).toEqual({ column: "date", by: "year" });
    const bare = project({ tables: [table([["n", "number"]])], measures: FULL.measures });
    expect(firstSetUp(kindOf("rose"), FULL.measures[0], bare).split).toBeNull();
  });

  it("divides a stack from the first, runs a number over its months, and nests two measures of one format", () => {
    expect(firstSetUp(kindOf("capsule stack"), FULL.measures[0], FULL).series).toEqual({
      column: "date",
      by: "year",
    });
    expect(firstSetUp(kindOf("number"), FULL.measures[0], FULL)).toMatchObject({
      split: { column: "date", by: "month" },
      order: { by: "split", order: "asc" },
    });
    expect(firstSetUp(kindOf("nested bars"), FULL.measures[0], FULL).second).toBe("seats");
    expect(firstSetUp(kindOf("nested bars"), FULL.measures[2], FULL).second).toBeNull();
  });

  it("keeps the rest as Other, but not of a percent, whose rest is no part of it", () => {
    expect(firstSetUp(kindOf("donut"), FULL.measures[0], FULL).keep).toEqual({ first: 6, others: true });
    expect(firstSetUp(kindOf("donut"), FULL.measures[2], FULL).keep).toEqual({ first: 6, others: false });
  });

  it("proposes an input that is named after the measure, and none that only has its format", () => {
    const input = (id: string, label: string) => newInput({ id, name: id, label, type: "number", value: 1 });
    const withGoal = project({
      ...FULL,
      inputs: [input("seats_goal", "Seats goal"), input("goal", "Rider goal")],
    });
    const gauge = firstSetUp(kindOf("gauge"), FULL.measures[0], withGoal);
    expect(gauge.target).toEqual({ input: "goal" });
    expect(proposedIn(gauge)).toEqual(["target"]);
    expect(withoutProposals(gauge).target).toBeNull();
    expect(proposedIn(withoutProposals(gauge))).toEqual([]);
    const unrelated = project({ ...FULL, inputs: [input("cost", "Cost limit"), input("t", "Target")] });
    expect(firstSetUp(kindOf("gauge"), FULL.measures[0], unrelated).target).toBeNull();
    expect(firstSetUp(kindOf("gauge"), FULL.measures[2], withGoal).target).toBeNull();
    expect(firstSetUp(kindOf("donut"), FULL.measures[0], withGoal).target).toBeNull();
  });

  it("is called by a template that follows the sentence", () => {
    expect(firstSetUp(kindOf("donut"), FULL.measures[0], FULL).title).toBe("{measure} by {split}");
    expect(firstSetUp(kindOf("gauge"), FULL.measures[0], FULL).title).toBe("{measure}");
    expect(firstSetUp(kindOf("number"), FULL.measures[0], FULL).title).toBe("{measure}");
  });
});
