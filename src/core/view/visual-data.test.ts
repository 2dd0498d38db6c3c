import { describe, expect, it } from "vitest";
import { visualOf } from "../../testing/craft/cases";
import { madeTable } from "../../testing/made-table";
import { parseIsoDate } from "../base/calendar";
import { fillTemplate } from "../base/template";
import { runQueries } from "../engine/run";
import { type Query, querySchema, type Result } from "../plan/query";
import { newMeasure } from "../project/defaults";
import { scopeOf } from "../project/names";
import { FORMAT_VERSION, projectSchema, type Visual, visualSchema } from "../project/schema";
import { sceneOf } from "./picture";
import { SERIES_MOST, toQuery } from "./query";
import { toVisualData } from "./visual-data";

const columns = [
  { name: "route", reading: { type: "text" } },
  { name: "day", reading: { type: "date" } },
  { name: "fare", reading: { type: "text" } },
  { name: "people", reading: { type: "number" } },
  { name: "money", reading: { type: "number" } },
];
const measure = (id: string, formula: string) => ({
  id,
  name: id,
  label: id.toUpperCase(),
  note: "",
  table: "trips",
  formula,
  format: {},
});
const project = projectSchema.parse({
  format: "cavlo-project",
  version: FORMAT_VERSION,
  name: "P",
  tables: [{ id: "t", name: "trips", rows: 6, columns, source: { file: "trips.csv" } }],
  measures: [measure("people", "sum(people)"), measure("money", "sum(money)"), measure("trips", "count(*)")],
  inputs: [{ id: "goal", name: "goal", label: "Goal", type: "number", value: 50, format: {} }],
});
const rows: [string, string, string, number, number][] = [
  ["North", "2025-01-10", "day", 10, 1],
  ["North", "2025-02-10", "week", 20, 2],
  ["South", "2025-01-11", "day", 5, 9],
  ["South", "2025-03-01", "day", 7, 8],
  ["South", "2025-03-02", "month", 1, 7],
  ["West", "2025-02-02", "week", 3, 6],
];
const table = madeTable("trips", {
  route: ["text", rows.map((r) => r[0])],
  day: ["date", rows.map((r) => parseIsoDate(r[1]))],
  fare: ["text", rows.map((r) => r[2])],
  people: ["number", rows.map((r) => r[3])],
  money: ["number", rows.map((r) => r[4])],
});

/** A visual's data, from its sentence through the engine. */
function dataFor(more: Partial<Visual>, from = project, tables = [table]) {
  const visual = visualSchema.parse({ id: "v", name: "V", kind: "capsule stack", value: "people", ...more });
  const query = toQuery(visual, from);
  if (!query) throw new Error("no query");
  const [answer] = runQueries([querySchema.parse(query)], {
    tables,
    inputs: { goal: 50 },
    scope: scopeOf(from),
  });
  if (!("rows" in answer)) throw answer;
  return { query, result: answer as Result, data: toVisualData(visual, from, answer as Result) };
}

describe("from the sentence to what a kind draws", () => {
  it("a measure of dates stands in captions in its own format, unless they ask for another", () => {
    const last = newMeasure({
      id: "last",
      name: "last",
      label: "Last day",
      table: "trips",
      formula: "max(day)",
    });
    const dated = { ...last, format: { ...last.format, dates: "d MMM yyyy" } };
    const from = { ...project, measures: [...project.measures, dated] };
    const { data } = dataFor({ split: null, title: "until {last}, {last:yyyy}" }, from);
    expect(fillTemplate(data.title, data.names)).toBe("until 2 Mar 2025, 2025");
    const plain = dataFor(
      { split: null, title: "until {last}" },
      { ...from, measures: [...project.measures, last] },
    );
    expect(fillTemplate(plain.data.title, plain.data.names)).toBe("until 2025-03-02");
  });

  it("a series gives each row its cells in the order of the series, and nothing where there is no row", () => {
    const { data } = dataFor({ split: { column: "route" }, series: { column: "fare" } });
    expect(data.series.map((s) => [s.label, s.total])).toEqual([
      ["week", 23],
      ["day", 22],
      ["month", 1],
    ]);
    expect(data.rows.map((r) => [r.label, r.value, r.cells])).toEqual([
      ["North", 30, [20, 10, null]],
      ["South", 13, [null, 12, 1]],
      ["West", 3, [3, null, null]],
    ]);
  });

  it("more series than can be told apart are put together, and a kind without the role does not ask for them", () => {
    expect(dataFor({ split: { column: "route" }, series: { column: "fare" } }).query.series?.keep).toEqual({
      first: SERIES_MOST,
      others: true,
    });
    expect(
      dataFor({ kind: "rose", split: { column: "route" }, series: { column: "fare" } }).query.splits,
    ).toHaveLength(1);
    expect(dataFor({ kind: "gauge", split: { column: "route" } }).query.splits).toEqual([]);
    expect(dataFor({ kind: "donut", series: { column: "fare" } }).query.splits).toEqual([]);
  });

  it("months of one year go without it, of several years with it", () => {
    const months = dataFor({
      kind: "rounded bars",
      split: { column: "day", by: "month" },
      order: { by: "split", order: "asc" },
    }).data;
    expect(months.rows.map((r) => r.label)).toEqual(["Jan", "Feb", "Mar"]);
    expect(
      dataFor({ kind: "rounded bars", split: { column: "day", by: "year" } }).data.rows.map((r) => r.label),
    ).toEqual(["2025"]);
  });

  it("further measures are rings of the rows, or the rows themselves without a split", () => {
    const rings = dataFor({ kind: "donut", split: { column: "route" }, more: ["money"] }).data;
    expect(rings.series.map((s) => s.label)).toEqual(["PEOPLE", "MONEY"]);
    expect(rings.rows[0]).toMatchObject({ label: "North", cells: [30, 3] });
    const alone = dataFor({ kind: "progress ring", more: ["trips"] }).data;
    expect(alone.rows.map((r) => [r.label, r.value])).toEqual([
      ["PEOPLE", 46],
      ["TRIPS", 6],
    ]);
  });

  it("measures of other tables and problems of templates spoil nothing, in whatever order they were made", () => {
    const plan = madeTable("plan", { goal: ["number", [7, 8]] });
    const from = projectSchema.parse({
      ...project,
      tables: [
        {
          id: "p",
          name: "plan",
          rows: 2,
          columns: [{ name: "goal", reading: { type: "number" } }],
          source: { file: "" },
        },
        ...project.tables,
      ],
      measures: [
        { ...measure("aim", "sum(goal)"), table: "plan" },
        measure("broken", "sum(nothing)"),
        ...project.measures,
      ],
    });
    const more = {
      kind: "radial bars",
      split: { column: "route" },
      target: { measure: "aim" },
      title: "{aim} {broken} {people}",
    };
    const { data } = dataFor(more, from, [plan, table]);
    expect(data.problem).toBeNull();
    expect(data.target).toBeNull();
    expect(data.rows.map((r) => r.target)).toEqual([null, null, null]);
    expect(data.outOfReach?.why).toMatch(/plan cannot be split by trips\.route/);
    const whole = dataFor({ ...more, target: { measure: "aim", over: "whole" } }, from, [plan, table]).data;
    expect([whole.target, whole.rows[0].target, whole.outOfReach]).toEqual([15, undefined, null]);
    expect(data.rows.map((r) => r.label)).toEqual(["North", "South", "West"]);
    expect(fillTemplate(data.title, data.names)).toBe("15 — 46");
    expect(data.notes).toHaveLength(2);
    expect(data.notes[1]).toMatch(/“—” stands wherever it would: broken: .*nothing/);
  });

  it("a number to compare with is called nothing of its own making", () => {
    const { data } = dataFor({ kind: "number", comparison: { number: 40 } });
    const scene = sceneOf(visualOf("number", { "change.name": true }), data);
    const texts = scene.marks.flatMap((m) => (m.type === "text" ? [m.text] : []));
    expect(texts).toContain("against 40");
    expect(scene.description).toMatch(/\+15\.0\s%\sagainst\s40\./);
  });

  it("a split that is finer than the dates is said, and Other never stands for one group alone", () => {
    const { data } = dataFor({ kind: "rounded bars", split: { column: "day", by: "week" } });
    expect(data.notes).toEqual([]);
    const kept = dataFor({ kind: "rose", split: { column: "route" }, keep: { first: 2, others: true } }).data;
    expect(kept.rows.map((r) => r.label)).toEqual(["North", "South", "West"]);
    const first = dataFor({
      kind: "rose",
      split: { column: "route" },
      keep: { first: 1, others: true },
    }).data;
    expect(first.rows.map((r) => [r.label, r.groups])).toEqual([
      ["North", 0],
      ["Other", 2],
    ]);
  });

  it("captions write the columns of the split, days in any way, and the filters in words", () => {
    const said = (title: string, more: Partial<Visual>, filters: Query["filters"] = []) => {
      const { data, result } = dataFor({ kind: "rounded bars", ...more });
      const visual = visualSchema.parse({
        id: "v",
        name: "V",
        value: "people",
        kind: "rounded bars",
        ...more,
      });
      const around = toVisualData(visual, project, result, { filters });
      expect(around.rows).toEqual(data.rows);
      return fillTemplate(title, around.names);
    };
    const byMonth = { split: { column: "day", by: "month" as const } };
    expect(said("{day}: {day:yyyy-MM}", byMonth)).toBe("Jan – Mar: 2025-01 – 2025-03");
    expect(said("{route}", { split: { column: "route" } })).toBe("North, South, West");
    expect(said("{filters}", {})).toBe("all rows");
    const filters = [{ column: "route", in: ["North"] }];
    expect(said("for {filters}", { filters }, [{ column: "fare", in: ["day", "week"] }])).toBe(
      "for North, day and week",
    );
    // A measure that is called like the column goes before it.
    expect(
      said("{people} {column.people}", { split: { column: "people" }, keep: { first: 1, others: true } }),
    ).toBe("46 20");
  });

  it("edges of zones, limits of rules and baselines come from measures and inputs; one that is gone holds nothing", () => {
    const zone = (to: Visual["zones"][number]["to"], word: string) => ({ to, word, tone: "plain" as const });
    const gauge = dataFor({
      kind: "gauge",
      zones: [
        zone({ input: "goal" }, "a"),
        zone({ measure: "trips" }, "b"),
        zone({ input: "gone" }, "c"),
        zone(null, "d"),
      ],
    }).data;
    expect(gauge.zones.map((z) => [z.to, z.word, z.at, z.isMovable])).toEqual([
      [50, "a", 0, true],
      [6, "b", 1, false],
      [null, "d", 3, true],
    ]);
    const rule = (than: Visual["rules"][number]["than"]) => ({
      measure: null,
      when: "from" as const,
      than,
      word: "",
      color: "#112233",
      symbol: "none" as const,
    });
    const heads = dataFor({
      kind: "lollipop",
      split: { column: "route" },
      baseline: { measure: "trips" },
      rules: [rule({ measure: "money" }), rule({ measure: "gone" }), rule(7), rule("x")],
    }).data;
    expect(heads.rows.map((r) => [r.label, r.baseline, r.limits])).toEqual([
      ["North", 2, [3, null, undefined, undefined]],
      ["South", 3, [24, null, undefined, undefined]],
      ["West", 1, [6, null, undefined, undefined]],
    ]);
    expect(heads.rules.map((r) => [r.than, r.at])).toEqual([
      [null, 0],
      [null, 1],
      [7, 2],
      ["x", 3],
    ]);
    const whole = dataFor({
      kind: "lollipop",
      split: { column: "route" },
      baseline: { measure: "trips", over: "whole" },
      rules: [rule({ measure: "money", over: "whole" }), rule({ measure: "gone", over: "whole" })],
    }).data;
    expect([whole.baseline, whole.rows[0].baseline]).toEqual([6, undefined]);
    expect(whole.rules.map((r) => r.than)).toEqual([33]);
  });

  it("second values, head sizes, comparisons and the measures of rules come with the rows", () => {
    const nested = dataFor({ kind: "nested bars", split: { column: "route" }, second: "money" }).data;
    expect(nested.rows.map((r) => r.second)).toEqual([3, 24, 6]);
    expect(nested.second?.label).toBe("MONEY");
    const rule = {
      measure: "money",
      when: "from" as const,
      than: 5,
      word: "rich",
      color: "#112233",
      symbol: "none" as const,
    };
    const heads = dataFor({
      kind: "lollipop",
      split: { column: "route" },
      headSize: "trips",
      rules: [rule],
    }).data;
    expect(heads.rows.map((r) => [r.headSize, r.also.money])).toEqual([
      [2, 3],
      [3, 24],
      [1, 6],
    ]);
    const percent = projectSchema.parse({
      ...project,
      measures: project.measures.map((m) => (m.id === "people" ? { ...m, format: { style: "percent" } } : m)),
    });
    expect(
      dataFor({ kind: "lollipop", split: { column: "route" }, headSize: "trips" }, percent).data,
    ).toMatchObject({
      format: { style: "percent" },
      headSize: { label: "TRIPS", format: { style: "number" } },
    });
    expect(dataFor({ kind: "number", comparison: { input: "goal" } }).data.comparison).toEqual({
      value: 50,
      label: "Goal",
    });
    expect(dataFor({ kind: "number", comparison: { measure: "money" } }).data.comparison).toEqual({
      value: 33,
      label: "MONEY",
    });
  });
});
