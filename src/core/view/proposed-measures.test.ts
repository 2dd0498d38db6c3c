import { describe, expect, it } from "vitest";
import { madeTile } from "../../testing/made-board";
import { madeTable, scopeColumns } from "../../testing/made-table";
import { parseIsoDate } from "../base/calendar";
import type { Table } from "../data/column";
import { runQueries } from "../engine/run";
import { checkFormula } from "../formula/check";
import { querySchema, type Result } from "../plan/query";
import { newFilter, newMeasure, newVisual } from "../project/defaults";
import { scopeOf } from "../project/names";
import { emptyProject, type Project, tableSchema } from "../project/schema";
import { offeredFilters } from "./board-filters";
import { factsQuery, readFacts } from "./column-facts";
import { proposedMeasures } from "./proposed-measures";

const day = (text: string) => parseIsoDate(text) as number;
const trips = madeTable("trips", {
  trip_id: ["text", ["a", "b", "c", "d"]],
  'the "line"': ["text", ["North", "South", "North", null]],
  on: ["date", ["2025-01-03", "2025-02-01", "2025-03-09", "2025-01-20"].map(day)],
  riders: ["number", [1, 2, 4, 8]],
  load_rate: ["number", [0.5, 0.25, 1, 0.25]],
  year: ["number", [2025, 2025, 2025, 2025]],
  late: ["boolean", [true, false, null, true]],
  ["constructor" as string]: ["text", ["x", "y", "x", "y"]],
});
const declared = (table: Table, id: string) =>
  tableSchema.parse({
    id,
    name: table.name,
    rows: 4,
    columns: scopeColumns(table).map((c) => ({ name: c.name, reading: { type: c.type } })),
    source: { file: "" },
  });
const project: Project = { ...emptyProject("p"), tables: [declared(trips, "t")] };

function answer(from: Project, query: unknown): Result {
  const [result] = runQueries([querySchema.parse(query)], {
    scope: scopeOf(from),
    inputs: {},
    tables: [trips],
    today: "2026-01-02",
  });
  if (!("rows" in result)) throw result;
  return result;
}

describe("measures that columns offer", () => {
  it("add numbers, count what names something, take the share of what is true; each formula holds", () => {
    const offered = proposedMeasures(project);
    expect(offered.map((m) => [m.label, m.formula])).toEqual([
      ["Sum of riders", "sum(riders)"],
      ["Share of late", "count(*) filter (where late) / nullif(count(late), 0)"],
      ["Average of riders", "avg(riders)"],
      ["Average of load rate", "avg(load_rate)"],
      ["Rows of trips", "count(*)"],
      ["Different trip id", "count(distinct trip_id)"],
      ["Different year", "count(distinct year)"],
    ]);
    for (const m of offered)
      expect(checkFormula(m.formula, scopeOf(project), m.table, "group", m.name).problems).toEqual([]);
    const full = { ...project, measures: offered };
    const { totals } = answer(full, { measures: offered.map((m) => ({ id: m.name })) });
    expect(offered.map((m) => totals[m.name])).toEqual([15, 2 / 3, 3.75, 0.5, 4, 4, 1]);
  });

  it("are not offered again once the project has them, and never take a name that is used", () => {
    const first = proposedMeasures(project)[5];
    const has = newMeasure({ ...first, id: "m", name: "sum_of_riders", formula: "SUM(riders)" });
    const offered = proposedMeasures({ ...project, measures: [has, { ...first, id: "n" }] });
    expect(offered.map((m) => m.label)).not.toContain("Different trip id");
    expect(offered.find((m) => m.label === "Sum of riders")?.name).toBe("sum_of_riders_2");
    expect(new Set(offered.map((m) => m.name)).size).toBe(offered.length);
    expect(proposedMeasures(emptyProject("p"))).toEqual([]);
  });
});

describe("what is known of columns", () => {
  it("is asked in one query, whatever they are called", () => {
    const query = factsQuery(project, "trips");
    const facts = readFacts(project, "trips", answer(project, query));
    const none = { from: null, to: null };
    expect(Object.fromEntries(facts)).toEqual({
      trip_id: { distinct: 4, ...none },
      'the "line"': { distinct: 2, ...none },
      late: { distinct: 2, ...none },
      constructor: { distinct: 2, ...none },
      on: { distinct: 4, from: "2025-01-03", to: "2025-03-09" },
    });
    const numbers = {
      ...project,
      tables: [{ ...project.tables[0], columns: [project.tables[0].columns[3]] }],
    };
    expect(factsQuery(numbers, "trips")).toBeNull();
  });
});

describe("filters that a board can have", () => {
  it("begin with the tables of its visuals, leave out what it has, and name the table where there are several", () => {
    const other = { ...project.tables[0], id: "o", name: "plans" };
    const both = { ...project, tables: [other, ...project.tables] };
    const measure = newMeasure({ id: "m", name: "m", label: "m", table: "trips", formula: "count(*)" });
    const split = { column: 'the "line"' };
    const visual = newVisual({ id: "v", name: "v", kind: "donut", value: "m", split });
    const full = { ...both, measures: [measure], visuals: [visual] };
    const tile = madeTile("x", "v");
    const control = newFilter({ id: "c", table: "TRIPS", column: "Late", label: "L" });
    const offered = offeredFilters(full, { tiles: [tile], controls: [control] });
    expect(offered.slice(0, 3).map((f) => f.text)).toEqual([
      'trips · the "line"',
      "trips · trip_id",
      "trips · on by year",
    ]);
    expect(offered.map((f) => f.text)).not.toContain("trips · late");
    expect(offered.map((f) => f.text)).toContain("plans · late");
    expect(offered[2]).toMatchObject({ by: "year", label: "Year", isNear: true });
    expect(offeredFilters(project, { tiles: [], controls: [] })[0]).toMatchObject({
      text: "trip_id",
      label: "Trip id",
    });
  });
});
