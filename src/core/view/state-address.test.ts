import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTile } from "../../testing/made-board";
import type { Value } from "../base/value";
import { newBoard, newFilter, newInput, newInputControl, newMeasure, newVisual } from "../project/defaults";
import { type Board, emptyProject, type Project, tableSchema } from "../project/schema";
import { categoryKey, rowKey } from "../rows/row-key";
import { type BoardState, UNTOUCHED } from "./board-state";
import type { FilterOfBoard } from "./settings";
import { addressOf, isOfState, stateFrom } from "./state-address";

const column = (name: string, type: string) => ({ name, reading: { type } });
const project: Project = {
  ...emptyProject("P"),
  tables: [
    tableSchema.parse({
      id: "t",
      name: "trips",
      rows: 1,
      columns: [
        column("route", "text"),
        column("riders", "number"),
        column("full", "boolean"),
        column("day", "date"),
      ],
      source: { file: "t.csv" },
    }),
  ],
  measures: [newMeasure({ id: "m", name: "m", label: "M", table: "trips", formula: "sum(riders)" })],
  inputs: [
    newInput({ id: "g", name: "goal", label: "Goal", type: "number", value: 5, minimum: 0, maximum: 10 }),
    newInput({ id: "w", name: "constructor", label: "Word", type: "text", value: "a" }),
    newInput({ id: "c", name: "city", label: "City", type: "text", value: "x", choices: ["x", "y"] }),
  ],
  visuals: [
    newVisual({
      id: "v",
      name: "Routes",
      kind: "rounded bars",
      value: "m",
      split: { column: "route" },
      series: { column: "full" },
    }),
    newVisual({
      id: "d",
      name: "Days",
      kind: "rounded bars",
      value: "m",
      split: { column: "day", by: "month" },
    }),
    newVisual({ id: "n", name: "All", kind: "number", value: "m" }),
  ],
};
const control = (id: string, of: string, more: Partial<FilterOfBoard> = {}) =>
  newFilter({ id, label: of, table: "trips", column: of, ...more });
const board: Board = newBoard({
  id: "b",
  name: "B",
  controls: [
    control("route", "route", { begins: { in: ["A"] } }),
    control("riders", "riders"),
    control("full", "full"),
    control("__proto__", "day", { by: "year" }),
    control("hours", "riders", { as: "stretch" }),
    control("days", "day", { as: "stretch" }),
    control("find", "route", { as: "text" }),
    newInputControl({ id: "i", input: "g" }),
  ],
  tiles: ["v", "d", "n"].map((visual) => madeTile(visual, visual)),
});
const there = (state: BoardState) => addressOf(state, board, project);
const readBack = (text: string) => stateFrom(new URLSearchParams(text), board, project);
const text = fc.oneof(
  fc.string({ unit: "binary" }),
  fc.constantFrom(
    "",
    "true",
    "2025",
    "(none)",
    "(other)",
    '"',
    "1e5",
    "\ud800",
    "__proto__",
    "a&b=c #?",
    "<script>",
  ),
);

describe("the address of a board's state", () => {
  it("says nothing where nothing was changed", () => {
    expect(there(UNTOUCHED)).toEqual([]);
    expect(
      there({ ...UNTOUCHED, set: { route: { in: ["A"] }, gone: { in: ["x"] } }, inputs: { goal: 5 } }),
    ).toEqual([]);
    expect(readBack("board=b&theme=night")).toEqual({ state: UNTOUCHED, left: [] });
    expect(isOfState("board")).toBe(false);
  });

  it("is readable", () => {
    const state: BoardState = {
      set: {
        route: { in: ["North Quay", null] },
        full: { in: [true] },
        ["__proto__" as string]: { in: [2025] },
        hours: { from: 3, to: 8.5 },
        days: { relative: { unit: "month", from: -3, to: -1, anchor: "newest" } },
        find: { contains: "quay & pier" },
      },
      inputs: { goal: 7 },
      steps: { d: [categoryKey("2025-01-01")] },
      picks: [{ visual: "v", side: "split", keys: [categoryKey("Old Pier"), rowKey({ type: "no match" })] }],
    };
    expect(there(state).map((pair) => pair.join("="))).toEqual([
      "only.route=North Quay",
      "only.route=(none)",
      "only.full=true",
      "only.__proto__=2025",
      "from.hours=3",
      "to.hours=8.5",
      "span.days=month -3 -1 newest",
      "with.find=quay & pier",
      "set.goal=7",
      "step.d=2025-01-01",
      "pick.v=Old Pier",
      "pick.v=(no match)",
    ]);
    expect(there({ ...UNTOUCHED, set: { route: { in: [] } } })).toEqual([["only.route", ""]]);
  });

  it("gives the same state back, with every type of value, through the text of an address", () => {
    const key = fc.oneof(
      text.map(categoryKey),
      fc.constant(categoryKey(null)),
      fc.constant(rowKey({ type: "no match" })),
    );
    const state = fc.record({
      route: fc.option(fc.uniqueArray(fc.option(text), { maxLength: 5 }), { nil: undefined }),
      riders: fc.option(
        fc.uniqueArray(fc.option(fc.double({ noNaN: true, noDefaultInfinity: true }).map((x) => x || 0)), {
          maxLength: 4,
        }),
        { nil: undefined },
      ),
      full: fc.option(fc.uniqueArray(fc.option(fc.boolean()), { maxLength: 3 }), { nil: undefined }),
      goal: fc.option(fc.integer({ min: 0, max: 10 }), { nil: undefined }),
      word: fc.option(text, { nil: undefined }),
      picked: fc.uniqueArray(key, { maxLength: 4 }),
      but: fc.option(fc.uniqueArray(key, { maxLength: 4 })),
      series: fc.uniqueArray(fc.constantFrom(...[true, false, null].map(categoryKey)), { maxLength: 2 }),
    });
    fc.assert(
      fc.property(state, ({ route, riders, full, goal, word, picked, but, series }) => {
        const given = Object.entries({ route, riders, full }).filter(([, v]) => v !== undefined) as [
          string,
          Value[],
        ][];
        const inputs = Object.entries({ goal, constructor: word }).filter(([, v]) => v !== undefined) as [
          string,
          Value,
        ][];
        const keys = but ? [...picked, rowKey({ type: "other" })] : picked;
        const before: BoardState = {
          set: Object.fromEntries(given.map(([id, values]) => [id, { in: values }])),
          inputs: Object.fromEntries(inputs),
          steps: {},
          picks: [
            ...(keys.length ? [{ visual: "v", side: "split" as const, keys, ...(but ? { but } : {}) }] : []),
            ...(series.length ? [{ visual: "v", side: "series" as const, keys: series }] : []),
          ],
        };
        const address = new URLSearchParams(there(before)).toString();
        const { state: after, left } = readBack(address);
        expect(left).toEqual([]);
        // What stands as it was anyway is not said.
        expect(there(after)).toEqual(there(before));
        expect(after.picks).toEqual(before.picks);
      }),
      { numRuns: 500, seed: 2 },
    );
  });

  it("leaves out what does not hold, and says so, keeping what does", () => {
    const { state, left } = readBack(
      "only.route=B&only.riders=many&only.riders=3&only.gone=x&only.__proto__=2025&only.__proto__=soon&set.goal=11&set.city=z&set.what=1&pick.d=not-a-day&pick.n=A&pick.v=(oops&pick.gone=A&but.v=A",
    );
    expect(state.set).toEqual({
      route: { in: ["B"] },
      riders: { in: [3] },
      ["__proto__" as string]: { in: [2025] },
    });
    expect(Object.keys(state.set)).toContain("__proto__");
    expect(state.inputs).toEqual({});
    expect(state.picks).toEqual([]);
    expect(left).toEqual([
      "a value of riders",
      "a value of day",
      "the value of Goal",
      "the value of City",
      "what is picked of Days",
      "what is picked of Routes",
      "4 choices that this board has not",
    ]);
  });

  it("gives stretches, spans and texts back, and leaves out those of another form", () => {
    const text = "from.hours=3&to.hours=8.5&span.days=month+-3+-1+newest&with.find=quay+%26+pier";
    const { state, left } = readBack(text);
    expect(left).toEqual([]);
    expect(new URLSearchParams(there(state)).toString()).toBe(text);
    expect(readBack("to.days=2025-03-01").state.set).toEqual({ days: { from: null, to: "2025-03-01" } });
    expect(
      readBack(
        "from.hours=many&span.days=month+-3&with.route=x&from.route=1&span.hours=year+0+0+today&only.find=a",
      ).left,
    ).toEqual([
      "what route is set to",
      "what riders is set to",
      "what route is set to",
      "what day is set to",
      "what route is set to",
    ]);
  });

  it("takes no more than a board can ask for", () => {
    const many = Array.from({ length: 10_000 }, (_, i) => `only.route=r${i}`).join("&");
    expect(readBack(many)).toEqual({ state: UNTOUCHED, left: ["10000 values, of which 500 are the most"] });
    const names = Array.from({ length: 200 }, (_, i) => `pick.x${i}=1`).join("&");
    expect(readBack(names).left).toEqual(["140 of 200 choices", "60 choices that this board has not"]);
    expect(readBack("only.riders=1e999&only.riders=-&set.goal=1&set.goal=2").left).toEqual([
      "what riders is set to",
      "the value of Goal",
    ]);
  });
});
