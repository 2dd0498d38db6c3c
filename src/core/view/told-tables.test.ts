import { describe, expect, it } from "vitest";
import { answeredData } from "@/testing/answered";
import { visualOf } from "@/testing/craft/cases";
import { madeTable, projectTable } from "@/testing/made-table";
import { runQueries } from "../engine/run";
import { querySchema } from "../plan/query";
import { columnsOfMeasure } from "../project/columns-of-measure";
import { newMeasure } from "../project/defaults";
import { type Edit, edited } from "../project/edits";
import { homeTableOf, withHomeTables } from "../project/home-table";
import { scopeOf } from "../project/names";
import { emptyProject, type Project, type Visual } from "../project/schema";
import { withToldTables } from "../project/told-tables";
import { toQuery } from "./query";
import { whyNot, whyNotInOrder } from "./why-not";

const TRIPS = madeTable("trips", {
  route: ["text", ["North", "South", "South"]],
  crew: ["text", ["a", "b", "b"]],
  people: ["number", [60, 40, 20]],
});
const PLAN = madeTable("plan", {
  route: ["text", ["North", "South"]],
  boat: ["text", ["x", "y"]],
  wanted: ["number", [50, 100]],
});
const COSTS = madeTable("costs", { people: ["number", [5]], kind: ["text", ["fuel"]] });
const tables = [COSTS, TRIPS, PLAN];
const measure = (id: string, formula: string, table: string | null = "costs") =>
  newMeasure({ id, name: id, label: id, table, tableSet: false, formula });
const project = (...measures: Project["measures"]): Project =>
  withToldTables({ ...emptyProject("P"), tables: tables.map(projectTable), measures });
const tableIn = (p: Project, id: string) => p.measures.find((m) => m.id === id)?.table;
const write = (p: Project, id: string, formula: string) =>
  edited(p, { type: "change measure", id, change: { formula } });

const both = project(
  measure("reached", "carried / planned"),
  measure("carried", "sum(trips.people)"),
  measure("planned", "sum(wanted)"),
  measure("twice", "carried * 2"),
);

describe("the table of a measure", () => {
  it("is told by its names, again at every change, measures of measures after those that they use", () => {
    expect(both.measures.map((m) => m.table)).toEqual([null, "trips", "plan", "trips"]);
    const changed = write(both, "planned", "sum(kind = 'fuel' and people > 1)");
    expect(tableIn(changed, "planned")).toBe("plan");
    expect(tableIn(write(both, "planned", "count(kind)"), "planned")).toBe("costs");
    expect(tableIn(write(both, "twice", "planned * 2"), "twice")).toBe("plan");
    // What stands in two tables leaves the one that it has.
    expect(tableIn(write(both, "carried", "sum(people)"), "carried")).toBe("trips");
    expect(tableIn(write(both, "planned", "sum(people)"), "planned")).toBe("plan");
  });

  it("is what somebody set, whatever the names tell, until that is taken back", () => {
    const set = edited(both, {
      type: "change measure",
      id: "planned",
      change: { table: "costs", tableSet: true },
    });
    expect(tableIn(set, "planned")).toBe("costs");
    expect(tableIn(write(set, "planned", "sum(wanted) + 1"), "planned")).toBe("costs");
    const back: Edit = { type: "change measure", id: "planned", change: { tableSet: false } };
    expect(tableIn(edited(set, back), "planned")).toBe("plan");
  });

  it("is found once a table comes that has the names, and stays where another has them too", () => {
    const before = { ...both, tables: both.tables.filter((t) => t.name !== "plan") };
    const early = project(measure("m", "sum(wanted)", null));
    const without: Project = {
      ...early,
      tables: before.tables,
      measures: [measure("m", "sum(wanted)", null)],
    };
    const come = edited(without, { type: "add table", table: projectTable(PLAN) });
    expect(tableIn(come, "m")).toBe("plan");
    const twin = madeTable("plan_2024", { wanted: ["number", [1]] });
    expect(tableIn(edited(come, { type: "add table", table: projectTable(twin) }), "m")).toBe("plan");
  });

  it("changes no edit that has nothing to do with it, and no document that it was told for", () => {
    const next = edited(both, { type: "rename project", name: "Q" });
    expect(next.measures).toBe(both.measures);
    expect(withToldTables(both)).toBe(both);
  });
});

describe("a measure over several tables", () => {
  const reached = both.measures[0];
  it("is split by what they share, in terms of the first that it reads", () => {
    expect(homeTableOf(reached, both)).toBe("trips");
    expect(columnsOfMeasure(reached, both).map((c) => c.name)).toEqual(["route"]);
    const visual = visualOf("progress bar", {}, { value: "reached", split: { column: "route" } });
    expect(answeredData(visual, both, tables).rows.map((r) => [r.label, r.value])).toEqual([
      ["North", 1.2],
      ["South", 0.6],
    ]);
  });

  it("names its home table where no formula is parsed", () => {
    const settled = withHomeTables(both);
    expect(settled.measures.map((m) => m.table)).toEqual(["trips", "trips", "plan", "trips"]);
    const visual = visualOf("progress bar", {}, { value: "reached", split: { column: "route" } });
    expect(answeredData(visual, settled, tables)).toEqual(answeredData(visual, both, tables));
  });
});

describe("a formula in a query", () => {
  const ask = (formula: string, more: object = {}) =>
    runQueries([querySchema.parse({ measures: [{ formula, as: "v" }], ...more })], {
      scope: scopeOf(both),
      inputs: {},
      tables,
    })[0];
  it("has the table that its names tell", () => {
    expect(ask("sum(wanted)")).toMatchObject({ totals: { v: 150 } });
    expect(ask("carried / planned", { splits: [{ column: "route" }] })).toMatchObject({
      columns: [{ values: ["North", "South"] }, { values: [1.2, 0.6] }],
    });
  });
  it("says between which tables its names leave a choice", () => {
    expect(ask("sum(people)")).toMatchObject({
      code: "unclear_table",
      message: "What sum(people) names stands in costs and trips. Name the table in the query.",
    });
    expect(ask("sum(people)", { table: "costs" })).toMatchObject({ totals: { v: 5 } });
  });
});

describe("what cannot be answered with a visual's split", () => {
  const byCrew = visualOf("lollipop", {}, { value: "carried", split: { column: "crew" } });
  const NO_CREW =
    "plan cannot be split by trips.crew: it has no column of that name, and no link leads there. Both can be split by route.";
  it("is told of a second value, an order, a target and a split before it is chosen", () => {
    expect(whyNot(byCrew, { headSize: "planned" }, both)).toBe(NO_CREW);
    const nested = { ...byCrew, kind: "nested bars" as const };
    expect(whyNot(nested, { second: "planned" }, both)).toBe(NO_CREW);
    expect(whyNot({ ...byCrew, kind: "progress bar" }, { target: { measure: "planned" } }, both)).toBe(
      NO_CREW,
    );
    expect(whyNot(byCrew, { order: { by: { measure: "planned" }, order: "asc" } }, both)).toBe(NO_CREW);
    expect(whyNot(byCrew, { headSize: "twice" }, both)).toBeNull();
    expect(whyNot(byCrew, { split: { column: "route" } }, both)).toBeNull();
    const reached = { ...byCrew, value: "reached", split: { column: "route" } };
    expect(whyNot(reached, { split: { column: "crew" } }, both)).toBe(NO_CREW);
  });

  it("is told of a text and of a formula with a problem, which have no size", () => {
    const texts = project(...both.measures, measure("last", "max(crew)"), measure("broken", "sum(nothing)"));
    expect(whyNot(byCrew, { headSize: "last" }, texts)).toBe("last is a text, and has no size.");
    expect(whyNot(byCrew, { value: "broken" }, texts)).toBe("broken has a problem: mend its formula first.");
    // Rows may be put in order by a text.
    expect(whyNot(byCrew, { order: { by: { measure: "last" }, order: "asc" } }, texts)).toBeNull();
  });

  it("is not laid at the door of what is chosen where it stood so before", () => {
    const held: Visual = { ...byCrew, kind: "progress bar", target: { measure: "planned" } };
    expect(whyNot(held, { value: "twice" }, both)).toBeNull();
  });

  it("leaves rows in the order of their values where an order stopped fitting, and its phrase says why", () => {
    const visual = { ...byCrew, order: { by: { measure: "planned" }, order: "desc" as const } };
    expect(answeredData(visual, both, tables).rows.map((r) => r.value)).toEqual([60, 60]);
    expect(whyNotInOrder(visual, "order", both)).toBe(NO_CREW);
    const gone = { ...byCrew, order: { by: { column: "weight" }, order: "desc" as const } };
    expect(whyNotInOrder(gone, "order", both)).toBe("The value's rows have no column weight any more.");
    expect(toQuery(gone, both)?.sort).toEqual({ by: "carried", order: "desc" });
    expect(whyNotInOrder(byCrew, "order", both)).toBeNull();
  });
});
