import { describe, expect, it } from "vitest";
import { edited } from "./edits";
import {
  boardSchema,
  emptyProject,
  inputSchema,
  measureSchema,
  type Project,
  tableSchema,
  visualSchema,
} from "./schema";
import { usesOfInput, usesOfMeasure } from "./uses";

const source = { file: "sailings.csv", separator: ",", encoding: "utf-8", header: true };
function project(): Project {
  const table = tableSchema.parse({
    id: "t",
    name: "sailings",
    rows: 3,
    source,
    columns: [
      { name: "route", reading: { type: "text" } },
      { name: "passengers", reading: { type: "number" } },
    ],
  });
  const measures = [
    {
      id: "m1",
      name: "carried",
      label: "Carried",
      table: "sailings",
      formula: "sum(passengers) + sum(sailings.passengers)",
    },
    {
      id: "m2",
      name: "share",
      label: "Share",
      table: "sailings",
      formula: "carried / total(CARRIED) * :goal -- carried",
    },
  ].map((m) => measureSchema.parse({ ...m, format: {} }));
  return {
    ...edited(emptyProject("P"), { type: "add table", table }),
    measures,
    inputs: [
      inputSchema.parse({ id: "i1", name: "goal", label: "Goal", type: "number", value: 1, format: {} }),
    ],
    visuals: [
      visualSchema.parse({
        id: "v1",
        name: "V",
        kind: "donut",
        title: "{carried} of {Goal:percent.1}",
        value: "m1",
        split: { column: "route" },
        target: { input: "i1" },
        filters: [{ column: "route", in: ["a"] }],
      }),
    ],
    boards: [
      boardSchema.parse({
        id: "b1",
        name: "B",
        tiles: [{ id: "x", type: "visual", visual: "v1", x: 0, y: 0, w: 4, h: 6 }],
        controls: [
          { id: "c", type: "filter", label: "Route", table: "sailings", column: "route" },
          { id: "d", type: "input", input: "i1" },
        ],
      }),
    ],
  };
}

describe("edits", () => {
  it("leave the project they were given as it was", () => {
    const before = project();
    const copy = structuredClone(before);
    edited(before, { type: "change measure", id: "m1", change: { name: "people" } });
    edited(before, { type: "remove visual", id: "v1" });
    expect(before).toEqual(copy);
  });

  it("rename a measure in every formula and template, and nowhere else", () => {
    const { measures, visuals } = edited(project(), {
      type: "change measure",
      id: "m1",
      change: { name: "people carried" },
    });
    expect(measures[1].formula).toBe('"people carried" / total("people carried") * :goal -- carried');
    expect(visuals[0].title).toBe("{people carried} of {Goal:percent.1}");
  });

  it("rename an input, a column and a table everywhere", () => {
    expect(
      edited(project(), { type: "change input", id: "i1", change: { name: "aim" } }).measures[1].formula,
    ).toContain(":aim");
    expect(
      edited(project(), { type: "change input", id: "i1", change: { name: "aim" } }).visuals[0].title,
    ).toBe("{carried} of {aim:percent.1}");
    const renamed = edited(
      edited(project(), {
        type: "change column",
        table: "t",
        column: "passengers",
        change: { name: "people" },
      }),
      { type: "change column", table: "t", column: "route", change: { name: "line" } },
    );
    expect(renamed.measures[0].formula).toBe("sum(people) + sum(sailings.people)");
    expect(renamed.visuals[0]).toMatchObject({ split: { column: "line" }, filters: [{ column: "line" }] });
    expect(renamed.boards[0].controls[0]).toMatchObject({ column: "line" });
    const moved = edited(project(), { type: "rename table", id: "t", name: "trips" });
    expect(moved.measures[0]).toMatchObject({
      table: "trips",
      formula: "sum(passengers) + sum(trips.passengers)",
    });
    expect(moved.boards[0].controls[0]).toMatchObject({ table: "trips" });
  });

  it("know where things are used", () => {
    const uses = usesOfMeasure(project(), "m1");
    expect([uses.measures.map((m) => m.id), uses.visuals.map((v) => v.id)]).toEqual([["m2"], ["v1"]]);
    expect(usesOfInput(project(), "i1").boards.map((b) => b.id)).toEqual(["b1"]);
  });

  it("give a table a name that is free, and take a removed visual off its boards", () => {
    const twice = edited(project(), { type: "add table", table: { ...project().tables[0], id: "t2" } });
    expect(twice.tables.map((t) => t.name)).toEqual(["sailings", "sailings_2"]);
    expect(edited(project(), { type: "remove visual", id: "v1" }).boards[0].tiles).toEqual([]);
    expect(
      edited(emptyProject("x"), { type: "add measure", measure: project().measures[0] }).measures,
    ).toHaveLength(1);
  });
});

describe("renaming by what a name means", () => {
  const reading = { type: "number" as const };
  const table = (name: string, columns: string[]) =>
    tableSchema.parse({
      id: name,
      name,
      rows: 0,
      columns: columns.map((c) => ({ name: c, reading })),
      source,
    });
  const measure = (name: string, formula: string, own: string) =>
    measureSchema.parse({ id: name, name, label: name, table: own, formula, format: {} });
  const project = {
    ...emptyProject("p"),
    tables: [
      table("sailings", ["route", "seats"]),
      table("routes", ["route", "plan"]),
      table("other", ["plan"]),
    ],
    links: [{ id: "l", table: "sailings", column: "route", to: "routes", key: "route" }],
    measures: [
      measure("plan", "sum(plan)", "other"),
      measure("linked", "sum(plan) / sum(routes.plan)", "sailings"),
      measure("both", 'plan / sum(seats) -- plan and "plan"', "other"),
      measure("text", "case when max(seats) > 1 then 'plan' else 'x' end", "sailings"),
      measure("uses", '"Plan" + both + total(plan)', "routes"),
      measure("free", "both + linked", "sailings"),
    ],
  };
  const formulas = (p: typeof project) => p.measures.map((m) => m.formula);

  it("changes a measure only where it is that measure: not a column of its name, not a text, not a note", () => {
    const named = { ...project, measures: [...project.measures, measure("total_plan", "1", "other")] };
    const renamed = edited(named, {
      type: "change measure",
      id: "linked",
      change: { name: "per plan" },
    }) as typeof project;
    expect(formulas(renamed)[5]).toBe('both + "per plan"');
    const planned = edited(
      {
        ...project,
        measures: [
          ...project.measures,
          measure("m", "plan * 2", "sailings"),
          measure("n", "plan * 2", "nowhere"),
        ],
      },
      { type: "change measure", id: "plan", change: { name: "planned" } },
    ) as typeof project;
    // Inside an aggregate, plan is the column; where a group has one value, it is the measure.
    expect(formulas(planned)).toEqual([
      "sum(plan)",
      formulas(project)[1],
      'planned / sum(seats) -- plan and "plan"',
      formulas(project)[3],
      "planned + both + total(planned)",
      formulas(project)[5],
      "planned * 2",
      "planned * 2",
    ]);
  });

  it("changes a column where it is that column, through links too", () => {
    const column = edited(project, {
      type: "change column",
      table: "routes",
      column: "plan",
      change: { name: "goal" },
    }) as typeof project;
    expect(formulas(column)).toEqual([
      "sum(plan)",
      "sum(routes.goal) / sum(routes.goal)",
      formulas(project)[2],
      formulas(project)[3],
      formulas(project)[4],
      formulas(project)[5],
    ]);
  });
});
