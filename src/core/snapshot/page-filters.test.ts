import { describe, expect, it } from "vitest";
import { newFilter, newInput, newMeasure } from "../project/defaults";
import { boardSchema, emptyProject, type Project, projectSchema, tableSchema } from "../project/schema";
import { PageAskError, pageFilters, pageInputs, pageSettings } from "./page-filters";

const trips = tableSchema.parse({
  id: "t",
  name: "trips",
  rows: 3,
  columns: [
    { name: "route", reading: { type: "text" } },
    { name: "day", reading: { type: "date" } },
    { name: "fare", reading: { type: "number" } },
    { name: "constructor", reading: { type: "text" } },
  ],
  source: { file: "" },
});
const project: Project = projectSchema.parse({
  ...emptyProject("p"),
  tables: [trips],
  measures: [newMeasure({ id: "m", name: "m", label: "m", table: "trips", formula: "sum(fare)" })],
  inputs: [newInput({ id: "i", name: "goal", label: "Goal", type: "number", value: 1 })],
});
const board = boardSchema.parse({
  id: "b",
  name: "b",
  controls: [
    newFilter({ id: "c1", label: "Which route", table: "trips", column: "route" }),
    newFilter({ id: "c2", label: "Year", table: "trips", column: "day", by: "year" }),
    newFilter({
      id: "c3",
      label: "Fare",
      table: "trips",
      column: "fare",
      as: "stretch",
      begins: { from: null, to: null },
    }),
    newFilter({
      id: "c4",
      label: "Text",
      table: "trips",
      column: "constructor",
      as: "text",
      begins: { contains: "" },
    }),
  ],
});
const said = (ask: () => unknown): string => {
  try {
    ask();
  } catch (error) {
    if (error instanceof PageAskError) return error.message;
    throw error;
  }
  return "nothing";
};

describe("the filters that a page asks of a visual", () => {
  it.each([
    [{ route: ["A", null] }, [{ column: "trips.route", in: ["A", null] }]],
    [{ ROUTE: "A" }, [{ column: "trips.route", in: ["A"] }]],
    [{ "trips.fare": { from: 3 } }, [{ column: "trips.fare", from: 3 }]],
    [{ fare: { from: null, to: 9 } }, [{ column: "trips.fare", to: 9 }]],
    [{ "day by year": [2025] }, [{ column: "trips.day", by: "year", in: [2025] }]],
    [{ year: [2025, 2024] }, [{ column: "trips.day", by: "year", in: [2025, 2024] }]],
    [{ day: { not: ["2025-01-01"] } }, [{ column: "trips.day", not: ["2025-01-01"] }]],
    [{ constructor: { contains: "x" } }, [{ column: "trips.constructor", contains: "x" }]],
    [{ route: [] }, []],
    [null, []],
  ])("%j", (wishes, filters) => expect(pageFilters(wishes, "trips", project)).toEqual(filters));

  it("are refused in words where they are none", () => {
    expect(said(() => pageFilters({ harbour: ["A"] }, "trips", project))).toBe(
      "filters has harbour, which is no column here. There are route, day, fare, constructor.",
    );
    for (const wishes of [
      [1],
      3,
      "route",
      { route: {} },
      { route: [[1]] },
      { route: { from: {} } },
      { route: [Number.NaN] },
    ])
      expect(said(() => pageFilters(wishes, "trips", project))).toMatch(/^filters/);
  });
});

describe("the filters that a page asks of a board", () => {
  it("are set by the label of a control, its column, or its column and stretches", () => {
    expect(pageSettings({ "which ROUTE": ["A"], year: [2025] }, board)).toEqual({
      c1: { in: ["A"] },
      c2: { in: [2025] },
    });
    expect(pageSettings({ "trips.route": [], "day by year": [2024] }, board)).toEqual({
      c1: { in: [] },
      c2: { in: [2024] },
    });
    expect(pageSettings({ fare: { from: 2 }, text: { contains: "a" } }, board)).toEqual({
      c3: { from: 2, to: null },
      c4: { contains: "a" },
    });
    expect(pageSettings({ fare: [], text: [] }, board)).toEqual({
      c3: { from: null, to: null },
      c4: { contains: "" },
    });
  });

  it("are refused in words where the board has none such", () => {
    expect(said(() => pageSettings({ harbour: ["A"] }, board))).toContain(
      "It has Which route, Year, Fare, Text.",
    );
    expect(said(() => pageSettings({ fare: [3] }, board))).toContain('is set by {"from": …, "to": …}');
    expect(said(() => pageSettings({ route: { not: ["A"] } }, board))).toContain("another form");
  });
});

it("the values that a page gives inputs are of their types", () => {
  expect(pageInputs({ GOAL: 3 }, project)).toEqual({ goal: 3 });
  expect(said(() => pageInputs({ goal: "3" }, project))).toContain("goal");
  expect(said(() => pageInputs({ toString: 1 }, project))).toContain("There are goal.");
});
