import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTile } from "../../testing/made-board";
import { madeTable, scopeColumns } from "../../testing/made-table";
import type { Value } from "../base/value";
import { runQueries } from "../engine/run";
import { type QueryInput, querySchema, type Result } from "../plan/query";
import { newBoard, newMeasure, newVisual } from "../project/defaults";
import { emptyProject, type Project, tableSchema } from "../project/schema";
import { categoryKey, type RowKey, rowKey } from "../rows/row-key";
import { answeringTiles, type BoardState, boardReducer, filtersOfTile, UNTOUCHED } from "./board-state";
import { answersText, pickedInWords } from "./picked-words";
import { filterOfPick, isPickable, type Picked, pickedAfter, withoutGone } from "./picks";
import { toQuery } from "./query";
import { toVisualData } from "./visual-data";

const trips = madeTable("trips", {
  route: ["text", ["A", "A", "B", "B", "B", "C", "D", "E", null, "constructor"]],
  port: ["text", ["x", "y", "x", "z", "?", "y", null, "x", "z", "?"]],
  day: ["date", [20_000, 20_040, 20_080, 20_100, 20_400, 20_001, 20_002, null, 20_300, 20_301]],
  full: ["boolean", [true, false, true, null, true, false, true, null, false, true]],
  riders: ["number", [5, 7, 11, 2, 3, 1, 9, 4, 6, 8]],
});
const ports = madeTable("ports", {
  name: ["text", ["x", "y", "z"]],
  region: ["text", ["north", null, "south"]],
});
const declared = (table: typeof trips) =>
  tableSchema.parse({
    id: table.name,
    name: table.name,
    rows: table.rows,
    columns: table.columns.map((c) => ({ name: c.name, reading: { type: c.data.type } })),
    source: { file: "t.csv" },
  });
const visual = (id: string, column: string, by?: "month") =>
  newVisual({
    id,
    name: `By ${column}`,
    kind: "donut",
    value: "m",
    split: { column, ...(by ? { by } : {}) },
    keep: { first: 2, others: true },
  });
const project: Project = {
  ...emptyProject("P"),
  tables: [declared(trips), declared(ports)],
  links: [{ id: "l", table: "trips", column: "port", to: "ports", key: "name" }],
  measures: [
    newMeasure({ id: "m", name: "carried", label: "Carried", table: "trips", formula: "sum(riders)" }),
    newMeasure({ id: "p", name: "ports", label: "Ports", table: "ports", formula: "count(*)" }),
  ],
  visuals: [
    visual("routes", "route"),
    visual("regions", "ports.region"),
    visual("months", "day", "month"),
    visual("full", "full"),
    newVisual({ id: "all", name: "All", kind: "number", value: "m" }),
    newVisual({ id: "ports", name: "Ports", kind: "number", value: "p" }),
  ],
};
const catalog = {
  tables: [trips, ports],
  inputs: {},
  scope: {
    tables: [trips, ports].map((t) => ({ name: t.name, columns: scopeColumns(t) })),
    measures: project.measures,
    inputs: [],
    links: project.links,
  },
};
const answer = (query: QueryInput | null): Result => {
  const [found] = runQueries([querySchema.parse(query)], catalog);
  if (!("rows" in found)) throw found;
  return found;
};
const visualOf = (id: string) => project.visuals.find((v) => v.id === id) as Project["visuals"][number];
const dataOf = (id: string) => toVisualData(visualOf(id), project, answer(toQuery(visualOf(id), project)));
const OTHER = rowKey({ type: "other" });
const [A, B, NONE] = [categoryKey("A"), categoryKey("B"), categoryKey(null)];
const click = (picks: readonly Picked[], key: RowKey, more = false, of = "routes") =>
  pickedAfter(picks, { visual: of, side: "split", key, more, shown: [A, B, OTHER] });
const tile = (id: string, of: string, aside = false) => madeTile(id, of, { aside });

describe("a pick", () => {
  it("is of one category, another in its place, or none where it is clicked again", () => {
    const one = click([], A);
    expect(one).toEqual([{ visual: "routes", side: "split", keys: [A] }]);
    expect(click(one, B)).toEqual([{ visual: "routes", side: "split", keys: [B] }]);
    expect(click(one, A)).toEqual([]);
  });

  it("is of several by a key that is held, and other visuals keep theirs", () => {
    const two = click(click([], A), NONE, true);
    expect(two[0].keys).toEqual([A, NONE]);
    expect(click(two, A, true)[0].keys).toEqual([NONE]);
    expect(click(two, B)[0].keys).toEqual([B]);
    const both = click(two, A, false, "full");
    expect(both.map((p) => [p.visual, p.keys.length])).toEqual([
      ["routes", 2],
      ["full", 1],
    ]);
    expect(click(both, NONE, true)[1]).toBe(both[1]);
  });

  it("of Other keeps what stood beside it", () => {
    const [picked] = click([], OTHER);
    expect(picked.but).toEqual([A, B]);
    expect(filterOfPick(picked, visualOf("routes"), project)).toEqual({
      column: "trips.route",
      not: ["A", "B"],
    });
    // With one of those: all but the other.
    const [more] = click([picked], A, true);
    expect(filterOfPick(more, visualOf("routes"), project)).toEqual({ column: "trips.route", not: ["B"] });
  });

  it("is no measure and no whole", () => {
    expect(isPickable(rowKey({ type: "measure", id: "m" }))).toBe(false);
    expect(isPickable(rowKey({ type: "whole" }))).toBe(false);
    expect([A, OTHER, rowKey({ type: "no match" })].every(isPickable)).toBe(true);
  });

  it("keeps just the rows of the segments that are picked, with Other, empty and unmatched ones apart", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("routes", "regions", "months", "full"),
        fc.integer({ min: 1, max: 5 }),
        fc.boolean(),
        fc.infiniteStream(fc.boolean()),
        (id, first, others, coins) => {
          const shownIn = { ...visualOf(id), keep: { first, others } };
          const data = toVisualData(shownIn, project, answer(toQuery(shownIn, project)));
          const shown = data.rows.map((r) => r.key);
          const rows = data.rows.filter(() => coins.next().value);
          const picks = rows.reduce<Picked[]>(
            (all, { key }) => pickedAfter(all, { visual: id, side: "split", key, more: true, shown }),
            [],
          );
          const state: BoardState = { ...UNTOUCHED, picks };
          const filters = filtersOfTile({ controls: [] }, state, tile("t", "all"), project);
          const found = answer(toQuery(visualOf("all"), project, filters)).totals.carried ?? 0;
          const wanted = rows.length > 0 ? rows : data.rows.length ? null : [];
          const total = answer(toQuery(visualOf("all"), project)).totals.carried as Value;
          expect(found).toBe(wanted ? wanted.reduce((sum, r) => sum + (r.value ?? 0), 0) : total);
        },
      ),
      { numRuns: 300, seed: 5 },
    );
  });

  it("leaves its own visual whole, and one that stands aside", () => {
    const state = boardReducer(UNTOUCHED, {
      type: "pick",
      visual: "routes",
      side: "split",
      key: A,
      more: false,
      shown: [],
    });
    const filters = (of: string, aside?: boolean) =>
      filtersOfTile({ controls: [] }, state, tile("t", of, aside), project);
    expect(filters("routes")).toEqual([]);
    expect(filters("full")).toEqual([{ column: "trips.route", in: ["A"] }]);
    expect(filters("full", true)).toEqual([]);
    expect(boardReducer(state, { type: "let go" }).picks).toEqual([]);
    expect(boardReducer(state, { type: "let go", visual: "full", side: "split" }).picks).toHaveLength(1);
    expect(boardReducer(state, { type: "let go", visual: "routes", side: "split" }).picks).toEqual([]);
  });

  it("says what is picked and who answers", () => {
    const tiles = [
      tile("1", "routes"),
      tile("2", "full"),
      tile("3", "all", true),
      tile("4", "ports"),
      tile("5", "months"),
    ];
    const board = newBoard({ id: "b", name: "B", tiles });
    const state = { picks: click(click([], A), NONE, true), steps: {} };
    expect(answeringTiles(board, state, project)).toEqual({ answer: 2, aside: 1, without: 1 });
    expect(answersText(state, { board, project })).toBe(
      "2 visuals answer, 1 stands aside, 1 has no such column",
    );
    expect(pickedInWords(state, project)[0]).toMatchObject({ text: "route: A, (none)", from: "By route" });
    expect(pickedInWords({ picks: [{ ...state.picks[0], visual: "gone" }], steps: {} }, project)).toEqual([]);
  });

  it("of dates is by their stretch, and says so", () => {
    const [first] = dataOf("months").rows;
    const picks: Picked[] = [{ visual: "months", side: "split", keys: [first.key] }];
    expect(
      filtersOfTile({ controls: [] }, { ...UNTOUCHED, picks }, tile("t", "all"), project)[0],
    ).toMatchObject({
      column: "trips.day",
      by: "month",
    });
    expect(pickedInWords({ picks, steps: {} }, project)[0].text).toMatch(/^month: \w{3} 20\d\d$/);
  });
});

describe("a pick of categories that went", () => {
  it("keeps those that are there, by their types, and Other and what has no match", () => {
    const picked = (...keys: RowKey[]): Picked => ({ visual: "routes", side: "split", keys });
    const [other, none] = [rowKey({ type: "other" }), rowKey({ type: "no match" })];
    const values = ["A", null, true];
    expect(withoutGone(picked(categoryKey("A"), categoryKey(null), other, none), values)).toBeNull();
    const found = withoutGone(picked(categoryKey("A"), categoryKey("true"), categoryKey("Z")), values);
    expect(found?.left?.keys).toEqual([categoryKey("A")]);
    expect(found?.gone.keys).toEqual([categoryKey("true"), categoryKey("Z")]);
    expect(withoutGone(picked(categoryKey("Z")), values)?.left).toBeNull();
  });
});
