import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTile } from "../../testing/made-board";
import { newBoard } from "./defaults";
import { phonePlaces, phoneTiles, readingOrder, shiftedOrder } from "./phone-layout";
import type { Board, Tile } from "./schema";
import { sectionOf } from "./tile-layout";

const at = (id: string, x: number, y: number, w = 6, h = 20) => madeTile(id, "v", { x, y, w, h });
const section = (id: string, y: number, h: number, x = 0, w = 12): Tile => ({
  id,
  type: "section",
  heading: "H",
  ground: "panel",
  border: true,
  phone: null,
  x,
  y,
  w,
  h,
});
const ids = (tiles: readonly Tile[]) => tiles.map((t) => t.id);
const board = (tiles: Tile[], more: Partial<Board> = {}) => newBoard({ id: "b", name: "B", tiles, ...more });

describe("the order on a phone", () => {
  const tiles = [
    at("c", 6, 0),
    at("a", 0, 0),
    section("s", 20, 30),
    at("in2", 6, 25),
    at("in1", 0, 25),
    at("z", 0, 60),
  ];

  it("goes from the top row down, each from the left, a section before its own", () => {
    expect(ids(phoneTiles(board(tiles)))).toEqual(["a", "c", "s", "in1", "in2", "z"]);
    expect(ids(readingOrder(tiles))).toEqual(["a", "c", "s", "in1", "in2", "z"]);
  });

  it("can be one's own: what is not named follows the one that it stands after, and sections stay whole", () => {
    const own = ids(phoneTiles(board(tiles, { phoneOrder: ["z", "in2", "s", "in1"] })));
    expect(own).toEqual(["a", "c", "z", "s", "in2", "in1"]);
  });

  it("moves a tile among those beside it: past a section whole, and never out of its own", () => {
    const moved = (of: Board, id: string, by: 1 | -1) => {
      const phoneOrder = shiftedOrder(of, id, by);
      return phoneOrder && ids(phoneTiles({ ...of, phoneOrder }));
    };
    const start = board(tiles);
    expect(moved(start, "z", -1)).toEqual(["a", "c", "z", "s", "in1", "in2"]);
    expect(moved(start, "c", 1)).toEqual(["a", "s", "in1", "in2", "c", "z"]);
    expect(moved(start, "in1", 1)).toEqual(["a", "c", "s", "in2", "in1", "z"]);
    expect(moved(start, "in2", 1)).toBeNull();
    expect(moved(start, "a", -1)).toBeNull();
    expect(moved(start, "gone", 1)).toBeNull();
  });

  it("has each tile once, whatever order is named", () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom("a", "c", "s", "in1", "in2", "z", "gone", "constructor")),
        (named) => {
          const found = phoneTiles(board(tiles, { phoneOrder: named }));
          expect(ids(found).toSorted()).toEqual(ids(tiles).toSorted());
          const first = found.findIndex((t) => t.id === "s");
          expect(found.slice(first + 1, first + 3).every((t) => sectionOf(t, tiles)?.id === "s")).toBe(true);
        },
      ),
      { numRuns: 200, seed: 3 },
    );
  });
});

describe("the places on a phone", () => {
  it("follow each other without a gap, and a section lies under all of its own", () => {
    const tiles = [at("a", 0, 0), section("s", 20, 30), at("in", 0, 25), at("z", 0, 60)];
    const places = phonePlaces(board(tiles));
    expect(places.get("a")).toEqual({ row: 0, rows: 21, section: null });
    expect(places.get("in")).toEqual({ row: 26, rows: 21, section: "s" });
    expect(places.get("s")).toEqual({ row: 21, rows: 27, section: null });
    expect(places.get("z")?.row).toBe(48);
  });

  it("have the height that is set, else one that a phone can show", () => {
    const high = phonePlaces(
      board([at("a", 0, 0, 6, 200), { ...at("b", 0, 200), phone: 60 }, at("c", 0, 220, 6, 4)]),
    );
    expect([...high.values()].map((p) => p.rows)).toEqual([49, 60, 21]);
  });
});
