import { describe, expect, it } from "vitest";
import { newFilter, newInput, newInputControl } from "../project/defaults";
import type { Setting } from "../project/schema";
import {
  boardReducer,
  chosenAlone,
  filtersOf,
  inputsOf,
  keepable,
  settingIn,
  toggled,
  UNTOUCHED,
} from "./board-state";
import type { FilterOfBoard } from "./settings";

const filter = (id: string, column: string, more: Partial<FilterOfBoard> = {}): FilterOfBoard =>
  newFilter({ id, label: column, table: "trips", column, ...more });

describe("the state of a board", () => {
  const controls = [filter("a", "route"), filter("b", "vessel", { begins: { in: ["Gull"] } })];

  it("begins as the board has it", () => {
    expect(filtersOf(controls, UNTOUCHED)).toEqual([{ column: "trips.vessel", in: ["Gull"] }]);
    expect(settingIn(UNTOUCHED, controls[1])).toEqual({ in: ["Gull"] });
  });

  it("takes the reader's choice, also of nothing, and leaves what it came from", () => {
    const none = boardReducer(UNTOUCHED, { type: "set filter", control: "b", setting: { in: [] } });
    expect(filtersOf(controls, none)).toEqual([]);
    const both = boardReducer(none, { type: "set filter", control: "a", setting: { in: [null, false] } });
    expect(filtersOf(controls, both)).toEqual([{ column: "trips.route", in: [null, false] }]);
    expect(UNTOUCHED).toEqual({ set: {}, inputs: {}, picks: [], steps: {} });
  });

  it("keeps ids and names that mean something to the language, and buckets of dates", () => {
    const odd = filter("constructor", "date", { by: "year" });
    const state = boardReducer(UNTOUCHED, {
      type: "set filter",
      control: "constructor",
      setting: { in: [2025] },
    });
    expect(filtersOf([odd], state)).toEqual([{ column: "trips.date", by: "year", in: [2025] }]);
    expect(filtersOf([odd], UNTOUCHED)).toEqual([]);
    const inputs = [newInput({ id: "i", name: "constructor", label: "C", type: "number", value: 1 })];
    expect(inputsOf(inputs, UNTOUCHED)).toEqual({});
    const set = boardReducer(UNTOUCHED, { type: "set input", name: "constructor", value: 7 });
    expect(Object.entries(inputsOf(inputs, set))).toEqual([["constructor", 7]]);
    expect(inputsOf([], set)).toEqual({});
  });

  it("keeps stretches, spans and texts, each as the filter that it means", () => {
    const all = [
      filter("n", "seats", { as: "stretch" }),
      filter("d", "date", { as: "stretch" }),
      filter("t", "name", { as: "text" }),
    ];
    const of = (control: string, setting: Setting) =>
      filtersOf(all, boardReducer(UNTOUCHED, { type: "set filter", control, setting }));
    expect(filtersOf(all, UNTOUCHED)).toEqual([]);
    expect(of("n", { from: 3, to: null })).toEqual([{ column: "trips.seats", from: 3 }]);
    expect(of("n", { from: null, to: 0 })).toEqual([{ column: "trips.seats", to: 0 }]);
    const relative = { unit: "month", from: -3, to: -1, anchor: "newest" } as const;
    expect(of("d", { relative })).toEqual([{ column: "trips.date", relative }]);
    expect(of("t", { contains: " quay " })).toEqual([{ column: "trips.name", contains: "quay" }]);
    expect(of("t", { contains: "  " })).toEqual([]);
    // One of another form than the filter has keeps all.
    expect(of("n", { contains: "x" })).toEqual([]);
  });

  it("leaves the tiles whole that a filter does not reach", () => {
    const one = [filter("a", "route", { begins: { in: ["x"] }, leaves: ["t2"] })];
    expect(filtersOf(one, UNTOUCHED, "t1")).toHaveLength(1);
    expect(filtersOf(one, UNTOUCHED, "t2")).toEqual([]);
  });

  it("tells what a board can begin with", () => {
    const inputs = [newInput({ id: "i", name: "goal", label: "Goal", type: "number", value: 1 })];
    const with_ = [...controls, newInputControl({ id: "c", input: "i" })];
    expect(keepable(with_, inputs, UNTOUCHED)).toEqual({ set: [], values: [] });
    const state = { ...UNTOUCHED, set: { a: { in: ["x"] }, b: { in: ["Gull"] } }, inputs: { goal: 2 } };
    expect(keepable(with_, inputs, state)).toEqual({
      set: [{ control: "a", setting: { in: ["x"] } }],
      values: [{ input: "i", value: 2 }],
    });
  });

  it("toggles values of several, and one alone", () => {
    expect(toggled(["x"], "y")).toEqual(["x", "y"]);
    expect(toggled(["x", null], null)).toEqual(["x"]);
    expect(chosenAlone(["x", "y"], "x")).toEqual(["x"]);
    expect(chosenAlone(["x"], "x")).toEqual([]);
  });
});
