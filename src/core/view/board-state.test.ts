import { describe, expect, it } from "vitest";
import type { Value } from "../base/value";
import { newInput, newMeasure, newVisual } from "../project/defaults";
import { type Board, emptyProject, type Project, tableSchema } from "../project/schema";
import {
  boardReducer,
  chosenAlone,
  chosenIn,
  type FilterOfBoard,
  filterForSplit,
  filtersOf,
  inputsOf,
  toggled,
  UNTOUCHED,
} from "./board-state";

const filter = (id: string, column: string, chosen: Value[] = [], table = "trips"): FilterOfBoard => ({
  id,
  type: "filter",
  label: column,
  table,
  column,
  chosen,
});
const table = (name: string, columns: string[]) =>
  tableSchema.parse({
    id: name,
    name,
    rows: 1,
    columns: columns.map((c) => ({ name: c, reading: { type: "text" } })),
    source: { file: "t.csv" },
  });

describe("the state of a board", () => {
  const controls = [filter("a", "route"), filter("b", "vessel", ["Gull"])];

  it("begins as the board has it", () => {
    expect(filtersOf(controls, UNTOUCHED)).toEqual([{ column: "trips.vessel", in: ["Gull"] }]);
    expect(chosenIn(UNTOUCHED, controls[1])).toEqual(["Gull"]);
  });

  it("takes the reader's choice, also of nothing, and leaves what it came from", () => {
    const none = boardReducer(UNTOUCHED, { type: "choose", control: "b", values: [] });
    expect(filtersOf(controls, none)).toEqual([]);
    const both = boardReducer(none, { type: "choose", control: "a", values: [null, false] });
    expect(filtersOf(controls, both)).toEqual([{ column: "trips.route", in: [null, false] }]);
    expect(UNTOUCHED).toEqual({ chosen: {}, inputs: {} });
  });

  it("keeps ids and names that mean something to the language, and buckets of dates", () => {
    const odd = { ...filter("constructor", "date"), by: "year" as const };
    const state = boardReducer(UNTOUCHED, { type: "choose", control: "constructor", values: [2025] });
    expect(filtersOf([odd], state)).toEqual([{ column: "trips.date", by: "year", in: [2025] }]);
    expect(filtersOf([odd], UNTOUCHED)).toEqual([]);
    const inputs = [newInput({ id: "i", name: "constructor", label: "C", type: "number", value: 1 })];
    expect(inputsOf(inputs, UNTOUCHED)).toEqual({});
    const set = boardReducer(UNTOUCHED, { type: "set input", name: "constructor", value: 7 });
    expect(Object.entries(inputsOf(inputs, set))).toEqual([["constructor", 7]]);
    expect(inputsOf([], set)).toEqual({});
  });

  it("toggles values of several, and one alone", () => {
    expect(toggled(["x"], "y")).toEqual(["x", "y"]);
    expect(toggled(["x", null], null)).toEqual(["x"]);
    expect(chosenAlone(["x", "y"], "x")).toEqual(["x"]);
    expect(chosenAlone(["x"], "x")).toEqual([]);
  });
});

describe("the filter for a split", () => {
  const project: Project = {
    ...emptyProject("P"),
    tables: [table("trips", ["route", "vessel_id"]), table("vessels", ["id", "class"])],
    links: [{ id: "l", table: "trips", column: "vessel_id", to: "vessels", key: "id" }],
    measures: [newMeasure({ id: "m", name: "m", label: "M", table: "trips", formula: "count(*)" })],
  };
  const visual = (column: string, by?: "year") =>
    newVisual({ id: "v", name: "V", kind: "donut", value: "m", split: { column, ...(by ? { by } : {}) } });
  const board = (...controls: FilterOfBoard[]): Board => ({ id: "b", name: "B", tiles: [], controls });

  it("is the one that means the same column, through links too", () => {
    expect(filterForSplit(visual("route"), board(filter("x", "ROUTE")), project)?.id).toBe("x");
    const linked = board(filter("x", "route"), filter("y", "class", [], "vessels"));
    expect(filterForSplit(visual("vessels.class"), linked, project)?.id).toBe("y");
  });

  it("is none for another column, a bucket, or a visual without a measure", () => {
    expect(filterForSplit(visual("route"), board(filter("x", "vessel_id")), project)).toBeUndefined();
    expect(filterForSplit(visual("route", "year"), board(filter("x", "route")), project)).toBeUndefined();
    const orphan = { ...visual("route"), value: null };
    expect(filterForSplit(orphan, board(filter("x", "route")), project)).toBeUndefined();
  });
});
