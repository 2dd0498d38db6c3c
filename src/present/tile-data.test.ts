import { beforeEach, describe, expect, it } from "vitest";
import { runQueries } from "@/core/engine/run";
import { type QueryInput, querySchema } from "@/core/plan/query";
import { QueryError } from "@/core/plan/query-error";
import { newFilter, newVisual } from "@/core/project/defaults";
import { scopeOf } from "@/core/project/names";
import { boardSchema, type Visual } from "@/core/project/schema";
import { categoryKey } from "@/core/rows/row-key";
import { type BoardAction, boardReducer, inputsOf, UNTOUCHED } from "@/core/view/board-state";
import { madeTile } from "../testing/made-board";
import { CLASSES, TRIPS, tripsProject } from "../testing/made-trips";
import type { Answer } from "./answers";
import type { VisualOnTile } from "./board-grid";
import { type TileGround, TilesData } from "./tile-data";

const visual = (id: string, kind: Visual["kind"], column: string | null) =>
  newVisual({ id, name: id, kind, value: "m", ...(column === null ? {} : { split: { column } }) });
const project = tripsProject([
  visual("routes", "donut", "route"),
  visual("classes", "donut", "class"),
  visual("all", "number", null),
]);
const tiles = project.visuals.map((v) => madeTile(`on-${v.id}`, v.id)) as VisualOnTile[];
const board = boardSchema.parse({
  id: "b",
  name: "B",
  tiles,
  controls: [newFilter({ id: "class", label: "Class", table: "trips", column: "class" })],
});

/** Answers of the engine, as far as they were let through. */
const answered = new Map<string, Answer>();
let asked: QueryInput[] = [];
function answerAll(): void {
  for (const query of asked) {
    const parsed = querySchema.parse(query);
    const [found] = runQueries([parsed], { scope: scopeOf(project), inputs: {}, tables: [TRIPS] });
    answered.set(JSON.stringify(query), found instanceof QueryError ? { error: found.message } : found);
  }
}
const groundAfter = (...actions: BoardAction[]): TileGround => {
  const state = actions.reduce(boardReducer, UNTOUCHED);
  return {
    project,
    board,
    state,
    inputs: inputsOf(project.inputs, state),
    design: { palettes: [], finishes: [], pictures: [] },
    theme: "light",
    answer: (query) => {
      asked.push(query);
      return answered.get(JSON.stringify(query)) ?? null;
    },
  };
};
const values = ({ data }: { data: { rows: { label: string; value: number | null }[] } }) =>
  Object.fromEntries(data.rows.map((r) => [r.label, r.value]));
const toNight: BoardAction = { type: "set filter", control: "class", setting: { in: ["night"] } };
const PICK: BoardAction = {
  type: "pick",
  visual: "classes",
  side: "split",
  key: categoryKey("night"),
  more: false,
  shown: CLASSES.slice(1, 3).map(categoryKey),
};
const LIGHT_UP: BoardAction = { type: "light up", visual: "classes", side: "split", part: true };

let shown: TilesData;
const [routes, classes, all] = [0, 1, 2];
const now = (at: number, ground: TileGround) => shown.of(tiles[at], project.visuals[at], ground);
/** What a tile shows once everything that it asks for is answered. */
function settled(at: number, ground: TileGround) {
  now(at, ground);
  answerAll();
  return now(at, ground);
}
beforeEach(() => {
  shown = new TilesData();
  answered.clear();
  asked = [];
});

describe("what the tiles of a board show", () => {
  it("is what their queries are answered, and the same object until something changes", () => {
    const ground = groundAfter();
    expect(now(routes, ground).pending).toBe(true);
    const first = settled(routes, ground);
    expect(first.pending).toBe(false);
    expect(values(first)).toEqual({ Ferrow: 100, "Gull Bay": 70, Orrin: 40 });
    expect(now(routes, groundAfter()).data).toBe(first.data);
    const night = settled(routes, groundAfter(toNight));
    expect(night.data).not.toBe(first.data);
    expect(values(night)).toEqual({ "Gull Bay": 50, Orrin: 40, Ferrow: 30 });
  });

  it("stays while the next answer is under way, and is told to be pending", () => {
    const before = settled(routes, groundAfter());
    const meanwhile = now(routes, groundAfter(toNight));
    expect(meanwhile.pending).toBe(true);
    expect(meanwhile.data).toBe(before.data);
    answerAll();
    expect(values(now(routes, groundAfter(toNight)))).toEqual({ "Gull Bay": 50, Orrin: 40, Ferrow: 30 });
  });

  it("keeps only what is picked on another visual, whose own stays whole", () => {
    const ground = groundAfter(PICK);
    expect(values(settled(routes, ground))).toEqual({ "Gull Bay": 50, Orrin: 40, Ferrow: 30 });
    expect(values(settled(classes, ground))).toEqual({ night: 120, day: 90 });
    expect(now(routes, ground).part).toBeNull();
  });

  it("lights up the part of what is picked in its whole where it can, else keeps only it and says so", () => {
    const ground = groundAfter(PICK, LIGHT_UP);
    const lit = settled(routes, ground);
    expect(values(lit)).toEqual({ Ferrow: 100, "Gull Bay": 70, Orrin: 40 });
    expect(lit.keepsOnly).toBe(false);
    expect(lit.data.rows.map((r) => lit.part?.(r.key))).toEqual([0.3, 50 / 70, 1]);
    settled(all, ground);
    answerAll();
    const number = now(all, ground);
    expect([number.keepsOnly, number.part, number.pending]).toEqual([true, null, false]);
    expect(number.data.total ?? number.data.rows[0]?.value).toBe(120);
  });

  it("lights up the part of the few that it keeps, whichever are the most of what is picked", () => {
    const few = { ...project.visuals[routes], keep: { first: 1, others: true } };
    const ground = groundAfter(PICK, LIGHT_UP);
    shown.of(tiles[routes], few, ground);
    answerAll();
    const lit = shown.of(tiles[routes], few, ground);
    expect(lit.data.rows.map((r) => r.value)).toEqual([100, 110]);
    expect(lit.data.rows.map((r) => lit.part?.(r.key))).toEqual([0.3, 90 / 110]);
  });

  it("is made anew once all is forgotten", () => {
    const first = settled(routes, groundAfter());
    shown.clear();
    const again = now(routes, groundAfter());
    expect(again.data).not.toBe(first.data);
    expect(again.data).toEqual(first.data);
  });

  it("says why there is no answer, in the words of the engine", () => {
    const broken = { ...project, measures: [{ ...project.measures[0], formula: "sum(nothing)" }] };
    const ground = { ...groundAfter(), project: broken };
    now(routes, ground);
    for (const query of asked) answered.set(JSON.stringify(query), { error: "There is no column nothing." });
    expect(now(routes, ground).data.problem).toContain("There is no column nothing.");
  });
});
