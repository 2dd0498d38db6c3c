import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTile } from "../../testing/made-board";
import {
  alignedPlaces,
  closedUpPlaces,
  copyOfBoard,
  distributedPlaces,
  movedPlaces,
  pastedTiles,
  resizedPlaces,
  sameSizePlaces,
  sectionAround,
  swappedPlaces,
} from "./arrange";
import { newBoard, newFilter } from "./defaults";
import { edited } from "./edits";
import { boardSchema, emptyProject, type Tile } from "./schema";
import { type Place, sectionOf } from "./tile-layout";

const at = (id: string, x: number, y: number, w: number, h: number) => madeTile(id, "v", { x, y, w, h });
const section = (id: string, x: number, y: number, w: number, h: number): Tile => ({
  id,
  type: "section",
  heading: "",
  ground: "panel",
  border: true,
  phone: null,
  x,
  y,
  w,
  h,
});
const all = (...ids: string[]) => new Set(ids);
const boxes = (places: Place[]) => Object.fromEntries(places.map(({ id, x, y, w, h }) => [id, [x, y, w, h]]));
const ids = () => {
  let n = 0;
  return () => `n${n++}`;
};

describe("a board that is closed up", () => {
  const closedUp = (tiles: Tile[]) => {
    const to = new Map(closedUpPlaces(tiles).map((place) => [place.id, place]));
    return tiles.map((t) => ({ ...t, ...to.get(t.id) }));
  };

  it("has no free rows between tiles, and a section takes its own along", () => {
    const tiles = [
      at("a", 0, 3, 4, 10),
      at("b", 4, 20, 4, 10),
      section("s", 0, 40, 8, 30),
      at("in", 2, 45, 4, 10),
      at("c", 8, 0, 4, 5),
    ];
    expect(boxes(closedUpPlaces(tiles))).toEqual({
      a: [0, 0, 4, 10],
      b: [4, 0, 4, 10],
      s: [0, 10, 8, 30],
      in: [2, 15, 4, 10],
    });
    expect(closedUpPlaces(closedUp(tiles))).toEqual([]);
  });

  it("keeps tiles apart, each below what it was below, and none can go up further", () => {
    const tile = fc.record({
      x: fc.integer({ min: 0, max: 9 }),
      w: fc.integer({ min: 1, max: 3 }),
      h: fc.integer({ min: 2, max: 9 }),
      free: fc.nat(6),
    });
    fc.assert(
      fc.property(fc.array(tile, { maxLength: 12 }), (all) => {
        const tiles: Tile[] = [];
        const meets = (a: Place, b: Place) => a.x < b.x + b.w && b.x < a.x + a.w;
        for (const [i, { x, w, h, free }] of all.entries()) {
          const one = at(`t${i}`, x, 0, w, h);
          const under = tiles.filter((t) => meets(t, one)).map((t) => t.y + t.h);
          tiles.push({ ...one, y: Math.max(0, ...under) + free });
        }
        const closed = closedUp(tiles);
        for (const [i, a] of closed.entries()) {
          const above = closed.slice(0, i).filter((b) => meets(a, b));
          expect(a.y).toBe(Math.max(0, ...above.map((b) => b.y + b.h)));
        }
      }),
    );
  });
});

describe("tiles moved together", () => {
  const tiles = [
    at("a", 0, 0, 4, 10),
    at("b", 4, 5, 4, 10),
    section("s", 0, 20, 12, 30),
    at("in", 2, 25, 4, 10),
  ];

  it("keep their places to each other, and stop where the grid ends", () => {
    expect(boxes(movedPlaces(tiles, all("a", "b"), { columns: 9, rows: -9 }))).toEqual({
      a: [4, 0, 4, 10],
      b: [8, 5, 4, 10],
    });
  });

  it("take along what lies in a section among them, once", () => {
    expect(boxes(movedPlaces(tiles, all("s", "in"), { columns: 0, rows: 7 }))).toEqual({
      s: [0, 27, 12, 30],
      in: [2, 32, 4, 10],
    });
  });

  it("are resized within the grid, and a section never below what is in it", () => {
    const by = { columns: -20, rows: -200 };
    expect(boxes(resizedPlaces(tiles, all("a", "s"), { right: true, bottom: true }, by))).toEqual({
      a: [0, 0, 1, 2],
      s: [0, 20, 6, 15],
    });
    expect(boxes(resizedPlaces(tiles, all("b"), { left: true, top: true }, by))).toEqual({
      b: [0, 0, 8, 15],
    });
    expect(boxes(resizedPlaces(tiles, all("b"), { left: true }, { columns: 20, rows: 0 }))).toEqual({
      b: [7, 5, 1, 10],
    });
  });

  it("never leave the grid, whatever the hand does", () => {
    fc.assert(
      fc.property(fc.integer({ min: -40, max: 40 }), fc.integer({ min: -400, max: 400 }), (columns, rows) => {
        const held = { left: true, right: true, top: true, bottom: true };
        for (const { x, y, w, h } of [
          ...movedPlaces(tiles, all("a", "b", "s"), { columns, rows }),
          ...resizedPlaces(tiles, all("a", "b", "s"), held, { columns, rows }),
          ...resizedPlaces(tiles, all("in"), { bottom: true, right: true }, { columns, rows }),
        ]) {
          expect(x >= 0 && w >= 1 && x + w <= 12 && y >= 0).toBe(true);
          expect(h >= 2 && h <= 1000).toBe(true);
        }
      }),
    );
  });
});

describe("tiles put in order", () => {
  const tiles = [at("a", 1, 3, 2, 10), at("b", 5, 20, 4, 6), at("c", 10, 40, 2, 10)];

  it("are lined up at each edge of the box around them", () => {
    const x = (edge: Parameters<typeof alignedPlaces>[2]) =>
      alignedPlaces(tiles, all("a", "b", "c"), edge).map((p) => [p.x, p.y]);
    expect(x("left")).toEqual([
      [1, 3],
      [1, 20],
      [1, 40],
    ]);
    expect(x("right")).toEqual([
      [10, 3],
      [8, 20],
      [10, 40],
    ]);
    expect(x("centre")).toEqual([
      [6, 3],
      [5, 20],
      [6, 40],
    ]);
    expect(x("top")).toEqual([
      [1, 3],
      [5, 3],
      [10, 3],
    ]);
    expect(x("bottom")).toEqual([
      [1, 40],
      [5, 44],
      [10, 40],
    ]);
    expect(x("middle")).toEqual([
      [1, 22],
      [5, 24],
      [10, 22],
    ]);
  });

  it("take along what lies in a section that is lined up", () => {
    const within = [section("s", 4, 20, 6, 20), at("in", 5, 25, 2, 10), at("a", 0, 3, 2, 10)];
    expect(boxes(alignedPlaces(within, all("s", "a"), "left"))).toEqual({
      s: [0, 20, 6, 20],
      in: [1, 25, 2, 10],
      a: [0, 3, 2, 10],
    });
  });

  it("have the same space between them, or the same size as the first", () => {
    expect(boxes(distributedPlaces(tiles, all("c", "a", "b"), "down"))).toEqual({
      a: [1, 3, 2, 10],
      b: [5, 24, 4, 6],
      c: [10, 40, 2, 10],
    });
    expect(boxes(distributedPlaces(tiles, all("a", "b", "c"), "across")).b).toEqual([5, 20, 4, 6]);
    expect(boxes(sameSizePlaces(tiles, all("b", "a", "c"), "w"))).toEqual({
      a: [1, 3, 4, 10],
      c: [8, 40, 4, 10],
    });
    expect(boxes(sameSizePlaces(tiles, all("b", "a"), "h"))).toEqual({ a: [1, 3, 2, 6] });
  });

  it("exchange their places whole", () => {
    expect(boxes(swappedPlaces(tiles, "a", "b"))).toEqual({ a: [5, 20, 4, 6], b: [1, 3, 2, 10] });
    expect(swappedPlaces(tiles, "a", "gone")).toEqual([]);
  });
});

describe("a section around tiles", () => {
  it("holds them below its heading, and nothing else; what stood below gives way", () => {
    const tiles = [at("a", 0, 0, 4, 10), at("b", 4, 0, 4, 10), at("below", 0, 10, 4, 10)];
    const around = sectionAround(tiles, all("a", "b"));
    if (!around) throw new Error("no section");
    const project = { ...emptyProject("P"), boards: [newBoard({ id: "b", name: "B", tiles })] };
    const made = { ...section("s", 0, 0, 1, 1), ...around.section };
    const [board] = edited(project, {
      type: "add tiles",
      board: "b",
      tiles: [made],
      places: around.places,
    }).boards;
    const within = board.tiles.filter((t) => sectionOf(t, board.tiles)?.id === "s").map((t) => t.id);
    expect(within).toEqual(["a", "b"]);
    expect(board.tiles.find((t) => t.id === "below")?.y).toBe(17);
    expect(sectionAround(board.tiles, all("s"))).toBeNull();
  });
});

describe("copies", () => {
  it("lie where the copied ones lay on a board where that is free, else where there is room", () => {
    const tiles = [at("a", 0, 0, 4, 10), at("b", 6, 3, 4, 10)];
    const there = pastedTiles(tiles, [], ids());
    expect(there.map(({ id, x, y }) => [id, x, y])).toEqual([
      ["n0", 0, 0],
      ["n1", 6, 3],
    ]);
    const here = pastedTiles(tiles, tiles, ids());
    expect(here.map(({ x, y }) => [x, y])).toEqual([
      [0, 13],
      [6, 16],
    ]);
    expect(pastedTiles([], tiles, ids())).toEqual([]);
  });

  it("of a board name their own tiles in what its filters leave, and in its order on a phone", () => {
    const board = newBoard({
      id: "b",
      name: "B",
      tiles: [at("a", 0, 0, 4, 10), at("c", 6, 3, 4, 10)],
      controls: [newFilter({ id: "f", label: "F", table: "t", column: "c", leaves: ["c", "gone"] })],
      phoneOrder: ["c", "a"],
    });
    const copy = copyOfBoard(board, "Copy", ids());
    expect(copy.tiles.map((t) => t.id)).toEqual(["n0", "n1"]);
    expect(copy.controls[0]).toMatchObject({ leaves: ["n1"] });
    expect(copy.phoneOrder).toEqual(["n1", "n0"]);
    expect(boardSchema.parse(copy)).toEqual(copy);
  });
});

describe("edits of tiles", () => {
  const tiles = [at("a", 0, 0, 4, 10), at("b", 0, 10, 4, 10)];
  const project = { ...emptyProject("P"), boards: [newBoard({ id: "b", name: "B", tiles })] };
  const boardAfter = (edit: Parameters<typeof edited>[1]) => edited(project, edit).boards[0];

  it("let free rows stay where a tile goes", () => {
    expect(boardAfter({ type: "remove tiles", board: "b", tiles: ["a"] }).tiles).toEqual([tiles[1]]);
  });

  it("add a tile where there is room, and move nothing", () => {
    const tile = { id: "t", type: "line", along: "across" } as const;
    const { tiles: now } = boardAfter({ type: "add tile", board: "b", tile, size: { width: 8, height: 3 } });
    expect(now.slice(0, 2)).toEqual(tiles);
    expect(now[2]).toEqual({ ...tile, x: 4, y: 0, w: 8, h: 3, phone: null });
  });

  it("change only what a tile of its type has", () => {
    const change = { as: "table", heading: "x", phone: 30 } as const;
    const [tile] = boardAfter({ type: "change tile", board: "b", tile: "a", change }).tiles;
    expect(tile).toEqual({ ...tiles[0], as: "table", phone: 30 });
    expect(
      boardSchema.parse(boardAfter({ type: "change tile", board: "b", tile: "a", change })),
    ).toBeTruthy();
  });

  it("let go of a finish and a palette in the looks of boards where they are removed", () => {
    const [own] = project.boards;
    const dressed = {
      ...project,
      finishes: [{ id: "mine", name: "Mine", base: "soft", dials: {} }],
      boards: [{ ...own, look: { ...own.look, finish: "mine", palette: "gone" } }],
    };
    expect(edited(dressed, { type: "remove finish", id: "mine" }).boards[0].look.finish).toBe("soft");
    expect(edited(dressed, { type: "remove palette", id: "gone" }).boards[0].look.palette).toBeNull();
    expect(edited(dressed, { type: "remove palette", id: "other" }).boards[0].look.palette).toBe("gone");
  });

  it("change a board's width and parts of its look", () => {
    const { look, width } = boardAfter({
      type: "change board",
      board: "b",
      change: { width: 1440, look: { frame: "line" } },
    });
    expect([width, look.frame, look.ground]).toEqual([1440, "line", "none"]);
  });
});
