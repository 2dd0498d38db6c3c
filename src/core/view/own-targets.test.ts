import { describe, expect, it } from "vitest";
import { answeredData } from "@/testing/answered";
import { visualOf } from "@/testing/craft/cases";
import { madeTable, projectTable } from "@/testing/made-table";
import { parseIsoDate } from "../base/calendar";
import { runQueries } from "../engine/run";
import { type Query, querySchema } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { newMeasure } from "../project/defaults";
import { scopeOf } from "../project/names";
import { emptyProject, type Project, type Visual } from "../project/schema";
import { datumsOf } from "../scene/datums";
import { sceneOf } from "./picture";
import { toQuery } from "./query";
import { say, sentenceText } from "./sentence";
import { toVisualData } from "./visual-data";

const day = (text: string) => parseIsoDate(text);
const TRIPS = madeTable("trips", {
  route: ["text", ["North", "North", "South", "East", "West", "Isle"]],
  sailed: [
    "date",
    ["2025-01-06", "2025-02-03", "2025-01-07", "2025-02-04", "2025-01-08", "2025-02-05"].map(day),
  ],
  people: ["number", [60, 41, 53, 30, 20, 10]],
});
const PLAN = madeTable("plan", {
  route: ["text", ["North", "North", "South", "East", "Isle", "Bay"]],
  week: [
    "date",
    ["2025-01-06", "2025-02-03", "2025-01-06", "2025-02-03", "2025-01-06", "2025-01-06"].map(day),
  ],
  wanted: ["number", [50, 50, 50, 40, 0, 25]],
});
const CREW = madeTable("crew", { heads: ["number", [3, 4]] });
const tables = [TRIPS, PLAN, CREW];
const measure = (id: string, table: string, formula: string) =>
  newMeasure({ id, name: id, label: id, table, formula });
const PROJECT: Project = {
  ...emptyProject("P"),
  tables: tables.map(projectTable),
  measures: [
    measure("people", "trips", "sum(people)"),
    measure("wanted", "plan", "sum(wanted)"),
    measure("heads", "crew", "sum(heads)"),
  ],
};
const bars = (more: Partial<Visual> = {}) => ({
  ...visualOf("progress bar", {}, { value: "people", split: { column: "route" }, ...more }),
});
const TARGET = { target: { measure: "wanted" } };

const dataOf = (visual: Visual, filters: Query["filters"] = []) =>
  answeredData(visual, PROJECT, tables, filters);
const targets = (visual: Visual) => dataOf(visual).rows.map((r) => [r.label, r.value, r.target]);
const shares = (visual: Visual) =>
  datumsOf(sceneOf(visual, dataOf(visual))).map(({ datum }) => [
    datum.title,
    datum.lines.find((l) => l.label === "Share")?.value.replaceAll("\u2009", " "),
  ]);

describe("rows against a measure", () => {
  it("each run against their own, as many as have one, and none against another's", () => {
    expect(targets(bars(TARGET))).toEqual([
      ["North", 101, 100],
      ["South", 53, 50],
      ["East", 30, 40],
      ["West", 20, null],
      ["Isle", 10, 0],
      ["Bay", null, 25],
    ]);
    expect(shares(bars(TARGET))).toEqual([
      ["North", "101 %"],
      ["South", "106 %"],
      ["East", "75 %"],
      ["West", undefined],
      ["Isle", undefined],
      ["Bay", undefined],
    ]);
    const said = sceneOf(bars(TARGET), dataOf(bars(TARGET))).description;
    expect(said).toContain("North 101 of 100 (101\u2009%)");
    expect(said).toContain("2 past the target");
    expect(said).toContain("Each full at its own wanted");
  });

  it("say that a row has no target, and never fill its track", () => {
    const scene = sceneOf(bars(TARGET), dataOf(bars(TARGET)));
    const texts = scene.marks.flatMap((m) => (m.type === "text" ? [m.text] : []));
    expect(texts.filter((t) => t.includes("no target"))).toHaveLength(1);
    expect(texts.some((t) => t.includes("not above zero"))).toBe(true);
    expect(scene.marks.filter((m) => m.id.startsWith("bar:")).map((m) => m.shows?.value)).toEqual([
      101, 53, 30,
    ]);
  });

  it("put the targets of the others together from their own rows, and the whole from the whole", () => {
    const kept = bars({ ...TARGET, keep: { first: 2, others: true } });
    expect(targets(kept)).toEqual([
      ["North", 101, 100],
      ["South", 53, 50],
      ["Other", 60, 65],
    ]);
    expect(dataOf(kept).target).toBe(215);
  });

  it("all run against the whole where their author chose so, as one number or input is for all", () => {
    const whole = bars({ target: { measure: "wanted", over: "whole" } });
    expect(dataOf(whole).target).toBe(215);
    expect(shares(whole)[0]).toEqual(["North", "47 %"]);
    const sentence = (visual: Visual) =>
      sentenceText(say({ visual, project: PROJECT, scale: { minimum: 0, maximum: 0 }, pictured: [] }));
    expect(sentence(whole)).toContain("against wanted, all against the whole");
    expect(sentence(bars(TARGET))).toContain("against wanted, each its own");
    expect(sentence(bars({ target: { number: 5 } }))).toContain("against 5");
  });

  it("have a dash and its reason where the split does not reach the measure", () => {
    const data = dataOf(bars({ target: { measure: "heads" } }));
    expect(data.rows.map((r) => r.target)).toEqual([null, null, null, null, null]);
    expect(data.outOfReach?.why).toMatch(/^crew cannot be split by trips\.route/);
    expect(data.problem).toBeNull();
    expect(data.rows.map((r) => r.value)).toEqual([101, 53, 30, 20, 10]);
  });

  it("follow the filters of the visual as they do those of a board, on the date that both tables have", () => {
    const filter = { column: "sailed", from: "2025-01-01", to: "2025-01-31" };
    const own = dataOf(bars({ ...TARGET, filters: [filter] }));
    const ofBoard = dataOf(bars(TARGET), [filter]);
    for (const data of [own, ofBoard])
      expect(data.rows.map((r) => [r.label, r.value, r.target])).toEqual([
        ["North", 60, 50],
        ["South", 53, 50],
        ["West", 20, null],
        ["Bay", null, 25],
        ["Isle", null, 0],
      ]);
    // The same without a split, where the target is one over all rows.
    const one = dataOf(bars({ split: null, ...TARGET, filters: [filter] }));
    expect([one.total, one.target, one.outOfReach]).toEqual([133, 125, null]);
  });

  it("lie on one scale with a tick each, by a dial", () => {
    const visual = { ...bars(TARGET), dials: { "bar.against": "one" } };
    const scene = sceneOf(visual, dataOf(visual));
    const ticks = scene.marks.filter((m) => m.id.startsWith("target:"));
    expect(ticks).toHaveLength(4);
    expect(scene.description).toContain("Full at 110");
  });
});

describe("a filter that means nothing to one side", () => {
  const fares = madeTable("trips", {
    route: ["text", ["North", "North", "South", "South"]],
    fare: ["text", ["day", "week", "day", "week"]],
    people: ["number", [30, 20, 40, 10]],
  });
  const plan = madeTable("plan", { route: ["text", ["North", "South"]], wanted: ["number", [60, 40]] });
  const projectWith = (standsWhole: boolean): Project => ({
    ...PROJECT,
    tables: [fares, plan].map(projectTable),
    measures: [
      measure("people", "trips", "sum(people)"),
      { ...measure("wanted", "plan", "sum(wanted)"), standsWhole },
      measure("reached", "trips", "people / wanted"),
      measure("missing", "trips", "wanted - people"),
      measure("twice", "trips", "2 * reached"),
    ],
  });
  const day = [{ column: "fare", in: ["day"] }];
  const asked = (visual: Visual, project: Project) => {
    const query = toQuery(visual, project, day);
    if (!query) throw new Error("nothing is asked");
    const catalog = { tables: [fares, plan], inputs: {}, scope: scopeOf(project) };
    const [result] = runQueries([querySchema.parse(query)], catalog);
    if (result instanceof QueryError) throw result;
    return { result, data: toVisualData(visual, project, result, { filters: day }) };
  };

  it.each(["reached", "missing", "twice"])("%s has no value, and says why", (value) => {
    const { result, data } = asked(bars({ value }), projectWith(false));
    expect(result.columns[1].values.every((v) => v === null)).toBe(true);
    expect(result.totals[value]).toBeNull();
    expect(result.unanswered).toEqual([
      `${value}: plan has nothing that means fare, so that filter would leave one side of it whole.`,
    ]);
    expect(data.problem).toContain("would leave one side of it whole");
  });

  it.each(["gone", "fare +", "wanted + week"])(
    "has none where the column of that side fails, as %s does",
    (formula) => {
      const whole = projectWith(false);
      const [trips, planned, ...others] = whole.tables;
      const failing = { ...planned, derived: [{ name: "fare", formula, hidden: false }] };
      const project = { ...whole, tables: [trips, failing, ...others] } as Project;
      const { result, data } = asked(bars({ value: "reached" }), project);
      expect(result.totals.reached).toBeNull();
      expect(result.columns[1].values.every((v) => v === null)).toBe(true);
      expect(data.problem).toBe(
        "reached: plan has its own column for fare, which cannot be computed, so that filter would leave one side of it whole.",
      );
    },
  );

  it("has its value where the side says that it may stand whole, and the caption says so", () => {
    const { result, data } = asked(bars({ value: "reached" }), projectWith(true));
    expect(result.totals.reached).toBeCloseTo(0.7, 12);
    expect(data.problem).toBeNull();
    expect(data.subtitle).toContain("wanted over all rows");
  });

  it("gives no order, no limit and no target, and leaves the measure itself as it is", () => {
    const ordered = asked(bars({ order: { by: { measure: "reached" }, order: "desc" } }), projectWith(false));
    expect(ordered.data.rows.map((r) => [r.label, r.value])).toEqual([
      ["North", 30],
      ["South", 40],
    ]);
    const against = asked(bars(TARGET), projectWith(false)).data;
    expect(against.rows.map((r) => r.target)).toEqual([null, null]);
    expect(against.outOfReach).toMatchObject({
      by: "filter",
      why: expect.stringContaining("leaves it whole"),
    });
    const rule = {
      when: "below",
      than: { measure: "wanted" },
      word: "w",
      color: "#aa0000",
      symbol: "none",
    } as const;
    const ruled = asked(bars({ rules: [{ ...rule, measure: null }] }), projectWith(false)).data;
    expect(ruled.rows.map((r) => r.limits)).toEqual([[null], [null]]);
    const one = asked(bars({ split: null, ...TARGET }), projectWith(false)).data;
    expect([one.total, one.target]).toEqual([70, null]);
    const allowed = asked(bars({ split: null, ...TARGET }), projectWith(true)).data;
    expect([allowed.total, allowed.target]).toEqual([70, 100]);
    expect(allowed.subtitle).toContain("wanted over all rows");
  });
});
