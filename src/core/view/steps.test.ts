import { describe, expect, it } from "vitest";
import { madeTile } from "../../testing/made-board";
import { newBoard, newMeasure, newVisual } from "../project/defaults";
import { edited } from "../project/edits";
import { emptyProject, type Project, tableSchema } from "../project/schema";
import { categoryKey, rowKey } from "../rows/row-key";
import { boardReducer, filtersOfTile, seenVisual, touchedBy, UNTOUCHED } from "./board-state";
import { pickedInWords } from "./picked-words";
import { toQuery } from "./query";
import { say, sentenceText } from "./sentence";
import { stateFrom } from "./state-address";
import { canStepDown, splitBelow, steppedVisual, trailOf } from "./steps";

const visual = newVisual({
  id: "v",
  name: "Riders",
  kind: "rounded bars",
  value: "m",
  split: { column: "day", by: "year" },
  steps: [{ column: "day", by: "month" }, { column: "route" }],
});
const project: Project = {
  ...emptyProject("P"),
  tables: [
    tableSchema.parse({
      id: "t",
      name: "trips",
      rows: 1,
      columns: [
        { name: "day", reading: { type: "date" } },
        { name: "route", reading: { type: "text" } },
      ],
      source: { file: "t.csv" },
    }),
  ],
  measures: [newMeasure({ id: "m", name: "riders", label: "Riders", table: "trips", formula: "count(*)" })],
  visuals: [visual, newVisual({ id: "n", name: "All", kind: "number", value: "m" })],
};
const [YEAR, MONTH, ROUTE] = ["2025-01-01", "2025-03-01", "North Quay"].map(categoryKey);
const down = (state = UNTOUCHED, key = YEAR) => boardReducer(state, { type: "step down", visual: "v", key });
const tile = (id: string) => madeTile(id, id);
const board = newBoard({ id: "b", name: "B", tiles: [tile("v"), tile("n")] });

describe("stepping down", () => {
  it("splits by what stands below, for what was stepped down from alone", () => {
    const seen = steppedVisual(visual, [YEAR, MONTH]);
    expect(toQuery(seen, project)).toMatchObject({
      splits: [{ column: "route" }],
      filters: [
        { column: "day", by: "year", in: ["2025-01-01"] },
        { column: "day", by: "month", in: ["2025-03-01"] },
      ],
    });
    expect(steppedVisual(visual, [])).toBe(visual);
    // A path that is longer than the splits ends with the last of them.
    expect(steppedVisual(visual, [YEAR, MONTH, ROUTE]).split).toEqual({ column: "route" });
    expect(trailOf(visual, [YEAR, MONTH, ROUTE], project)).toEqual(["2025", "Mar 2025"]);
  });

  it("goes from categories of the data, as far as there is a split below", () => {
    expect(splitBelow(visual, [YEAR])).toEqual({ column: "route" });
    expect(canStepDown(visual, [YEAR], MONTH)).toBe(true);
    expect(canStepDown(visual, [YEAR, MONTH], ROUTE)).toBe(false);
    expect(canStepDown(visual, [], rowKey({ type: "other" }))).toBe(false);
    expect(canStepDown(visual, [], rowKey({ type: "no match" }))).toBe(true);
    expect(canStepDown({ ...visual, split: null }, [], YEAR)).toBe(false);
  });

  it("lets go of what was picked there, and is taken back to where somebody wants", () => {
    const picked = boardReducer(UNTOUCHED, {
      type: "pick",
      visual: "v",
      side: "split",
      key: YEAR,
      more: false,
      shown: [YEAR],
    });
    const twice = down(down(picked), MONTH);
    expect(twice.picks).toEqual([]);
    expect(seenVisual(visual, twice).split).toEqual({ column: "route" });
    const up = boardReducer(twice, { type: "step up", visual: "v", to: 1 });
    expect(up.steps).toEqual({ v: [YEAR] });
  });

  it("is part of what is picked further down, and says so", () => {
    const state = boardReducer(down(), {
      type: "pick",
      visual: "v",
      side: "split",
      key: MONTH,
      more: false,
      shown: [MONTH],
    });
    expect(filtersOfTile(board, state, tile("n"), project)).toEqual([
      { column: "trips.day", by: "year", in: ["2025-01-01"] },
      { column: "trips.day", by: "month", in: ["2025-03-01"] },
    ]);
    expect(filtersOfTile(board, state, tile("v"), project)).toEqual([]);
    expect(pickedInWords(state, project)[0]).toMatchObject({
      text: "month: Mar 2025",
      from: "Riders › 2025",
    });
    expect(touchedBy(board, project)).toEqual([{ column: "trips.day", by: "year" }]);
  });

  it("stands in the address as far as it holds", () => {
    const read = (text: string) => stateFrom(new URLSearchParams(text), board, project);
    const { state, left } = read("pick.v=North+Quay&step.v=2025-01-01&step.v=2025-03-01");
    expect(left).toEqual([]);
    expect(state.steps).toEqual({ v: [YEAR, MONTH] });
    expect(state.picks).toEqual([{ visual: "v", side: "split", keys: [ROUTE] }]);
    expect(read("step.v=2025-01-01&step.v=soon")).toMatchObject({
      state: { steps: { v: [YEAR] } },
      left: ["a step down in Riders"],
    });
    expect(read("step.v=2025-01-01&step.v=2025-03-01&step.v=x&step.v=y&step.n=1").left).toEqual([
      "a step down in Riders",
      "a choice that this board has not",
    ]);
  });

  it("is said in the sentence, and follows a column that is renamed", () => {
    const saying = { visual, project, scale: { minimum: 0, maximum: 1 }, pictured: [] };
    expect(sentenceText(say(saying))).toContain(
      "split by day by year, then day by month, then route, then …",
    );
    const renamed = edited(project, {
      type: "change column",
      table: "t",
      column: "route",
      change: { name: "line" },
    });
    expect(renamed.visuals[0].steps).toEqual([{ column: "day", by: "month" }, { column: "line" }]);
  });
});
