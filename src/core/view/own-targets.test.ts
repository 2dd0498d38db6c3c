import { describe, expect, it } from "vitest";
import { visualOf } from "@/testing/craft/cases";
import { madeTable, scopeColumns } from "@/testing/made-table";
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
  tables: tables.map((t) => ({
    id: t.name,
    name: t.name,
    rows: t.rows,
    columns: scopeColumns(t).map((c) => ({ name: c.name, reading: { type: c.type }, hidden: false })),
    derived: [],
    source: { file: `${t.name}.csv` },
  })) as unknown as Project["tables"],
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

function dataOf(visual: Visual, filters: Query["filters"] = []) {
  const query = toQuery(visual, PROJECT, filters);
  if (!query) throw new Error("nothing is asked");
  const [result] = runQueries([querySchema.parse(query)], { tables, inputs: {}, scope: scopeOf(PROJECT) });
  if (result instanceof QueryError) throw result;
  return toVisualData(visual, PROJECT, result, { filters });
}
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
    expect(data.outOfReach).toMatch(/^crew cannot be split by trips\.route/);
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
    expect([one.total, one.target, one.outOfReach]).toEqual([133, 125, ""]);
  });

  it("lie on one scale with a tick each, by a dial", () => {
    const visual = { ...bars(TARGET), dials: { "bar.against": "one" } };
    const scene = sceneOf(visual, dataOf(visual));
    const ticks = scene.marks.filter((m) => m.id.startsWith("target:"));
    expect(ticks).toHaveLength(4);
    expect(scene.description).toContain("Full at 200");
  });
});
