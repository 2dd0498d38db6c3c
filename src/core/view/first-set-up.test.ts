import { describe, expect, it } from "vitest";
import { KINDS, kindOf } from "../kinds";
import { newInput, newMeasure } from "../project/defaults";
import { emptyProject, type Project, tableSchema, visualSchema } from "../project/schema";
import type { ColumnFacts, TableFacts } from "./column-facts";
import * as firstSetUps from "./first-set-up";
import { proposedIn, saysNothing, titleAfter, withoutProposals } from "./first-set-up";
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

const parts = (distinct: number) => ({ distinct, from: null, to: null });
const FACTS: TableFacts = new Map<string, ColumnFacts>([
  ["route", parts(5)],
  ["vessel", parts(12)],
  ["date", { distinct: 700, from: "2024-01-01", to: "2025-12-31" }],
]);
const firstSetUp = (
  kind: Parameters<typeof firstSetUps.firstSetUp>[0],
  of: Parameters<typeof firstSetUps.firstSetUp>[1],
  from: Project,
  facts = FACTS,
) => firstSetUps.firstSetUp(kind, of, from, facts);

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

  it("splits by a column whose groups are told apart, else by stretches of time, never by names", () => {
    const donut = (facts: [string, ColumnFacts][]) =>
      firstSetUp(kindOf("donut"), FULL.measures[0], FULL, new Map(facts));
    expect(donut([...FACTS]).split).toEqual({ column: "route" });
    expect(donut([...FACTS]).keep).toBeNull();
    // Of columns with more groups, the one with the fewest; the largest and the others together.
    const many = donut([
      ["route", parts(30)],
      ["vessel", parts(12)],
    ]);
    expect([many.split, many.keep]).toEqual([{ column: "vessel" }, { first: 7, others: true }]);
    expect(
      donut([
        ["route", parts(61)],
        ["vessel", parts(1)],
      ]).split,
    ).toBeNull();
    for (const [from, to, by] of [
      ["2018-05-01", "2025-12-31", "year"],
      ["2024-01-01", "2025-12-31", "quarter"],
      ["2025-01-01", "2025-07-31", "month"],
      ["2025-01-06", "2025-02-20", "week"],
      ["2025-01-06", "2025-01-10", "day"],
    ]) {
      const dated = donut([["date", { distinct: 9, from, to }]]);
      expect([dated.split, dated.order.by]).toEqual([{ column: "date", by }, "split"]);
    }
    expect(donut([["date", { distinct: 1, from: "2025-01-06", to: "2025-01-06" }]]).split).toBeNull();
    expect(donut([["date", { distinct: 9000, from: "1900-01-01", to: "2025-01-06" }]]).split).toBeNull();
  });

  it("divides a stack from the first, runs a number over its months, and nests two measures of one format", () => {
    expect(firstSetUp(kindOf("capsule stack"), FULL.measures[0], FULL).series).toEqual({
      column: "date",
      by: "quarter",
    });
    expect(firstSetUp(kindOf("number"), FULL.measures[0], FULL)).toMatchObject({
      split: { column: "date", by: "month" },
      order: { by: "split", order: "asc" },
    });
    expect(firstSetUp(kindOf("nested bars"), FULL.measures[0], FULL).second).toBe("seats");
    expect(firstSetUp(kindOf("nested bars"), FULL.measures[2], FULL).second).toBeNull();
  });

  it("keeps the rest as Other, of a share too, but not of an average, whose rest is no part of a whole", () => {
    const facts: TableFacts = new Map([["vessel", parts(12)]]);
    const keep = (formula: string) =>
      firstSetUp(kindOf("donut"), { ...FULL.measures[2], formula }, FULL, facts).keep;
    expect(["count(*)", "count(*) / total(count(*))", "count(distinct route)"].map(keep)).toEqual([
      { first: 7, others: true },
      { first: 7, others: true },
      { first: 8, others: false },
    ]);
  });

  it("proposes no input that the measure is computed with, itself or through others, and no text beside it", () => {
    const input = newInput({ id: "goal", name: "goal", label: "Riders goal", type: "number", value: 1 });
    const seats = FULL.measures[1];
    const made = (formula: string, base = "count(*)") =>
      firstSetUp(
        kindOf("gauge"),
        { ...FULL.measures[0], formula },
        project({ ...FULL, measures: [FULL.measures[0], { ...seats, formula: base }], inputs: [input] }),
      ).target;
    expect(made("count(*)")).toEqual({ input: "goal" });
    expect(made("count(*) / :goal")).toBeNull();
    expect(made("count(*) filter (where date > date '2025-01-01' + :goal)")).toBeNull();
    expect(made("seats * 2", "count(*) - :goal")).toBeNull();
    const texts = project({ ...FULL, measures: [FULL.measures[0], { ...seats, formula: "max(route)" }] });
    expect(firstSetUp(kindOf("nested bars"), texts.measures[0], texts).second).toBeNull();
  });

  it("has a title that follows the sentence until somebody writes another", () => {
    const donut = firstSetUp(kindOf("donut"), FULL.measures[0], FULL);
    expect(donut).toMatchObject({ title: "{measure} by {split}", name: "The riders by route" });
    expect(titleAfter(donut, { split: null })).toBe("{measure}");
    // A gauge has no split to say.
    expect(titleAfter(donut, { kind: "gauge" })).toBe("{measure}");
    expect(titleAfter({ ...donut, kind: "gauge", title: "{measure}" }, { kind: "rose" })).toBe(
      "{measure} by {split}",
    );
    expect(titleAfter({ ...donut, title: "Mine" }, { split: null })).toBe("Mine");
  });

  it("begins a share of the total with a split, and says where there is none", () => {
    const share = { ...FULL.measures[2], formula: "count(*) / total(count(*))" };
    const bar = firstSetUp(kindOf("progress bar"), share, FULL);
    expect([bar.split, saysNothing(kindOf("progress bar"), bar, share, FULL)]).toEqual([
      { column: "route" },
      false,
    ]);
    expect(firstSetUp(kindOf("progress bar"), FULL.measures[2], FULL).split).toBeNull();
    for (const id of ["gauge", "number"] as const) {
      const kind = kindOf(id);
      expect(saysNothing(kind, firstSetUp(kind, share, FULL), share, FULL)).toBe(true);
      expect(saysNothing(kind, firstSetUp(kind, FULL.measures[2], FULL), FULL.measures[2], FULL)).toBe(false);
    }
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
