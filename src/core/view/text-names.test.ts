import { describe, expect, it } from "vitest";
import { newBoard, newFilter, newInput, newMeasure, newVisual } from "../project/defaults";
import { edited } from "../project/edits";
import { emptyProject, type Project, type Tile, tableSchema } from "../project/schema";
import { usesOfInput, usesOfMeasure } from "../project/uses";
import { categoryKey } from "../rows/row-key";
import { boardReducer, UNTOUCHED } from "./board-state";
import { namesForTexts, textNames, textQueries, wholeForText } from "./text-names";

type TextTile = Extract<Tile, { type: "text" }>;
const text = (words: string): TextTile => ({
  id: "t",
  type: "text",
  text: words,
  phone: null,
  x: 0,
  y: 0,
  w: 3,
  h: 10,
});
const table = (id: string, name: string, columns: string[]) =>
  tableSchema.parse({
    id,
    name,
    rows: 1,
    columns: columns.map((c) => ({ name: c, reading: { type: c === "day" ? "date" : "text" } })),
    source: { file: "t.csv" },
  });
const project: Project = {
  ...emptyProject("P"),
  tables: [table("t", "trips", ["route", "day"]), table("p", "plan", ["month"])],
  measures: [
    newMeasure({ id: "m", name: "riders", label: "Riders", table: "trips", formula: "count(*)" }),
    newMeasure({ id: "n", name: "planned", label: "Planned", table: "plan", formula: "count(*)" }),
    newMeasure({ id: "k", name: "picked", label: "Picked", table: "trips", formula: "count(*)" }),
  ],
  inputs: [newInput({ id: "i", name: "goal", label: "Goal", type: "number", value: 7 })],
  visuals: [newVisual({ id: "v", name: "By route", kind: "donut", value: "m", split: { column: "route" } })],
};
const words = "{riders} of {planned}, {goal}, {picked}, {measure.picked}, {filters}, {today:yyyy}";
const board = newBoard({
  id: "b",
  name: "B",
  tiles: [text(words)],
  controls: [
    newFilter({ id: "f", label: "Route", table: "trips", column: "route", begins: { in: ["A"] } }),
    newFilter({ id: "g", label: "Day", table: "trips", column: "day", begins: { in: ["x"] }, leaves: ["t"] }),
  ],
});
const picked = boardReducer(UNTOUCHED, {
  type: "pick",
  visual: "v",
  side: "split",
  key: categoryKey("North Quay"),
  more: false,
  shown: [],
});

describe("the names in a text", () => {
  it("ask a measure each, under the filters that reach the text and that its table knows", () => {
    const queries = textQueries(text(words), { project, board, state: picked });
    expect(queries).toEqual([
      {
        table: "trips",
        measures: [{ id: "riders" }],
        filters: [
          { column: "trips.route", in: ["A"] },
          { column: "trips.route", in: ["North Quay"] },
        ],
        inputs: {},
      },
      { table: "plan", measures: [{ id: "planned" }], filters: [], inputs: {} },
      expect.objectContaining({ measures: [{ id: "picked" }] }),
    ]);
  });

  it("say which filters leave the text whole", () => {
    const ground = { project, board, state: UNTOUCHED };
    expect(wholeForText(text(words), ground)).toEqual(["Day"]);
    // A text without measures is of no rows; one whose measures know nothing of a column is left whole too.
    expect(wholeForText(text("{goal}"), ground)).toEqual([]);
    expect(wholeForText(text("{planned}"), ground)).toEqual(["Route", "Day"]);
  });

  it("stand for values, for what is picked, and for nothing while an answer is awaited", () => {
    const ground = { project, board, state: { ...picked, inputs: { goal: 9 } } };
    const names = textNames(text(words), ground, (query) =>
      query.table === "plan"
        ? { error: "No." }
        : JSON.stringify(query.measures) === '[{"id":"riders"}]'
          ? ({ totals: { riders: 12 }, columns: [{ name: "riders", type: "number", values: [12] }] } as never)
          : null,
    );
    expect(names).toMatchObject({
      riders: { value: 12 },
      planned: "—",
      goal: { value: 9 },
      picked: "North Quay",
      "measure.picked": "…",
    });
    expect(textNames(text(words), { project, board, state: UNTOUCHED }, () => null).picked).toBe("all");
  });

  it("are renamed with what they name, and count as its uses", () => {
    const full = { ...project, boards: [board] };
    const renamed = edited(full, { type: "change measure", id: "m", change: { name: "people" } });
    expect(renamed.boards[0].tiles[0]).toMatchObject({ text: words.replace("{riders}", "{people}") });
    // A measure that is called like a word of texts is written with its sort, and only that is renamed.
    const other = edited(full, { type: "change measure", id: "k", change: { name: "chosen" } });
    expect(other.boards[0].tiles[0]).toMatchObject({ text: words.replace("{measure.picked}", "{chosen}") });
    const input = edited(full, { type: "change input", id: "i", change: { name: "today" } });
    expect(input.boards[0].tiles[0]).toMatchObject({ text: words.replace("{goal}", "{input.today}") });
    expect(usesOfMeasure(full, "m").boards.map((b) => b.id)).toEqual(["b"]);
    expect(usesOfInput(full, "i").boards.map((b) => b.id)).toEqual(["b"]);
    expect(usesOfMeasure({ ...full, boards: [] }, "m").boards).toEqual([]);
  });

  it("are all offered to who writes a text", () => {
    expect(Object.keys(namesForTexts(project))).toEqual([
      "riders",
      "planned",
      "measure.picked",
      "goal",
      "picked",
      "filters",
      "today",
    ]);
  });
});
