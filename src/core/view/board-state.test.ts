import { describe, expect, it } from "vitest";
import type { Value } from "../base/value";
import { newInput } from "../project/defaults";
import {
  boardReducer,
  chosenAlone,
  chosenIn,
  type FilterOfBoard,
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
    expect(UNTOUCHED).toEqual({ chosen: {}, inputs: {}, picks: [], steps: {} });
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
